"""Something on its wall, drawn: the floor, what carries behind it, its hooks, with the sizes that one gives typed where they stand."""

from fennup.core.drawing.edit import TypeIn
from fennup.core.drawing.view import Dimension, Shape, View
from fennup.core.errors import SpecError
from fennup.core.finish.standing import Standing
from fennup.core.geometry.polygon import circle, hull
from fennup.core.geometry.vec import Point2

BESIDE = 0.35  # of how wide it is: how far the wall is drawn beyond it
HOOK = 0.02


def wall_view(standing: Standing) -> View | None:
    """As one stands before it; None where no height is said, or hooks cannot be there."""
    site = standing.finish.wishes.site
    try:
        hung = standing.hung
    except SpecError:
        return None
    if hung is None or site.top_mm is None:
        return None
    top = site.top_mm
    wide, up = standing.size[0], 1 if standing.lies_flat else 2
    design = standing.finish.design
    corners = {
        id: [(p[0], p[up]) for piece in solid.world for p in piece.points]
        for id, solid in design.solids.items()
        if not design.boards[id].found
    }
    left = min(x for points in corners.values() for x, _ in points)
    high = max(y for points in corners.values() for _, y in points)

    def at(p: Point2) -> Point2:
        return (p[0] - left - wide / 2, p[1] - high + top)

    wall = wide * (0.5 + BESIDE)
    shapes = [Shape("ground", ((-wall, 0.0), (wall, 0.0)))]
    shapes += [Shape("unseen", ((x, 0.0), (x, top * (1 + BESIDE / 2)))) for x in hung.studs_mm]
    shapes += [Shape("wood", hull([at(p) for p in points]), True, id, (1.0, 0.0)) for id, points in corners.items()]
    shapes += [Shape("hole", circle((x, hung.up_mm), wide * HOOK), True) for x in hung.hooks_mm]
    edge = wide / 2
    typed = {name: TypeIn(op="type", path=f"site/{name}", text="") for name in ("top_mm", "hooks_in_mm", "drop_mm")}
    sizes = (
        Dimension("top", "", (edge, 0.0), (edge, top), top, "mm", "given", (1.0, 0.0), 2.5, acts=typed["top_mm"]),
        Dimension(
            "in", "", (-edge, top), (hung.hooks_mm[0], top), edge + hung.hooks_mm[0], "mm",
            "given" if site.hooks_in_mm is not None else "suggested", (0.0, 1.0), 2.0, acts=typed["hooks_in_mm"],
        ),
        Dimension("drop", "", (-edge, hung.up_mm), (-edge, top), site.drop_mm, "mm", "given", (-1.0, 0.0), 2.5, acts=typed["drop_mm"]),
    )  # fmt: skip
    return View("on_wall", tuple(shapes), (), sizes)

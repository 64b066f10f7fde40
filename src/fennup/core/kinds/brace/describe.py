"""What a brace shows of itself: in its place from the front; a ladder from the side and from above too."""

from dataclasses import replace

from fennup.core.drawing.board_views import pictorial
from fennup.core.drawing.view import Description, Shape
from fennup.core.geometry.polygon import hull
from fennup.core.geometry.vec import Point2
from fennup.core.kinds.brace.controls import controls_of
from fennup.core.kinds.brace.sizing import SIZING
from fennup.core.kinds.brace.spec import BraceSpec, Prop
from fennup.core.kinds.gauged import DOWN, FRONT, LEFT, RIGHT, SIDE, UP, Shown, rows, view
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid


def describe(spec: BraceSpec, ruler: Ruler, solids: dict[str, Solid]) -> Description:
    """Views, controls and sizes of a solved brace."""
    given = spec.standings()
    views = [view(FRONT, ruler, solids, given, _on_front(ruler))]
    if isinstance(spec.place, Prop) and spec.place.treads:
        views = [replace(views[0], shapes=(*views[0].shapes, *_behind(solids)))]
        views.append(view(SIDE, ruler, solids, given, [("tread_rise", LEFT, 2.0)]))
    free = SIZING.free(spec)
    facts = (f"brace_{spec.place.form}", *((f"free:{free}",) if free else ()))
    names = list(ruler.assembly.by_name)
    return Description(
        facts, pictorial(ruler.assembly, solids), tuple(views), lambda: controls_of(spec), rows(ruler, names, given)
    )


def _behind(solids: dict[str, Solid]) -> list[Shape]:
    """What the near upright hides: the treads and what stands on them."""
    hidden = [solid for solid in solids.values() if solid.board.role in ("tread", "wall")]
    outlines = [hull([FRONT.flat(p) for piece in solid.world for p in piece.points]) for solid in hidden]
    return [Shape("unseen", outline, True) for outline in outlines]


def _on_front(ruler: Ruler) -> list[Shown]:
    """Every size where it stands: along the members outside them, along the brace on its own sides."""
    up: Point2 = FRONT.flat(next(b for b in ruler.assembly.boards if b.id in ("brace", "prop")).frame.y)
    shown: list[Shown] = [
        ("post_leg", LEFT, 1.4), ("beam_leg", UP, 1.4), ("corner_angle", UP, 0.0), ("clear", DOWN, 1.0), ("brace_rise", RIGHT, 1.4),
        ("stand_off", DOWN, 1.4), ("wall_height", RIGHT, 1.4), ("prop_lean", UP, 0.0), ("start", LEFT, 1.4),
    ]  # fmt: skip
    if "second_rise" in ruler.assembly.by_name:
        theirs = FRONT.flat(ruler.assembly.board("second").frame.y)
        shown += [("crosses_at", up, 1.0), ("second_crosses_at", theirs, 1.0)]
    elif "prop_lean" in ruler.assembly.by_name:
        shown.append(("upper_edge", up, 1.0))
    else:
        shown += [("lower_edge", (-up[0], -up[1]), 1.0), ("upper_edge", up, 1.0)]
    return shown

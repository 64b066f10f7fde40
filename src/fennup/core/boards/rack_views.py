"""A board of the rack as a drawing on which it is edited: its length, its end, its knots, what is trimmed off."""

from fennup.core.boards.rack import GRADES, Rack, RackBoard
from fennup.core.drawing.edit import Choose, TypeIn
from fennup.core.drawing.view import Control, Dimension, Grip, Option, Shape, View
from fennup.core.geometry.vec import Point2

END_AWAY = 0.06  # of the longest board: so far beside a board its end is drawn
ALONG = (1.0, 0.0)


def rectangle(x0: float, y0: float, x1: float, y1: float) -> tuple[Point2, ...]:
    """Its four corners."""
    return ((x0, y0), (x1, y0), (x1, y1), (x0, y1))


def board_view(rack: Rack, id: str) -> View:
    """One board from above, its end beside it."""
    board = rack.boards[id]
    long, wide, thick = board.length_mm, board.width_mm, board.thickness_mm
    end = long + END_AWAY * max(b.length_mm for b in rack.boards.values())
    shapes = [
        Shape("wood", rectangle(0.0, 0.0, long, wide), True, id, ALONG),
        *(Shape("waste", points, True) for points in trimmed(board)),
        *(Shape("knot", points, True) for points in knots(board)),
        Shape("wood", rectangle(end, 0.0, end + thick, wide), True, None, (0.0, 1.0), 1),
    ]

    def size(name: str, a: Point2, b: Point2, value: float, away: Point2) -> Dimension:
        acts = TypeIn(op="type", path=f"boards.{id}.{name}_mm", text="")
        return Dimension(f"{id}/{name}", f"rack_{name}", a, b, value, "mm", "given", away, 1.0, acts=acts)

    dimensions = (
        size("length", (0.0, 0.0), (long, 0.0), long, (0.0, -1.0)),
        size("width", (end + thick, 0.0), (end + thick, wide), wide, (1.0, 0.0)),
        size("thickness", (end, 0.0), (end + thick, 0.0), thick, (0.0, -1.0)),
    )
    middle = wide / 2
    grips = [
        Grip(f"{id}/trim_left_mm", (board.trim_left_mm, middle), ALONG),
        Grip(f"{id}/trim_right_mm", (long - board.trim_right_mm, middle), ALONG),
    ]
    for k, defect in enumerate(board.defects):
        low, high = defect.low_mm or 0.0, wide if defect.high_mm is None else defect.high_mm
        grips.append(Grip(f"{id}/defects.{k}", ((defect.from_mm + defect.to_mm) / 2, (low + high) / 2), ALONG))
    return View("rack_board", tuple(shapes), (), dimensions, tuple(grips))


def trimmed(board: RackBoard) -> list[tuple[Point2, ...]]:
    """What comes off its ends."""
    found = []
    if board.trim_left_mm:
        found.append(rectangle(0.0, 0.0, board.trim_left_mm, board.width_mm))
    if board.trim_right_mm:
        found.append(rectangle(board.length_mm - board.trim_right_mm, 0.0, board.length_mm, board.width_mm))
    return found


def knots(board: RackBoard) -> list[tuple[Point2, ...]]:
    """Where nothing is cut from."""
    return [
        rectangle(d.from_mm, d.low_mm or 0.0, d.to_mm, board.width_mm if d.high_mm is None else d.high_mm) for d in board.defects
    ]


def board_controls(rack: Rack, id: str) -> tuple[Control, ...]:
    """What else there is to say about a board."""
    board, at = rack.boards[id], f"boards.{id}"

    def flag(name: str) -> Option:
        now = bool(getattr(board, name))
        return Option(f"rack_{name}", (Choose(op="choose", path=f"{at}.{name}", value=not now),), now)

    def figure(name: str, value: float) -> Control:
        return Control(f"rack_{name}", "board", value=value, unit="mm", acts=TypeIn(op="type", path=f"{at}.{name}_mm", text=""))

    grades = tuple(Option(f"grade_{g}", (Choose(op="choose", path=f"{at}.grade", value=g),), board.grade == g) for g in GRADES)
    made = [
        Control(
            "rack_count", "board", value=float(board.count), unit="count", acts=TypeIn(op="type", path=f"{at}.count", text="")
        ),
        Control("rack_grade", "board", grades),
        Control(
            "rack_is",
            "board",
            tuple(flag(n) for n in ("treated", "sheet", "any_way", "reclaimed", "nails", "old_paint")),
            style="toggles",
        ),
        figure("trim_left", board.trim_left_mm),
        figure("trim_right", board.trim_right_mm),
    ]
    for k, defect in enumerate(board.defects):
        own = f"{at}.defects.{k}"
        made += [
            Control(
                code, "board", value=value, unit="mm", acts=TypeIn(op="type", path=f"{own}.{field}", text=""), about=str(k + 1)
            )
            for code, field, value in (("knot_from", "from_mm", defect.from_mm), ("knot_to", "to_mm", defect.to_mm))
        ]
        away = Option("knot_gone", (Choose(op="choose", path=own, value=None),), False)
        made.append(Control("knot", "board", (away,), about=str(k + 1), style="sentence"))
    return tuple(made)

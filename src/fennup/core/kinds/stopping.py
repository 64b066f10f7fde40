"""Grooves and rabbets in the face or the back of one board that stop before its ends, in every kind that takes them."""

from collections.abc import Iterable, Sequence
from dataclasses import replace
from typing import Annotated, Any, Literal

from pydantic import Field

from fennup.core.assembly.board import Board, Notch
from fennup.core.drawing.edit import Choose
from fennup.core.drawing.view import Control, Option
from fennup.core.errors import SpecError
from fennup.core.geometry.plane import Plane
from fennup.core.kinds.asking import figure, one_of, with_or_without
from fennup.core.kinds.fields import Section_mm, Size_mm, Strict
from fennup.core.parts.solid import ARRISES, arris_line, extent_along
from fennup.core.stock.sizes import Within_mm
from fennup.core.tolerances import NOTHING

MOST_STOPPED = 24
USUAL_STOP_MM = 40.0
ADD = "stopped.add"


class Stopped(Strict):
    """A groove that stops, or at 0 from an edge a rabbet: so far in from the lower edge, or the upper one where it is `far`; from so far from the finished left end to so far from
    the right one, tips where an end leans; none: it runs out there."""

    board: Annotated[str, Field(max_length=20, description="the board's id")]
    side: Literal["face", "back"] = "back"
    from_mm: Within_mm = 0.0
    far: bool = False
    width_mm: Section_mm
    depth_mm: Section_mm
    left_mm: Size_mm | None = None
    right_mm: Size_mm | None = None


def with_grooves(boards: Sequence[Board], rows: Sequence[Stopped]) -> tuple[Board, ...]:
    """The boards with them. SpecError `no_such_board`, `ploughed_too_large` with what there is, `stops_cross` where nothing is left between the two stops."""
    by_id = {board.id: board for board in boards}
    for k, row in enumerate(rows):
        board = by_id.get(row.board)
        if board is None:
            raise SpecError("no_such_board", (f"stopped.{k}.board",), part=row.board)
        by_id[row.board] = replace(board, notches=(*board.notches, _notch(board, row, f"stopped.{k}")))
    return tuple(by_id.values())


def _notch(board: Board, row: Stopped, field: str) -> Notch:
    """The wood that one takes, in the board's axes."""
    wide, thick = board.section.width_mm, board.section.thickness_mm
    for name, mm, limit in (
        ("depth_mm", row.depth_mm, thick),
        ("from_mm", row.from_mm, wide),
        ("width_mm", row.width_mm, wide - row.from_mm + 2 * NOTHING),
    ):
        if mm >= limit - NOTHING:
            raise SpecError("ploughed_too_large", (f"{field}.{name}",), mm=mm, limit_mm=limit, form="groove")
    low = wide / 2 - row.from_mm - row.width_mm if row.far else row.from_mm - wide / 2
    walls = [Plane((0.0, -1.0, 0.0), -low), Plane((0.0, 1.0, 0.0), low + row.width_mm)]
    reaches = [extent_along(board, *arris_line(board, arris)) for arris in ARRISES]
    start, end = min(a for a, _ in reaches), max(b for _, b in reaches)
    stops = (start + (row.left_mm or 0.0), end - (row.right_mm or 0.0))
    if stops[1] - stops[0] < NOTHING:
        raise SpecError("stops_cross", (f"{field}.{'right_mm' if row.right_mm else 'left_mm'}",), mm=end - start)
    if row.left_mm is not None:
        walls.append(Plane((-1.0, 0.0, 0.0), -stops[0]))
    if row.right_mm is not None:
        walls.append(Plane((1.0, 0.0, 0.0), stops[1]))
    floor = row.depth_mm - thick / 2
    walls.append(Plane((0.0, 0.0, 1.0 if row.side == "back" else -1.0), floor))
    return Notch(tuple(walls), groove=True)


def with_usual(document: dict[str, Any], boards: Iterable[Board], id: object) -> dict[str, Any]:
    """A spec as a document with a usual one more in a board, clear of its ends however they lean. SpecError `no_such_board`."""
    board = next((board for board in boards if board.id == id), None)
    if board is None:
        raise SpecError("no_such_board", (ADD,), part=str(id)[:20])
    reaches = [extent_along(board, *arris_line(board, arris)) for arris in ARRISES]
    (first, start), (end, last) = ((min(v), max(v)) for v in zip(*reaches, strict=True))
    stop = min(USUAL_STOP_MM, (end - start) / 3)
    wide, thick = board.section.width_mm, board.section.thickness_mm
    row = Stopped(
        board=board.id,
        from_mm=wide / 3,
        width_mm=wide / 6,
        depth_mm=thick / 3,
        left_mm=start - first + stop,
        right_mm=last - end + stop,
    )
    return {**document, "stopped": [*document["stopped"], row.model_dump(mode="json")]}


def stopped_controls(rows: Sequence[Stopped], board: str, sides: str) -> list[Control]:
    """Those of one board, on its own card; `sides` begins the codes of its sides."""
    mine = [(k, row) for k, row in enumerate(rows) if row.board == board]
    rest: list[dict[str, Any]] = [row.model_dump(mode="json") for row in rows if row.board != board]
    away = Option("no_stopped", (Choose(op="choose", path="stopped", value=rest),), not mine)
    one = Option("one_stopped", (Choose(op="choose", path=ADD, value=board),), bool(mine))
    made = [Control("stopped", "part", (away, one), about=board)]
    for k, row in mine:
        at = f"stopped.{k}"
        made += [
            one_of("stopped_side", "part", f"{at}.side", {f"{sides}_face": "face", f"{sides}_back": "back"}, row.side, board),
            figure("stopped_from", "part", row.from_mm, f"{at}.from_mm", about=board),
            one_of("stopped_far", "part", f"{at}.far", {f"{sides}_lower": False, f"{sides}_upper": True}, row.far, board),
            figure("stopped_width", "part", row.width_mm, f"{at}.width_mm", about=board),
            figure("stopped_depth", "part", row.depth_mm, f"{at}.depth_mm", about=board),
        ]
        for end, now in (("left", row.left_mm), ("right", row.right_mm)):
            made.append(
                with_or_without(
                    f"stopped_at_{end}", "part", f"{at}.{end}_mm", ("runs_out", "stops_short"), USUAL_STOP_MM, now, board
                )
            )
            if now is not None:
                made.append(figure(f"stopped_{end}", "part", now, f"{at}.{end}_mm", about=board))
    return made

"""Rows of holes in boards and panels, in every kind: through or to a depth, to take a pipe's end, or as seats for balls."""

from collections.abc import Sequence
from dataclasses import replace
from itertools import pairwise
from math import sqrt
from typing import Annotated, Literal

from pydantic import Field

from fennup.core.assembly.board import Board, Hole
from fennup.core.assembly.model import Finding
from fennup.core.errors import SpecError
from fennup.core.kinds.fields import Size_mm
from fennup.core.kinds.spacing import Spaced, Spacing, places
from fennup.core.parts.solid import Arris, arris_line, extent_along
from fennup.core.tolerances import NOTHING


class Holes(Spaced):
    """A row of holes along a board or a panel, drilled from its face or its back, `up_mm` from its lower edge there, spaced as bars are between its ends there.

    `deep_mm`: not through, but so deep. `ball_mm`: a ball lies in each; with `sinks_mm` the holes are as wide as it takes for it to sink in so far.
    """

    board: Annotated[str, Field(max_length=20, description="the board's id")]
    diameter_mm: Size_mm
    up_mm: Size_mm
    spacing: Spacing = "centres"
    side: Literal["face", "back"] = "face"
    deep_mm: Size_mm | None = None
    ball_mm: Size_mm | None = None
    sinks_mm: Size_mm | None = None

    @property
    def wide_mm(self) -> float:
        """The holes' diameter: said, or a chord's length at that depth of the ball."""
        if self.ball_mm is None or self.sinks_mm is None:
            return self.diameter_mm
        return 2.0 * sqrt(max(0.0, self.sinks_mm * (self.ball_mm - self.sinks_mm)))


def sunk_mm(ball: float, hole: float) -> float:
    """How far a ball sinks into a hole that is narrower than it, mm: its radius less that of the circle on which it rests."""
    return (ball - sqrt(ball**2 - hole**2)) / 2


def with_holes(boards: Sequence[Board], rows: Sequence[Holes]) -> tuple[Board, ...]:
    """The boards with their holes. SpecError `no_such_board`, `hole_outside`, `hole_too_deep`, `bars_too_many` where they have no room, and
    what `_check_ball` says."""
    by_id = {board.id: board for board in boards}
    for k, row in enumerate(rows):
        board = by_id.get(row.board)
        if board is None:
            raise SpecError("no_such_board", (f"holes.{k}.board",), part=row.board)
        if row.deep_mm is not None and row.deep_mm >= board.section.thickness_mm:
            most = board.section.thickness_mm
            raise SpecError("hole_too_deep", (f"holes.{k}.deep_mm",), part=row.board, mm=row.deep_mm, limit_mm=most)
        _check_ball(row, k)
        wide = row.wide_mm
        edges: tuple[Arris, Arris] = ("face_lower", "face_upper") if row.side == "face" else ("back_lower", "back_upper")
        (lower, z), (upper, _) = (arris_line(board, edge) for edge in edges)
        if not wide / 2 <= row.up_mm <= upper - lower - wide / 2:
            raise SpecError("hole_outside", (f"holes.{k}.up_mm",), part=row.board, mm=row.up_mm, limit_mm=upper - lower)
        y = lower + row.up_mm
        left, right = extent_along(board, y, z)
        middles = places(row.row(wide), right - left, f"holes.{k}")
        apart = min((b - a for a, b in pairwise(sorted(middles))), default=row.ball_mm or 0.0)
        if row.ball_mm and apart < row.ball_mm - NOTHING:
            raise SpecError("balls_touch", (f"holes.{k}.count",), part=row.board, mm=apart, limit_mm=row.ball_mm)
        made = tuple(Hole(left + at, y, wide, row.deep_mm, row.side == "back") for at in middles)
        by_id[row.board] = replace(board, holes=(*board.holes, *made))
    return tuple(by_id.values())


def _check_ball(row: Holes, k: int) -> None:
    """SpecError `ball_sinks_through` where it is not held from below, `ball_on_the_ground` where a hole is too shallow for it."""
    ball = row.ball_mm
    if ball is None:
        return
    if row.sinks_mm is not None and row.sinks_mm >= ball / 2:
        raise SpecError("ball_sinks_through", (f"holes.{k}.sinks_mm",), mm=row.sinks_mm, limit_mm=ball / 2)
    if row.wide_mm >= ball:
        raise SpecError("ball_sinks_through", (f"holes.{k}.diameter_mm",), mm=row.wide_mm, limit_mm=ball)
    deep = sunk_mm(ball, row.wide_mm)
    if row.deep_mm is not None and row.deep_mm < deep - NOTHING:
        raise SpecError("ball_on_the_ground", (f"holes.{k}.deep_mm",), mm=row.deep_mm, limit_mm=deep)


def ball_findings(rows: Sequence[Holes]) -> list[Finding]:
    """How deep the balls of each row sink, and how far they stand out."""
    return [
        Finding("ball_sits", "note", (row.board,), (f"holes.{k}.ball_mm",), sunk_mm(row.ball_mm, row.wide_mm),
                row.ball_mm - sunk_mm(row.ball_mm, row.wide_mm))
        for k, row in enumerate(rows) if row.ball_mm
    ]  # fmt: skip

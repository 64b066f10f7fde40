"""Boards with given ends, and plans of them, for tests: short to write, nothing hidden."""

from math import cos, radians, sin
from typing import Any

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly
from fennup.core.boards.planned import BoardsPlan, Cuttings, Order, plan_boards
from fennup.core.boards.rack import PriceList, Rack, RackBoard, YardItem
from fennup.core.boards.wishes import Wishes
from fennup.core.design import Design, design_of
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, plane_through
from fennup.core.project.forms import newest_form
from fennup.core.project.spec import ProjectSpec
from fennup.core.stock.ploughed import Rabbet
from fennup.core.stock.section import Section

HERE = Frame((0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, 0.0, 1.0))
RABBET = Rabbet(width_mm=8.0, depth_mm=8.0)


def cut_plane(at: float, miter: float, bevel: float, *, right: bool) -> Plane:
    """An end cut through the middle of the board at `at`, its angles with the signs of docs/conventions.md."""
    m, b = radians(miter), radians(bevel)
    # bevel = asin(nz), miter = atan2(ny, |nx|).
    flat = cos(b)
    return plane_through((at, 0.0, 0.0), ((flat * cos(m)) * (1 if right else -1), flat * sin(m), sin(b)))


def a_board(
    id: str, middle: float, left: tuple[float, float] = (0.0, 0.0), right: tuple[float, float] = (0.0, 0.0), wide: float = 60.0,
    thick: float = 20.0, *, shows: bool = True, rabbet: Rabbet | None = None,
) -> Board:  # fmt: skip
    """A board so long on its middle line, its ends as (miter, bevel)."""
    ends = cut_plane(0.0, *left, right=False), cut_plane(middle, *right, right=True)
    return Board(id, id, Section(wide, thick, (rabbet,) if rabbet else ()), HERE, (ends[0],), (ends[1],), shows=shows)


def design(*boards: Board) -> Design:
    """The boards by themselves."""
    return design_of(Assembly(boards, (), (), (), ()))


def project(document: dict[str, Any]) -> ProjectSpec:
    """A spec of one kind as a project of that."""
    return ProjectSpec.model_validate(newest_form(document))


def on_rack(*boards: dict[str, Any], keep: float = 300.0) -> Rack:
    """A rack with these boards."""
    return Rack(boards={f"r{k + 1}": RackBoard(**board) for k, board in enumerate(boards)}, keep_mm=keep)


def bar(length: float, wide: float = 60.0, thick: float = 20.0, **more: Any) -> dict[str, Any]:
    """A board of the rack."""
    return {"length_mm": length, "width_mm": wide, "thickness_mm": thick, **more}


def order(made: Design, rack: Rack, kerf: float, *items: dict[str, Any], **wishes: Any) -> Order:
    """What a plan is asked for: `items` is the price list."""
    prices = PriceList(items=[YardItem(code=f"c{k}", **item) for k, item in enumerate(items)])
    return Order((Cuttings(made.facts),), rack, prices, Wishes(**wishes), kerf)


def planned(made: Design, rack: Rack, kerf: float, *items: dict[str, Any], **wishes: Any) -> BoardsPlan:
    """The plan, which must hold."""
    plan = plan_boards(order(made, rack, kerf, *items, **wishes))
    if plan.faults:
        raise AssertionError(plan.faults)
    return plan


def where(plan: BoardsPlan) -> dict[str, str]:
    """Out of which board every piece comes."""
    return {placed.key: board.source.id for board in plan.layout.boards for placed in board.pieces}


def tip_to_tip(made: Design, plan: BoardsPlan) -> float:
    """What the pieces of the only board take of it, from the first tip to the last, measured on the finished solids."""
    (board,) = plan.layout.boards
    along = [placed.place(p)[0] for placed in board.pieces for piece in made.solids[placed.key].local for p in piece.points]
    return max(along) - min(along)

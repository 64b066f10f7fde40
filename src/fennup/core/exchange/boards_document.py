"""A boards plan as a document."""

from math import ceil

from fennup.core.boards.layout import BoardPlan, Placed
from fennup.core.boards.pieces import Piece, rough_mm
from fennup.core.boards.planned import BoardsPlan, Order
from fennup.core.boards.task import CC
from fennup.core.exchange.boards_forms import (
    BoardForm,
    BoardsDocument,
    BuyForm,
    FlawForm,
    OffcutForm,
    PlacedForm,
    SawnForm,
    UnplacedForm,
)
from fennup.core.geometry.polygon import hull
from fennup.core.geometry.vec import Vec, sub
from fennup.core.tolerances import SAME

COUNTED_IN = {
    "rack_first": "mm3", "cheapest": "cost", "fewest_boards": "boards", "least_waste": "mm3", "fewest_changes": "changes",
}  # fmt: skip
CENTS = 100.0


def boards_document(order: Order, plan: BoardsPlan, *, stopped: bool = False) -> BoardsDocument:
    """The plan, unrounded."""
    boards = [_board(order, board) for board in plan.layout.boards]
    goal = plan.task.goal
    unit = {"cheapest": CENTS, "fewest_boards": 1.0, "fewest_changes": 1.0}.get(goal, 1.0 / CC)
    short = [_unplaced(order, plan, key, piece) for key, piece in plan.layout.unplaced]
    short += [_unplaced(order, plan, key, piece) for piece in plan.homeless for key in piece.keys]
    placed = [placed for board in plan.layout.boards for placed in board.pieces]
    kept = [offcut for board in boards for offcut in board.offcuts if offcut.kept]
    buy = _buy(plan)
    return BoardsDocument(
        goal=goal,
        kerf_mm=order.kerf_mm,
        square_first=plan.task.saw.square_first,
        complete=plan.complete,
        proven=plan.packing.proven and (plan.task.complete or _as_few_as_wood_allows(order, plan)),
        all_ways=plan.task.complete,
        short_proven=plan.task.complete and not plan.task.guessed,
        stopped=stopped,
        counted_in=COUNTED_IN[goal],
        value=plan.packing.cost / unit,
        bound=plan.packing.bound / unit if plan.task.complete else float(_fewest_by_wood(order, plan)),
        currency=order.prices.currency,
        boards=boards,
        unplaced=short,
        buy=buy,
        cost=sum(line.sum for line in buy),
        wood_mm3=sum(board.source.volume for board in plan.layout.boards),
        parts_mm3=sum(_volume(order, p) for p in placed),
        kept_mm3=sum(o.width_mm * o.thickness_mm * (o.to_mm - o.from_mm) for o in kept),
        faults=[" ".join((wrong.fault, wrong.board, *wrong.pieces)) for wrong in plan.faults],
    )


def _as_few_as_wood_allows(order: Order, plan: BoardsPlan) -> bool:
    """Whether the wood of the parts alone asks for so many boards, in whatever way they are sawn."""
    fewest = _fewest_by_wood(order, plan)
    return 0 < fewest == len(plan.layout.boards) and not plan.layout.unplaced


def _fewest_by_wood(order: Order, plan: BoardsPlan) -> int:
    """How many boards the wood of the parts asks for, however they are sawn; 0 where something else than boards is counted."""
    if plan.task.goal != "fewest_boards":
        return 0
    parts = sum(_volume(order, placed) for board in plan.layout.boards for placed in board.pieces)
    most = max((source.volume for source in plan.task.sources.values()), default=0.0)
    return ceil(parts / most - SAME) if most > 0 else 0


def _volume(order: Order, placed: Placed) -> float:
    solid = order.solids.get(placed.key)
    return solid.volume() if solid else placed.piece.axis_mm * placed.piece.width_mm * placed.piece.thickness_mm


def _board(order: Order, board: BoardPlan) -> BoardForm:
    source = board.source
    return BoardForm(
        id=board.id,
        source=source.id,
        number=board.number,
        name=source.name,
        bought=source.bought,
        price=source.price,
        sheet=source.sheet,
        length_mm=source.length_mm,
        width_mm=source.width_mm,
        thickness_mm=source.thickness_mm,
        trim_mm=source.trim,
        flaws=[FlawForm(**vars(flaw)) for flaw in source.flaws],
        strips=[(s.from_mm, s.to_mm, s.low_mm, s.low_mm + s.section[0]) for s in board.way.strips],
        pieces=[_placed(order, board, placed) for placed in board.pieces],
        cuts=[
            SawnForm(
                sort=cut.sort, normal=cut.plane.normal, offset_mm=cut.plane.offset, before=list(cut.before), after=list(cut.after),
                ends=list(cut.ends),
            )
            for cut in board.cuts
        ],
        offcuts=[OffcutForm(**vars(offcut)) for offcut in board.offcuts],
    )  # fmt: skip


def _placed(order: Order, board: BoardPlan, placed: Placed) -> PlacedForm:
    origin = placed.place((0.0, 0.0, 0.0))

    def axis(p: Vec) -> Vec:
        return sub(placed.place(p), origin)

    axes = (axis((1.0, 0.0, 0.0)), axis((0.0, 1.0, 0.0)), axis((0.0, 0.0, 1.0)))
    arrises = placed.arrises()
    points = [p for line in arrises for p in line]
    solid = order.solids.get(placed.key)
    pointed = max(len(placed.end(right=False)), len(placed.end(right=True))) > 1 or placed.piece.blunt
    if solid and (pointed or placed.piece.sort in ("panel", "stave")):
        points = [placed.place(p) for piece in solid.local for p in piece.points]
    source, piece = board.source, placed.piece
    rough = (max(source.width_mm if not source.sheet else piece.width_mm, piece.width_mm), source.thickness_mm)
    return PlacedForm(
        key=placed.key,
        part=piece.id,
        project=order.project_of(placed.key),
        sort=piece.sort,
        spare=" spare " in placed.key,
        arrises=arrises,
        axes=axes,
        origin=origin,
        outline=hull([(p[0], p[1]) for p in points]),
        overall_mm=piece.overall_mm,
        rough_mm=rough_mm(piece, *rough) if abs(rough[1] - piece.thickness_mm) > SAME else piece.overall_mm,
        over_turned=axes[2][2] < 0,
        end_for_end=axes[0][0] < -SAME,
    )


def _unplaced(order: Order, plan: BoardsPlan, key: str, piece: Piece) -> UnplacedForm:
    there = [kind.length_mm for kind in plan.task.kinds if kind.section == piece.section]
    longest = max(there, default=0.0)
    homeless = {key for piece in plan.homeless for key in piece.keys}
    return UnplacedForm(
        key=key,
        part=piece.id,
        project=order.project_of(key),
        width_mm=piece.width_mm,
        thickness_mm=piece.thickness_mm,
        overall_mm=piece.overall_mm,
        why="pinned"
        if key in order.wishes.pins and key not in homeless
        else "no_board"
        if not there
        else "too_long"
        if piece.overall_mm > longest + SAME
        else "no_room",
        longest_mm=longest,
    )


def _buy(plan: BoardsPlan) -> list[BuyForm]:
    lines: dict[str, list[BoardPlan]] = {}
    for board in plan.layout.boards:
        if board.source.bought:
            lines.setdefault(board.source.id, []).append(board)
    found = []
    for boards in lines.values():
        source = boards[0].source
        spares = sum(" spare " in placed.key for board in boards for placed in board.pieces)
        found.append(
            BuyForm(
                code=source.id.removeprefix("y:"), name=source.name, count=len(boards), length_mm=source.length_mm,
                width_mm=source.width_mm, thickness_mm=source.thickness_mm, price=source.price, sum=source.price * len(boards),
                spares=spares,
            )
        )  # fmt: skip
    return sorted(found, key=lambda line: (-line.thickness_mm, -line.width_mm, -line.length_mm))

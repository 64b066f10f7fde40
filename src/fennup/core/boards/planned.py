"""From finished parts, a rack, a price list and wishes to a proved plan."""

from collections.abc import Callable, Iterable
from dataclasses import dataclass, replace
from functools import cached_property
from math import ceil

from fennup.core.boards.check import Wrong, check_layout
from fennup.core.boards.layout import Layout, laid_out
from fennup.core.boards.nesting import Saw
from fennup.core.boards.pieces import Piece, crosswise, glued_up, laid_up, pieces_of
from fennup.core.boards.planner import MOST_DIVES, plan
from fennup.core.boards.rack import PriceList, Rack, Stock
from fennup.core.boards.rows import as_piece, rows_in
from fennup.core.boards.stock import AS_LARGE, Milling, Source, Way, layers_of, only_strips, ways_of
from fennup.core.boards.task import Packing, Task, Wanted
from fennup.core.boards.wishes import Wishes
from fennup.core.parts.facts import PartFacts
from fennup.core.parts.solid import Solid
from fennup.core.records.fold import AS_PLANNED, Wood
from fennup.core.stock.section import Section as Profile
from fennup.core.tolerances import SAME

LONG_SHARE = 0.75  # of the longest piece of all: what is at least as long should be straight
RISK_BASE, RISK_COMPOUND = (
    0.05,
    0.1,
)  # of a sort of piece: how many are spoilt, and how many more for every end that leans both ways


@dataclass(frozen=True)
class BoardsPlan:
    """A plan and how good it is: `task` and `packing` are what was weighed, `faults` what the checker finds, `homeless` the pieces
    for which there is no board of that section at all."""

    task: Task
    packing: Packing
    layout: Layout
    faults: tuple[Wrong, ...]
    homeless: tuple[Piece, ...]
    pieces: tuple[Piece, ...]

    @property
    def complete(self) -> bool:
        """Whether every piece has its place."""
        return not self.layout.unplaced and not self.homeless


@dataclass(frozen=True)
class Cuttings:
    """The parts of one project. `prefix`: what its keys begin with where several are cut at once; `wood`: what was begun again at the bench, and what
    came out of another piece there."""

    parts: tuple[PartFacts, ...]
    prefix: str = ""
    wood: Wood = AS_PLANNED

    @cached_property
    def pieces(self) -> tuple[Piece, ...]:
        """As they are sawn out."""
        found = ((piece, tuple(key for key in piece.keys if key not in self.wood.instead)) for piece in pieces_of(self.parts))
        return tuple(replace(piece, keys=keys).called(self.prefix) for piece, keys in found if keys)

    @cached_property
    def again(self) -> dict[str, int]:
        """How many more of each piece, by its key."""
        return {f"{self.prefix}{key}": count for key, count in self.wood.again.items()}

    @cached_property
    def crosswise(self) -> dict[str, Piece]:
        """The panels a quarter round, by every key of theirs."""
        found = (piece.called(self.prefix) for piece in crosswise(self.parts))
        return {key: piece for piece in found for key in piece.keys}

    @cached_property
    def solids(self) -> dict[str, Solid]:
        """Every finished board by its key."""
        keys = ((facts, key) for facts in self.parts for key in facts.group.boards if key not in self.wood.instead)
        return {f"{self.prefix}{key}": facts.solids[key] for facts, key in keys}


@dataclass(frozen=True)
class Order:
    """What a plan is asked for: the parts of one project or several, the rack, the list, the wishes, the saw's kerf, and the lengths of mouldings that there are."""

    cuttings: tuple[Cuttings, ...]
    rack: Rack
    prices: PriceList
    wishes: Wishes
    kerf_mm: float
    mouldings: tuple[Source, ...] = ()

    @cached_property
    def solids(self) -> dict[str, Solid]:
        """Every finished board of every project."""
        return {key: solid for cuttings in self.cuttings for key, solid in cuttings.solids.items()}

    def project_of(self, key: str) -> str:
        """Whose piece a key is, where it is not the project's own."""
        return next((c.prefix.rstrip(":") for c in self.cuttings if c.prefix and key.startswith(c.prefix)), "")


def sources_of(rack: Rack, prices: PriceList, wishes: Wishes, mouldings: tuple[Source, ...] = ()) -> tuple[Source, ...]:
    """The boards that may be used: lengths of mouldings and the boards of the rack first."""

    def wanted(stock: Stock) -> bool:
        wood = not wishes.wood or stock.wood.casefold() == wishes.wood.casefold()
        return wood and (wishes.treated == "any" or stock.treated == (wishes.treated == "treated"))

    found = []
    if wishes.use_rack:
        found = [*mouldings, *(board.source(id) for id, board in rack.boards.items() if wanted(board))]
    if wishes.use_yard:
        sold = [item.source() for item in prices.items if wanted(item) and item.stock != 0]
        found += [replace(s, trim=(wishes.trim_mm, wishes.trim_mm)) for s in sold if s.length_mm > 2 * wishes.trim_mm]
    out = {*wishes.forbidden, *wishes.sold_out}
    return tuple(source for source in found if source.id not in out)


def spares_of(piece: Piece, count: int, wishes: Wishes) -> int:
    """How many more to cut of some alike pieces: by the risk of their cuts, or the person's own share."""
    if wishes.spares == "none":
        return 0
    share = wishes.spare_percent / 100 if wishes.spares == "own" else RISK_BASE + RISK_COMPOUND * piece.compound
    return ceil(count * share - AS_LARGE)


def task_of(order: Order) -> tuple[Task, tuple[Piece, ...], tuple[Piece, ...]]:
    """(what is to be packed, the pieces for which there is no board, all pieces with strips and spares)."""
    wishes, milling = order.wishes, order.wishes.milling(order.kerf_mm)
    sources, saw = sources_of(order.rack, order.prices, wishes, order.mouldings), Saw(order.kerf_mm, wishes.square_first)
    across = {key: piece for cuttings in order.cuttings for key, piece in cuttings.crosswise.items()}
    again = {key: count for cuttings in order.cuttings for key, count in cuttings.again.items()}
    pieces: list[Piece] = []
    homeless: list[Piece] = []
    sawn = [one for cuttings in order.cuttings for p in cuttings.pieces for one in (laid_up(p, wishes.glue_over_mm) or (p,))]
    for piece in sawn:
        other = across.get(piece.id)
        fitting = _fitting(piece, sources)
        found = _has_board(piece, fitting, milling)
        found |= other is not None and _has_board(other, [s for s in fitting if s.any_way], milling)
        strips = piece if found else _as_strips(piece, fitting, wishes)
        (homeless if strips is None else pieces).append(
            _with_spares(strips or piece, wishes, sum(again.get(key, 0) for key in piece.keys))
        )
    longest = max((piece.overall_mm for piece in pieces), default=0.0)
    wanted = []
    for piece in pieces:
        choosy = 2 * piece.shows + (piece.overall_mm >= LONG_SHARE * longest)
        fitting = _fitting(piece, sources)
        whole = None if len(fitting) == len(sources) else frozenset(source.id for source in fitting)
        rather = whole if piece.ready else _rather_boards(piece, fitting, milling) or whole
        wanted += [_kept_out(w, rather, sources, wishes) for w in _by_pins(piece, wishes, fitting, choosy)]
    for first, one in enumerate(list(wanted)):
        wanted += _other_ways(first, one, across.get(one.piece.id), sources, saw)
    ways: list[Way] = []
    complete = True
    for source in sources:
        sections = {w.piece.section for w in wanted if w.may_come_of(source)}
        own, all_there = ways_of(source, sections, milling)
        ways += own
        complete &= all_there and only_strips(source, sections | {piece.section for piece in homeless}, milling)
    return Task(tuple(wanted), tuple(ways), saw, wishes.goal, order.rack.keep_mm, complete), tuple(homeless), tuple(pieces)


def _other_ways(first: int, one: Wanted, across: Piece | None, sources: tuple[Source, ...], saw: Saw) -> list[Wanted]:
    """The other ways to lay some pieces: several side by side across a board, a quarter round in a sheet without a grain."""
    found = []
    free = frozenset(source.id for source in sources if source.any_way and one.may_come_of(source))
    square = (
        across is not None and abs(across.axis_mm - one.piece.axis_mm) < SAME and abs(across.width_mm - one.piece.width_mm) < SAME
    )
    turned = [(replace(across, keys=one.piece.keys), free)] if across and free and not square else []
    for piece, of in ((one.piece, one.sources), *turned):
        if piece is not one.piece:
            found.append(replace(one, piece=piece, sources=of, instead_of=first))
        widths = {source.width_mm for source in sources if (of is None or source.id in of)}
        for row in rows_in(piece, sorted(widths), saw):
            gives = len(row.places)
            count = ceil(one.count / gives)
            found.append(Wanted(as_piece(row), count, of, one.choosy, first, gives))
    return found


def _fitting(piece: Piece, sources: tuple[Source, ...]) -> tuple[Source, ...]:
    """What a piece may be sawn from: plain boards; if it comes with its profile nothing that would have to be ripped, split or planed to it, and a
    moulding only where it looks so, from one end or the other."""
    if piece.ready is None:
        return tuple(source for source in sources if source.profile is None)
    return tuple(
        source
        for source in sources
        if abs(source.width_mm - piece.width_mm) <= AS_LARGE
        and abs(source.thickness_mm - piece.thickness_mm) <= AS_LARGE
        and (source.profile is None or _looks(piece.ready, source.profile))
    )


def _looks(wanted: Profile, there: Profile) -> bool:
    """Whether a moulding, turned about or end for end, is the one that is wanted; it is as large but for what nobody measures."""
    as_large = replace(there, width_mm=wanted.width_mm, thickness_mm=wanted.thickness_mm)
    return any(wanted.same_as(as_large, ((y, 0.0), (0.0, z))) for y in (1.0, -1.0) for z in (1.0, -1.0))


def _rather_boards(piece: Piece, sources: tuple[Source, ...], milling: Milling) -> frozenset[str] | None:
    """A board is not cut out of a sheet where there are boards for it."""
    boards = [source for source in sources if not source.sheet]
    if piece.sort == "panel" or not _has_board(piece, boards, milling):
        return None
    return frozenset(source.id for source in boards)


def _has_board(piece: Piece, sources: Iterable[Source], milling: Milling) -> bool:
    """Whether any board is wide and thick enough for it."""
    for source in sources:
        if layers_of(source.thickness_mm, piece.section[1], milling) is None:
            continue
        if abs(source.width_mm - piece.width_mm) <= AS_LARGE or (milling.rip and source.width_mm > piece.width_mm):
            return True
    return False


def _as_strips(piece: Piece, sources: Iterable[Source], wishes: Wishes) -> Piece | None:
    """The strips that it may be glued up from; None where it may not, or out of none."""
    if not wishes.may_glue or piece.sort != "board" or piece.profiled or piece.ready:
        return None
    milling = wishes.milling(1.0)
    wide = [
        s.width_mm for s in sources if layers_of(s.thickness_mm, piece.section[1], milling) and s.width_mm > 2 * wishes.edge_mm
    ]
    return glued_up(piece, max(wide), wishes.edge_mm, wishes.glue_over_mm) if wide else None


def _with_spares(piece: Piece, wishes: Wishes, again: int) -> Piece:
    """With the spares that are wished, and as many more as were spoiled."""
    count = spares_of(piece, len(piece.keys), wishes) + again
    return replace(piece, keys=(*piece.keys, *(f"{piece.id} spare {n + 1}" for n in range(count))))


def _by_pins(piece: Piece, wishes: Wishes, sources: Iterable[Source], choosy: int) -> list[Wanted]:
    """The piece as it is wanted: those that are pinned or locked into a board that is there apart from the others."""
    there = {source.id for source in sources}
    where = {key: wishes.pins[key] for key in piece.keys if key in wishes.pins}
    where |= {key: board for board, keys in wishes.locked.items() for key in keys if key in piece.keys}
    groups: dict[str | None, list[str]] = {}
    for key in piece.keys:
        board = where.get(key, "").partition("#")[0]
        groups.setdefault(board if board in there else None, []).append(key)
    return [
        Wanted(replace(piece, keys=tuple(keys)), len(keys), frozenset({board}) if board else None, choosy)
        for board, keys in groups.items()
    ]


def _kept_out(wanted: Wanted, rather: frozenset[str] | None, sources: Iterable[Source], wishes: Wishes) -> Wanted:
    """Into a locked board comes nothing else."""
    if wanted.sources:
        return wanted
    free = frozenset(source.id for source in sources if source.id not in wishes.locked)
    return replace(wanted, sources=(rather & free if rather else free) if wishes.locked else rather)


def plan_boards(
    order: Order, report: Callable[[float, BoardsPlan], None] = lambda share, plan: None, *, dives: int = MOST_DIVES
) -> BoardsPlan:
    """The plan, proved; `report` hears of every better one, each proved too, and may raise to end it."""
    task, homeless, pieces = task_of(order)

    def proved(packing: Packing) -> BoardsPlan:
        layout = laid_out(task, packing)
        away = {key.partition(" strip ")[0] for piece in homeless for key in piece.keys}
        solids = {key: solid for key, solid in order.solids.items() if key not in away}
        return BoardsPlan(task, packing, layout, check_layout(layout, solids, order.kerf_mm), homeless, pieces)

    told: list[Packing] = []

    def tell(share: float, packing: Packing) -> None:
        if not told or told[-1] is not packing:
            told.append(packing)
            made.append(proved(packing))
        report(share, made[-1])

    made: list[BoardsPlan] = []
    best = plan(task, tell, dives=dives)
    return made[-1] if made and made[-1].packing is best else proved(best)

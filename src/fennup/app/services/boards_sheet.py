"""The rack, the price list and the plan as their screens show them: chooses and words, decides nothing."""

from dataclasses import dataclass
from math import ceil, floor

from fennup.app.schemas.boards import (
    BuyLineOut,
    CureOut,
    LeftOut,
    PiecePlaceOut,
    PlanBoardOut,
    PlanOut,
    PriceLineOut,
    PricesOut,
    RackBoardOut,
    RackOut,
    RulerMark,
    ShortOut,
    UnplacedOut,
)
from fennup.app.services import documents
from fennup.app.services.drawings import control_out, view_out
from fennup.app.services.part_cards import PLANNED_MORE, board_tag
from fennup.app.services.racks import rack_in
from fennup.app.wording import boards as words
from fennup.app.wording.acts import did_words
from fennup.app.wording.figures import Voice
from fennup.app.wording.names import listed, together
from fennup.core.boards.rack import PriceList, Rack
from fennup.core.boards.rack_views import ALONG, END_AWAY, board_controls, board_view, rectangle
from fennup.core.boards.wishes import Wishes
from fennup.core.drawing.edit import Choose, Give, TypeIn
from fennup.core.drawing.view import Control, Mark, Option, Shape, View
from fennup.core.exchange.boards_forms import BoardForm, BoardsDocument, SawnForm, UnplacedForm
from fennup.core.geometry.vec import Point2
from fennup.core.solve import Solution
from fennup.core.tolerances import NOTHING

LEAST_TOLD = 0.12  # of the longest board: a shorter offcut has no room for its length
NARROWEST_TOLD = 30.0
LETTER_SHARE = 0.0115  # of the drawing's width, that a letter takes
GOALS = ("rack_first", "cheapest", "fewest_boards", "least_waste", "fewest_changes")
USUAL_LENGTH = 2400.0  # mm, of a board that is put on the rack with one touch
RULER_STEPS = {"mm": (100.0, 250.0, 500.0, 1000.0, 2500.0), "in": (152.4, 304.8, 609.6, 1219.2)}
MOST_MARKS = 9
MILLING = ("may_rip", "may_resaw", "may_plane", "may_glue", "square_first")


@dataclass(frozen=True)
class Names:
    """What pieces are called, by their keys: for short on the board, and in full."""

    tags: dict[str, str]
    full: dict[str, str]

    def tag(self, key: str) -> str:
        """For short."""
        return self._found(key, self.tags)

    def name(self, key: str) -> str:
        """In full."""
        return self._found(key, self.full)

    @staticmethod
    def _found(key: str, table: dict[str, str]) -> str:
        for word in PLANNED_MORE:
            own, found, number = key.partition(word)
            if found:
                return f"{table.get(own, own)},{word}{number}"
        return table.get(key, key)


def names_of(solutions: list[tuple[str, str, Solution]]) -> Names:
    """Of some projects: (what their keys begin with, what the project is called, its solution)."""
    tags, full = {}, {}
    for prefix, called, solution in solutions:
        for board in solution.design.assembly.boards:
            key = f"{prefix}{board.id}"
            tags[key] = board_tag(solution, board.id)
            full[key] = f"{called}: {board.name}" if prefix else board.name
    return Names(tags, full)


def rack_out(state: documents.State, voice: Voice, looked_at: Rack | None = None) -> RackOut:
    """The rack, or what some acts would make of it."""
    rack = looked_at or rack_in(state)
    longest = max((board.length_mm for board in rack.boards.values()), default=1.0)
    thickest = max((board.thickness_mm for board in rack.boards.values()), default=1.0)
    keep = Control("keep", "board", value=rack.keep_mm, unit="mm", acts=TypeIn(op="type", path="keep_mm", text=""))
    return RackOut(
        version=state.version,
        undo=did_words(state.undo, voice),
        redo=did_words(state.redo, voice),
        keep=control_out(keep, voice),
        longest_mm=longest * (1.0 + END_AWAY) + thickest,
        boards=[
            RackBoardOut(
                id=id,
                name=board.name,
                title=words.board_title(board.name, id) + (f" × {board.count}" if board.count > 1 else ""),
                wood=board.wood,
                length_mm=board.length_mm,
                width_mm=board.width_mm,
                view=view_out(board_view(rack, id), voice),
                controls=[control_out(c, voice) for c in board_controls(rack, id)],
                cautions=words.cautions(board),
            )
            for id, board in rack.boards.items()
        ],
    )


def prices_out(prices: PriceList, wishes: Wishes, voice: Voice, notice: str = "") -> PricesOut:
    """The price list with its age."""
    return PricesOut(
        yard=prices.yard,
        age=words.list_age(prices),
        notice=words.NO_LIST.get(notice, ""),
        lines=[
            PriceLineOut(
                id=f"y:{item.code}",
                name=item.name or item.code,
                size_text=words.size_text(item.length_mm, item.width_mm, item.thickness_mm, voice),
                price_text=words.money(item.price, prices.currency),
                stock_text="" if item.stock is None else "none left" if item.stock == 0 else f"{item.stock} there",
                sold_out=f"y:{item.code}" in wishes.sold_out,
            )
            for item in prices.items
        ],
    )


def wishes_controls(wishes: Wishes, voice: Voice) -> list[Control]:
    """What there is to decide about a plan."""

    def one_of(name: str, options: tuple[str, ...], now: str) -> Control:
        made = tuple(Option(f"{name}_{o}", (Choose(op="choose", path=name, value=o),), o == now) for o in options)
        return Control(f"wish_{name}", "plan", made)

    def flags(code: str, *names: str) -> Control:
        made = tuple(
            Option(f"wish_{n}", (Choose(op="choose", path=n, value=not getattr(wishes, n)),), bool(getattr(wishes, n)))
            for n in names
        )
        return Control(code, "plan", made, style="toggles")

    def figure(name: str, value: float, unit: str = "mm") -> Control:
        acts = TypeIn(op="type", path=name, text="")
        return Control(f"wish_{name}", "plan", value=value, unit="count" if unit == "count" else "mm", acts=acts)

    made = [
        one_of("goal", GOALS, wishes.goal),
        flags("wish_from", "use_rack", "use_yard"),
        flags("wish_may", *MILLING),
        one_of("spares", ("none", "by_risk", "own"), wishes.spares),
    ]
    if wishes.spares == "own":
        made.append(figure("spare_percent", wishes.spare_percent, "count"))
    made += [one_of("treated", ("any", "treated", "untreated"), wishes.treated), figure("trim_mm", wishes.trim_mm)]
    if wishes.may_rip:
        made.append(figure("edge_mm", wishes.edge_mm))
    if wishes.may_resaw:
        made.append(figure("face_mm", wishes.face_mm))
    if wishes.may_plane:
        made.append(figure("most_planed_mm", wishes.most_planed_mm))
    if wishes.may_glue:
        made.append(figure("glue_over_mm", wishes.glue_over_mm))
    return made


def left_out(wishes: Wishes, rack: Rack, prices: PriceList, voice: Voice) -> list[LeftOut]:
    """The boards that the plan goes without."""
    named = {id: words.board_title(board.name, id) for id, board in rack.boards.items()}
    named |= {f"y:{item.code}": f"{item.name or item.code}, {voice.run(item.length_mm)}" for item in prices.items}
    lists = (("forbidden", wishes.forbidden), ("sold_out", wishes.sold_out))
    return [LeftOut(path=f"{place}.{id}", name=named.get(id, id)) for place, ids in lists for id in ids]


def plan_out(plan: BoardsDocument, before: BoardsDocument | None, wishes: Wishes, names: Names, voice: Voice) -> PlanOut:
    """A plan with its drawings and words."""
    tone, headline = words.headline(plan, voice)
    bought = [line for line in plan.buy if line.count]
    foot = f"{len(plan.boards)} board{'s' if len(plan.boards) != 1 else ''}"
    if bought:
        count = sum(board.bought for board in plan.boards)
        foot += f", {count} of them to buy for {words.money(plan.cost, plan.currency)}"
    return PlanOut(
        tone=tone,
        headline=headline,
        detail=words.detail(plan),
        quality=words.quality_lines(plan, voice),
        proof=words.proof_text(plan),
        boards=[_board(plan, board, wishes, names, voice) for board in plan.boards],
        longest_mm=max((board.length_mm for board in plan.boards), default=1.0),
        ruler=_ruler(max((board.length_mm for board in plan.boards), default=1.0), voice),
        unplaced=_unplaced(plan, names, voice),
        short=[
            ShortOut(
                text=f"Boards {words.section_text(s.width_mm, s.thickness_mm, voice)}: short by {'' if plan.short_proven else 'at most '}{voice.say(s.short_mm)}. "
                f"Were {words.board_title(s.name, s.board)} so much longer, everything would fit."
            )
            for s in plan.short
        ],
        cures=[
            CureOut(
                label=f"{voice.label(c.measure)} {voice.say(c.to_value)} in place of {voice.say(c.from_value)}",
                acts=[Give(op="give", measure=c.measure, text=f"{c.to_value:.6f} mm")],
            )
            for c in plan.cures
        ],
        buy=[
            BuyLineOut(
                code=line.code,
                source=f"y:{line.code}",
                count=line.count,
                name=line.name,
                size_text=words.size_text(line.length_mm, line.width_mm, line.thickness_mm, voice),
                price_text=words.money(line.price, plan.currency),
                sum_text=words.money(line.sum, plan.currency),
                spares_text=f"{line.spares} spare part{'s' if line.spares > 1 else ''} in them" if line.spares else "",
                thickness=voice.length(line.thickness_mm),
                thickness_mm=line.thickness_mm,
            )
            for line in bought
        ],
        total=words.money(plan.cost, plan.currency) if bought else "",
        others=words.others_text(plan, voice),
        moved=_moved(plan, before, names),
        yard_would=words.yard_text(plan, wishes.use_yard),
        foot=foot if plan.boards else "no board",
    )


def _unplaced(plan: BoardsDocument, names: Names, voice: Voice) -> list[UnplacedOut]:
    """The parts without a board, those told together for which the same is to be said."""
    alike: dict[tuple[object, ...], list[UnplacedForm]] = {}
    for piece in plan.unplaced:
        own = piece.key if piece.why == "pinned" else piece.part if piece.why == "too_long" else ""
        alike.setdefault((piece.why, piece.width_mm, piece.thickness_mm, own), []).append(piece)
    found = []
    for pieces in alike.values():
        first, called = pieces[0], together([names.name(piece.key) for piece in pieces])
        size = {
            "length_mm": max(USUAL_LENGTH, ceil(first.overall_mm)),
            "width_mm": ceil(first.width_mm),
            "thickness_mm": first.thickness_mm,
        }
        found.append(
            UnplacedOut(
                text=words.unplaced_text(first, called, len(pieces) > 1, voice),
                let_go=[Choose(op="choose", path=f"pins.{first.key}")] if first.why == "pinned" else [],
                add=[Choose(op="choose", path="boards.new", value=size)] if first.why == "no_board" else [],
            )
        )
    return found


def _ruler(longest: float, voice: Voice) -> list[RulerMark]:
    """Marks of a tape as long as the longest board, not too many."""
    step = next((s for s in RULER_STEPS[voice.tape.unit] if longest / s <= MOST_MARKS), longest)
    return [RulerMark(at_mm=n * step, text=voice.say(n * step)) for n in range(floor(longest / step) + 1)]


def _moved(plan: BoardsDocument, before: BoardsDocument | None, names: Names) -> list[str]:
    """The pieces that come out of another board than before, by where they went."""
    if before is None:
        return []
    was = {piece.key: board.source for board in before.boards for piece in board.pieces}
    went: dict[str, list[str]] = {}
    for board in plan.boards:
        for piece in board.pieces:
            if was.get(piece.key, board.source) != board.source:
                went.setdefault(words.board_title(board.name, board.source), []).append(names.tag(piece.key))
    return [f"{listed(tags)} now out of {name}." for name, tags in went.items()]


def _board(plan: BoardsDocument, board: BoardForm, wishes: Wishes, names: Names, voice: Voice) -> PlanBoardOut:
    several = sum(b.source == board.source for b in plan.boards) > 1
    number = f", board {board.number}" if several else ""
    return PlanBoardOut(
        id=board.id,
        source=board.source,
        name=f"{words.board_title(board.name, board.source)}{number}, {words.comes_from(board.source, bought=board.bought)}",
        size_text=words.size_text(board.length_mm, board.width_mm, board.thickness_mm, voice),
        length_mm=board.length_mm,
        width_mm=board.width_mm,
        view=view_out(_view(plan, board, names, voice), voice),
        pieces=[
            PiecePlaceOut(
                key=piece.key,
                tag=names.tag(piece.key),
                name=names.name(piece.key),
                text=words.piece_text(piece, board, names.tags, voice),
                pinned=piece.key in wishes.pins,
                own=not piece.project,
            )
            for piece in board.pieces
        ],
        bought=board.bought,
        locked=board.source in wishes.locked,
        lines=words.ways_text(board, voice),
    )


def _view(plan: BoardsDocument, board: BoardForm, names: Names, voice: Voice) -> View:
    """A board from above: hatched what becomes waste, plain what is kept, the parts with their true ends, every cut."""
    long, wide = board.length_mm, board.width_mm
    plan_longest = max(b.length_mm for b in plan.boards)
    shapes = [Shape("waste", rectangle(0.0, 0.0, long, wide), True)]
    marks = []
    for offcut in board.offcuts:
        low, high = offcut.low_mm, offcut.low_mm + offcut.width_mm
        if offcut.kept:
            shapes.append(Shape("offcut", rectangle(offcut.from_mm, low, offcut.to_mm, high), True))
        if offcut.to_mm - offcut.from_mm >= LEAST_TOLD * plan_longest and offcut.width_mm >= NARROWEST_TOLD:
            at = ((offcut.from_mm + offcut.to_mm) / 2, (low + high) / 2)
            marks.append(Mark("name", at, words.offcut_text(offcut, voice)))
    for piece in board.pieces:
        outline: tuple[Point2, ...] = tuple(piece.outline)
        shapes.append(Shape("wood", outline, True, piece.key, ALONG))
        (left, right), (low, high) = (tuple(f(p[k] for p in outline) for f in (min, max)) for k in (0, 1))
        middle, across = ((left + right) / 2, (low + high) / 2), (right - left) / plan_longest
        marks.append(Mark("letter", middle, _short(names.tag(piece.key), across), piece.key))
    shapes += [Shape("knot", rectangle(f.from_mm, f.low_mm, f.to_mm, f.high_mm), True) for f in board.flaws]
    shapes += [Shape("cut", line) for cut in board.cuts if (line := _line(cut, board, plan.kerf_mm))]
    return View("plan_board", tuple(shapes), tuple(marks))


def _short(tag: str, share: float) -> str:
    """As much of a name as there is room for on a piece that takes such a share of the drawing's width."""
    return next((text for text in (tag, tag.rpartition(" ")[2]) if len(text) * LETTER_SHARE <= share), "")


def _line(cut: SawnForm, board: BoardForm, kerf: float) -> tuple[Point2, ...] | None:
    """Where the middle of the kerf is seen from above."""
    (nx, ny, nz), touched = cut.normal, {*cut.before, *cut.after}
    if cut.sort == "resaw":
        return None
    if abs(nx) < NOTHING:
        y = (cut.offset_mm + kerf / 2) / ny
        return ((0.0, y), (board.length_mm, y))
    here = [p for piece in board.pieces if piece.key in touched for line in piece.arrises for p in line]
    low, high = min(p[1] for p in here), max(p[1] for p in here)
    top = max(p[2] for p in here)
    if cut.sort == "trim":
        low, high = 0.0, board.width_mm
    if cut.sort == "end":
        low, high = _bound_by(cut, board, top, low, high)
    shift = kerf / 2 if cut.sort != "trim" else 0.0
    return tuple(((cut.offset_mm + shift - ny * y - nz * top) / nx, y) for y in (low, high)) if high > low else None


def _bound_by(cut: SawnForm, board: BoardForm, top: float, low: float, high: float) -> tuple[float, float]:
    """From where to where across the board a cut makes the end that it is one of several cuts of, seen from above."""
    (nx, ny, nz), right = cut.normal, cut.normal[0] > 0
    for other in board.cuts:
        (mx, my, mz) = other.normal
        if other is cut or abs(mx) < NOTHING or not set(cut.ends) & set(other.ends):
            continue
        # This one's x less the other's is a + b y: a right end is where the least is, a left one where the most.
        a = (cut.offset_mm - nz * top) / nx - (other.offset_mm - mz * top) / mx
        b = my / mx - ny / nx
        if abs(b) < NOTHING:
            continue
        if (b > 0) == right:
            high = min(high, -a / b)
        else:
            low = max(low, -a / b)
    return low, high

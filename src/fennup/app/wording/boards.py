"""The rack, the yard and the plan of the boards, in words."""

from datetime import UTC, datetime
from math import floor

from fennup.app.wording.figures import Voice
from fennup.app.wording.names import listed
from fennup.core.boards.rack import PriceList, RackBoard
from fennup.core.exchange.boards_forms import BoardForm, BoardsDocument, OffcutForm, PlacedForm, UnplacedForm
from fennup.core.tolerances import SAME

NO_LIST = {
    "away": "The yard does not answer. The last list stands.",
    "slow": "The yard takes too long to answer. The last list stands.",
    "closed": "The yard is closed just now. The last list stands.",
    "nonsense": "What the yard answers is no price list. The last list stands.",
}
CAUTIONS = {
    "nails": "Nails: go over it with a magnet and pull them before any blade touches it.",
    "old_paint": "Old paint may hold lead: do not sand or saw it dry, test it first.",
    "reclaimed": "Used before: look for splits and grit; brush it clean before sawing.",
    "treated": "Treated: wear a mask at the saw, burn no offcuts, nothing of it near food.",
}
MOST_SAID = 4
SOME_WAYS = "The best that was found with strips that run the whole board; cut across first and ripped then, or turned on edge, it might do with less."


def money(amount: float, currency: str) -> str:
    """12.40 EUR."""
    return f"{amount:.2f} {currency}".strip()


def section_text(width: float, thick: float, voice: Voice) -> str:
    """95 × 20 mm."""
    return _by(width, thick, voice=voice)


def _by(*sizes: float, voice: Voice) -> str:
    unit = " mm" if voice.tape.unit == "mm" else ""
    return " × ".join(voice.say(mm).removesuffix(" mm") for mm in sizes) + unit


def size_text(length: float, width: float, thick: float, voice: Voice) -> str:
    """2400 x 95 x 20 mm."""
    return _by(length, width, thick, voice=voice)


def board_title(name: str, id: str) -> str:
    """What a board of the rack, or a found length of a moulding, is called: by its own name, or board 3."""
    own = id.split(":")[1] if id.startswith("m:") else id
    return f"{'Moulding' if own != id else 'Board'} {own[1:]}" if name in ("", own) else name


def comes_from(source: str, *, bought: bool) -> str:
    """Where a board comes from."""
    return "to buy" if bought else "of your mouldings" if source.startswith("m:") else "from the rack"


def cautions(board: RackBoard) -> list[str]:
    """What to look out for with a board."""
    return [text for flag, text in CAUTIONS.items() if getattr(board, flag)]


def list_age(prices: PriceList, now: datetime | None = None) -> str:
    """Reedham timber yard, read 3 days ago."""
    if not prices.items:
        return "There is no price list yet: ask the yard, or bring one in as a table."
    whose = prices.yard or "A price list"
    try:
        read = datetime.fromisoformat(prices.as_of)
    except ValueError:
        return f"{whose}, of an unknown day."
    days = ((now or datetime.now(UTC)) - (read if read.tzinfo else read.replace(tzinfo=UTC))).days
    when = "today" if days < 1 else "yesterday" if days == 1 else f"{days} days ago"
    old = " Prices may have changed." if days > 30 else ""
    return f"{whose}, read {when}.{old}"


def percent(part: float, whole: float) -> str:
    """11.3 %, with as many digits as tell anything."""
    share = 100.0 * part / whole if whole else 0.0
    return f"{share:.1f} %"


def waste_of(plan: BoardsDocument) -> str:
    """How much of the wood becomes waste."""
    return percent(plan.wood_mm3 - plan.parts_mm3 - plan.kept_mm3, plan.wood_mm3)


def headline(plan: BoardsDocument, voice: Voice) -> tuple[str, str]:
    """(tone, what is most worth knowing)."""
    if plan.faults:
        return "fails", "The plan that was found does not pass the check, so it is not shown."
    if plan.complete:
        return "closes", "Every part has its board."
    if plan.short:
        worst = plan.short[0]
        most = "" if plan.short_proven else "at most "
        return "opens", f"Short by {most}{voice.say(worst.short_mm)} on {board_title(worst.name, worst.board)}."
    missing = len({piece.key for piece in plan.unplaced})
    return "fails", f"{missing} part{'s have' if missing > 1 else ' has'} no board."


def detail(plan: BoardsDocument) -> str:
    """13 parts out of 4 boards: 3 from the rack, 1 to buy."""
    parts = sum(len(board.pieces) for board in plan.boards)
    bought = sum(board.bought for board in plan.boards)
    rack = len(plan.boards) - bought
    if not plan.boards:
        return "There is no board that any of them could come out of."
    where = [text for n, text in ((rack, f"{rack} from the rack"), (bought, f"{bought} to buy")) if n]
    return f"{parts} part{'s' if parts > 1 else ''} out of {len(plan.boards)} board{'s' if len(plan.boards) > 1 else ''}: {listed(where)}."


def quality_lines(plan: BoardsDocument, voice: Voice) -> list[str]:
    """How good it is, and how that is known."""
    if not plan.boards:
        return []
    lines = [f"{waste_of(plan)} of the wood becomes waste; offcuts worth keeping not counted."]
    if plan.complete:
        lines.insert(0, _proven_text(plan) if plan.proven else _distance_text(plan) if plan.all_ways else SOME_WAYS)
    if plan.stopped:
        lines.append("Stopped before everything was tried.")
    return lines


def _proven_text(plan: BoardsDocument) -> str:
    if plan.goal == "rack_first":
        return "Proven: no plan buys less, nor takes less from the rack for it."
    if plan.goal == "cheapest":
        return f"Proven: it cannot be had for less than {money(plan.value, plan.currency)}."
    if plan.goal == "fewest_boards":
        return f"Proven: {plan.value:.0f} board{'s are' if plan.value > 1 else ' is'} the fewest."
    if plan.goal == "least_waste":
        return "Proven: no plan wastes less."
    return f"Proven: fewer than {plan.value:.0f} settings cannot do, one for each sort of part in each board."


def _distance_text(plan: BoardsDocument) -> str:
    if plan.bound <= 0:
        return "How near it is to the best is not proven."
    if plan.goal == "cheapest":
        return f"At least {money(plan.bound, plan.currency)} is proven to be needed; this one costs {money(plan.value, plan.currency)}."
    if plan.goal == "fewest_boards":
        needed = f"{plan.bound:.0f} boards are" if plan.bound > 1 else "1 board is"
        return f"At least {needed} proven to be needed; this one takes {plan.value:.0f}."
    if plan.goal == "fewest_changes":
        return f"At least {plan.bound:.0f} settings of stop and angle are proven to be needed; this one takes {plan.value:.0f}."
    return f"At most {100.0 * (plan.value - plan.bound) / plan.value:.1f} % better is possible: that much is proven."


def proof_text(plan: BoardsDocument) -> str:
    """What the checker has seen to."""
    return "Checked: nothing overlaps, every kerf is there, faces and grain lie right, knots lie in waste." if plan.boards else ""


def yard_text(plan: BoardsDocument, uses_yard: bool) -> str:
    """What one more board from the yard would do."""
    if uses_yard or plan.with_yard is None:
        return ""
    boards = plan.with_yard.boards
    return f"{boards} board{'s' if boards > 1 else ''} from the yard, {money(plan.with_yard.cost, plan.currency)}"


def others_text(plan: BoardsDocument, voice: Voice) -> list[str]:
    """What boards of one length only would come to."""
    found = []
    for other in plan.others:
        more = other.cost - plan.cost
        if not other.fits or (other.boards == len(plan.boards) and abs(more) < SAME):
            continue
        costs = "the same price" if abs(more) < SAME else f"{money(abs(more), plan.currency)} {'more' if more > 0 else 'less'}"
        found.append(f"Only {voice.run(other.only_mm)} boards: {other.boards} in all, {costs}.")
    return found


def unplaced_text(piece: UnplacedForm, name: str, several: bool, voice: Voice) -> str:
    """Why a part, or several alike, has no board, and the nearest way out."""
    section = section_text(piece.width_mm, piece.thickness_mm, voice)
    if piece.why == "pinned":
        return f"{name} finds no place in the board that you put it into."
    if piece.why == "no_board":
        return f"{name}: no board gives {section}. Put one on the rack, ask the yard for its list, or let boards be resawn, planed or glued up."
    if piece.why == "too_long":
        each = " each" if several else ""
        return (
            f"{name}: {voice.say(piece.overall_mm)} long{each}; the longest board of {section} gives {voice.say(piece.longest_mm)}. "
            f"It lacks {voice.say(piece.overall_mm - piece.longest_mm)}."
        )
    return f"{name}: no room is left on the boards of {section}."


def piece_text(placed: PlacedForm, board: BoardForm, names: dict[str, str], voice: Voice) -> str:
    """610 long point to long point, 94 wide. Turned end for end; shares the cut with B and D."""
    said = [
        f"{voice.say(placed.overall_mm)} from tip to tip, {voice.say(abs(placed.arrises[2][0][1] - placed.arrises[0][0][1]))} wide."
    ]
    turned = [w for w, is_so in (("over", placed.over_turned), ("end for end", placed.end_for_end)) if is_so]
    if turned:
        said.append(f"Turned {listed(turned)}.")
    shared = [
        names.get(other, other)
        for cut in board.cuts if len(cut.ends) == 2 and any(end.rpartition(" ")[0] == placed.key for end in cut.ends)
        for other in (end.rpartition(" ")[0] for end in cut.ends) if other != placed.key
    ]  # fmt: skip
    if shared:
        said.append(f"One cut serves it and {listed(list(dict.fromkeys(shared)))}.")
    first = next(
        (c for c in board.cuts if c.sort == "part" and len(c.ends) < 2 and placed.key in (*c.before[-1:], *c.after[:1])), None
    )
    if first is not None:
        whose = first.ends[0].rpartition(" ")[0] if first.ends else ""
        order = f"{names.get(whose, whose)} gets its own cut first" if whose else "A square cut parts them first"
        said.append(f"{order}; the other end is trimmed when they are apart.")
    if placed.rough_mm > placed.overall_mm + SAME:
        said.append(f"Rough from the thick board: at least {voice.say(placed.rough_mm)}.")
    if placed.spare:
        said.append("A spare.")
    return " ".join(said)


def offcut_text(offcut: OffcutForm, voice: Voice) -> str:
    """656 mm left; by what is worth keeping."""
    long = floor(offcut.to_mm - offcut.from_mm)
    return f"{voice.say(float(long))} left"


def ways_text(board: BoardForm, voice: Voice) -> list[str]:
    """What is done to the board before it is cut to length."""
    lines = []
    rips = sum(cut.sort == "rip" for cut in board.cuts)
    if rips:
        widths = sorted({round(high - low, 4) for _, _, low, high in board.strips}, reverse=True)
        lines.append(f"Rip it first: strips {listed([voice.say(w) for w in widths])} wide, {rips} cut{'s' if rips > 1 else ''}.")
    if any(cut.sort == "resaw" for cut in board.cuts):
        lines.append("Resaw it, then plane both faces of each.")
    elif board.pieces and min(abs(p.arrises[1][0][2] - p.arrises[0][0][2]) for p in board.pieces) < board.thickness_mm - 0.06:
        lines.append("Plane it to thickness first.")
    if any(p.sort == "strip" and " strip " in p.key for p in board.pieces):
        lines.append("Strips to be glued up, cut too long on purpose.")
    kept = [o for o in board.offcuts if o.kept]
    if kept:
        lines.append(f"Worth keeping: {listed([voice.say(float(floor(o.to_mm - o.from_mm))) for o in kept[:MOST_SAID]])}.")
    return lines

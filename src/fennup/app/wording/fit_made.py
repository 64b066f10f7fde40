"""As made, in words: how far parts are cut, what must change, ways out with their cost, repeats and hands."""

from fennup.app.wording.fit import FitWords
from fennup.app.wording.fit_gaps import UNDER
from fennup.app.wording.members import end_word, sides_of
from fennup.app.wording.names import listed
from fennup.core.fit.fitting import Change, Fit
from fennup.core.fit.meeting import Off
from fennup.core.fit.repeats import Hands, Laid
from fennup.core.fit.ways import WayOut, fills
from fennup.core.tolerances import UNSEEN_MM

CAME = {"bench": "from the bench", "typed": "as you typed", "agreed": "cut as agreed", "": ""}
YES = {
    "trim": "Shave it",
    "recut_others": "Do it so",
    "spread": "Cut the rest so",
    "spacer": "",
    "use": "Use it so",
    "recut": "Cut it again",
    "leave": "Leave it",
}


def row_label(off: Off, words: FitWords) -> str:
    """One size of a part."""
    board = words.solution.design.boards[off.board]
    if off.what == "length":
        return "Long edge"
    if off.what in ("thick", "wide"):
        return "Thickness" if off.what == "thick" else "Width"
    assert off.end is not None
    end = end_word(board, off.end)
    several = f", cut {off.index + 1}" if len(board.ends(off.end)) > 1 else ""
    if off.what == "swing":
        return f"{end[:1].upper()}{end[1:]}{several}: angle across the {sides_of(words.solution, board.id)['face']}"
    return f"{end[:1].upper()}{end[1:]}{several}: lean of the cut"


def change_angles(change: Change, words: FitWords) -> list[str]:
    """Angles old and new, one a line."""
    board = words.solution.design.boards[change.board]
    found = []
    for what, old, new in change.angles:
        end, _, kind = what.partition(" ")
        name = end_word(board, end)  # type: ignore[arg-type]
        found.append(f"{name}, {'miter' if kind == 'miter' else 'lean'} {abs(old):.2f}° becomes {abs(new):.2f}°")
    return found


def made_headline(fit: Fit, words: FitWords) -> tuple[str, str]:
    """Whether it closes as it is made, and how good that is."""
    if not fit.offs:
        return "Nothing was measured yet: it is as planned.", "none"
    if fit.open_mm <= fit.allowance_mm / 2:
        return "As made it closes.", "right"
    open_ = words.small(fit.open_mm)
    if fit.settled.closes and fit.settled.told:
        count = len({off.board for off in fit.settled.told})
        parts = "one part that is" if count == 1 else f"{count} parts that are"
        return f"As made it would stay open by {open_}. Cut otherwise, {parts} still to cut can close it.", "near"
    if fit.open_mm <= fit.allowance_mm:
        return f"As made it stays open by {open_}: within what you let pass.", "near"
    return f"As made it stays open by {open_}.", "wrong"


def way_title(way: WayOut, words: FitWords, fit: Fit) -> str:
    """A way out in a line."""
    board = words.board
    match way.kind:
        case "trim":
            off = max((abs(by) for o, by in way.changes.items() if not o.is_angle), default=0.0)
            return (
                f"Shave {words.small(off)} off {board(way.pieces[0])}"
                if off
                else f"Cut the end of {board(way.pieces[0])} again at the right angle"
            )
        case "recut_others":
            said = []
            for piece in way.pieces:
                by = sum(v for o, v in way.changes.items() if o.board == piece and o.what == "length")
                said.append(f"{board(piece)} {words.small(by)} {'shorter' if by < 0 else 'longer'}")
            return f"Make {listed(said)}"
        case "spread":
            return f"Spread it over {listed([words.short(p) for p in way.pieces]) if len(way.pieces) < 6 else f'{len(way.pieces)} parts'}"
        case "spacer":
            return f"A strip {words.small(way.gap_mm)} thick in {words.joint(way.joint)}"
        case "use" if way.same_part:
            return f"It is {board(way.pieces[0])}: use it there"
        case "use":
            return f"Shorten it to {board(way.pieces[0])}"
        case "recut":
            return f"Cut {board(way.pieces[0])} again"
    return "It is the same part, turned" if way.same_part else "Leave it as it is"


def way_text(way: WayOut, words: FitWords, fit: Fit) -> str:
    """What comes of it."""
    match way.kind:
        case "trim":
            return "It then is as planned, and everything closes."
        case "recut_others":
            cut = [p for p in way.pieces if fit.standing.bench.is_cut(words.solution.design.boards[p])]
            closes = (
                f"Leaves {words.small(way.gap_mm)}: within what you let pass." if way.gap_mm > UNSEEN_MM else "Closes exactly."
            )
            if not cut:
                return f"Not cut yet: it costs nothing but another length. {closes}"
            return f"{words.short(cut[0])[:1].upper()}{words.short(cut[0])[1:]} is cut already and only becomes shorter. {closes}"
        case "spread":
            return "The smallest change of all that is still to cut. Closes exactly; no side is out by much."
        case "spacer":
            return "Of the same wood, glued to the end before it is put in: it shows as a line."
        case "use" if way.same_part:
            return "The other hand, or the same part turned over: nothing is lost. The part itself is cut again in its place."
        case "use":
            return f"Where it still measures {words.value(way.needs_mm, 'mm')}. Both ends are cut anew; the part itself is cut again."
        case "recut":
            return "The safe way, where there is wood."
    if way.same_part:
        return "Turned end for end it is just what it should be: nothing is lost."
    if way.gap_mm < fit.allowance_mm:
        return "It stays within what you let pass." if way.joint else "It closes with that: nothing hangs on it."
    finish = fit.wishes.finish
    hides = fills(way.gap_mm, finish, outdoors=fit.wishes.outdoors)
    return f"{words.small(way.gap_mm)} open, or out of line, at {words.joint(way.joint)}: filler {'hides' if hides else 'does not hide'} that {UNDER[finish]}."


def way_cost(way: WayOut, words: FitWords) -> str:
    """In wood and cuts."""
    cuts = "no cut more" if not way.cuts else "one cut" if way.cuts == 1 else f"{way.cuts} cuts"
    wood = f", {words.voice.run(way.wood_mm)} of board" if way.wood_mm else ", no new wood"
    return f"Costs {cuts}{wood}."


def laid_text(laid: Laid, words: FitWords, allowance_mm: float) -> str:
    """What pieces that should be alike tell."""
    spread = words.small(laid.spread_mm)
    if laid.good or laid.pair is None:
        return f"They differ by {spread} at most: half of the gap that you let pass, or less."
    worst = f"{words.short(laid.pair[0])} and {words.short(laid.pair[1])} differ by {spread}: a joint would open by {words.small(laid.gap_mm)}."
    if laid.shave:
        shaves = listed([f"{words.small(by)} off {words.short(id)}" for id, by in laid.shave])
        return f"{worst} Shave {shaves}."
    return f"{worst} {words.short(laid.pair[0])[:1].upper()}{words.short(laid.pair[0])[1:]} is too short to be helped by a shave."


def hands_text(hands: Hands, words: FitWords) -> str:
    """Mirror images, and the check for them."""
    one, other = words.short(hands.part), words.short(hands.other)
    counts = (
        f" {hands.count} of the one and {hands.other_count} of the other."
        if hands.count != hands.other_count or hands.count > 1
        else ""
    )
    return (
        f"{one[:1].upper()}{one[1:]} and {other} are mirror images.{counts} Lay one on the other, face to face: all edges must be flush. "
        "Flush back on face, they are of one hand: one is cut the wrong way round."
    )

"""A gap at a joint in words: what to do, which cut most likely made it, and the angle that cures it."""

from fennup.app.wording.fit import FitWords
from fennup.app.wording.members import end_word
from fennup.core.fit.fitting import Fit
from fennup.core.fit.gaps import Cause, Cured
from fennup.core.fit.ways import FILLED_MM, Finish
from fennup.core.tolerances import SAME

UNDER: dict[Finish, str] = {"paint": "under paint", "clear": "under a clear coat", "oil": "under oil", "bare": "on bare wood"}
TITLES = {
    "leave": "{gap} open: leave it.",
    "pull": "{gap} open: a clamp may pull it shut.",
    "fill": "{gap} open: fill it.",
    "recut": "{gap} open: cut it again.",
}


def cured_title(cured: Cured, words: FitWords) -> str:
    """What to do, in a line."""
    return TITLES[cured.cure].format(gap=words.small(cured.read.mm))


def cured_text(cured: Cured, words: FitWords, fit: Fit) -> list[str]:
    """Why, and how."""
    said = []
    finish, where = fit.wishes.finish, "outdoors" if fit.wishes.outdoors else "indoors"
    holds = FILLED_MM[finish] * (0.5 if fit.wishes.outdoors else 1.0)
    if cured.pullable:
        said.append("So little bends in: pull it with a clamp, not with a screw, and look whether it springs back.")
    else:
        said.append("Do not force it: clamped shut, it pulls another joint open, or splits where the screw sits.")
    hides = "hides" if cured.fillable else "does not hide"
    said.append(f"Filler {hides} it {UNDER[finish]} {where}, where up to {words.small(holds)} usually holds.")
    if cured.turn_deg > SAME:
        way = "at the side that touches"
        said.append(
            f"To cut it again: turn one of the two ends by {cured.turn_deg:.2f}° and shave it until the blade has taken {words.small(cured.shave_mm)} {way}."
        )
    elif cured.cure == "recut":
        said.append("It is as wide on all sides: the angles are right, a length is short.")
    said += [_cause(cause, words, first=k == 0) for k, cause in enumerate(cured.causes)]
    return said


def _cause(cause: Cause, words: FitWords, *, first: bool) -> str:
    share = f"{min(100, round(100 * cause.share))} %"
    begins = "Most likely" if first else "Then"
    off = cause.offs[0]
    what = {"swing": "swing", "tilt": "tilt", "length": "length", "thick": "thickness", "wide": "width"}[off.what]
    size = f"{abs(cause.by):.2f}°" if off.is_angle else words.small(cause.by)
    if len(cause.offs) > 1:
        return f"{begins} ({share}): the setting itself, {what}, the same at {len(cause.offs)} ends, out by {size} each. Test it before you cut again."
    board = words.solution.design.boards[off.board]
    at = f" at the {end_word(board, off.end)}" if off.end else ""
    return f"{begins} ({share}): {words.board(off.board)}, its {what}{at}, out by {size}."

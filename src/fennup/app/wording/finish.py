"""What fastening, coats, days, loads and setting up are called, and what is said of them."""

from collections.abc import Callable
from datetime import date, datetime

from fennup.app.wording.figures import Voice
from fennup.core.fasten.doubts import Doubt
from fennup.core.fasten.fastened import Fastened
from fennup.core.fasten.table import STRAIGHT, Bolt, Dowel, How, Nail, Screw
from fennup.core.finish.tables import Exposure
from fennup.core.finish.wishes import FaceUse
from fennup.core.site.weight import GRAVITY

HOW_NAMES: dict[How, str] = {
    "screw": "screws", "nail": "nails", "bolt": "bolts", "dowel": "dowels", "biscuit": "biscuits", "spline": "a spline",
    "block": "a corner block", "bracket": "brackets", "backing": "a strip lapped behind", "glue": "glue alone",
}  # fmt: skip
ONE_NAMES: dict[str, str] = {
    "screw": "screw", "nail": "nail", "bolt": "bolt with washers and nut", "dowel": "dowel", "biscuit": "biscuit", "block": "corner block",
    "bracket": "bracket", "backing": "backing strip",
}  # fmt: skip
EXPOSURE_NAMES: dict[Exposure, str] = {
    "indoors": "indoors", "outdoors": "out in the weather", "soil": "against soil", "child": "within a child's reach",
}  # fmt: skip
USE_NAMES: dict[FaceUse, str] = {
    "coated": "coated",
    "hidden": "hidden, one coat",
    "bare": "left bare",
    "soil": "against soil",
    "contents": "against what it holds",
}
METAL: dict[Exposure, str] = {
    "indoors": "Plain or zinc-plated steel does indoors.",
    "outdoors": "Outdoors: stainless or hot-dip galvanised; plain and thinly plated steel runs and stains. Drive them from below and on inner faces where you can, "
    "so that water runs off.",
    "soil": "Against soil: stainless steel made for wet ground, or hot-dip galvanised; nothing else lasts there.",
    "child": "Within a child's reach: rounded or sunk heads, covered or plugged; no small part that comes off.",
}
SIDE_NAMES = {"face": "face", "back": "back", "upper": "upper edge", "lower": "lower edge", "rabbet": "rabbet"}
TASK_NAMES = {
    "cut": "Cut all parts", "smooth": "Smooth what one cannot reach later", "fit": "Put together dry and fit", "mask": "Mask what is to be glued",
    "glue": "Glue", "fasten": "Fasten", "site": "Prepare where it goes", "setup": "Set up",
}  # fmt: skip
WEEKDAYS = ("Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday")
CAUGHT = {"finger": "a finger", "limb": "an arm or a leg", "head": "a head"}
HOLDERS = {
    "proud": "It stands proud: offset clips over it, or a frame of strips built up behind.",
    "level": "It lies level with the back: clips or a strip screwed over it.",
    "points": "Points or brads driven flat against the back hold it.",
    "buttons": "Turn buttons or a thin strip, screwed, hold it.",
}
DEFER = (
    "Information only, with its assumptions: what carries people, roofs, guards or a wall, and what a child uses, is for your local codes and a licensed "
    "professional to say."
)


def how_many(count: int, one: str) -> str:
    """`4 joints`."""
    return f"{count} {one}{'' if count == 1 else 's'}"


def kg(value: float) -> str:
    """A weight."""
    return f"{value:.1f} kg" if value < 100 else f"{value:.0f} kg"


def newton(value: float) -> str:
    """A force, and what weighs so much."""
    if value < 10:
        return f"{value:.1f} N, next to nothing"
    return f"{value:.0f} N, as {value / GRAVITY:.1f} kg weigh"


def hours(value: float) -> str:
    """So many hours and minutes."""
    whole, minutes = divmod(round(value * 60), 60)
    if not minutes:
        return f"{whole} h"
    return f"{whole} h {minutes} min" if whole else f"{minutes} min"


def day_words(day: date) -> str:
    """`Sat 28 Nov`."""
    return f"{day:%a} {day.day} {day:%b}"


def at_words(at: datetime) -> str:
    """`Sat 28 Nov, 10:00`."""
    return f"{day_words(at.date())}, {at:%H:%M}"


def task_name(id: str) -> str:
    """A step by the day."""
    return f"Coat {id.removeprefix('coat ')}" if id.startswith("coat ") else TASK_NAMES.get(id, id)


def both_forms(mm: float) -> str:
    """A length in feet and inches, and in inches alone, to the sixteenth."""
    if mm < 0:
        return f"−({both_forms(-mm)})"
    sixteenths = round(mm / 25.4 * 16)
    feet, rest = divmod(sixteenths, 12 * 16)
    return f"{feet}′ {_inches(rest)}″ = {_inches(sixteenths)}″"


def _inches(sixteenths: int) -> str:
    whole, part = divmod(sixteenths, 16)
    under = 16
    while part and part % 2 == 0:
        part, under = part // 2, under // 2
    return f"{whole} {part}/{under}".strip() if part and whole else f"{part}/{under}" if part else str(whole)


def size_words(one: Fastened, voice: Voice) -> str:
    """What holds a joint, in a few words: `2 screws 4 × 50`."""
    if one.how in STRAIGHT and one.straight:
        count = len(one.rows[0]) if one.rows else 0
        if not count:
            return f"{one.how}s {one.straight.name}: no room"
        long = voice.say(one.length_mm) if one.length_mm is not None else "?"
        return f"{how_many(count, one.how)} {one.straight.name} × {long}"
    if one.how == "biscuit":
        return how_many(one.slot.count, f"{one.slot.biscuit.name} biscuit") if one.slot.biscuit else "no biscuit fits"
    return HOW_NAMES[one.how]


def doubt_text(doubt: Doubt, board: str, voice: Voice) -> str:
    """What speaks against a fastening, and what to do."""
    say, value, limit = voice.say, doubt.value, doubt.limit
    match doubt.code:
        case "comes_out":
            return f"It comes out by {say(value)}. At most {say(limit)} long."
        case "little_cover":
            return f"{say(value)} leaves too little over the tip: it may show through. At most {say(limit)}."
        case "little_bite":
            return f"{say(value)} bites too little. At least {say(limit)}."
        case "lacks_thin":
            return f"The wood is too thin: it would need {say(value)} to hold, and takes {say(limit)} at most. Take a thinner one, or something else."
        case "lacks_no_such_length":
            top = "" if limit == float("inf") else f" and {say(limit)}"
            return f"There is none {'from' if not top else 'between'} {say(value)}{top} in your table: add the length there, or take another size."
        case "skew_along" | "skew_across":
            way = doubt.code.removeprefix("skew_")
            return f"Square to where they meet there is no wood for it. Skewed by {limit:g}° {way} the row it holds; or take biscuits, or a block or bracket behind."
        case "no_room":
            return f"No room: it must stay {say(value)} from every edge. Take a thinner one, or something else."
        case "fewer":
            return f"Only {value:.0f} of {limit:.0f} have room in that row."
        case "head_covered":
            return f"{board} lies over its head: sink it by {say(limit)} or more, or that board stands off. Drive these first."
        case "head_wide":
            return f"The head, {say(value)}, is wider than the wood there, {say(limit)}: it breaks out."
        case "steep":
            return (
                f"It goes in {value:.0f}° from square: start the hole square, then lean the drill; make a flat seat for the head."
            )
        case "end_grain":
            return "It holds in end grain, which is weak: longer ones, a dowel across to bite in, or a bracket besides."
        case "slot_deep":
            return f"Its slot, {say(value)} deep, comes out: there is room for {say(limit)}."
        case "no_biscuit":
            return "No biscuit of your table fits: the wood is too thin or the joint too short."
    return doubt.code.replace("_", " ")


def care_for(one: Fastened, exposures: set[Exposure], name: Callable[[str], str]) -> list[str]:
    """What to take care of at a kind of joint; `name`: what a board is called."""
    found = []
    for board, (count, of) in one.covers.items():
        heads = "the head" if of == 1 else f"{count} of {of} heads" if count < of else f"all {of} heads"
        found.append(f"{name(board).capitalize()} lies over {heads}: drive them before it is laid, and sink them flush.")
    if isinstance(one.straight, Screw) and (one.through and one.through.into_mm < 60):
        found.append("Clamp both boards and keep your hand from behind where the tip could come out.")
    if isinstance(one.straight, Nail):
        found.append(
            "With a nailer: eye protection, the free hand a hand's length off the nail's way, never towards anybody; a nail can turn on a knot."
        )
    if isinstance(one.straight, Bolt | Dowel) or one.how in ("biscuit", "spline"):
        found.append("Clamp the piece; both hands at the machine; eye protection.")
    if any(one.design.boards[m.board].found for m in (one.kind.joints[0].a, one.kind.joints[0].b)):
        found.append("Before drilling into what is there: look for cables and pipes.")
    if "soil" in exposures:
        found.append(
            "Treated wood: mask and gloves while drilling; its dust and offcuts are not burned, and it does not touch food."
        )
    return found


# What is stretched over something that stands in the wind, and what that then meets.
STRETCHED = {"nothing": "nothing", "sheet": "cloth, sheet or boards"}
MEETS = {
    "open": "Open: only what its own wood shows is reckoned, what stands behind other wood once.",
    "covered": "Closed: all within its outline is reckoned.",
}

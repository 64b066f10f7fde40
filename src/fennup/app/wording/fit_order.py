"""Putting it together and going through a door, in words."""

from fennup.app.wording.fit import FitWords
from fennup.app.wording.names import listed
from fennup.core.fit.advice import Advice, Before, Hold
from fennup.core.fit.order import Blocked, Joining
from fennup.core.fit.passage import Opening, Passing, Turned
from fennup.core.geometry.vec import Vec
from fennup.core.tolerances import SAME

HOLDS: dict[Hold, str] = {
    "band": "A band clamp round all of it, a block at each corner; tighten until the glue shows, no more.",
    "band_leaning": "Two bands, one high and one low, for one alone rides up where the sides lean; small blocks with the slope under them.",
    "tape": "Strong tape over the outside, stretched across the joint.",
    "corner_clamps": "A corner clamp at each corner, or bar clamps both ways over blocks.",
    "bar_clamps": "A bar clamp along it, over scraps.",
    "wedged_blocks": "A bar clamp over wedge-shaped blocks cut to the slope, or it slides off.",
    "bars_both_sides": "Bar clamps above and below in turn, so that it does not buckle.",
    "lap_weights": "A spring clamp or a weight on each lap.",
    "weights": "Weights on top hold it down.",
    "pivot": "Fixed for now: one screw at each joint as a pivot. Level and square it, then put the others in.",
    "nails": "Or two nails left proud as clamps: fingers off their path.",
}
BEFORE: dict[Before, str] = {
    "inside": "Sand and finish the inside now; later no hand gets in well. No finish where glue goes.",
    "inner_edges": "Smooth the inner edges now: in the corners no plane reaches later.",
    "covered": "What it covers is sanded and finished before; glue faces stay bare.",
    "contents": "Whatever sits in the groove or rabbet goes in before it is closed.",
}
MOST_NAMED = 4
OVER_TIGHT = "Over-tightened clamps starve the joint of glue and lift the corners."
WAYS: tuple[tuple[str, str], ...] = (
    ("from the right", "from the left"),
    ("from behind", "from the front"),
    ("from above", "from below"),
)
OPENINGS: dict[Opening, str] = {"door": "A door", "stairs": "A stair", "load": "A load space"}
UP = {0: "its side", 1: "its back", 2: "as it stands"}


def comes_from(way: Vec | None) -> str:
    """From where a part comes: the way along which it is free."""
    if way is None:
        return "No straight way is free: it must be sprung or tilted in. Try it dry."
    said = [WAYS[k][0 if way[k] > 0 else 1] for k in range(3) if abs(way[k]) > 0.38]
    return f"It slides in {listed(said[:2])}; the way is free."


def step_title(step: Joining, words: FitWords) -> str:
    """What comes to what."""
    moved, onto = several(step.moved, words), several(step.onto, words)
    if not step.joints:
        verb = "Stand" if len(step.moved) == 1 else "Set"
        text = f"{verb} {moved} {'beside' if len(step.moved) == 1 else 'on'} {onto}"
    elif step.closes and step.halves:
        text = f"Join the two halves: {moved} to {onto}"
    else:
        text = f"{moved} to {onto}"
    text = f"{text[:1].upper()}{text[1:]}"
    whose = [side.name for side in words.solution.design.assembly.subassemblies if {*step.moved, *step.onto} <= set(side.boards)]
    if not whose:
        return text
    own = text.replace(f", {whose[0]}", "")
    return f"{whose[0].capitalize()}: {own[:1].lower()}{own[1:]}"


def several(ids: tuple[str, ...], words: FitWords) -> str:
    """Some boards, short: those that belong together by the name of their side, many by their number."""
    sides = [side for side in words.solution.design.assembly.subassemblies if set(side.boards) <= set(ids)]
    named = {id for side in sides for id in side.boards}
    said = [f"the {side.name}" for side in sides] + [words.short(id) for id in ids if id not in named]
    return listed(said) if len(said) <= MOST_NAMED else f"the {len(ids)} that are together"


def helpers(advice: Advice, words: FitWords) -> list[str]:
    """Who helps, and what is propped."""
    said = []
    if advice.helpers:
        weight = f", some {round(advice.heavy_kg)} kg" if advice.heavy_kg >= 2 else ""
        said.append(f"Two people{weight}: never alone under a heavy frame.")
    if advice.props:
        said.append(
            f"Prop {listed([words.short(id) for id in advice.props])}: nothing holds {'it' if len(advice.props) == 1 else 'them'} yet, and it falls in until it is tied."
        )
    return said


def before(advice: Advice, words: FitWords) -> list[str]:
    """What to do first."""
    said = [BEFORE[code] for code in advice.before]
    if advice.final:
        names = "; ".join(f"{words.label(e)} {words.value(e.value, e.unit)}" for e in advice.checks[:3])
        said.append(f"Once glued it cannot be undone. Prove it dry first{': ' + names if names else ''}.")
    return said


def glue(advice: Advice, joint_min: float, open_min: float) -> str:
    """How long its joints take against the glue's open time."""
    if not advice.minutes:
        return ""
    if advice.in_time:
        return f"{advice.minutes:g} minutes for its joints; the glue stays open {open_min:g}."
    return f"{advice.minutes:g} minutes for its joints, but the glue stays open only {open_min:g}: glue it in {advice.goes} goes, or take one that stays open longer."


def cares(advice: Advice) -> list[str]:
    """The usual cautions at such a step."""
    said = []
    if any(hold in advice.holds for hold in ("band", "band_leaning", "corner_clamps", "bar_clamps")):
        said.append(OVER_TIGHT)
    if "nails" in advice.holds:
        said.append("Fingers off the nail's path.")
    return said


def blocked_text(blocked: Blocked, words: FitWords) -> str:
    """Why an order cannot be."""
    moved = several(tuple(blocked.key.split("+")), words)
    return f"In that order {moved} cannot come to its place: {several(blocked.by, words)} would be in the way or not there yet. The usual order is shown."


def passing_text(told: Passing, words: FitWords) -> str:
    """Whether it goes through, and how it is turned."""
    if told.way is None:
        lacks = {"width": "too narrow", "height": "too low", "length": "too short", "turn": "too tight to turn in"}[
            told.short_of or "width"
        ]
        return f"It does not go through: {lacks} by {words.small(told.short_mm)} at the best turn."
    return f"It goes through{turned(told.way)}."


def in_short(text: str) -> str:
    """A sentence after a colon."""
    return f"{text[:1].lower()}{text[1:]}"


def turned(way: Turned) -> str:
    """How it is turned on the way through."""
    axis = max(range(3), key=lambda k: abs(way.up[k]))
    said = "" if axis == 2 else f", laid on {UP[axis]}"
    ahead = max(range(3), key=lambda k: abs(way.ahead[k]))
    if abs(abs(way.ahead[ahead]) - 1.0) > SAME:
        said += ", turned askew"
    elif ahead == 0 and axis == 2:
        said += ", sideways first"
    if way.upright:
        return said or ", upright"
    return f"{said}, leaning between {min(abs(way.least_deg), abs(way.most_deg)):.2f}° and {max(abs(way.least_deg), abs(way.most_deg)):.2f}° from that"

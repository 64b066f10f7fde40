"""The saw's settings in words: each position once, with how the board lies for every cut."""

from typing import Literal

from fennup.app.schemas.sheet import EdgeOut, PartOut, SettingOut, UseOut
from fennup.app.services.part_cards import part_name
from fennup.app.wording.figures import Voice
from fennup.app.wording.members import end_word, sides_of
from fennup.app.wording.saw import miss_text
from fennup.core.assembly.board import End
from fennup.core.parts.facts import PartFacts
from fennup.core.saw.marking import Marking, Place, markings_of
from fennup.core.saw.pose import Pose
from fennup.core.saw.settings import CutUse, Setting
from fennup.core.saw.tool import ScaleTool
from fennup.core.saw.tools import AnyTool
from fennup.core.solve import Solution
from fennup.core.tolerances import NOTHING

# Less than the last digit that is shown.
UNSEEN_DEG = 5e-7


def settings_of(solution: Solution, voice: Voice) -> list[SettingOut]:
    """Every setting, in the order in which they are first needed."""
    markings = markings_of(solution.plan.settings, solution.design.boards)
    return [_setting(solution, s, markings, voice) for s in solution.plan.settings]


def other_lines(card: PartOut, facts: PartFacts) -> list[EdgeOut]:
    """Rips, grooves, tapers, notches, holes and the edges of panels: what stands on the part's card beside its miters."""
    lines = list(card.edges)
    if facts.board.stave:
        tapers = [(end.name, cut) for end in card.ends for cut in end.cuts]
        lines = [EdgeOut(label=name, figure=cut.miter, note=f"{cut.leans}; {cut.bevel}") for name, cut in tapers] + lines
    more = ("lap", "birdsmouth", "holes", "side")
    for rung in card.ladder:
        if rung.id.startswith(more) or (rung.here and facts.board.stave):
            lines.append(EdgeOut(label=rung.label, figure=rung.figure, note=rung.note))
    return lines


def parting_lines(solution: Solution, id: str, voice: Voice) -> list[EdgeOut]:
    """A lid that is sawn off once the box is together."""
    return [
        EdgeOut(
            label="Line round all sides, below the top edges",
            figure=voice.length(parting.down_mm),
            note=f"measured upright, not along a wall that leans; the blade takes {voice.say(parting.kerf_mm)} below the line",
        )
        for parting in solution.design.assembly.inside[id].partings
    ]


def _setting(solution: Solution, s: Setting, markings: dict[Place, Marking], voice: Voice) -> SettingOut:
    saw = solution.plan.tools[s.tool]
    side = "right" if s.swing_deg > 0 else "left"
    square, upright = abs(s.swing_dial_deg) < NOTHING, abs(s.tilt_dial_deg) < NOTHING
    why_not = " ".join(miss_text(miss, saw, voice) for miss in s.misses)
    shown = saw.swing_shown(s.swing_dial_deg)
    return SettingOut(
        id=f"{s.swing_deg:.6f}/{s.tilt_deg:.6f}",
        shown=voice.angle(shown),
        direction="square cut" if square else f"swing to the {side}",
        tilt="blade upright"
        if upright
        else f"tilt {voice.say_angle(saw.tilt_shown(s.tilt_dial_deg))} to the {'left' if s.tilt_deg > 0 else 'right'}",
        exact=_exactly(saw, s),
        reachable=s.reachable,
        why_not=why_not,
        uses=[_use(solution, s, use, markings[use.part, use.end, use.index], voice) for use in s.uses],
    )


def _exactly(saw: AnyTool, s: Setting) -> str:
    """What the scales cannot show."""
    if not isinstance(saw, ScaleTool):
        return ""
    missed = [
        f"{name} exactly {exact:.4f}°, the scale shows steps of {step:g}°"
        for name, exact, shown, step in (
            ("swing", saw.swing_shown(s.swing_deg), saw.swing_shown(s.swing_dial_deg), saw.swing_step_deg),
            ("tilt", saw.tilt_shown(s.tilt_deg), saw.tilt_shown(s.tilt_dial_deg), saw.tilt_step_deg),
        )
        if abs(exact - shown) >= UNSEEN_DEG
    ]
    return "; ".join(missed) or "exact on this scale"


def _use(solution: Solution, s: Setting, use: CutUse, marking: Marking, voice: Voice) -> UseOut:
    facts = next(f for f in solution.design.facts if f.key == use.part)
    words = sides_of(solution, use.part)
    end = end_word(facts.board, use.end) + (f", cut {use.index + 1}" if use.index else "")
    return UseOut(
        part=use.part,
        text=f"{part_name(solution, facts.group)}, {end}",
        mark=mark_text(facts, use.end, use.pose, marking, words, voice),
        lies=f"{lying(use.pose, words, ready=solution.design.boards[use.part].ready)}, keep the piece {use.kept} of the blade.",
        count=use.count,
    )


def mark_text(facts: PartFacts, end: End, pose: Pose, marking: Marking, words: dict[str, str], voice: Voice) -> str:
    """Where a cut is marked, in words."""
    if marking.arris is None:
        return f"This cut first, from a board at least {voice.say(facts.extent[0])} long."
    side, edge = marking.arris.split("_")
    line = f"{words[edge]}, {words[side]}" if facts.beveled else words[edge]
    start = end_word(facts.board, marking.start)
    begins = "the first cut, inwards" if marking.start == end else f"the {start}"
    if marking.start != end and marking.from_long_point and abs(marking.datum.normal[0]) < 1 - NOTHING:
        begins = f"the long point of {begins}"
    # Where face and back are alike one measures on whichever is up.
    under = " That line lies underneath." if pose.down == edge or (pose.down == side and facts.beveled) else ""
    return f"Mark {voice.say(marking.length_mm)} on the {line}, from {begins}.{under}"


def lying(pose: Pose, words: dict[str, str], *, ready: bool = False) -> str:
    """How the board lies; `ready`: a moulding, whose edges come beveled."""
    if pose.stance == "flat":
        up: Literal["face", "back"] = "face" if pose.down == "back" else "back"
        return f"{words[up].capitalize()} up, {words[pose.fence]} to the fence"
    if pose.stance == "on_edge":
        return f"Standing on its {words[pose.down]}, {words[pose.fence]} to the fence"
    if ready:
        down = ", upside down" if pose.down == "upper" else ""
        return (
            f"Nested between table and fence as it hangs{down}: {words[pose.down]} on the table, {words[pose.fence]} to the fence"
        )
    return f"Propped on its ripped {words[pose.down]} as it will stand, {words[pose.fence]} to the fence"

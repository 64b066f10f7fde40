"""The closing line and the findings in words."""

from typing import Literal

from pydantic import BaseModel

from fennup.app.wording.figures import Voice
from fennup.app.wording.labels import label
from fennup.core.assembly.model import Finding
from fennup.core.solve import Solution


class ClosingLine(BaseModel):
    """The verdict in words. `tone` goes with a sign of its own, never with colour alone."""

    tone: Literal["closes", "opens", "fails"]
    headline: str
    detail: str


class FindingLine(BaseModel):
    """One finding in words; `parts` can be touched, `fields` lead to what to change."""

    severity: Literal["note", "warning", "error"]
    text: str
    parts: list[str]
    fields: list[str]


def closing_line(solution: Solution, voice: Voice) -> ClosingLine:
    """What is always in view."""
    closing = solution.closing
    if closing.state == "exact":
        return ClosingLine(tone="closes", headline="Closes exactly.", detail="Your saw can be set to every angle as it is.")
    if closing.state == "chain":
        return ClosingLine(tone="closes", headline="Every joint closes.", detail="One side or more is left open.")
    if closing.state == "opens":
        return _opens(solution, voice)
    if closing.state == "open_joint":
        size = (
            f"stays open by {voice.small(closing.opening_mm)}"
            if closing.opening_mm > closing.overlap_mm
            else f"overlaps by {voice.small(closing.overlap_mm)}"
        )
        return ClosingLine(tone="fails", headline="Does not close.", detail=f"Corner {closing.joint} {size}.")
    a, b = closing.parts
    return ClosingLine(tone="fails", headline="Does not close.", detail=f"Parts {a} and {b} would stand in one another.")


def _opens(solution: Solution, voice: Voice) -> ClosingLine:
    closing, step = solution.closing, solution.machine.swing_step_deg
    saw = f"With your saw set to the nearest {step:g}°"
    if closing.opening_mm >= 5e-4:
        edge = "outer edge" if closing.at == "outer" else "opening edge"
        detail = f"{saw} the last joint, {closing.joint}, would open {voice.small(closing.opening_mm)} at its {edge}."
    elif closing.shift_mm >= 5e-4:
        detail = f"{saw} the last joint, {closing.joint}, comes flush but its outer tips miss by {voice.small(closing.shift_mm)}."
    else:
        detail = f"{saw} it still closes; opening edges miss each other by up to {voice.small(closing.step_mm)} at a corner."
    return ClosingLine(tone="opens", headline="Closes as drawn.", detail=detail)


def finding_line(finding: Finding, voice: Voice, sides: int) -> FindingLine:
    """One finding as one or two sentences."""
    return FindingLine(
        severity=finding.severity,
        text=_finding_text(finding, voice, sides),
        parts=list(finding.parts) if finding.code != "pin_disagrees" else [],
        fields=list(finding.fields),
    )


def _finding_text(finding: Finding, voice: Voice, sides: int) -> str:
    value, limit, parts = finding.value or 0.0, finding.limit or 0.0, finding.parts
    named = " and ".join(parts)
    texts = {
        "pin_disagrees": lambda: f"What you pinned for {named} disagrees with what was pinned before; the gap shows by how much.",
        "pin_spare": lambda: "This pin only repeats what follows from the others.",
        "angles_sum": lambda: (
            f"The corners add up to {voice.say_angle(value)}; {sides} corners must make {voice.say_angle(limit)}, so it cannot close."
        ),
        "falls_through": lambda: (
            f"With {voice.small(limit)} of play at each side the rabbet, {voice.small(value)}, no longer covers the edge: it could fall through."
        ),
        "joint_open": lambda: f"The joint of {named} does not close: it is {voice.small(value)} out.",
        "rabbets_miss": lambda: (
            f"At {named} the rabbets of the two rails do not meet: {voice.small(value)} of one mating face stays bare behind. Pare it on site."
        ),
        "claim_missed": lambda: (
            f"{label(finding.fields[0]) if finding.fields else 'A size'}: asked {voice.small(limit)}, the parts measure {voice.small(value)}."
        ),
        "past_swing_stop": lambda: (
            f"{named}: {voice.say_angle(value)} is past this saw's stop at {voice.say_angle(limit)}. "
            f"Stand the board square to the fence in a jig and swing {voice.say_angle(90 - value)}, "
            "or mark it and saw by hand. Clamp jig and board: they creep."
        ),
        "past_tilt_stop": lambda: f"{named}: a tilt of {voice.say_angle(value)} is past this saw's stop at {voice.say_angle(limit)}.",
        "short_part": lambda: (
            f"{named} is only {voice.say(value)} long. Under {voice.say(limit)} is too short to hold by hand: "
            "cut it from a longer board, with a hold-down, or by hand saw."
        ),
        "thin_lip": lambda: f"The rabbet leaves a lip of {voice.small(value)}. Under {voice.small(limit)} it breaks easily.",
    }
    words = texts.get(finding.code)
    return words() if words else finding.code.replace("_", " ")

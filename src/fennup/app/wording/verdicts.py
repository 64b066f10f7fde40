"""The closing line and the findings in words."""

from collections.abc import Callable
from typing import Literal

from pydantic import BaseModel

from fennup.app.wording.figures import Voice
from fennup.app.wording.members import board_words, called, joint_words, sides_of
from fennup.app.wording.names import listed
from fennup.app.wording.sentences import sentence
from fennup.app.wording.tables import merged
from fennup.core.assembly.model import Finding
from fennup.core.kinds.catalogue import KINDS
from fennup.core.project.place import free_sizes
from fennup.core.saw.tool import ScaleTool
from fennup.core.solve import Solution
from fennup.core.tolerances import UNSEEN_MM
from fennup.core.verify.boolean import BooleanProof


class ClosingLine(BaseModel):
    """The verdict in words. `tone` goes with a sign of its own, never with colour alone."""

    tone: Literal["closes", "opens", "fails"]
    headline: str
    detail: str
    second: str = ""


class Touchable(BaseModel):
    """A board that can be touched, and what it is called."""

    id: str
    name: str


class FindingLine(BaseModel):
    """One finding in words; `parts` can be touched, `fields` lead to what to change."""

    severity: Literal["note", "warning", "error"]
    text: str
    parts: list[Touchable]
    fields: list[str]


WITHOUT_SECOND = {
    "looking": "It is checked a second way once it is saved.",
    "waiting": "A second check, as solids, is still being made.",
    "none": "The second check, as solids, could not be made.",
}


def closing_line(
    solution: Solution, proof: BooleanProof | None, voice: Voice, without: Literal["looking", "waiting", "none"] = "looking"
) -> ClosingLine:
    """What is always in view, and what the second proof says to it; why there is none yet, where there is none."""
    line = _with_bare(_with_free(_first(solution, voice), solution, voice), solution, voice)
    if proof is None:
        return line.model_copy(update={"second": WITHOUT_SECOND[without]})
    if not proof.confirms(solution.plan.closing, solution.design.joints):
        second = f"Checked a second way, as solids, it comes out otherwise: {_otherwise(proof, solution)}. Do not cut by these figures."
        return line.model_copy(update={"tone": "fails", "headline": "Two checks disagree.", "second": second})
    if line.tone != "fails":
        second = "Checked a second way, as solids: every joint touches, and no two pieces stand in one another."
    elif solution.plan.closing.state == "bare":
        second = "Checked a second way, as solids: the same strip stays bare."
    else:
        second = "Checked a second way, as solids: it does not close there either."
    return line.model_copy(update={"second": second})


def _with_free(line: ClosingLine, solution: Solution, voice: Voice) -> ClosingLine:
    """The verdict while a size is missing: that one first."""
    free = free_sizes(solution.spec)
    if not free or line.tone == "fails":
        return line
    count = "One size is" if len(free) == 1 else f"{len(free)} sizes are"
    headline = f"{count} still free: {listed([voice.label(name) for name in free])}."
    return line.model_copy(
        update={"tone": "opens", "headline": headline, "detail": f"As it is drawn now: {line.headline} {line.detail}"}
    )


def _with_bare(line: ClosingLine, solution: Solution, voice: Voice) -> ClosingLine:
    """The verdict where the joints close and what lies in the opening does not cover it: that first."""
    bare = next((f for f in solution.plan.findings if f.code == "round_uncovered"), None)
    if bare is None or line.tone == "fails":
        return line
    detail = f"{finding_text(bare, solution, voice)} Of the joints: {line.headline} {line.detail}"
    return line.model_copy(update={"tone": "opens", "headline": "What it holds leaves gaps.", "detail": detail})


def _otherwise(proof: BooleanProof, solution: Solution) -> str:
    """What the second proof found."""
    if proof.unlike:
        return f"{called(solution, proof.unlike[0])} is another piece of wood there"
    if proof.shared:
        a, b, volume = proof.shared[0]
        return f"{called(solution, a)} and {called(solution, b)} share {volume:.3g} mm³ of wood there"
    if proof.apart:
        return f"{called(solution, proof.apart[0])} does not touch there"
    return f"{called(solution, proof.bare[0])} does not lie flush all over there" if proof.bare else "every joint touches there"


def _first(solution: Solution, voice: Voice) -> ClosingLine:
    """The verdict of the faces as measured."""
    closing = solution.plan.closing
    if closing.state == "exact":
        within = all(setting.reachable for setting in solution.plan.settings)
        # Rips and tapers are set by figures of their own, which stand at their steps.
        beveled = any(facts.rips for facts in solution.design.facts)
        shown = "the angles of all ends" if beveled else "every angle"
        as_is = f" as {'they are' if beveled else 'it is'}."
        detail = f"Your saw's scale shows {shown}" + (as_is if within else ", but it does not reach all of them.")
        if closing.open_side:
            return ClosingLine(tone="closes", headline="Every joint closes.", detail=f"One side or more is left open. {detail}")
        return ClosingLine(tone="closes", headline="Closes exactly.", detail=detail)
    if closing.state == "opens":
        return ClosingLine(tone="opens", headline="Closes as drawn.", detail=_opens(solution, voice))
    if closing.state == "shared_wood":
        a, b = (board_words(solution, id) for id in closing.parts)
        return ClosingLine(tone="fails", headline="Does not close.", detail=_sentence(f"{a} and {b} would stand in one another."))
    joint, check = next(
        (j, c) for j, c in zip(solution.design.assembly.joints, solution.design.joints, strict=True) if j.id == closing.joint
    )
    if closing.state == "bare":
        over = voice.small(check.bare_mm)
        detail = f"At {joint_words(solution, joint.id)} {over} of a face lie on nothing."
        if joint.kind == "butt":
            on = board_words(solution, joint.b.board)
            detail = f"The end of {board_words(solution, joint.a.board)} reaches {over} past {on}."
        return ClosingLine(tone="fails", headline="A bare strip stays.", detail=detail)
    if not check.touches:
        detail = f"At {joint_words(solution, joint.id)} the faces lie beside each other and do not touch."
        return ClosingLine(tone="fails", headline="Does not close.", detail=detail)
    size = (
        f"stays open by {voice.small(closing.opening_mm)}"
        if closing.opening_mm > closing.overlap_mm
        else f"overlaps by {voice.small(closing.overlap_mm)}"
    )
    return ClosingLine(tone="fails", headline="Does not close.", detail=_sentence(f"{joint_words(solution, joint.id)} {size}."))


def _sentence(text: str) -> str:
    return text[:1].upper() + text[1:]


def _opens(solution: Solution, voice: Voice) -> str:
    """The two figures: what the worst joint opens by itself, and what adds up in the last one."""
    tools = [solution.plan.tools[id] for id in dict.fromkeys(s.tool for s in solution.plan.settings)]
    found = {step for tool in tools if isinstance(tool, ScaleTool) for step in (tool.swing_step_deg, tool.tilt_step_deg)}
    steps = " and ".join(f"{step:g}°" for step in sorted(found))
    figures = [words for words in (_by_itself(solution, voice), _adding_up(solution, voice)) if words]
    mark = solution.plan.workshop.graduation_mm
    lengths = f" and lengths cut to the nearest {voice.say(mark)}" if mark else ""
    set_to = f"your saw set to the nearest {steps}" if steps else "each angle as it is made by hand"
    return f"With {set_to}{lengths}, {'; '.join(figures)}."


def _seen(mm: float) -> bool:
    return mm >= UNSEEN_MM


def _by_itself(solution: Solution, voice: Voice) -> str:
    gap = solution.plan.closing.by_itself
    if gap is None or not _seen(max(gap.widest_mm, gap.step_mm)):
        return "no joint opens by itself"
    joint = joint_words(solution, gap.joint)
    step = f"at {joint} two edges miss each other by {voice.small(gap.step_mm)}"
    if not _seen(gap.widest_mm):
        return step
    side = _side_of(solution, gap.joint, gap.at)
    opens = f"{joint} by itself opens {voice.small(gap.widest_mm)} at the {side}"
    return f"{opens} and its edges miss each other by {voice.small(gap.step_mm)}" if _seen(gap.step_mm) else opens


def _adding_up(solution: Solution, voice: Voice) -> str:
    last = solution.plan.closing.adding_up
    if last is None:
        return ""
    if last.joint is None:
        if not _seen(abs(last.wider_mm)):
            return "the open side keeps its width"
        return f"pushed tight, the open side comes out {voice.small(abs(last.wider_mm))} {'wider' if last.wider_mm > 0 else 'narrower'}"
    joint = joint_words(solution, last.joint)
    if not _seen(max(last.opening_mm, last.step_mm)):
        return "pushed tight, nothing adds up in the last joint"
    out_of_line = f"{voice.small(last.step_mm)} out of line"
    if not _seen(last.opening_mm):
        return f"with all others pushed tight the last, {joint}, comes {out_of_line}"
    where = f" at the {_side_of(solution, last.joint, last.at)}" if last.at else ""
    more = f", {out_of_line}" if _seen(last.step_mm) else ""
    return f"with all others pushed tight the last, {joint}, stands open {voice.small(last.opening_mm)}{where}{more}"


def _side_of(solution: Solution, id: str, side: str) -> str:
    """A side of a joint's boards, in words."""
    joint = next(joint for joint in solution.design.assembly.joints if joint.id == id)
    return sides_of(solution, joint.a.board)[side]


class SimpleLine(BaseModel):
    """What a simple setting would open at a joint."""

    how: str
    text: str


SIMPLE = {
    "flat": "Flat on the saw, swing by the slope, tilt by the plain corner angle",
    "from_vertical": "Flat on the saw, swing by the plain corner angle, tilt by the slope from upright",
    "from_level": "Flat on the saw, swing by the plain corner angle, tilt by the slope from level",
    "swapped": "The two right angles the wrong way round",
    "on_edge": "On edge, swing by the plain corner angle, tilt by the slope",
}


def simple_lines(solution: Solution, voice: Voice) -> list[SimpleLine]:
    """What the simple settings would open, joint by joint where joints differ, each with the angles that it means."""
    lines = []
    for simple in solution.design.simple:
        joint = _sentence(joint_words(solution, simple.joint))
        if simple.gap is None:
            text = f"{joint} does not come together at all."
        else:
            face, back = voice.small(simple.gap.face_mm), voice.small(simple.gap.back_mm)
            sides = [_side_of(solution, simple.joint, side) for side in ("face", "back")]
            text = f"{joint} would open {face} at the {sides[0]}, {back} at the {sides[1]}."
        angles = f"swing {voice.say_angle(simple.swing_deg)}, tilt {voice.say_angle(simple.tilt_deg)}"
        lines.append(SimpleLine(how=f"{SIMPLE[simple.how]}: {angles}", text=text))
    return lines


def finding_line(finding: Finding, solution: Solution, voice: Voice) -> FindingLine:
    """One finding of this very thing, with what to touch and what to change."""
    assert finding.severity != "standing"
    return FindingLine(
        severity=finding.severity,
        text=finding_text(finding, solution, voice),
        parts=[Touchable(id=p, name=_sentence(board_words(solution, p))) for p in finding.parts if p in solution.design.solids],
        fields=list(finding.fields),
    )


def finding_text(finding: Finding, solution: Solution, voice: Voice) -> str:
    """One finding as one or two sentences."""
    code, side = finding.code, ""
    if code.startswith("past_") and code.endswith(("_left", "_right")):
        code, _, side = code.rpartition("_")
    parts = listed([called(solution, id) for id in finding.parts])
    value, limit = finding.value or 0.0, finding.limit or 0.0
    text = code.replace("_", " ")
    if code in TEXTS:
        figures = {"parts": parts, "value": value, "limit": limit, "over": value - limit, "side": side}
        text = sentence(TEXTS[code], figures, voice)
    elif code in FINDINGS:
        text = FINDINGS[code](parts, value, limit, voice).replace("$side", side)
    return _sentence(text)


Words = Callable[[str, float, float, Voice], str]
# Those that serve every kind; a kind has its own beside them.
TEXTS = merged(
    "findings",
    {
        "stands_on_air": "{parts} do not touch: the lowest wood of the first lies beside the highest of the second. Change a width, or what it stands on.",
        "held_above": "{parts} hangs {value:length} above what is below it: something else must hold it there.",
        "rims_apart": "At {parts} the higher wall's end stands over the lower one: {value:gap} of it stays bare.",
        "pipe_long": "{parts} is {value:length} long: {limit:length} between the faces, and what goes into both boards.",
        "ball_sits": "A ball sinks {value:length} into its seat in {parts} and stands {limit:length} out of it.",
        "square_edges_miss": "At {parts} the square edges of walls that lean unequally do not meet: {value:gap} of a mating face stays bare.",
        "seat_past_plate": "{parts}: a part of the level cut, {value:gap} across, reaches past the plate on the inside; the rest bears on it.",
        "reaches_past": "{parts}: the end of the first reaches {value:gap} past the second. Make it slimmer, or move it.",
        "joint_open": "{parts} does not close: it is {value:gap} out.",
        "rabbets_miss": "At {parts} what is cut along the boards does not meet: {value:gap} of a mating face stays bare. Pare it on site.",
        "claim_missed": "A size that you gave is not kept: asked {limit:gap}, the finished parts measure {value:gap}.",
        "angle_missed": "An angle that you gave is not kept: asked {limit:angle}, the finished parts measure {value:angle}.",
        "past_tilt": "{parts}: a tilt of {value:angle} is past this saw's stop, {limit:angle} to the {side}. Mark the cut on two sides and saw it by hand, or on edge in a jig that is clamped.",
        "too_wide": "{parts}: {value:length} from the fence is wider than this saw cuts at this setting, {limit:length}.",
        "too_high": "{parts}: {value:length} high is more than this saw cuts at this setting, {limit:length}.",
        "no_slot": "{parts}: no slot of the miter box is at this angle; the nearest is {value:angle} off.",
        "too_steep": "{parts}: a cut {value:angle} out of square is steeper than a hand saw starts well, {limit:angle}.",
        "short_part": "{parts} is only {value:length} long. Under {limit:length} is too short to hold by hand: cut it from a longer board, with a hold-down, or by hand saw.",
        "thin_left": "{parts}: what is cut along it leaves a wall of {value:gap}. Under {limit:gap} it breaks easily.",
        "thin_lip": "{parts}: the rabbet leaves a lip of {value:gap}. Under {limit:gap} it breaks easily.",
    },
    *(kind.words.findings for kind in KINDS.values()),
)
# Those whose sentence hangs on more than its figures.
FINDINGS: dict[str, Words] = {
    "tips_over": lambda p, v, _, say: (
        f"By the weight of its wood {p} would fall over"
        + (f": its middle lies {say.small(v)} outside what it stands on." if v else ": it stands on a line only.")
    ),
    "opens_wide": lambda p, v, limit, say: (
        "As your saw can be set, {} opens {}: more than the {} that this project allows. ".format(p, *say.apart(v, limit))
        + "Cut a test joint and creep up on it, or set the angle by a gauge."
    ),
    "past_swing": lambda p, v, limit, say: (
        f"{p}: {say.say_angle(v)} is past this saw's stop, {say.say_angle(limit)} to the $side. Stand the board square to the fence in a jig "
        f"and swing {say.say_angle(90 - v)}, or mark it and saw by hand. Clamp jig and board: they creep."
    ),
}

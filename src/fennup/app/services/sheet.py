"""From a solution to what the screen shows: chooses and words, decides nothing."""

from collections.abc import Sequence
from typing import Literal

from fennup.app.schemas.sheet import SettingOut, SheetOut, SizeOut, UseOut
from fennup.app.services.drawings import control_out, view_out
from fennup.app.services.part_cards import part_name, part_out
from fennup.app.wording.figures import Figure, Voice
from fennup.app.wording.labels import PART, WHOLE, Counts, facts_told, label
from fennup.app.wording.members import counts_of, end_word, sides_of
from fennup.app.wording.verdicts import closing_line, finding_line, simple_lines
from fennup.app.wording.why import given_lines
from fennup.core.drawing.saw_views import operator_view
from fennup.core.drawing.view import Control
from fennup.core.kinds.catalogue import KINDS
from fennup.core.saw.machine import Machine
from fennup.core.saw.pose import Pose
from fennup.core.saw.settings import CutUse, Setting
from fennup.core.solve import Solution
from fennup.core.verify.boolean import BooleanProof


def sheet_of(
    solution: Solution,
    voice: Voice,
    proof: BooleanProof | None = None,
    more: Sequence[Control | None] = (),
    *,
    looking: bool = False,
) -> SheetOut:
    """The whole sheet of one project; while a change is only looked at, without the controls, which are as saved."""
    kind = KINDS[solution.spec.kind]
    told = kind.describe(solution.spec, solution.ruler, solution.solids)
    sides = counts_of(solution)
    alone = len(solution.assembly.inside) == 1  # a single assembly with fitted pieces needs no name
    return SheetOut(
        whole=WHOLE[kind.name],
        part_word=PART[kind.name],
        takes_pieces=kind.stands,
        rescales=kind.rescale is not None,
        has_levels=kind.has_levels(solution.spec),
        facts=facts_told(told.facts),
        views=[view_out(v, voice, sides) for v in told.views],
        controls=[] if looking else [control_out(c, voice) for c in (*told.controls, *more) if c],
        sizes=[
            SizeOut(
                id=s.measure,
                label=_own_label(s.measure, sides) if alone else label(s.measure, sides),
                whose="" if alone else s.measure.rpartition("/")[0],
                own=_own_label(s.measure, sides),
                figure=voice.of(s.value, s.unit),
                standing=s.standing,
                acts=s.acts,
                can_free=s.can_free,
            )
            for s in told.sizes
        ],
        parts=[part_out(solution, part, voice) for part in solution.parts],
        settings=[_setting(solution, s, voice) for s in solution.settings],
        closing=closing_line(solution, proof, voice),
        findings=[finding_line(f, solution, voice) for f in solution.findings],
        simple=simple_lines(solution, voice),
        given=given_lines(solution, voice),
    )


def _own_label(measure: str, sides: Counts) -> str:
    """What a size is called within its assembly."""
    return label(measure, sides).removeprefix(f"{measure.rpartition('/')[0]}: ")


def _setting(solution: Solution, s: Setting, voice: Voice) -> SettingOut:
    saw = solution.machine
    side = "right" if s.swing_deg > 0 else "left"
    square, upright = abs(s.swing_as_set_deg) < 1e-9, abs(s.tilt_as_set_deg) < 1e-9
    why_not = "" if s.reachable else _past(saw, s, voice)
    shown = saw.swing_shown(s.swing_as_set_deg)
    return SettingOut(
        id=f"{s.swing_deg:.6f}/{s.tilt_deg:.6f}",
        shown=voice.angle(shown),
        direction="square cut" if square else f"swing to the {side}",
        tilt="blade upright"
        if upright
        else f"tilt {voice.say_angle(saw.tilt_shown(s.tilt_as_set_deg))} to the {'left' if s.tilt_deg > 0 else 'right'}",
        exact=_exactly(saw, s),
        reachable=s.reachable,
        why_not=why_not,
        uses=[_use(solution, s, use, voice) for use in s.uses],
    )


def _past(saw: Machine, s: Setting, voice: Voice) -> str:
    """Which stop is in the way."""
    if abs(s.swing_deg) > saw.swing_limit(s.swing_deg) + 1e-9:
        side, limit, needs = ("right" if s.swing_deg > 0 else "left"), saw.swing_limit(s.swing_deg), abs(s.swing_deg)
        reading = "" if saw.swing_counts_from == "square" else f", {voice.say_angle(saw.swing_shown(limit))} on its scale"
        return f"Past the stop: to the {side} this saw goes to {voice.say_angle(limit)}{reading}, and this needs {voice.say_angle(needs)}."
    side, limit, needs = ("left" if s.tilt_deg > 0 else "right"), saw.tilt_limit(s.tilt_deg), abs(s.tilt_deg)
    reading = "" if saw.tilt_counts_from == "square" else f", {voice.say_angle(saw.tilt_shown(limit))} on its scale"
    return f"Past the stop: to the {side} this saw tilts to {voice.say_angle(limit)}{reading}, and this needs {voice.say_angle(needs)}."


def _exactly(saw: Machine, s: Setting) -> str:
    """What the scales cannot show."""
    missed = [
        f"{name} exactly {exact:.4f}°, the scale shows steps of {step:g}°"
        for name, exact, shown, step in (
            ("swing", saw.swing_shown(s.swing_deg), saw.swing_shown(s.swing_as_set_deg), saw.swing_step_deg),
            ("tilt", saw.tilt_shown(s.tilt_deg), saw.tilt_shown(s.tilt_as_set_deg), saw.tilt_step_deg),
        )
        if abs(exact - shown) >= 5e-7
    ]
    return "; ".join(missed) or "exact on this scale"


def _use(solution: Solution, s: Setting, use: CutUse, voice: Voice) -> UseOut:
    part = next(p for p in solution.parts if p.id == use.part)
    words = sides_of(solution, use.part)
    end = end_word(solution.assembly.board(use.part), use.end) + (f", cut {use.index + 1}" if use.index else "")
    picture = operator_view(s.swing_as_set_deg, s.tilt_as_set_deg, use.kept == "left", use.part)
    return UseOut(
        part=use.part,
        text=f"{part_name(solution, part)}, {end}",
        lies=f"{_lying(use.pose, words)}, keep the piece {use.kept} of the blade.",
        count=use.count,
        picture=view_out(picture, voice),
    )


def _lying(pose: Pose, words: dict[str, str]) -> str:
    """How the board lies."""
    if pose.stance == "flat":
        up: Literal["face", "back"] = "face" if pose.down == "back" else "back"
        return f"{words[up].capitalize()} up, {words[pose.fence]} to the fence"
    if pose.stance == "on_edge":
        return f"Standing on its {words[pose.down]}, {words[pose.fence]} to the fence"
    return f"Propped on its ripped {words[pose.down]} as it will stand, {words[pose.fence]} to the fence"


def spoken(figure: Figure) -> str:
    """A figure as one string for lists and tables."""
    text = f"{figure.whole} {figure.fraction}".strip()
    return f"{text}{'' if figure.unit in ('″', '°') else ' '}{figure.unit}" + (f" {figure.remainder}" if figure.remainder else "")

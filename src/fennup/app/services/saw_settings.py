"""The saw's settings in words: each position once, with how the board lies for every cut."""

from typing import Literal

from fennup.app.schemas.sheet import SettingList, SettingOut, UseOut
from fennup.app.services.drawings import view_out
from fennup.app.services.part_cards import part_name
from fennup.app.wording.figures import Voice
from fennup.app.wording.members import end_word, sides_of
from fennup.core.drawing.saw_views import operator_view
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.saw.pose import Pose
from fennup.core.saw.settings import CutUse, Setting
from fennup.core.solve import Solution
from fennup.core.tolerances import NOTHING

# Less than the last digit that is shown.
UNSEEN_DEG = 5e-7


def settings_of(solution: Solution, voice: Voice) -> SettingList:
    """Every setting, and the parts that have cuts no tool here makes."""
    otherwise = {key.rpartition(" ")[0] for key in solution.plan.otherwise}
    return SettingList(
        settings=[_setting(solution, s, voice) for s in solution.plan.settings],
        otherwise=[part_name(solution, part) for part in solution.design.parts if part.id in otherwise],
    )


def _setting(solution: Solution, s: Setting, voice: Voice) -> SettingOut:
    saw = solution.plan.saw
    side = "right" if s.swing_deg > 0 else "left"
    square, upright = abs(s.swing_as_set_deg) < NOTHING, abs(s.tilt_as_set_deg) < NOTHING
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


def _past(saw: MiterSaw, s: Setting, voice: Voice) -> str:
    """Which stop is in the way."""
    if abs(s.swing_deg) > saw.swing_limit(s.swing_deg) + NOTHING:
        side, limit, needs = ("right" if s.swing_deg > 0 else "left"), saw.swing_limit(s.swing_deg), abs(s.swing_deg)
        reading = "" if saw.swing_counts_from == "square" else f", {voice.say_angle(saw.swing_shown(limit))} on its scale"
        return f"Past the stop: to the {side} this saw goes to {voice.say_angle(limit)}{reading}, and this needs {voice.say_angle(needs)}."
    side, limit, needs = ("left" if s.tilt_deg > 0 else "right"), saw.tilt_limit(s.tilt_deg), abs(s.tilt_deg)
    reading = "" if saw.tilt_counts_from == "square" else f", {voice.say_angle(saw.tilt_shown(limit))} on its scale"
    return f"Past the stop: to the {side} this saw tilts to {voice.say_angle(limit)}{reading}, and this needs {voice.say_angle(needs)}."


def _exactly(saw: MiterSaw, s: Setting) -> str:
    """What the scales cannot show."""
    missed = [
        f"{name} exactly {exact:.4f}°, the scale shows steps of {step:g}°"
        for name, exact, shown, step in (
            ("swing", saw.swing_shown(s.swing_deg), saw.swing_shown(s.swing_as_set_deg), saw.swing_step_deg),
            ("tilt", saw.tilt_shown(s.tilt_deg), saw.tilt_shown(s.tilt_as_set_deg), saw.tilt_step_deg),
        )
        if abs(exact - shown) >= UNSEEN_DEG
    ]
    return "; ".join(missed) or "exact on this scale"


def _use(solution: Solution, s: Setting, use: CutUse, voice: Voice) -> UseOut:
    part = next(p for p in solution.design.parts if p.id == use.part)
    words = sides_of(solution, use.part)
    end = end_word(solution.design.assembly.board(use.part), use.end) + (f", cut {use.index + 1}" if use.index else "")
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

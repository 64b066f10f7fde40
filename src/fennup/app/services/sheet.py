"""From a solution to what the screen shows: chooses and words, decides nothing."""

from typing import Literal

from fennup.app.schemas.sheet import (
    ControlOut,
    DimensionOut,
    EndOut,
    OptionOut,
    PartOut,
    RungOut,
    SettingOut,
    SheetOut,
    SizeOut,
    UseOut,
    ViewOut,
)
from fennup.app.wording.figures import Figure, Voice
from fennup.app.wording.labels import GROUPS, VIEWS, fact, label
from fennup.app.wording.verdicts import closing_line, finding_line
from fennup.app.wording.why import edge_lines, given_lines, miter_lines
from fennup.core.assembly.board import ENDS, Board, End
from fennup.core.drawing.board_views import part_shapes
from fennup.core.drawing.saw_views import operator_view
from fennup.core.drawing.view import Control, Dimension, View
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.alike import PartGroup
from fennup.core.parts.solid import arris_length, end_cut, extent_along
from fennup.core.saw.settings import CutUse, Setting
from fennup.core.solve import Solution
from fennup.core.verify.boolean import BooleanProof


def sheet_of(solution: Solution, voice: Voice, proof: BooleanProof | None = None) -> SheetOut:
    """The whole sheet of one project."""
    kind = KINDS[solution.spec.kind]
    told = kind.describe(solution.spec, solution.ruler, solution.solids)
    sides = solution.spec.sides
    return SheetOut(
        facts=", ".join(fact(f) for f in told.facts).capitalize(),
        views=[view_out(v, voice, sides) for v in told.views],
        controls=[control_out(c, voice) for c in told.controls],
        sizes=[
            SizeOut(
                id=s.measure,
                label=label(s.measure, sides),
                figure=voice.of(s.value, s.unit),
                standing=s.standing,
                acts=s.acts,
                can_free=s.can_free,
            )
            for s in told.sizes
        ],
        parts=[_part(solution, part, voice, kind.side_words) for part in solution.parts],
        settings=[_setting(solution, s, voice, kind.side_words) for s in solution.settings],
        closing=closing_line(solution, proof, voice),
        findings=[finding_line(f, voice) for f in solution.findings],
        given=given_lines(solution, voice),
    )


def view_out(view: View, voice: Voice, sides: int = 4) -> ViewOut:
    """A drawing with its figures worded."""
    return ViewOut(
        id=view.id,
        title=VIEWS.get(view.id, view.id),
        shapes=list(view.shapes),
        marks=list(view.marks),
        dimensions=[_dimension(d, voice, sides) for d in view.dimensions],
        grips=list(view.grips),
    )


def _dimension(d: Dimension, voice: Voice, sides: int) -> DimensionOut:
    return DimensionOut(
        id=d.id,
        label=label(d.label, sides),
        figure=voice.of(d.value, d.unit),
        a=d.a,
        b=d.b,
        unit=d.unit,
        standing=d.standing,
        away=d.away,
        lane=d.lane,
        about=d.about,
        at=d.at,
        acts=d.acts,
        can_free=d.can_free,
    )


def control_out(c: Control, voice: Voice) -> ControlOut:
    """Something to decide, worded."""
    return ControlOut(
        id=f"{c.code}:{c.about}" if c.about else c.code,
        label=f"{label(c.code)} {c.about}" if c.code == "corner" else label(c.code),
        group=c.group,
        group_label=GROUPS[c.group],
        about=c.about,
        options=[OptionOut(code=o.code, label=label(o.code), acts=list(o.acts), chosen=o.chosen) for o in c.options],
        figure=voice.of(c.value, c.unit) if c.value is not None and c.unit else None,
        unit=c.unit,
        acts=c.acts,
        style=c.style,
    )


def _part(solution: Solution, part: PartGroup, voice: Voice, words: dict[str, str]) -> PartOut:
    board = solution.assembly.board(part.id)
    shapes, marks = part_shapes(board, solution.solids[part.id])
    count = len(part.boards)
    hand = ""
    mirrors = next((p.id for p in solution.parts if p.mirror_of == part.id), part.mirror_of)
    if mirrors:
        hand = f"Mirror image of {solution.assembly.board(mirrors).name.lower() if len(mirrors) > 1 else f'rail {mirrors}'}: do not mix them up."
    section = board.section
    return PartOut(
        id=part.id,
        name=_name(solution, part),
        members=list(part.boards),
        count_text="one of it" if count == 1 else f"{count} alike",
        hand_text=hand,
        section_text=f"{voice.say(section.width_mm)} wide, {voice.say(section.thickness_mm)} thick",
        view=view_out(View("part", shapes, marks), voice),
        ends=[_end(solution, board, end, voice, words) for end in ENDS],
        ladder=_ladder(solution, board, voice, words),
    )


def _name(solution: Solution, part: PartGroup) -> str:
    """The part's name: what its boards are called."""
    names = [solution.assembly.board(id).name for id in part.boards]
    if len(names) == 1:
        return names[0]
    if names[0].startswith("Rail "):
        return f"Rails {part.boards[0]} to {part.boards[-1]}" if len(names) > 2 else f"Rails {' and '.join(part.boards)}"
    return f"{' and '.join(n.removesuffix(' rail') for n in names)} rails".capitalize()


def _end(solution: Solution, board: Board, end: End, voice: Voice, words: dict[str, str]) -> EndOut:
    angles = end_cut(board.ends(end)[0])
    longer = words["lower"] if angles.miter_deg > 0 else words["upper"]
    leans = "square" if abs(angles.miter_deg) < 1e-9 else f"long point on the {longer}"
    bevel = "blade upright" if abs(angles.bevel_deg) < 1e-9 else f"blade tilted {voice.say_angle(abs(angles.bevel_deg))}"
    return EndOut(
        end=end,
        miter=voice.angle(abs(angles.miter_deg)),
        leans=leans,
        bevel=bevel,
        why=miter_lines(solution, board, end, voice),
    )


def _ladder(solution: Solution, board: Board, voice: Voice, words: dict[str, str]) -> list[RungOut]:
    """Lengths along each line that somebody may mark, the one to measure first."""
    lower, upper = arris_length(board, "face_lower"), arris_length(board, "face_upper")
    edges = [(lower, "lower", lower >= upper - 1e-9), (upper, "upper", upper > lower + 1e-9)]
    edges.sort(key=lambda e: not e[2])
    why = [*edge_lines(solution, board, voice), *given_lines(solution, voice)]
    rungs = []
    square = all(abs(end_cut(c).miter_deg) < 1e-9 for end in ENDS for c in board.ends(end))
    for length, side, here in edges:
        tips = "" if square else ", long point to long point" if here else ", short point to short point"
        if _mixed(board):
            tips = ", tip to tip"
        note = "measure and mark here" if here else "to check by"
        rungs.append(
            RungOut(
                id=side,
                label=f"{words[side].capitalize()}{tips}",
                note=note,
                figure=voice.length(length),
                here=here,
                why=why,
            )
        )
    if board.section.rabbet:
        at = (board.section.width_mm / 2 - board.section.rabbet.width_mm, -board.section.thickness_mm / 2)
        low, high = extent_along(board, *at)
        rabbet_why = [
            f"Along the wall of the rabbet, {voice.say(board.section.rabbet.width_mm)} in from the opening edge, on the back.",
            *why,
        ]
        rung = RungOut(
            id="rabbet", label="Rabbet line", note="what it holds lies against it", figure=voice.length(high - low), here=False,
            why=rabbet_why,
        )  # fmt: skip
        rungs.insert(1, rung)
    low, high = solution.solids[board.id].extent_x()
    if high - low > max(lower, upper) + 1e-6:
        why_overall = [
            "The farthest tips of the two ends, along the board: the least board that this part can be cut from.",
            *why,
        ]
        rungs.append(
            RungOut(
                id="overall",
                label="Overall, tip to tip along the board",
                note="the least board it can be cut from",
                figure=voice.length(high - low),
                here=False,
                why=why_overall,
            )
        )
    return rungs


def _mixed(board: Board) -> bool:
    """Whether the two ends lean the same way, so that neither edge has both long points."""
    leans = [end_cut(board.ends(end)[0]).miter_deg for end in ENDS]
    return leans[0] * leans[1] < 0


def _setting(solution: Solution, s: Setting, voice: Voice, words: dict[str, str]) -> SettingOut:
    saw = solution.machine
    side = "right" if s.swing_deg > 0 else "left"
    square = abs(s.swing_deg) < 1e-9
    limit = saw.swing_limit(s.swing_deg)
    why_not = ""
    if not s.reachable:
        reading = saw.swing_shown(limit)
        why_not = (
            f"Past the stop: to the {side} this saw goes to {voice.say_angle(limit)}"
            + ("" if saw.swing_counts_from == "square" else f", {voice.say_angle(reading)} on its scale")
            + f", and this needs {voice.say_angle(abs(s.swing_deg))}."
        )
    exact = saw.swing_shown(s.swing_deg)
    shown = saw.swing_shown(s.swing_as_set_deg)
    return SettingOut(
        id=f"{s.swing_deg:.6f}/{s.tilt_deg:.6f}",
        shown=voice.angle(shown),
        direction="square cut" if square else f"swing to the {side}",
        tilt="blade upright" if abs(s.tilt_deg) < 1e-9 else f"tilt {voice.say_angle(saw.tilt_shown(s.tilt_as_set_deg))}",
        exact="exact on this scale"
        if abs(exact - shown) < 5e-7
        else f"exactly {exact:.4f}°, the scale shows steps of {saw.swing_step_deg:g}°",
        reachable=s.reachable,
        why_not=why_not,
        uses=[_use(solution, s, use, words, voice) for use in s.uses],
    )


def _use(solution: Solution, s: Setting, use: CutUse, words: dict[str, str], voice: Voice) -> UseOut:
    up: Literal["face", "back"] = "face" if use.pose.down == "back" else "back"
    part = next(p for p in solution.parts if p.id == use.part)
    end = f"{use.end} end"
    picture = operator_view(s.swing_as_set_deg, use.kept == "left", use.part)
    return UseOut(
        part=use.part,
        text=f"{_name(solution, part)}, {end}",
        lies=f"{words[up].capitalize()} up, {words[use.pose.fence]} to the fence, keep the piece {use.kept} of the blade.",
        count=use.count,
        picture=view_out(picture, voice),
    )


def spoken(figure: Figure) -> str:
    """A figure as one string for lists and tables."""
    text = f"{figure.whole} {figure.fraction}".strip()
    return f"{text}{'' if figure.unit in ('″', '°') else ' '}{figure.unit}" + (f" {figure.remainder}" if figure.remainder else "")

"""The steps of a plan as a document."""

from collections.abc import Mapping
from math import isfinite

from fennup.core.exchange.cuts_forms import (
    CutsDocument,
    HolesForm,
    LineForm,
    MarkForm,
    NotchForm,
    PocketForm,
    PoseForm,
    RipForm,
    SawnPartForm,
    ScaleForm,
    ScalesForm,
    SchoolForm,
    StepForm,
    StopForm,
    ToolForm,
    WallForm,
    WayForm,
)
from fennup.core.exchange.forms import section_document
from fennup.core.geometry.vec import dot
from fennup.core.parts.facts import PartFacts
from fennup.core.saw.pose import ALONG, Pose
from fennup.core.saw.tool import Movement, ScaleTool
from fennup.core.saw.tools import AnyTool
from fennup.core.solve import Solution
from fennup.core.steps.order import changes
from fennup.core.steps.placed import NOWHERE, Placement
from fennup.core.steps.planned import StepsPlan, steps_for
from fennup.core.steps.step import Step
from fennup.core.tolerances import NOTHING
from fennup.core.verify.sawn import farthest_mm, lean_of


def cuts_document(solution: Solution, placed: Mapping[str, Placement] = NOWHERE, made: StepsPlan | None = None) -> CutsDocument:
    """The steps of a solution, unrounded, with what the simulated saw makes of them; `placed`: on which boards of a plan the pieces lie."""
    made = made or steps_for(solution.design, solution.plan, placed)
    facts = {f.key: f for f in solution.design.facts}
    document = CutsDocument(
        settings=made.settings,
        changes=changes(made.steps),
        schools=[SchoolForm(**vars(told)) for told in made.told],
        parts=[_part(made, f) for f in facts.values()],
        steps=[_step(step, made.tools, facts, placed) for step in made.steps],
        off_mm={},
    )
    off = farthest_mm(document.model_dump(exclude={"off_mm"}))
    return document.model_copy(update={"off_mm": {key: mm if isfinite(mm) else None for key, mm in off.items()}})


def _part(made: StepsPlan, facts: PartFacts) -> SawnPartForm:
    board, raw = facts.board, made.raws[facts.key]
    left = facts.solid.extent_x()[0]
    return SawnPartForm(
        key=facts.key,
        pieces=list(facts.group.boards),
        kind="panel" if board.panel else "stave" if board.stave else "board",
        section=section_document(board.section, [plane for _, plane in board.rips] if board.ready else ()),
        raw_length_mm=raw.high - raw.low,
        corners_mm=[(x - left, y, z) for piece in facts.solid.local for x, y, z in piece.points],
    )


def _step(step: Step, tools: Mapping[str, AnyTool], facts: Mapping[str, PartFacts], placed: Mapping[str, Placement]) -> StepForm:
    way, rip, tool = step.way, step.rip, tools.get(step.tool) if step.tool else None
    swing, tilt = (way.swing_deg, way.tilt_deg) if way else (0.0, rip.tilt_deg) if rip else (0.0, 0.0)
    rows = {row.key: row for row in facts[step.part].holes} if step.part else {}
    marking = step.marking
    ends = {piece: f"{piece} {step.end}" for piece in step.pieces if step.end}
    return StepForm(
        key=step.key,
        work=step.work,
        part=step.part,
        pieces=list(step.pieces),
        pattern=step.pattern,
        tool=ToolForm(id=step.tool or "", type=tool.type, name=tool.name, fence=tool.fence_place, kerf_mm=tool.kerf_mm)
        if tool
        else None,
        way=way.id if way else rip.id if rip else None,
        end=step.end,
        cut=step.index if step.end else None,
        pose=_pose(way.pose, step.end, way.kept) if way and step.end else None,
        swing_deg=swing + way.wedge_deg if way else swing if rip else None,
        tilt_deg=tilt if way or rip else None,
        wedge_deg=way.wedge_deg if way else 0.0,
        scale=ScalesForm(swing=_scale(tool, "swing", swing), tilt=_scale(tool, "tilt", tilt)) if tool and (way or rip) else None,
        stop=StopForm(**{**vars(step.stop), "corners": list(step.stop.corners)}) if step.stop else None,
        mark=MarkForm(corner=marking.arris, length_mm=marking.length_mm, from_end=marking.start)
        if marking and marking.arris
        else None,
        line=LineForm(**vars(step.line)) if step.line else None,
        rip=RipForm(edge=step.edge, down=rip.down, fence=rip.fence, first=rip.first, fence_mm=rip.fence_mm)
        if rip and step.part
        else None,
        notch=NotchForm(**{**vars(step.notch), "walls": [WallForm(**vars(wall)) for wall in step.notch.walls]})
        if step.notch
        else None,
        pocket=PocketForm.model_validate(step.pocket, from_attributes=True) if step.pocket else None,
        holes=HolesForm(
            along_mm=list(rows[step.key].along_mm), up_mm=rows[step.key].up_mm, diameter_mm=rows[step.key].diameter_mm
        )
        if step.key in rows
        else None,
        misses=[miss.code for miss in (way.misses if way else rip.misses if rip else ())],
        ways=[
            WayForm(
                id=w.id,
                swing_deg=w.swing_deg,
                tilt_deg=w.tilt_deg,
                wedge_deg=w.wedge_deg,
                kept=w.kept,
                misses=[miss.code for miss in w.misses],
            )
            for w in step.ways
        ],
        cautions=list(step.cautions),
        needs=list(step.needs),
        boards={piece: placed[piece].board for piece in step.pieces if piece in placed},
        shared_with={
            piece: placed[piece].shared[end] for piece, end in ends.items() if piece in placed and end in placed[piece].shared
        },
    )


def _pose(pose: Pose, end: str, kept: str) -> PoseForm:
    # An edge that looks a little to the fence brings the top over to it when it comes to lie flat on the table.
    lean = lean_of(pose.rest, pose.down) * (1.0 if dot(pose.rest, ALONG[pose.fence]) > 0 else -1.0)
    return PoseForm(down=pose.down, fence=pose.fence, stance=pose.stance, lean_deg=lean + 0.0, end=end, kept=kept)


def _scale(tool: AnyTool, movement: Movement, deg: float) -> ScaleForm:
    plus, minus = ("right", "left") if movement == "swing" else ("left", "right")
    return ScaleForm(
        reads_deg=tool.shown(movement, deg),
        dial_deg=tool.shown(movement, tool.dial(movement, deg)),
        to="" if abs(deg) < NOTHING else plus if deg > 0 else minus,
        counts_from=tool.counts_from(movement) if isinstance(tool, ScaleTool) else "square",
    )

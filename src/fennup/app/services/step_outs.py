"""Ways round a limit: another way to lay the board, another tool, a jig, marked lines."""

from typing import Any

from fennup.app.schemas.saw import OutOut
from fennup.app.schemas.sheet import EdgeOut, ViewOut
from fennup.app.services.drawings import view_out
from fennup.app.services.step_rows import mark_lines, said_on, way_row
from fennup.app.services.step_words import StepWords
from fennup.core.saw.ways import Way
from fennup.core.steps.jigs import sled_view, wedge_for, wedge_view
from fennup.core.steps.picture import end_views, line_views
from fennup.core.steps.step import ENDS_OF_BOARDS, Step


def ways_out(sheet: StepWords, step: Step) -> list[OutOut]:
    """What to do where a limit is in the way: every sort of way round it once."""
    if step.way is not None and not step.way.misses and not step.way.jig:
        return []
    found: dict[str, OutOut] = {}
    for way in sorted(step.ways, key=lambda w: w.tool != step.tool):
        if way.misses or (step.way and way.id == step.way.id) or not sheet.plan.tools[way.tool].picked:
            continue
        kind = way.jig or (
            "tool" if way.tool != step.tool else "turn" if step.way and way.pose.stance == step.way.pose.stance else "stand"
        )
        if kind not in found:
            found[kind] = _out(sheet, step, way, kind)
    if step.work == "taper" and step.way:
        found["sled"] = _sled(sheet, step)
    if step.work in ENDS_OF_BOARDS:
        marks = mark_lines(sheet, step)
        found["lines"] = OutOut(id="lines", title="Mark lines and saw by hand", text="Mark the line on the face and on both edges, then a hand saw on the waste side.",
                                setting="", views=[], figures=marks, acts=[])  # fmt: skip
    return list(found.values())


def _out(sheet: StepWords, step: Step, way: Way, kind: str) -> OutOut:
    tool = sheet.plan.tools[way.tool]
    one = way_row(sheet, step, way)
    title = {
        "wedge": "A wedge between fence and board", "square": "The board square to the fence", "tool": f"With another tool: {tool.name}",
        "turn": "Roll the board over", "stand": "Stand the board up",
    }[kind]  # fmt: skip
    views: list[ViewOut] = []
    figures: list[EdgeOut] = []
    text = one.text
    if kind == "wedge":
        wedge = wedge_for(way.wedge_deg)
        views = [view_out(wedge_view(way.wedge_deg), sheet.voice)]
        figures = [
            EdgeOut(label="Wedge", figure=sheet.voice.angle(wedge.angle_deg, 4), note="between its two sides"),
            EdgeOut(label="Along the fence", figure=sheet.voice.length(wedge.long_mm), note="from its point"),
            EdgeOut(
                label="At its thick end",
                figure=sheet.voice.length(wedge.thick_mm),
                note="square to the fence: mark both, saw the line, plane it straight",
            ),
        ]
        text = f"{one.text}. Screw a block to the wedge's thick end to hold the stock, and clamp the wedge to the fence."
    if kind == "square":
        text = f"{one.text}. The end is held to the fence, the board lies towards you: what the saw then swings is the rest to 90°. A carrier with a fence at its end holds it."
    if not views:
        views = [view_out(view, sheet.voice) for view in _drawn(sheet, step, way)[:1]]
    return OutOut(id=way.id, title=title, text=text, setting=one.setting, views=views, figures=figures, acts=one.acts)


def _drawn(sheet: StepWords, step: Step, way: Way) -> tuple[Any, ...]:
    other = step.but(way=way, stop=None)
    if other.line:
        return line_views(sheet.plan.raws[step.part], other, said_on(sheet, other))
    tool = sheet.plan.tools[way.tool]
    return end_views(
        sheet.plan.raws[step.part], other, tool.fence_place, sheet.made_before(step), said_on(sheet, other.but(tool=way.tool))
    )


def _sled(sheet: StepWords, step: Step) -> OutOut:
    """A tapered side on a sled."""
    assert step.way
    facts, angle = sheet.facts[step.part], abs(step.way.swing_deg)
    long = facts.board.section.width_mm
    view = view_out(sled_view(angle, long, facts.extent[0]), sheet.voice)
    return OutOut(id="sled", title="On a tapering sled", text="The sled runs along the rip fence; the board lies on it turned by the taper, against a stop.",
                  setting=sheet.voice.say_angle(angle), views=[view], figures=[], acts=[])  # fmt: skip

"""One step in full: what is set, how the board lies, what has changed, how it is tried, what to take care of."""

from typing import Any

from fennup.app.schemas.saw import SetOut, StepOut, TestOffered
from fennup.app.schemas.sheet import ControlOut, EdgeOut, OptionOut, ViewOut
from fennup.app.services.drawings import view_out
from fennup.app.services.part_cards import board_tag, card_of, part_name, planned_tag
from fennup.app.services.ploughed_lines import ploughed_edges
from fennup.app.services.saw_settings import UNSEEN_DEG, lying, mark_text, other_lines, parting_lines
from fennup.app.services.step_outs import ways_out
from fennup.app.services.step_rows import mark_lines, said_on, way_row
from fennup.app.services.step_words import StepWords, choose
from fennup.app.wording import saw as words
from fennup.app.wording.members import end_word, sides_of
from fennup.app.wording.names import listed
from fennup.core.parts.facts import PartFacts
from fennup.core.saw.testing import tests_that_tell
from fennup.core.saw.tool import ScaleTool
from fennup.core.saw.tools import AnyTool, ShootingBoard
from fennup.core.steps.picture import end_views, line_views, rip_views
from fennup.core.steps.step import ENDS_OF_BOARDS, Step
from fennup.core.tolerances import NOTHING, SAME

MOST_SIDES = 24


def step_out(sheet: StepWords, step: Step, before: Step | None, following: Step | None) -> StepOut:
    shown = following or step  # a test is drawn as the step that it is for
    tool, facts = sheet.tool(step), sheet.facts.get(shown.part)
    wished = sheet.solution.plan.workshop.wishes
    cautions = list(step.cautions)
    if sheet.at_stop(step):
        cautions.append("stop_block")
    if tool and (step.way or step.rip):
        cautions.append("powered" if tool.powered else "by_hand")
    return StepOut(
        key=step.key,
        title=_title(sheet, step),
        detail=_detail(sheet, step, following),
        tool=tool.name if tool else words.WITHOUT_TOOL.get(step.work, ""),
        tool_id=step.tool or "",
        views=step_views(sheet, shown),
        sets=_sets(sheet, step),
        lies=lies_text(sheet, shown),
        changed=_changed(sheet, step, before),
        mark=_mark(sheet, step),
        dial=_dialled(sheet, step),
        hair=_last_hair(sheet, step),
        test=_test(sheet, step) if step.work == "test" else [],
        boards=_boards(sheet, step),
        misses=sheet.misses(step),
        ways=[way_row(sheet, step, way) for way in step.ways if not way.jig],
        picked=[choose(f"ways/{step.key.removeprefix('first ')}", None)]
        if step.key.removeprefix("first ") in wished.ways
        else [],
        outs=ways_out(sheet, step) if facts and step.work != "test" else [],
        marks=mark_lines(sheet, step) if step.work in ENDS_OF_BOARDS else [],
        figures=_figures(sheet, step),
        seats=_seats(sheet, facts) if facts and step.work in ENDS_OF_BOARDS else [],
        cautions=[words.CAUTIONS[code] for code in dict.fromkeys(cautions)],
        scribe=_scribe(sheet, step) if step.work in ENDS_OF_BOARDS else None,
        tests=_tests(sheet, step) if isinstance(tool, ScaleTool) else [],
    )


def _title(sheet: StepWords, step: Step) -> str:
    if step.work == "test":
        return "A test cut in scrap"
    if step.work == "rough":
        return f"Cut apart: {step.key.removeprefix('board ')}"
    if not step.part:
        return "Saw the lid off"
    facts = sheet.facts[step.part]
    what = sheet.what(step)
    end = f": {end_word(facts.board, step.end)}" if step.end and step.work in ENDS_OF_BOARDS else ""
    edge = f": {sides_of(sheet.solution, step.part)[step.edge]}" if step.edge else ""
    return f"{part_name(sheet.solution, facts.group)}, {what}{end}{edge}"


def _detail(sheet: StepWords, step: Step, following: Step | None) -> str:
    if following:
        return f"Before the good wood: the setting for {sheet.name_of(following)}."
    tags = [board_tag(sheet.solution, piece) for piece in step.pieces]
    what = "piece" if step.work == "glue_up" else "cut"
    return f"{len(tags)} {what}{'' if len(tags) == 1 else 's'}: {listed(tags)}." if tags else ""


def step_views(sheet: StepWords, step: Step, *, close: bool = False) -> list[ViewOut]:
    """The operator's picture of a step first; `close`: as near as it takes to be seen on a phone."""
    facts = sheet.facts.get(step.part)
    if not facts:
        return []
    raw = sheet.plan.raws[step.part]
    tool = sheet.tool(step)
    if step.rip:
        made = rip_views(raw, step, said_on(sheet, step))
    elif step.line:
        made = line_views(raw, step, said_on(sheet, step))
    elif step.way and tool:
        made = end_views(raw, step, tool.fence_place, sheet.made_before(step), said_on(sheet, step), close=close)
    else:
        return [card_of(sheet.solution, facts, sheet.voice).view]
    return [view_out(view, sheet.voice) for view in made]


def _sets(sheet: StepWords, step: Step) -> list[SetOut]:
    """Swing, tilt, and the distance of stop or fence: what the scales must show."""
    tool, way = sheet.tool(step), step.way or step.rip
    if not tool or not way:
        return []
    found = []
    if step.way and step.work not in ("taper", "outline"):
        found.append(_movement(sheet, tool, "swing", step.way.swing_deg))
    if step.work == "taper" and step.way:
        found.append(SetOut(label="sled", figure=sheet.voice.angle(abs(step.way.swing_deg)), text="off the fence", note=""))
    found.append(_movement(sheet, tool, "tilt", way.tilt_deg))
    if step.rip and step.part:
        found.append(_rip_width(sheet, step))
    lengths = sheet.solution.plan.workshop.wishes.lengths
    if step.stop and sheet.at_stop(step):
        found.append(SetOut(label="stop", figure=sheet.voice.length(step.stop.distance_mm), text="from the blade, where fence and table meet",
                            note=_touches(sheet, step)))  # fmt: skip
    elif step.marking and step.marking.arris and lengths != "copy":
        found.append(
            SetOut(label="mark", figure=sheet.voice.length(step.marking.length_mm), text=_mark_line(sheet, step), note="")
        )
    return found


def _rip_width(sheet: StepWords, step: Step) -> SetOut:
    """From the blade to the rip fence; by hand the line, from the edge that is there."""
    assert step.rip
    names, figure = sides_of(sheet.solution, step.part), sheet.voice.length(step.rip.fence_mm)
    tool = sheet.tool(step)
    if tool and tool.has_scale:
        return SetOut(label="fence", figure=figure, text="blade to fence, at the table", note="")
    return SetOut(label="line", figure=figure, text=f"from the {names[step.rip.fence]}, on the {names[step.rip.down]}", note="")


def _mark_line(sheet: StepWords, step: Step) -> str:
    assert step.marking and step.marking.arris
    names = sides_of(sheet.solution, step.part)
    side, edge = step.marking.arris.split("_")
    line = f"{names[edge]}, {names[side]}" if sheet.facts[step.part].beveled else names[edge]
    return f"on the {line}, from the first cut{', inwards' if step.marking.start == step.end else ''}"


def _touches(sheet: StepWords, step: Step) -> str:
    """Which point touches the stop, and where."""
    assert step.stop
    names = sides_of(sheet.solution, step.part)
    if len(step.stop.corners) in (0, 4):
        return ""
    edges = {corner.split("_")[1] for corner in step.stop.corners}
    sides = {corner.split("_")[0] for corner in step.stop.corners}
    where = " at the ".join(listed([names[x] for x in sorted(s)]) for s in (edges, sides) if len(s) == 1)
    reach = f" The block must reach {sheet.voice.say(step.stop.out_mm)} out from the fence." if step.stop.out_mm > 1.0 else ""
    return f"Its long point touches the stop: {where}.{reach}"


def _movement(sheet: StepWords, tool: AnyTool, movement: Any, deg: float) -> SetOut:
    dialled = tool.dial(movement, deg)
    reading = tool.shown(movement, dialled)
    square = abs(dialled) < NOTHING
    sides = ("right", "left") if movement == "swing" else ("left", "right")
    side = sides[0] if deg > 0 else sides[1]
    text = (
        ("square cut" if movement == "swing" else "blade upright")
        if square
        else f"to the {side}"
        if movement == "swing"
        else f"top to the {side}"
    )
    exact = tool.shown(movement, deg)
    note = f"exactly {exact:.4f}°" if isinstance(tool, ScaleTool) and abs(exact - reading) >= UNSEEN_DEG else ""
    return SetOut(label=movement, figure=sheet.voice.angle(reading), text=text, note=note)


def _dialled(sheet: StepWords, step: Step) -> str:
    """What a known error makes one dial."""
    tool, way = sheet.tool(step), step.way or step.rip
    if not isinstance(tool, ScaleTool) or not way:
        return ""
    found = []
    angles = (("swing", step.way.swing_deg if step.way else 0.0), ("tilt", way.tilt_deg))
    for movement, deg in angles:
        error = tool.error_at(movement, deg)  # type: ignore[arg-type]
        if error:
            plain_tool = tool.model_copy(update={"errors": ()})
            shown, plain = (tool.shown(movement, t.dial(movement, deg)) for t in (tool, plain_tool))  # type: ignore[arg-type]
            much = "much" if error.error_deg > 0 else "little"
            told = f"tested on {error.found:%-d %B}, its {movement} makes {abs(error.error_deg):.2f}° too {much} there"
            if abs(shown - plain) < UNSEEN_DEG:
                told = told[:1].upper() + told[1:]
                found.append(f"{told}: less than its scale shows, so set it a hair {'less' if error.error_deg > 0 else 'more'}.")
            else:
                found.append(f"Dial {sheet.voice.say_angle(shown)}: {told}.")
    return " ".join(found)


def _last_hair(sheet: StepWords, step: Step) -> str:
    """A shooting board that does this angle."""
    for way in step.ways:
        tool = sheet.plan.tools[way.tool]
        if isinstance(tool, ShootingBoard) and not way.misses:
            most = sheet.voice.say(tool.shaves_mm)
            return f"For the last hair: {tool.name[:1].lower()}{tool.name[1:]} does this angle. Leave {most} at most."
    return ""


def lies_text(sheet: StepWords, step: Step) -> str:
    """How the board lies, by where that tool's fence is."""
    if step.rip and step.part:
        names = sides_of(sheet.solution, step.part)
        up = names["face" if step.rip.down == "back" else "back"]
        return f"{up.capitalize()} up, {names[step.rip.fence]} along the rip fence, {end_word(sheet.facts[step.part].board, step.rip.first)} first."
    if not step.way:
        return ""
    tool = sheet.tool(step)
    text = lying(step.way.pose, sides_of(sheet.solution, step.part), ready=sheet.facts[step.part].board.ready)
    if tool and tool.fence_place == "none":
        text = text.replace(" to the fence", " away from you")
    elif tool and tool.fence_place == "near":
        text = text.replace(" to the fence", " at the gauge's fence, nearest to you")
    jig = {"wedge": ", the wedge between fence and board", "square": ", its end to the fence"}.get(step.way.jig, "")
    return f"{text}{jig}; keep the piece {step.way.kept} of the blade."


def _changed(sheet: StepWords, step: Step, before: Step | None) -> str:
    """What is different from the step before."""
    if before is None:
        return ""
    if step.position is None:
        return ""
    if before.tool != step.tool:
        return f"Another tool: {sheet.tool(step).name}." if sheet.tool(step) else ""  # type: ignore[union-attr]
    a, b = before.position, step.position
    assert a and b
    moved = [name for name, x, y in zip(("swing", "tilt"), a[1:], b[1:], strict=True) if x != y]
    turned = _turned(sheet, step, before)
    if moved:
        kept = "" if len(moved) == 2 else f" The {'tilt' if moved == ['swing'] else 'swing'} stays."
        return f"Set the {' and the '.join(moved)} anew.{kept}"
    if step.work == "test":
        return ""
    stays = "The saw stays as it is"
    return (
        f"{stays}; {turned}."
        if turned
        else f"{stays}; only the stop moves."
        if step.stop and step.stop.touches == "made_end"
        else f"{stays}."
    )


def _turned(sheet: StepWords, step: Step, before: Step) -> str:
    if not step.way or not before.way:
        return ""
    a, b = before.way.pose, step.way.pose
    if a.stance != b.stance:
        return "stand the board on its edge" if b.stance != "flat" else "lay the board flat"
    if a.down == b.down:
        return "" if a.fence == b.fence else "turn the board end for end, the same side up"
    return (
        "turn it over end for end, the same edge at the fence"
        if a.fence == b.fence
        else "roll the board over, the other edge to the fence"
    )


def _mark(sheet: StepWords, step: Step) -> str:
    facts = sheet.facts.get(step.part)
    if not facts or not step.marking or not step.way or not step.end:
        return ""
    text = mark_text(facts, step.end, step.way.pose, step.marking, sides_of(sheet.solution, step.part), sheet.voice)
    wishes = sheet.solution.plan.workshop.wishes
    if step.work == "scribe":
        return f"Cut this end after the dry fit, to the opening. By the plan: {text[:1].lower()}{text[1:]}"
    if wishes.lengths == "copy" and step.work == "second_end" and not step.pattern:
        return "Lay the first finished part on it, ends flush, and mark from that. Always from the first, never from the last."
    return text


def _test(sheet: StepWords, step: Step) -> list[str]:
    """How the setting is tried before the good wood."""
    way = step.way or step.rip
    if not way:
        return []
    swing = abs(step.way.swing_deg) if step.way else 0.0
    tilt = abs(way.tilt_deg)
    lines = []
    if swing > NOTHING:
        up = " with the blade upright" if tilt > NOTHING else ""
        lines.append(
            f"Cut two flat scraps{up} and hold the cuts together on a flat face: the pair must read {sheet.voice.say_angle(180 - 2 * swing)}."
        )
    if tilt > NOTHING:
        square = " with the swing at square" if swing > NOTHING else ""
        lines.append(
            f"Cut two scraps{square} and hold the leaning cuts together, standing: the pair must read {sheet.voice.say_angle(180 - 2 * tilt)}."
        )
    if not lines:
        lines.append("Cut a scrap, turn one half over against the other on a flat face: no light may show between them.")
    return [*lines, "Type what the gauge says under Test: what to dial follows from it."]


def _tests(sheet: StepWords, step: Step) -> list[TestOffered]:
    """The scales that are set here: one at square can be tested too."""
    tool, way = sheet.tool(step), step.way or step.rip
    if not tool or not way:
        return []
    angles = [("swing", step.way.swing_deg)] if step.way and step.work not in ("taper", "outline") else []
    made = []
    for movement, deg in [*angles, ("tilt", way.tilt_deg)]:
        turn = 360.0 / (2.0 * abs(deg)) if abs(deg) > NOTHING else 0.0
        closes = abs(turn - round(turn)) < SAME and 3 <= round(turn) <= MOST_SIDES
        shown = sheet.voice.say_angle(tool.shown(movement, deg))  # type: ignore[arg-type]
        sides = round(turn) if closes else 0
        hows = list(tests_that_tell(movement, deg, sides))  # type: ignore[arg-type]
        label = f"{movement} {shown}"
        made.append(TestOffered(movement=movement, label=label, at_deg=deg, sides=sides, hows=hows))
    return made


def _boards(sheet: StepWords, step: Step) -> str:
    """Out of which planned boards its pieces come, and which cuts it shares."""
    there = [(piece, sheet.placed[piece]) for piece in step.pieces if piece in sheet.placed]
    if not there:
        return ""
    by_board: dict[str, list[str]] = {}
    for piece, placement in there:
        by_board.setdefault(placement.board, []).append(board_tag(sheet.solution, piece))
    text = "; ".join(f"{listed(tags)} out of {board}" for board, tags in by_board.items()) + "."
    shared = {
        frozenset((f"{piece} {step.end}", placement.shared[f"{piece} {step.end}"])): None
        for piece, placement in there
        if f"{piece} {step.end}" in placement.shared
    }
    if shared:
        tags = [sorted(planned_tag(sheet.solution, end.rpartition(" ")[0]) for end in pair) for pair in shared]
        text += f" One cut for two: {'; '.join(listed(pair) for pair in tags)}."
    return text[:1].upper() + text[1:]


def _figures(sheet: StepWords, step: Step) -> list[EdgeOut]:
    """What is worked without a swing and a stop: rabbets, tapers, outlines, notches, holes, a lid that is sawn off."""
    if step.work == "rough":
        pieces = [(piece, sheet.placed[piece]) for piece in step.pieces]
        note = "rough, at least; what the plan's cuts make at once is marked in the Boards place"
        return [
            EdgeOut(
                label=board_tag(sheet.solution, piece), figure=sheet.voice.length(there.rough_mm), note=note if k == 0 else ""
            )
            for k, (piece, there) in enumerate(pieces)
        ]
    if step.work == "saw_apart":
        return parting_lines(sheet.solution, step.key.partition("/")[0], sheet.voice)
    if not step.part or step.work in (*ENDS_OF_BOARDS, "rip", "test"):
        return []
    facts = sheet.facts[step.part]
    if ploughed := dict(ploughed_edges(facts, sheet.voice, sides_of(sheet.solution, facts.key))).get(step.key):
        return [ploughed]
    lines = other_lines(card_of(sheet.solution, facts, sheet.voice), facts)
    wanted = words.FIGURES_OF.get(step.work)
    return [line for line in lines if wanted is None or line.label.lower().startswith(wanted)]


def _seats(sheet: StepWords, facts: PartFacts) -> list[EdgeOut]:
    """Where other parts land, as running marks from one finished end; laps on both members."""
    names, found = sides_of(sheet.solution, facts.key), []
    for board, seats in facts.seats.items():
        for seat in seats:
            other = board_tag(sheet.solution, seat.board)
            where = names.get(seat.side, "rabbet")
            mine = f", {board_tag(sheet.solution, board)}" if len(facts.seats) > 1 else ""
            found.append(
                EdgeOut(
                    label=f"{other} lands{mine}",
                    figure=sheet.voice.length(seat.from_mm),
                    note=f"to {sheet.voice.say(seat.to_mm)} from the left end, on the {where}",
                )
            )
    for lap in facts.laps:
        found.append(
            EdgeOut(
                label="Lap",
                figure=sheet.voice.length(lap.near_mm),
                note=f"to {sheet.voice.say(lap.far_mm)} from the left end, on the {names['lower']}",
            )
        )
    for row in facts.holes:
        at = ", ".join(sheet.voice.say(mm) for mm in row.along_mm)
        deep = f"{sheet.voice.say(row.deep_mm)} deep, not through" if row.deep_mm else "through"
        deep += f", from the {names[row.side]}"
        found.append(
            EdgeOut(
                label="Holes",
                figure=sheet.voice.length(row.up_mm),
                note=f"above the {names['lower']}; from the left end {at}; {deep}",
            )
        )
    return found


def _scribe(sheet: StepWords, step: Step) -> ControlOut | None:
    wishes = sheet.solution.plan.workshop.wishes
    on = step.part in wishes.scribed
    options = [
        OptionOut(code=code, label=label, acts=[choose(f"scribed/{step.part}", value)], chosen=on == value, picture=None)
        for code, label, value in (
            ("by_plan", "by the plan", False),
            ("to_opening", "to the opening, after the dry fit", True),
        )
    ]
    return ControlOut(id=f"scribed:{step.part}", label="Cut to length", group="part", group_label="", whose="", about=step.part, options=options,
                      figure=None, unit=None, acts=None, style="pick", standing="given")  # fmt: skip

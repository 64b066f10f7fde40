"""A way to lay a board, what stands on its picture, a cut without a protractor: rows that several parts of the place share."""

from fennup.app.schemas.saw import WayOut
from fennup.app.schemas.sheet import EdgeOut
from fennup.app.services.part_cards import board_tag
from fennup.app.services.saw_settings import lying
from fennup.app.services.step_words import StepWords, choose
from fennup.app.wording import saw as words
from fennup.app.wording.members import sides_of
from fennup.core.saw.ways import Way
from fennup.core.steps.marks import offsets_of
from fennup.core.steps.picture import Said
from fennup.core.steps.step import Step
from fennup.core.tolerances import NOTHING


def way_row(sheet: StepWords, step: Step, way: Way) -> WayOut:
    tool = sheet.plan.tools[way.tool]
    angles = [tool.shown(m, d) for m, d in (("swing", way.swing_deg), ("tilt", way.tilt_deg))]  # type: ignore[arg-type]
    text = lying(way.pose, sides_of(sheet.solution, step.part), ready=sheet.facts[step.part].board.ready)
    others = len({one.tool for one in step.ways}) > 1
    return WayOut(
        id=way.id,
        text=f"{text}, keep {way.kept}" + (f": {tool.name}" if others else ""),
        setting=" / ".join(sheet.voice.say_angle(angle) for angle in angles),
        misses=[words.miss_text(miss, tool, sheet.voice) for miss in way.misses],
        chosen=step.way is not None and step.way.id == way.id,
        acts=[choose(f"ways/{step.key.removeprefix('first ')}", way.id)],
    )


def mark_lines(sheet: StepWords, step: Step) -> list[EdgeOut]:
    """The cut without a protractor."""
    facts = sheet.facts.get(step.part)
    if not facts or not step.end or facts.board.panel or facts.board.stave:
        return []
    names, found = sides_of(sheet.solution, step.part), []
    offsets = offsets_of(facts, step.end, step.index)
    over = ((offsets.over_face_mm, offsets.face_rise, offsets.width_mm, names["face"], names["lower"], names["upper"]),
            (offsets.over_edge_mm, offsets.edge_rise, offsets.thickness_mm, "edges", names["back"], names["face"]))  # fmt: skip
    for mm, rise, across, side, longer, shorter in over:
        if abs(mm) < NOTHING:
            continue
        end = longer if mm > 0 else shorter
        note = f"farther out on the {end}, over {sheet.voice.say(across)}; {abs(rise):.2f} in 100, or {abs(rise) / 100:.4f} in 1"
        found.append(EdgeOut(label=f"Offset across the {side}", figure=sheet.voice.length(abs(mm)), note=note))
    if not found:
        found.append(
            EdgeOut(
                label="Square line", figure=sheet.voice.angle(0.0), note="all round, with a square from the face and one edge"
            )
        )
    return found


def said_on(sheet: StepWords, step: Step) -> Said:
    names = sides_of(sheet.solution, step.part)
    tag = board_tag(sheet.solution, step.pieces[0] if step.pieces else step.part)
    if step.rip:
        return Said(f"KEEP {tag}", face_up=step.rip.down == "back")
    pose = step.way.pose if step.way else None
    up = pose is not None and pose.down == "back"
    down = pose is not None and pose.down == "face"
    # The triangle points to the upper edge: to the fence or to the operator, on the side of a wide face that is up.
    away = (pose.fence == "upper") == (sheet.tool(step).fence_place != "near") if pose and sheet.tool(step) else True  # type: ignore[union-attr]
    return Said(
        f"KEEP {tag}",
        f"{names['back']} up" if down else "",
        face_up=up,
        triangle_deg=(0.0 if away else 180.0) if up or down else None,
    )

"""Practice: drills from a project's own parts, or the demo's; what went wrong is remembered and offered again."""

from random import Random

from sqlalchemy.orm import Session

from fennup.app.schemas.api import PieceOut, SolidOut, SolidsOut
from fennup.app.schemas.practice import DrillOptionOut, DrillOut, LevelOut, PracticeOut
from fennup.app.services import devices
from fennup.app.services.bench_sheet import for_any_piece
from fennup.app.services.part_cards import card_of, part_name
from fennup.app.services.step_cards import lies_text, step_views
from fennup.app.services.steps_sheet import SawSheet
from fennup.app.wording import practice as words
from fennup.app.wording.members import sides_of
from fennup.core.bench.practice import LEVELS, Drill, Level, Marked, Option, drill_for, levels_in
from fennup.core.geometry.vec import Vec
from fennup.core.parts.solid import Solid

REMEMBERED, LATELY = 8, 3
KEPT = "practice"
APART = 1.7  # widths between the piece that was made and the one that was wanted


def answers_in(session: Session) -> dict[Level, list[bool]]:
    """The last answers of every level."""
    kept = dict(part.split("=") for part in devices.setting(session, KEPT).split(";") if "=" in part)
    return {level: [sign == "1" for sign in kept.get(level, "")] for level in LEVELS}


def remember(session: Session, level: Level, *, right: bool) -> None:
    """One more answer; the oldest is forgotten."""
    answers = answers_in(session)
    answers[level] = [*answers[level], right][-REMEMBERED:]
    kept = ";".join(f"{name}={''.join('01'[r] for r in of)}" for name, of in answers.items() if of)
    devices.set_to(session, KEPT, kept)


def is_weak(answers: list[bool]) -> bool:
    """Whether it went wrong lately."""
    return not all(answers[-LATELY:])


def practice_out(sheet: SawSheet, name: str, answers: dict[Level, list[bool]]) -> PracticeOut:
    """All there is to practise: begin with what this project needs and went wrong, else with the first that is not sure yet."""
    here = levels_in(sheet.plan, sheet.facts)
    weak = [level for level in LEVELS if level in here and is_weak(answers[level])]
    unsure = [level for level in LEVELS if len(answers[level]) < LATELY or is_weak(answers[level])]
    levels = [
        LevelOut(
            level=level, name=words.LEVELS[level][0], text=words.LEVELS[level][1], answers=answers[level], here=level in here
        )
        for level in LEVELS
    ]
    return PracticeOut(name=name, levels=levels, begin=[*weak, *unsure, LEVELS[-1]][0])


def offer_for(sheet: SawSheet, answers: dict[Level, list[bool]]) -> str:
    """What to practise before this project, in words; nothing where nothing went wrong."""
    weak = [level for level in levels_in(sheet.plan, sheet.facts) if is_weak(answers[level])]
    return words.OFFER.format(name=words.LEVELS[weak[-1]][0]) if weak else ""


def drill_out(sheet: SawSheet, whose: str, level: Level, seed: int) -> DrillOut | None:
    """A drill; None where the project has none of that sort."""
    random = Random(seed)
    steps = list(levels_in(sheet.plan, sheet.facts).get(level, ()))
    random.shuffle(steps)
    for step in steps:
        drill = drill_for(step, level, sheet.facts[step.part], sheet.plan, random)
        if drill:
            part = part_name(sheet.solution, sheet.facts[step.part].group)
            return DrillOut(
                level=level,
                title=(words.MARK_QUESTION if level == "mark" else words.QUESTION).format(part=part),
                whose=whose,
                view=card_of(sheet.solution, sheet.facts[step.part], sheet.voice).view,
                options=[_option(sheet, drill, option) for option in drill.options],
            )
    return None


def _option(sheet: SawSheet, drill: Drill, option: Option) -> DrillOptionOut:
    # Marked elsewhere it lies at the saw as it must: the words tell one mark from another.
    cut = drill.step.cut if option.marked else option.cut
    step = drill.step.but(way=option.way, cut=cut, stop=None, marking=None)
    return DrillOptionOut(
        views=[for_any_piece(view) for view in step_views(sheet, step, close=True)[:2]],
        setting=_mark(sheet, drill, option.marked) if option.marked else _setting(sheet, option),
        lies=lies_text(sheet, step),
        right=option.right,
        reason=words.REASONS[option.slip].format(off=_off(sheet, drill, option)) if option.slip else words.RIGHT,
        solids=_side_by_side(option.piece, sheet.facts[step.part].solid, right=option.right),
    )


def _mark(sheet: SawSheet, drill: Drill, marked: Marked) -> str:
    sides = sides_of(sheet.solution, drill.step.part)
    face, _, edge = marked.arris.partition("_")
    line = f"{sides[edge]}, {sides[face]}" if sheet.facts[drill.step.part].beveled else sides[edge]
    return words.MARK.format(
        length=sheet.voice.say(marked.length_mm), line=line, blade=words.BEYOND if marked.beyond else words.WITHIN
    )


def _off(sheet: SawSheet, drill: Drill, option: Option) -> str:
    """By how much a piece is longer or shorter than the part."""
    right = next(one for one in drill.options if one.right)
    outward = 1.0 if drill.step.end == "right" else -1.0
    longer = outward * (option.cut.offset - right.cut.offset) / right.cut.normal[0]
    return f"{sheet.voice.small(abs(longer))} too {'long' if longer > 0 else 'short'}"


def _setting(sheet: SawSheet, option: Option) -> str:
    tool, way = sheet.plan.tools[option.way.tool], option.way
    said = []
    for movement, deg, sides in (("swing", way.swing_deg, ("right", "left")), ("tilt", way.tilt_deg, ("left", "right"))):
        shown = sheet.voice.say_angle(tool.shown(movement, tool.dial(movement, deg)))  # type: ignore[arg-type]
        side = f" to the {sides[0] if deg > 0 else sides[1]}" if abs(deg) > 0.0 else ""
        said.append(f"{movement} {shown}{side}")
    return ", ".join(said)


def _side_by_side(made: Solid, wanted: Solid, *, right: bool) -> SolidsOut:
    """The piece that comes of it, and the wanted one where that is another."""
    wide = made.board.section.width_mm * APART
    both = [("made", made, 0.0)] if right else [("made", made, -wide / 2), ("wanted", wanted, wide / 2)]
    solids = [
        SolidOut(
            id=id,
            name=id,
            pieces=[
                PieceOut(points=[_moved(p, up) for p in piece.points], facets=[list(f.loop) for f in piece.facets])
                for piece in solid.local
            ],
            push=(0.0, 0.0, 0.0),
            found=False,
        )
        for id, solid, up in both
    ]
    return SolidsOut(version=1, stands=False, turn=0.0, solids=solids, joints=[])


def _moved(p: Vec, up: float) -> Vec:
    return (p[0], p[1] + up, p[2])

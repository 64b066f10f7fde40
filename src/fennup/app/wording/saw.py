"""The words of the Saw place: what is in the way, what to take care of, what changes from one step to the next."""

from fennup.app.wording.figures import Voice
from fennup.app.wording.sentences import sentence
from fennup.core.saw.tool import Miss, ScaleTool
from fennup.core.saw.tools import AnyTool
from fennup.core.saw.wishes import Lengths, School

MISSES = {
    "past_swing_left": "Past the stop: to the left this saw goes to {has:angle}{reading}, and this needs {needs:angle}, {over:angle} more.",
    "past_swing_right": "Past the stop: to the right this saw goes to {has:angle}{reading}, and this needs {needs:angle}, {over:angle} more.",
    "past_tilt_left": "Past the stop: to the left this saw tilts to {has:angle}{reading}, and this needs {needs:angle}, {over:angle} more.",
    "past_tilt_right": "Past the stop: to the right this saw tilts to {has:angle}{reading}, and this needs {needs:angle}, {over:angle} more.",
    "too_wide": "Too wide: {needs:length} from the fence, and at this setting it cuts {has:length}, {over:length} less.",
    "too_high": "Too high: {needs:length} on the table, and at this setting it cuts {has:length}, {over:length} less.",
    "too_wide_rip": "Too wide: {needs:length} between blade and fence, and there is room for {has:length}.",
    "no_slot": "No slot is at this angle: the nearest is {needs:angle} off.",
    "too_steep": "Steeper than a hand saw starts well: {needs:angle}, and {has:angle} is the most you gave it.",
}
CAUTIONS = {
    "old_wood": "Wood that was used before: find metal before any blade, test old paint before you sand or heat it.",
    "rough": "Dust of treated or hard wood: mask and extraction.",
    "short_piece": "Too short to hold by hand near a blade: cut it from a longer board, with a hold-down, or by hand saw.",
    "trapped_offcut": "The offcut lies under the leaning blade and can be thrown: let the blade stop before you lift it.",
    "long_piece": "A long end droops and tilts the cut: support it level with the table.",
    "tall_board": "It stands high: screw a taller board to the fence and clamp it there.",
    "square_jig": "The board lies along the blade, its end at the fence: clamp it to a carrier that runs along the fence. It creeps.",
    "wedge_jig": "Clamp the wedge to the fence and the board to the wedge: both creep. Never hold the short end.",
    "ripping": "Push stick, featherboard and riving knife; nobody stands behind the board.",
    "narrow_rip": "A narrow rip: a push block over the blade's guard, never fingers.",
    "leans_to_fence": "The blade leans to the fence and can pinch the strip: better the fence on the other side, or the board turned over.",
    "sheet": "Support the sheet on both sides of the line. Plastic melts, chips and kicks: the sheet maker's blade, never one turned round.",
    "chisel": "Saw the walls on the waste side; pare with the work clamped, both hands behind the edge.",
    "ploughing": "With stacked blades: guard, sacrificial fence, several passes. Try it in scrap and measure what it really takes.",
    "routing": "With a plane, or a router: against the turn of its bit, several shallow passes, on the long piece before it is cut up. Clamp it; both hands on the machine.",
    "stopping": "A stopped groove is made with a router between two stops clamped on, in several passes, or with a chisel. The last bit before a stop is where it gets away: stop short, and square the ends by hand.",
    "gluing": "Plough each piece before it is glued. Lay them on a flat bench, edges flush against a stop, clamps alternately above and below; take off what is squeezed out before it sets, and let it cure before it is sawn.",
    "finished": "The finish on it chips where the teeth come out: the show side to the teeth, tape over the line, a sharp fine blade, and a slow cut.",
    "saw_apart": "The kerf closes when the lid comes loose: shims in the cut, and the last side supported.",
    "stop_block": "Never trap a piece between stop and blade: the piece at the stop stays still, the other side stays free.",
    "powered": "Eyes and ears. Guard and fence clear of the blade? Move it through by hand with the power off. Let the blade stop before you lift it or reach.",
    "by_hand": "Clamp the work; start the cut with a light back stroke, your thumb well above the teeth.",
}
SCHOOL_NAMES: dict[School, str] = {
    "by_setting": "by setting",
    "by_part": "part by part",
    "first_as_pattern": "first part as the pattern",
}
LENGTH_NAMES: dict[Lengths, str] = {"stop": "against a stop block", "mark": "mark each", "copy": "copy the first"}
STEP_NAMES = {
    "rough": "cut apart",
    "rip": "rip", "rabbet": "rabbet", "groove": "groove", "chamfer": "chamfer", "round": "rounding", "cove": "cove", "tongue": "tongue", "milled": "profile", "glue_up": "glue up",
    "taper": "taper", "outline": "outline", "test": "test", "first_end": "first end",
    "second_end": "second end", "lap": "lap", "birdsmouth": "birdsmouth", "holes": "holes", "scribe": "cut to fit", "saw_apart": "saw apart",
}  # fmt: skip
WITHOUT_TOOL = {
    "rough": "A plain crosscut: at the miter saw, or by hand.",
    "glue_up": "At the bench, with glue and clamps, before anything is sawn.",
}
# How the lines of a part's card begin that belong to a sort of work; of tapers and outlines all do.
FIGURES_OF = {"lap": "lap", "birdsmouth": "birdsmouth", "holes": "holes"}
SIMULATED = {
    "all": "Simulated: all {count} parts come out right.",
    "one": "Simulated: the part comes out right.",
    "some": "Simulated: {right} of {count} parts come out right. {names} cannot be made by these steps alone: see their steps.",
}


def miss_text(miss: Miss, tool: AnyTool, voice: Voice) -> str:
    """What is in the way, and by how much."""
    reading = ""
    if miss.code.startswith("past_") and isinstance(tool, ScaleTool):
        movement = "swing" if "swing" in miss.code else "tilt"
        if tool.counts_from(movement) == "fence":  # type: ignore[arg-type]
            reading = f", {voice.say_angle(90.0 - miss.has)} on its scale"
    figures = {"needs": miss.needs, "has": miss.has, "over": miss.needs - miss.has, "reading": reading}
    return sentence(MISSES[miss.code], figures, voice)

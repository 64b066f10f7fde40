"""What is wrong and what to do about it, in words, from the core's codes."""

from collections.abc import Callable
from typing import Any

from fennup.app.wording.figures import Voice
from fennup.app.wording.sentences import sentence
from fennup.app.wording.tables import merged
from fennup.core.errors import CoreError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.gauge import is_angle
from fennup.core.tolerances import NOTHING
from fennup.core.units.lengths import LONGEST_TEXT

Words = Callable[[dict[str, Any], Voice], str]


# Why a text is no figure.
_TRIES = "{{text}}” is no length. Try {first}, 36.5 cm or 4' 7 1/4\"."
NO_LENGTH = {"mm": "“" + _TRIES.format(first="365"), "in": "“" + _TRIES.format(first="14 3/8")}
NO_ANGLE = "“{text}” is no angle. Try 22.5 or 22 1/2."
TOO_MANY = "That is more than {most} characters: no length or angle needs so many."
THOUSANDS = "“{text}” has a thousands separator. Write the number without it."
EITHER = "“{text}” could mean two things. Write {point} or {joined}."
FRACTION = "Bare numbers here are millimetres. {text} in = {mm} mm?"


def _mm(data: dict[str, Any], voice: Voice, key: str) -> str:
    return voice.say(float(data[key]))


def _size(measure: Any, value: Any, voice: Voice) -> str:
    """A measure's figure in its own unit."""
    return voice.say_angle(float(value)) if is_angle(str(measure)) else voice.say(float(value))


def _given_list(data: dict[str, Any], voice: Voice) -> str:
    """Top 400 mm, bottom 300 mm and slope 15°."""
    said = [f"{voice.label(measure)} {_size(measure, value, voice)}" for measure, value, _ in data["others"]]
    return " and ".join([", ".join(said[:-1]), said[-1]] if len(said) > 1 else said)


def _first_word(text: str) -> str:
    """With a capital letter."""
    return text[:1].upper() + text[1:]


# Those that serve every kind; a kind has its own beside them.
TEXTS = merged(
    "refusals",
    {
        "ploughed_too_large": "There is not so much wood there: {mm:length}, and it must stay under {limit_mm:most}.",
        "no_mouldings_in_it": "That file holds no mouldings: a workshop’s file does, or a document with mouldings and contents.",
        "no_such_moulding": "There is no such moulding.",
        "no_rabbet_in_it": "It has no rabbet at its opening’s back, so that nothing lies in it. Turn it, or cut one.",
        "too_many_mouldings": "There are {most} mouldings already; that is the most.",
        "too_many_contents": "There are {most} things to be framed already; that is the most.",
        "glued_within": "Glued on, a strip must lie within its rail’s edges. As a board of its own it may reach over.",
        "glued_everywhere": "Glued on, strips must go all round: only so is every rail one board.",
        "glued_hollow": "That would close in a hollow: what is glued on must lie on the wood all over.",
        "stack_empty": "Something must lie in the rabbet: say how thick the picture, the glass or the back is.",
        "stops_cross": "The two stops leave nothing between them: the part is {mm:length} long.",
        "milled_ends": "What is milled must begin and end on the sides of the board that it is cut out of.",
        "outline_fine": "One hollow of the outline has {count} corners; {most} is the most. Draw it with arcs or fewer points.",
        "ploughed_meets": "That would cut through, or run into what is cut along the board already.",
        "no_such_face": "{part} has no face there for a piece to end on.",
        "piece_between": "There is no room for {part:inside} between its two faces: they must face each other.",
        "piece_off_board": "{mm:length} is past the end of {part}, {limit_mm:length} long.",
        "links_circle": "{name} and {other} would follow each other in a circle: one of them must have a size of its owns.",
        "name_twice": "Two assemblies are called {name}.",
        "no_such_rest": "{part} has no such side for it to stand or lie on.",
        "not_a_rest": "It cannot stand on that side of {part}: its wood goes {mm:gap} past it.",
        "upon_nothing": "{name} can only be laid on a face of what it stands on: say first what that is.",
        "stands_on_nothing": "{name} can only stand on one that comes before it.",
        "no_such_assembly": "There is no assembly called {name}.",
        "too_many_digits": TOO_MANY,
        "thousands": THOUSANDS,
        "fraction_in_mm": FRACTION.replace("{mm}", "{mm:.1f}"),
        "no_count": "“{text}” is no whole number.",
        "no_tape": "There is no tape with that graduation.",
        "rectangle_sides": "A rectangle has four sides. Start another frame for more.",
        "no_such_side": "There is no side {side}: they go from A to {last}.",
        "no_such_corner": "There is no corner {corner}.",
        "through_not_here": "Only one of the two rails of {corner} can run through it.",
        "part_vanishes": "The cuts at both ends of {part:inside} leave nothing of it.",
        "nothing_pinned": "No size was given there that could be let go.",
        "dragged_to_nothing": "Dragged that far, nothing would be left of it.",
        "cannot_measure": "It has no size of that name.",
        "rescale_nothing": "A new size must be more than nothing.",
        "size_follows": "{measure:size} follows another assembly's size: change that one.",
        "no_shape": "With these figures two sides lie in line, or two corners on each other: there is no shape.",
        "bars_in_each_other": "The two ways would stand in each other: let them lie in one layer, half lapped, or wholly over each other.",
        "no_step": "Say how far apart they are to be.",
        "no_places": "Say where at least one of them is to be.",
        "place_outside": "A middle at {mm:length} is outside: the last that has room is at {limit_mm:most}.",
        "places_close": "At {mm:length} it would lie in another one.",
        "bars_too_many": "{count} pieces take {mm:length} together; between the sides there is room for {limit_mm:length}.",
        "bars_parallel": "The two rows run the same way: they would never cross.",
        "gussets_meet": "{part} would stand in {other:inside}: bring it nearer to its corner.",
        "piece_outside": "{part} would lie outside the frame or box.",
        "inner_above": "Pieces {mm:length} up would stand out at the top. At most {limit_mm:most}.",
        "no_such_board": "There is no board {part} to drill.",
        "pipe_on_edge": "A pipe goes from wide face to wide face: {part} is touched on an edge.",
        "pipe_askew": "The face of {part} is {deg:angle} out of square to the pipe: a straight hole does not take it.",
        "pipe_through": "{mm:length} goes through {part}, {limit_mm:length} thick.",
        "pipe_misses": "The pipe does not meet {part:inside} with all of its round.",
        "hole_too_deep": "Holes {mm:length} deep go through {part}, {limit_mm:length} thick. Let them go through, or less deep.",
        "ball_sinks_through": "{mm:length} does not hold the ball from below: it must be less than {limit_mm:most}.",
        "balls_touch": "The middles of the holes in {part} are {mm:length} apart: balls of {limit_mm:length} would touch. Take fewer, or smaller ones.",
        "ball_on_the_ground": "Holes {mm:length} deep stop the ball before its seat. It sinks {limit_mm:length} in.",
        "tab_no_room": "Tabs {mm:length} wide have no room beside the folds. At most {limit_mm:most}.",
        "sum_too_large": "That comes to more than can be built.",
        "named_how": "Write a name, an equals sign and the size: foam = 3. A name has letters and figures, and begins with a letter.",
        "named_twice": "There is a size called {name} already.",
        "named_many": "There are {most} sizes with a name: that is as many as there may be.",
        "no_such_named": "A figure is said by a named size that is not there.",
        "cover_nothing": "With these figures nothing is left of the lid.",
        "hole_outside": "{mm:length} up, a hole would break out of {part}, {limit_mm:length} wide there.",
        "laps_many": "The pieces would cross {count} times. At most {most} can be worked out at once: take {left} or fewer.",
        "no_figure": "There is no figure here yet that could go up or down: type one.",
        "no_such_field": "There is no such field.",
        "no_such_grip": "There is no such ring to drag.",
        "no_such_start": "There is nothing of that name to begin with.",
        "unknown_kind": "There is no kind of that name.",
        "no_fennup_file": "This is no file of Fennup's: it says no format that is known here.",
        "file_newer": "This file was written by a newer Fennup: its form is version {version}, this one reads up to {newest}. Bring this Fennup up to date, then bring the file in again.",
        "no_base64": "The content of {name} cannot be read.",
        "no_media_type": "{name} is no picture, table or JSON: such files are not kept.",
        "name_empty": "A project needs a name.",
        "name_long": "A name may have {most} characters.",
        "no_allowance": "It must be more than nothing and at most {limit_mm:most}.",
        "no_unit": "Units are mm or in.",
        "no_such_reading": "There is nothing of that name to read on this project.",
        "reading_huge": "Nothing here reads so much: was it read in another unit?",
        "no_correction": "A change of more than 60 mm is no correction: change the shape instead.",
        "made_nothing": "A part measures more than nothing: what does the tape read?",
        "gap_negative": "A gap is 0 or more: 0 where no feeler goes in.",
        "none_so_thick": "No board of this project is {mm:length} thick.",
        "trim_too_long": "Trimmed so far, nothing is left of a board {length_mm:length} long.",
        "defect_outside": "A knot must lie within the board, {length_mm:length} long and {width_mm:length} wide, and end after it begins.",
        "too_many_on_rack": "The rack holds {most} entries. Take some away, or give alike boards one entry with their number.",
        "code_twice": "Two lines of the price list have the code {name}.",
        "no_table": "This is no table of comma-separated values.",
        "table_large": "That is more than {most_kb} kB: no rack and no price list is so long.",
        "table_long": "The table has {rows} rows; at most {most} can be read.",
        "columns_missing": "The table has no column for {missing}. Its first row must name them: {columns}.",
        "outside_stops": "{angle:angle} lies beyond the stops, which are at {low:angle} and {high:angle}.",
        "no_square_slot": "Without a square slot nothing can be cut off square: keep that one.",
        "no_model": "There is no box here whose walls meet edge to edge at mitered corners: no model can be folded of it.",
        "last_tool": "A workshop needs one tool at least.",
        "out_of_order": "{needs} must come before {step:inside}.",
        "ring_not_closed": "A ring test needs a closed ring: pieces cut at {angle:angle} do not go round in {count}. Try the corner test.",
        "rolled_square_only": "Rolling the board over tests the square setting only. For others hold two scraps together.",
        "rolled_two_widths": "Type two widths of the strip, at the fence and near you, and over what width of board they are taken.",
        "test_reading": "No saw is that far off: {made:angle} where {wanted:angle} was set. Read it once more, or another test was meant.",
        "square_at": "Two lines from one edge: measure them some way from it.",
        "square_far_out": "That would be {angle:angle} out: read both lines once more.",
        "halves_long": "A board is longer than nothing and shorter than 20 m.",
        "halves_kerf": "A kerf is more than nothing and at most {most:length}.",
        "halves_nothing": "So steep a cut over that width leaves no short edge.",
        "halves_angle": "An angle from square lies between 0 and {most:angle}.",
        "no_number": "“{text}” is no number.",
        "no_such_size": "There is none called {name} in your table.",
        "no_such_row": "There is none called {name} in your tables.",
        "no_such_step": "There is no step of that name.",
        "row_name": "A row needs a name of its own, without slashes.",
        "row_twice": "There is a row called {name} already.",
        "no_hours": "“{text}” are no hours. Write 18-20, or 9-12, 14-17:30; nothing where there is no time.",
        "free_hours_wrong": "Hours go from an earlier one to a later one, between 0 and 24, and do not overlap.",
        "no_free_hours": "A week without a free hour: nothing would ever be done. Leave one evening.",
        "hours_negative": "Hours are 0 or more.",
        "tasks_circle": "Two steps would wait for each other.",
        "no_such_task": "There is no step called {name}.",
        "task_too_long": "{hours:.1f} hours in one go are more than any free day has: free a longer one, or give it less.",
        "paint_before_glue": "Coated all over first, a joint could not be glued: glue does not hold on paint. Mask its faces, coat it after, or leave the glue out there.",
        "plan_empty": "Nothing is said yet: give one figure at least.",
        "plan_long": "More than {most} figures at once: check the main sizes first, then the parts.",
        "said_twice": "{name} is said twice. Leave one of them out.",
        "plan_nothing": "With these figures there is no shape at all. Leave out what you doubt most.",
        "field_cannot": "{name} cannot be that: there is no such board or number of sides.",
        "no_such_figure": "Say what this figure is of.",
        "drawing_large": "A drawing of more than {most_mb} MB: save the outline alone.",
        "drawing_unknown": "That is neither SVG nor DXF.",
        "drawing_broken": "That drawing cannot be read: it is damaged, or not what its name says.",
        "drawing_entities": "That SVG defines names of its own, which are never followed. Save it as plain SVG.",
        "drawing_busy": "More than {most} lines: save the outline alone.",
        "no_outline": "There is no outline in it: no line that encloses anything.",
        "outline_open": "No line in it closes: {count} stay open. Join the ends of the outline.",
        "outline_crosses": "Its outline crosses itself: no frame can be made of it.",
        "outline_hollow": "Its outline is hollow at a corner {x_mm:length} from its left and {y_mm:length} from its lowest point. Frames and cases can be made of outlines that bulge everywhere; part it into two.",
        "outline_corners": "It still has {count} corners where its curves are made straight; {most} are the most.",
        "outline_small": "Its outline is only {mm:length} across; {least_mm:length} is the least. Is the drawing in another unit?",
        "outline_large": "Its outline is {mm:length} across; {most_mm:length} is the most. Is the drawing in another unit?",
        "file_damaged": "The file is damaged at line {line}, place {place}: {said}. Up to there it may be whole.",
        "file_zipped": "That is a packed file. Unpack it, and bring in what is inside.",
        "file_binary": "That is none of the files that come in: Fennup's own, CSV, SVG and DXF do.",
        "file_empty": "There is nothing in that file.",
        "no_photo": "That is no photo that can be read: send JPEG, PNG or WebP.",
        "photo_large": "That photo has more than {most} million points. Take a smaller one.",
        "no_duration": "“{text}” is no length of time. Write 1:30, 90 min or 1.5.",
        "duration_long": "More than {most:g} hours in one go: write them by the day.",
        "no_day": "“{text}” is no day.",
        "day_ahead": "That day is still to come: hours are written down afterwards.",
        "clock_stands": "The clock does not run: it may have been stopped on another device.",
        "no_such_record": "That is not in this log any more, or was written in another place, where it is taken back.",
        "needed_past": "That day is over. Which one is it needed?",
        "weather_past": "The weather service answered with days that are over. The last forecast stands: ask again.",
        "weather_away": "The weather service does not answer. The last forecast stands, and everything works without.",
        "weather_slow": "The weather service takes too long. The last forecast stands: ask again.",
        "weather_closed": "The weather service gives no forecast just now. The last one stands: ask again.",
        "weather_nonsense": "What the weather service answered cannot be read. The last forecast stands.",
        "limits_crossed": "{mm:length} is less than the limit before it, {limit_mm:length}: from, to, and each after the one before.",
        "pilot_wide": "A pilot of {mm:gap} is not thinner than the screw, {limit_mm:gap}: it would not hold.",
        "clearance_narrow": "A clear hole of {mm:gap} does not let the screw through, {limit_mm:gap} thick.",
        "holds_nothing": "Up to {mm:length} it holds nothing: there is no floor under that, or no wall round it.",
        "diagonals_impossible": "No four sides like these have such diagonals: read them once more.",
        "no_room_for_legs": "There is no room for three lengths in steps of {mm:length}.",
        "reading_of_none": "There is no place called {name} to read from.",
        "too_few_readings": "Nothing was read yet.",
        "hooks_cross": "{mm:length} in from each side the hooks would pass each other: it is {limit_mm:length} to the middle.",
        "hooks_low": "They would lie below the floor: its top is {limit_mm:length} up.",
        "cell_wrong": "Row {row}, {column}: “{text}” cannot stand there. Nothing of the table was taken over.",
    },
    *(kind.words.refusals for kind in KINDS.values()),
)
# Those whose sentence hangs on more than its figures.
PROBLEMS: dict[str, Words] = {
    "no_length": lambda d, v: NO_LENGTH[v.tape.unit].format(text=d["text"][:40]),
    "comma_or_thousands": lambda d, v: EITHER.format(
        text=d["text"], point=d["text"].replace(",", "."), joined=d["text"].replace(",", "")
    ),
    "no_slope": lambda d, v: f"“{d['text'][:40]}” is no slope. Try 30, 22 1/2, or rise and run: 7 in 12.",
    "no_angle": lambda d, v: NO_ANGLE.format(text=d["text"][:40]),
    "measure_impossible": lambda d, v: (
        f"Nothing has {v.label(str(d['measure']))} {_size(d['measure'], d['value'], v)} together with what is given already."
        if "measure" in d
        else "No shape has these sizes together."
    ),
    "pins_disagree": lambda d, v: (
        f"{_first_word(v.label(str(d['measure'])))} {_size(d['measure'], d['value'], v)} clashes with {_given_list(d, v)}: "
        f"together they make it {_size(d['measure'], d['gives'], v)}. Which of them is to change?"
    ),
    "keep_disagrees": lambda d, v: (
        f"{v.label(str(d['measure']))} cannot stay {_size(d['measure'], d['value'], v)} beside {_given_list(d, v)}: "
        f"they make it {_size(d['measure'], d['gives'], v)}. Let one of them go in proportion."
    ),
    "pins_enough": lambda d, v: (
        f"{_first_word(v.label(str(d['measure'])))} {_size(d['measure'], d['gives'], v)} follows from {_given_list(d, v)}. "
        "To give it yourself, say which of them is to follow from now on."
    ),
    "too_much": lambda d, v: (
        f"This comes to {d['boards']} boards and {d['laps']} laps, more than can be worked out while you wait. "
        f"Take about {100 * d['share']:.0f} % of it, or make two projects of it."
    ),
    "file_large": lambda d, v: f"{d['name']} is larger than {d['most'] // 2**20} MB.",
}


def reading_refusals(voice: Voice) -> dict[str, str]:
    """Why a text is no figure, by code, for whoever reads texts without the server: with places for the text and what it could be."""
    return {
        "no_length": NO_LENGTH[voice.tape.unit],
        "no_angle": NO_ANGLE,
        "too_many_digits": TOO_MANY.format(most=LONGEST_TEXT),
        "thousands": THOUSANDS,
        "comma_or_thousands": EITHER,
        "fraction_in_mm": FRACTION,
    }


def problem_text(error: CoreError, voice: Voice) -> str:
    """One sentence for a refusal."""
    if error.code in TEXTS:
        return sentence(TEXTS[error.code], error.data, voice)
    return PROBLEMS[error.code](error.data, voice) if error.code in PROBLEMS else error.code.replace("_", " ")


def limits_text(kind: str, context: dict[str, Any], path: str, value: Any, voice: Voice) -> str:
    """One sentence for a figure outside its field's limits, or a value of the wrong sort."""
    name = path.rsplit(".", 1)[-1]

    def say(limit: Any) -> str:
        if not isinstance(limit, int | float):
            return str(limit)
        if name.endswith("mm"):
            inches = voice.tape.unit == "in"
            # A limit that the tape has no mark for is said exactly.
            exact = f"{limit / 25.4:.4g}″" if inches else f"{limit:g} mm"
            marks = limit / voice.tape.graduation_mm
            return exact if abs(marks - round(marks)) > NOTHING else voice.say(float(limit))
        return f"{limit:g}°" if name.endswith("deg") else f"{limit:g}"

    if kind == "greater_than":
        return f"It must be more than {say(context['gt'])}."
    if kind == "greater_than_equal":
        return f"It must be {say(context['ge'])} or more."
    if kind == "less_than":
        return f"It must be less than {say(context['lt'])}."
    if kind == "less_than_equal":
        return f"It must be at most {say(context['le'])}."
    if kind == "missing":
        return "This is missing."
    if kind == "extra_forbidden":
        return "There is no such field."
    if kind in ("string_too_long", "too_long"):
        return f"It may have at most {context.get('max_length')}."
    if kind in ("string_too_short", "too_short"):
        return f"It needs at least {context.get('min_length')}."
    if kind == "finite_number":
        return "It must be a number."
    return "This is not one of the values that can stand here."

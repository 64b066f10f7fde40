"""What is wrong and what to do about it, in words, from the core's codes."""

from collections.abc import Callable
from typing import Any

from fennup.app.wording.figures import Voice
from fennup.core.errors import CoreError
from fennup.core.parts.gauge import is_angle

Words = Callable[[dict[str, Any], Voice], str]


def _mm(data: dict[str, Any], voice: Voice, key: str) -> str:
    return voice.say(float(data[key]))


def _size(measure: Any, value: Any, voice: Voice) -> str:
    """A measure's figure in its own unit."""
    return voice.say_angle(float(value)) if is_angle(str(measure)) else voice.say(float(value))


def _given_list(data: dict[str, Any], voice: Voice) -> str:
    """Top 400 mm, bottom 300 mm and slope 15°."""
    said = [f"{voice.label(measure)} {_size(measure, value, voice)}" for measure, value, _ in data["others"]]
    text = " and ".join([", ".join(said[:-1]), said[-1]] if len(said) > 1 else said)
    return text[:1].upper() + text[1:]


PROBLEMS: dict[str, Words] = {
    "by_needs_members": lambda d, v: "Corner to corner goes between two upright members.",
    "pocket_for_one": lambda d, v: "In pockets there is one brace. Measure crossing braces on their edges or middle lines.",
    "pocket_flat": lambda d, v: "A level brace has no pocket to go into: give it a rise.",
    "brace_too_wide": lambda d, v: (
        f"{_mm(d, v, 'mm')} wide, nothing is left of its short edge: its long edge is only {_mm(d, v, 'limit_mm')}."
    ),
    "brace_misses": lambda d, v: f"{d['part']} does not meet its member at one end.",
    "braces_miss": lambda d, v: "The second brace does not cross the first between the members.",
    "wall_lies_down": lambda d, v: "The wall would lie on the ground.",
    "tread_off": lambda d, v: (
        f"{d['part']} would stand where the uprights are already cut away for the ground or the wall. Take fewer treads, lower boxes or slimmer uprights."
    ),
    "box_too_tall": lambda d, v: (
        f"Between one tread and the next there are {_mm(d, v, 'limit_mm')}: boxes of {_mm(d, v, 'mm')} do not go in."
    ),
    "box_no_room": lambda d, v: (
        f"A front and a back take {_mm(d, v, 'mm')} together, and the uprights are {_mm(d, v, 'limit_mm')} deep: no room is left."
    ),
    "treads_on_flat": lambda d, v: "The uprights lie too flat for level treads.",
    "pitch_range": lambda d, v: (
        f"A pitch of {v.say_angle(float(d['deg']))} is no roof: it must be more than 0° and less than 90° from level."
    ),
    "notch_through": lambda d, v: (
        f"A heel of {_mm(d, v, 'mm')} cuts the rafter through: plumb it is {_mm(d, v, 'limit_mm')} deep. Take less, about a third."
    ),
    "rafter_nothing": lambda d, v: f"Nothing is left of {d['part'][:1].lower()}{d['part'][1:]} between ridge and foot.",
    "roof_too_flat": lambda d, v: "So flat, two panels lie in one plane.",
    "back_not_higher": lambda d, v: f"The back must be higher than the front, {_mm(d, v, 'limit_mm')}.",
    "too_thick_here": lambda d, v: (
        f"Boards {_mm(d, v, 'mm')} thick leave nothing inside. They must be thinner than {_mm(d, v, 'limit_mm')}."
    ),
    "backing_deep": lambda d, v: (
        f"One side is so steep that backing the hip takes {_mm(d, v, 'limit_mm')} of its {_mm(d, v, 'mm')}: nothing is left to sit on the wall."
    ),
    "no_seat": lambda d, v: (
        f"{d['part']} is only {_mm(d, v, 'limit_mm')} deep, plumb: with {_mm(d, v, 'mm')} above the plate it does not come down to it."
    ),
    "jacks_in_another": lambda d, v: (
        f"Jacks {_mm(d, v, 'limit_mm')} thick stand in one another, {_mm(d, v, 'mm')} from middle to middle."
    ),
    "jacks_many": lambda d, v: (
        f"Jacks {_mm(d, v, 'mm')} from middle to middle would be {d['count']} from a corner. At most {d['most']}: set them further apart."
    ),
    "jacks_too_close": lambda d, v: f"Jacks {_mm(d, v, 'mm')} apart would come to nothing beside the hip.",
    "no_such_face": lambda d, v: f"{d['part']} has no such face for a piece to end on.",
    "piece_between": lambda d, v: f"{d['part']} finds no room between its two faces: they must look at each other.",
    "piece_off_board": lambda d, v: f"{_mm(d, v, 'mm')} is past the end of {d['part']}, {_mm(d, v, 'limit_mm')} long.",
    "links_circle": lambda d, v: (
        f"{d['name']} and {d['other']} would follow each other in a circle: one of them must have its own figures."
    ),
    "name_twice": lambda d, v: f"Two assemblies are called {d['name']}.",
    "stands_on_nothing": lambda d, v: f"{d['name']} can only stand on one that comes before it.",
    "no_such_assembly": lambda d, v: f"There is no assembly called {str(d['name'])[:30]}.",
    "legs_cross": lambda d, v: (
        f"{d['part']} and {d['other'][:1].lower()}{d['other'][1:]} would stand in one another. Set them further apart."
    ),
    "legs_nothing": lambda d, v: "So low and so splayed, nothing is left of a leg between foot and head.",
    "rail_above": lambda d, v: (
        f"A rail {_mm(d, v, 'mm')} up would stand above the heads of the legs. At most {_mm(d, v, 'limit_mm')}."
    ),
    "ring_off_legs": lambda d, v: f"A ring {_mm(d, v, 'mm')} up does not reach the legs. At most {_mm(d, v, 'limit_mm')}.",
    "brace_above": lambda d, v: f"Braces up to {_mm(d, v, 'mm')} end above the legs, {_mm(d, v, 'limit_mm')} high.",
    "braces_flat": lambda d, v: f"Braces must rise: they end at {_mm(d, v, 'mm')} and start at {_mm(d, v, 'limit_mm')}.",
    "top_on_pairs": lambda d, v: "Pairs of legs meet at their heads: a top would stand on points. Take four legs for a top.",
    "no_length": lambda d, v: (
        f"“{d['text'][:40]}” is no length. Try {'14 3/8' if v.tape.unit == 'in' else '365'}, 36.5 cm or 4' 7 1/4\"."
    ),
    "too_many_digits": lambda d, v: f"That is more than {d['most']} characters: no length or angle needs so many.",
    "thousands": lambda d, v: f"“{d['text']}” has a thousands separator. Write the number without it.",
    "comma_or_thousands": lambda d, v: (
        f"“{d['text']}” could mean two things. Write {d['text'].replace(',', '.')} or {d['text'].replace(',', '')}."
    ),
    "fraction_in_mm": lambda d, v: f"This project is in millimetres. {d['text']} in = {d['mm']:.1f} mm?",
    "no_slope": lambda d, v: f"“{d['text'][:40]}” is no slope. Try 30, 22 1/2, or rise and run: 7 in 12.",
    "no_angle": lambda d, v: f"“{d['text'][:40]}” is no angle. Try 22.5 or 22 1/2.",
    "no_count": lambda d, v: f"“{d['text']}” is no whole number.",
    "no_tape": lambda d, v: "There is no tape with that graduation.",
    "no_opening": lambda d, v: (
        f"Rails {_mm(d, v, 'mm')} wide leave no opening. They must be narrower than {_mm(d, v, 'limit_mm')}."
    ),
    "no_outer_edge": lambda d, v: (
        f"Rail {d['side']} is so much wider than its neighbours that nothing of its outer edge is left between them."
    ),
    "no_opening_between": lambda d, v: (
        f"The two rails take {_mm(d, v, 'mm')} together and leave no opening in {_mm(d, v, 'limit_mm')}."
    ),
    "rabbet_too_wide": lambda d, v: f"A rabbet {_mm(d, v, 'mm')} wide is no narrower than the rail, {_mm(d, v, 'limit_mm')}.",
    "rabbet_too_deep": lambda d, v: f"A rabbet {_mm(d, v, 'mm')} deep goes through the board, {_mm(d, v, 'limit_mm')} thick.",
    "rabbet_covers_all": lambda d, v: (
        f"A rabbet of {_mm(d, v, 'mm')} covers all of what it holds. It must be under {_mm(d, v, 'limit_mm')}."
    ),
    "holds_without_rabbet": lambda d, v: "To hold something by its edge the rails need a rabbet.",
    "sides_range": lambda d, v: f"{str(d['count'])[:12]} sides: a frame has 3 to 24.",
    "rectangle_sides": lambda d, v: "A rectangle has four sides. Start another frame for more.",
    "odd_only": lambda d, v: "Corner to opposite side is for an odd number of sides.",
    "no_such_side": lambda d, v: f"There is no side {d['side']}: they go from A to {d['last']}.",
    "no_such_corner": lambda d, v: f"There is no corner {d['corner']}.",
    "through_not_here": lambda d, v: f"Only one of the two rails of {d['corner']} can run through it.",
    "too_few_left": lambda d, v: "At least two rails must stay.",
    "ground_along_rail": lambda d, v: (
        f"Rail {d['side']} runs along the ground there: an end flat to the ground would never cross it."
    ),
    "butt_too_wide": lambda d, v: (
        f"Butted at {d['corner']}, rail {d['side']} is so wide that its tip would run past the next corner. Miter it, or take a narrower board."
    ),
    "part_vanishes": lambda d, v: f"The cuts at both ends of part {d['side']} leave nothing of it.",
    "pin_impossible": lambda d, v: (
        f"No outline has side {d['side']} at {_mm(d, v, 'mm')} together with what is pinned already."
        if "mm" in d
        else f"No outline has corner {d['corner']} at {v.say_angle(float(d['deg']))} together with what is pinned already."
    ),
    "reflex": lambda d, v: (
        f"Corner {d['corner']} would come to {v.say_angle(float(d['deg']))}. Every corner must stay under 180° and above 0°."
    ),
    "crossed": lambda d, v: "The sides cross each other.",
    "nothing_pinned": lambda d, v: "Nothing is pinned there.",
    "other_line": lambda d, v: (
        f"The corners lie on the {'opening' if d['line'] == 'opening' else 'outer'} edge: give sizes there."
    ),
    "dragged_to_nothing": lambda d, v: "That would leave nothing of it.",
    "cannot_measure": lambda d, v: "There is no such size to be taken on it.",
    "measure_impossible": lambda d, v: (
        f"Nothing has {v.label(str(d['measure']))} {_size(d['measure'], d['value'], v)} together with what is given already."
        if "measure" in d
        else "Nothing answers to that."
    ),
    "pins_disagree": lambda d, v: (
        f"{_given_list(d, v)} cannot all hold with {v.label(str(d['measure']))} {_size(d['measure'], d['value'], v)}: "
        f"they make it {_size(d['measure'], d['gives'], v)}."
    ),
    "keep_disagrees": lambda d, v: (
        f"{v.label(str(d['measure']))} cannot stay {_size(d['measure'], d['value'], v)} beside {_given_list(d, v)}: "
        f"they make it {_size(d['measure'], d['gives'], v)}. Let one of them go in proportion."
    ),
    "rescale_nothing": lambda d, v: "Another size must be more than nothing.",
    "size_follows": lambda d, v: f"{v.label(str(d['measure']))} follows another assembly's size: change that one.",
    "pins_enough": lambda d, v: (
        f"{_given_list(d, v)} already make {v.label(str(d['measure']))} {_size(d['measure'], d['gives'], v)}. "
        "To give it, let one of them follow."
    ),
    "walls_cross": lambda d, v: (
        f"{_mm(d, v, 'mm')} high, the walls would cross: side {d['side']} comes to nothing at {_mm(d, v, 'limit_mm')}."
    ),
    "too_thick": lambda d, v: (
        f"Walls {_mm(d, v, 'mm')} thick leave nothing inside at side {d['side']}. They must be thinner than {_mm(d, v, 'limit_mm')}."
    ),
    "walls_in_line": lambda d, v: f"Side {d['side']} and its neighbour lie in one plane: that is no corner.",
    "plan_crossed": lambda d, v: (
        f"The plan turns inwards or crosses itself at side {d['side']}. Every corner must point outwards."
    ),
    "courses_too_few": lambda d, v: (
        f"{d['count']} boards {_mm(d, v, 'mm')} wide make {_mm(d, v, 'reach_mm')}; up the slope this wall needs {_mm(d, v, 'limit_mm')}."
    ),
    "courses_too_many": lambda d, v: (
        f"One board fewer already makes {_mm(d, v, 'reach_mm')}; up the slope this wall needs only {_mm(d, v, 'limit_mm')}."
    ),
    "course_in_rip": lambda d, v: (
        f"On side {d['side']} two boards would meet within {_mm(d, v, 'mm')} of a ripped edge, where not all of their thickness "
        "is left. Take boards of another width."
    ),
    "no_shape": lambda d, v: "With these figures two sides lie in line, or two corners on each other: there is no shape.",
    "staves_with_courses": lambda d, v: "A stave runs from the bottom to the top: it cannot be one of several courses.",
    "lid_too_deep": lambda d, v: f"A lid {_mm(d, v, 'mm')} deep leaves no box. It must be under {_mm(d, v, 'limit_mm')}.",
    "floor_above_rim": lambda d, v: f"A floor {_mm(d, v, 'mm')} up would stand above the rim. At most {_mm(d, v, 'limit_mm')}.",
    "bars_too_many": lambda d, v: (
        f"{d['count']} of them take {_mm(d, v, 'mm')}; between the sides there are {_mm(d, v, 'limit_mm')}."
    ),
    "bars_parallel": lambda d, v: "The two ways run alongside each other: they would never cross.",
    "gussets_meet": lambda d, v: (
        f"{d['part']} would stand in {d['other'][:1].lower()}{d['other'][1:]}: bring it nearer to its corner."
    ),
    "piece_outside": lambda d, v: f"{d['part']} would lie outside.",
    "inner_above": lambda d, v: f"{_mm(d, v, 'mm')} up they would stand out at the top. At most {_mm(d, v, 'limit_mm')}.",
    "inner_needs_ring": lambda d, v: "Pieces inside need every side to be there.",
    "panel_needs_rabbet": lambda d, v: "A panel needs a rabbet to lie in.",
    "back_needs_upright": lambda d, v: "A groove for a back panel needs upright walls. Take a floor for walls that lean.",
    "groove_too_deep": lambda d, v: f"{_mm(d, v, 'mm')} deep goes through a wall {_mm(d, v, 'limit_mm')} thick.",
    "groove_runs_out": lambda d, v: (
        f"At the butted corner {d['corner']} a groove would come out at the end of the wall that runs through. "
        "Miter the corners, or let the panel into a rabbet."
    ),
    "groove_above": lambda d, v: f"{_mm(d, v, 'mm')} in from the edge is past the top. Less than {_mm(d, v, 'limit_mm')}.",
    "back_with_courses": lambda d, v: "A back panel goes with walls of one board each.",
    "shelf_needs_upright": lambda d, v: "Shelves go into a case with upright walls.",
    "shelf_outside": lambda d, v: (
        f"A shelf {_mm(d, v, 'mm')} up lies outside the case: inside there are {_mm(d, v, 'limit_mm')}."
    ),
    "cladding_too_wide": lambda d, v: (
        f"Strips {_mm(d, v, 'mm')} wide would meet on side {d['side']}. At most {_mm(d, v, 'limit_mm')}."
    ),
    "no_such_board": lambda d, v: f"There is no board {str(d['part'])[:20]} to drill.",
    "hole_outside": lambda d, v: (
        f"{_mm(d, v, 'mm')} up, a hole would break out of {d['part']}, {_mm(d, v, 'limit_mm')} wide there."
    ),
    "cap_no_width": lambda d, v: f"With these overhangs the cap on side {d['side']} has no width.",
    "cap_no_opening": lambda d, v: f"An overhang of {_mm(d, v, 'mm')} inwards leaves no opening.",
    "play_too_great": lambda d, v: f"{_mm(d, v, 'mm')} of play leaves nothing at side {d['side']}.",
    "liner_on_nothing": lambda d, v: "Without a lip the liner needs a floor to stand on.",
    "liner_falls_through": lambda d, v: (
        f"A lip of {_mm(d, v, 'mm')} is no wider than the play at each side, {_mm(d, v, 'limit_mm')}: the liner would fall through."
    ),
    "liner_too_tall": lambda d, v: f"The liner is {_mm(d, v, 'mm')} high; inside there are {_mm(d, v, 'limit_mm')}.",
    "liner_no_room": lambda d, v: "The walls close in too far for a liner.",
    "liner_needs_plan": lambda d, v: "A liner goes with a rectangle or a regular plan.",
    "box_sides": lambda d, v: f"{str(d['count'])[:12]} sides: a box has 3 to {d['most']}.",
    "drag_corners": lambda d, v: "Drag the corners of this plan, or start another box for more sides.",
    "slope_missing": lambda d, v: f"Side {d['side']} has no slope.",
    "slope_range": lambda d, v: f"A wall at {v.say_angle(float(d['deg']))} lies flat. A slope must stay under 90° from vertical.",
    "laps_many": lambda d, v: (
        f"They would cross {d['count']} times. At most {d['most']} can be worked out at once: take {d['left']} or fewer."
    ),
    "too_much": lambda d, v: (
        f"This comes to {d['boards']} boards and {d['laps']} laps, more than can be worked out while you wait. "
        f"Take about {100 * d['share']:.0f} % of it, or make two projects of it."
    ),
    "rafters_reach": lambda d, v: (
        f"{d['count']} pairs would reach {_mm(d, v, 'mm')}: no roof here is longer than {_mm(d, v, 'limit_mm')}."
    ),
    "no_figure": lambda d, v: "There is no figure here that could go up or down: type one.",
    "braces_parallel": lambda d, v: (
        f"The two braces run within {v.say_angle(float(d['deg']))} of each other: they would lie along each other and not cross."
    ),
    "no_such_field": lambda d, v: "There is no such field.",
    "no_such_grip": lambda d, v: "There is no such grip.",
    "no_such_nominal": lambda d, v: f"No board is called “{d['text']}” here.",
    "no_such_start": lambda d, v: "There is no such start.",
    "unknown_kind": lambda d, v: "There is no kind of that name.",
    "no_fennup_file": lambda d, v: "This is no file of Fennup's: it says no format that is known here.",
    "file_newer": lambda d, v: (
        f"This file was written by a newer Fennup: its form is version {d['version']}, this one reads up to {d['newest']}."
    ),
    "no_base64": lambda d, v: f"The content of {d['name']} cannot be read.",
    "no_media_type": lambda d, v: f"{d['name']} is no picture, table or JSON: such files are not kept.",
    "file_large": lambda d, v: f"{d['name']} is larger than {d['most'] // 2**20} MB.",
    "name_empty": lambda d, v: "A project needs a name.",
    "name_long": lambda d, v: f"A name may have {d['most']} characters.",
    "no_allowance": lambda d, v: f"It must be more than nothing and at most {_mm(d, v, 'limit_mm')}.",
    "no_unit": lambda d, v: "Units are mm or in.",
}


def problem_text(error: CoreError, voice: Voice) -> str:
    """One sentence for a refusal."""
    words = PROBLEMS.get(error.code)
    return words(error.data, voice) if words else error.code.replace("_", " ")


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
            return exact if abs(marks - round(marks)) > 1e-9 else voice.say(float(limit))
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

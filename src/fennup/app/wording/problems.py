"""What is wrong and what to do about it, in words, from the core's codes."""

from collections.abc import Callable
from typing import Any

from fennup.app.wording.figures import Voice
from fennup.core.errors import CoreError

Words = Callable[[dict[str, Any], Voice], str]


def _mm(data: dict[str, Any], voice: Voice, key: str) -> str:
    return voice.say(float(data[key]))


PROBLEMS: dict[str, Words] = {
    "no_length": lambda d, v: (
        f"“{d['text'][:40]}” is no length. Try {'14 3/8' if v.tape.unit == 'in' else '365'}, 36.5 cm or 3' 2 1/2\"."
    ),
    "too_many_digits": lambda d, v: f"That is more than {d['most']} characters: no length or angle needs so many.",
    "thousands": lambda d, v: f"“{d['text']}” has a thousands separator. Write the number without it.",
    "comma_or_thousands": lambda d, v: (
        f"“{d['text']}” could mean two things. Write {d['text'].replace(',', '.')} or {d['text'].replace(',', '')}."
    ),
    "fraction_in_mm": lambda d, v: f"This project is in millimetres. {d['text']} in = {d['mm']:.1f} mm?",
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
    "part_vanishes": lambda d, v: f"The cuts at both ends of rail {d['side']} leave nothing of it.",
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
    "cannot_measure": lambda d, v: "This frame cannot be measured so.",
    "no_such_field": lambda d, v: "There is no such field.",
    "no_such_grip": lambda d, v: "There is no such grip.",
    "no_such_nominal": lambda d, v: f"No board is called “{d['text']}” here.",
    "no_such_start": lambda d, v: "There is no such start.",
    "unknown_kind": lambda d, v: "There is no kind of that name.",
    "name_empty": lambda d, v: "A project needs a name.",
    "name_long": lambda d, v: f"A name may have {d['most']} characters.",
    "no_unit": lambda d, v: "Units are mm or in.",
}


def problem_text(error: CoreError, voice: Voice) -> str:
    """One sentence for a refusal."""
    words = PROBLEMS.get(error.code)
    return words(error.data, voice) if words else error.code.replace("_", " ")


def limits_text(kind: str, context: dict[str, Any], path: str, value: Any, voice: Voice) -> str:
    """One sentence for a figure outside its field's limits, or a value of the wrong sort."""
    length = path.rsplit(".", 1)[-1].endswith("mm")

    def say(limit: Any) -> str:
        return voice.say(float(limit)) if length else f"{limit:g}" if isinstance(limit, int | float) else str(limit)

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

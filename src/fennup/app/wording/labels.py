"""What things are called on the screen, by their code."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from fennup.app.wording.board_labels import BOARD_LABELS
from fennup.app.wording.finish_labels import FINISH_LABELS
from fennup.app.wording.fit_labels import FIT_LABELS
from fennup.app.wording.moulding_labels import MOULDING_LABELS
from fennup.app.wording.ploughed_labels import PLOUGHED_LABELS
from fennup.app.wording.saw_labels import SAW_LABELS
from fennup.app.wording.tables import merged
from fennup.core.kinds.catalogue import KINDS
from fennup.core.parts.measures import Measure, measure_of

LINES = merged("lines", *(kind.words.lines for kind in KINDS.values()))
MEASURES = merged("measures", *(kind.words.measures for kind in KINDS.values()))
WHOLE = {**{kind.name: kind.words.whole for kind in KINDS.values()}, "together": "All of it"}
FAMILY = {**{kind.name: kind.words.family for kind in KINDS.values()}, "together": "Several that belong together"}
PART = {**{kind.name: kind.words.part for kind in KINDS.values()}, "together": "part"}
SLOPING = {
    "A": "the front",
    "B": "the right side",
    "C": "the back",
    "D": "the left side",
    "AC": "front and back",
    "BD": "the sides",
}
KINDS_EVEN = {
    "flats": "across flats",
    "corners": "across corners",
    "reach": "corner to side",
    "diagonal": "longest diagonal",
    "wide": "overall width",
    "high": "overall height",
}
KINDS_ODD = {**KINDS_EVEN, "flats": "inner circle", "corners": "outer circle", "reach": "corner to opposite side"}

SIDES_TO_LIE_ON = {
    "face": "on the face", "back": "on the back", "upper": "on the upper edge", "lower": "on the lower edge", "left": "on the left end",
    "right": "on the right end",
}  # fmt: skip
BY_SIDE = {"butt_from": "butted, {} and every other one run through", "shelf_from": "the inside of {}", "hinge_at": "at {}"}
STARTS_AT = {"low": "lower end", "left": "left end"}

LABELS = merged(
    "labels",
    {
        "measured_at": "Measure it also",
        "only_ends": "nowhere else",
        "at_a_height": "at a height",
        "measured_at_mm": "That height, above the ground",
        "piece_aside": "Off the middle of the face",
        "piece_width": "Its width",
        "piece_thickness": "Its thickness",
        "piece_is": "It is",
        "a_board": "a board",
        "a_pipe": "a round pipe",
        "pipe_diameter": "Diameter",
        "pipe_into": "Into the boards at both ends",
        "pipe_along": "Along its first board",
        "pipe_aside": "Off the middle of its face",
        "pipe_count": "How many in a row",
        "pipe_step": "From one to the next",
        "pipe_is": "Instead of the pipe",
        "piece_count": "How many in a row",
        "piece_step": "From one to the next",
        "piece_lies": "It lies",
        "on_its_edge": "on edge",
        "lying_flat": "flat",
        "piece_away": "Piece",
        "take_it_away": "take it away",
        "stands_on": "It stands",
        "on_ground": "on the ground",
        "stands_higher": "Raised by",
        "laid_upon": "Laid on",
        "highest_wood": "its highest wood",
        "lies": "It stands or lies",
        "as_made": "as it is made",
        "turned_round": "Turned, seen from above",
        "moved_right": "Moved to the right by",
        "moved_back": "Moved to the back by",
        "follows": "Follows",
        "own_figure": "a size of its own",
        "follows_plus": "Larger than that by",
        "let_go": "let go",
        "assemblies": "Add or take away an assembly",
        "one_assembly_less": "take the last one away",
        "add_assembly": "Add another assembly",
        "pitch": "pitch",
        "slant": "up the slope",
        "start": "second brace starts higher by",
        "rails": "Rails",
        "top": "Top",
        "width": "Width, actual",
        "thickness": "Thickness, actual",
        "sides": "Number of sides",
        "play": "Play, in total",
        "free_corners": "Set each side and corner by itself",
        "rabbet": "Rabbet for a panel",
        "joint": "All corners",
        "all_miter": "mitered",
        "all_butt": "butted, round and round",
        "corner": "Corner",
        "corner_miter": "miter",
        "bars_count": "How many",
        "bars_width": "Width of each",
        "bars_way": "Angle to the front side",
        "bars_spacing": "Spaced by",
        "spaced_gaps": "equal gaps",
        "spaced_flush": "first and last flush",
        "spaced_half": "half a gap at the ends",
        "spaced_margins": "margins",
        "spaced_centres": "equal centres",
        "bars_margin": "Margin at each end",
        "spaced_ends": "first and last middle in by a margin",
        "spaced_pitch": "a given step, middle to middle",
        "spaced_gap": "a given gap",
        "spaced_places": "places of my own",
        "pitch_mm": "Step, middle to middle",
        "gap_mm": "Gap between them",
        "place_mm": "Middle, from the start",
        "more_places": "Places",
        "one_place_more": "one more",
        "one_place_less": "one less",
        "at_most": "How many",
        "so_many": "as said",
        "at_most_apart": "as many as it takes",
        "most_mm": "Middles at most so far apart",
        "inner": "Cross pieces",
        "no_inner": "none",
        "one_way": "one way",
        "both_ways": "both ways, half lapped",
        "inner_height": "Underside above the back or floor",
        "inner_thickness": "Thickness of the pieces inside",
        "layers": "Pieces inside lie",
        "one_layer": "in one layer",
        "own_layers": "each in a layer of its own",
        "own_thickness": "Their thickness",
        "own_height": "Their underside above the back or floor",
        "gussets": "Gussets in the corners",
        "no_gussets": "none",
        "with_gussets": "in every corner",
        "gusset_set_back": "Gussets, in from the corner",
        "gusset_width": "Gusset width",
        "gusset_long_edge": "gusset, long edge",
        "back": "Back panel",
        "holes": "Holes",
        "no_holes": "none",
        "a_row": "a row of them",
        "hole_count": "Number of holes",
        "hole_diameter": "Diameter of the holes",
        "blank_wide": "width of the sheet",
        "blank_high": "height of the sheet",
        "named_size": "A size",
        "named_away": "The name",
        "name_a_size": "Name a size",
        "cover": "Lid laid on",
        "no_cover": "none",
        "loose_lid": "a panel on the walls",
        "cover_thickness": "Thickness of the lid",
        "cover_overs": "It reaches over the sides",
        "cover_alike": "alike",
        "cover_each": "each its own",
        "cover_over": "Over the outside by",
        "cover_hinge": "Hinged",
        "no_hinge": "not at all",
        "hinge_strip": "Width of the strip that stays",
        "hinge_gap": "Gap at the hinge",
        "hole_side": "Drilled from",
        "from_face": "the face",
        "from_back": "the back",
        "hole_depth": "The holes go",
        "hole_through": "through",
        "hole_blind": "to a depth",
        "hole_deep": "Depth of the holes",
        "balls": "In each hole",
        "no_balls": "nothing",
        "a_ball_in_each": "a ball lies",
        "ball_mm": "Diameter of the balls",
        "ball_seat": "A ball's seat is given by",
        "seat_by_hole": "the hole's diameter",
        "seat_by_depth": "how far it sinks in",
        "ball_sinks": "It sinks in by",
        "hole_up": "Holes above the lower edge",
        "hole_spacing": "Holes spaced by",
        "hole_margin": "Margin at each end",
        "allowance": "Widest gap that you let pass",
        "swing_left_deg": "Swing, stop at the left",
        "swing_right_deg": "Swing, stop at the right",
        "tilt_left_deg": "Tilt, stop at the left",
        "tilt_right_deg": "Tilt, stop at the right",
        "swing_counts_from": "Swing scale counts",
        "tilt_counts_from": "Tilt scale counts",
        "from_square": "0 at a square cut",
        "from_fence": "90 at a square cut",
        "swing_step_deg": "Smallest swing you can read",
        "tilt_step_deg": "Smallest tilt you can read",
        "kerf_mm": "Kerf of the blade",
        **SAW_LABELS,
        **BOARD_LABELS,
        **PLOUGHED_LABELS,
        **MOULDING_LABELS,
        **FIT_LABELS,
        **FINISH_LABELS,
    },
    *(kind.words.labels for kind in KINDS.values()),
)
GROUPS = {
    "named": "Sizes with a name", "pipes": "Pipes", "place": "Where it stands, what it follows", "following": "Let a size follow another", "assemblies": "Assemblies",
    "outline": "Outline", "section": "Cut along the boards", "layers": "Strips on the rails", "moulding": "Cut along it", "lengths": "Lengths of it", "contents": "What it is", "legs": "Legs", "between": "Between the legs", "there": "What is there already", "foot": "Where it stands", "inside": "Inside", "on_top": "On top and outside", "care": "How exact", "board": "Board", "corners": "Corners", "each_corner": "Corner by corner", "open": "Open sides",
    "part": "This part", "posts": "Posts", "rails": "Rails, beams, slats", "braces": "Braces", "ground": "The ground", "scales": "Scales and blade", "plan": "Plan", "hand": "How exactly you work", "fit": "Fit", "passage": "What it goes through",
}  # fmt: skip

# A start's name, and that of the project that it begins.
_STARTS = merged(
    "starts",
    {
        "bin_on_stand": ("Bin on a stand", "Bin on a stand"),
        "frame_in_frame": ("Frame in a frame", "Frame in a frame"),
        "posts_and_rail": ("Posts and a sloping rail", "Posts and a sloping rail"),
    },
    *(kind.words.starts for kind in KINDS.values()),
)
STARTS = {code: name for code, (name, _) in _STARTS.items()}
NEW_NAMES = {code: name for code, (_, name) in _STARTS.items()}
FACTS = merged(
    "facts",
    {"mitered": "mitered", "butted": "butted", "mixed_joints": "miters and butts"},
    *(kind.words.facts for kind in KINDS.values()),
)
VIEWS = {
    "front": "Seen from the front", "above": "Seen from above", "side": "Seen from the right", "corner": "Section through a corner", "roll": "A leg cut square, and its sides", "feet": "The feet on the ground", "backing": "A hip cut square, with its sides", "section": "Cut across", "profile": "A board cut across, large", "part": "Seen from its face",
    "operator": "As you stand at the saw", "saw_above": "From above: swing", "saw_front": "From the front: tilt",
    "saw_room_square": "The greatest board, cut straight, seen from the right", "saw_room_swung": "The same, swung 45°", "saw_room_tilted": "The same, tilted 45°", "saw_front_step": "From the front", "saw_right_step": "From the right",
    "measure": "What to measure", "blank": "Sheet, laid flat",
    "rack_board": "A board of the rack", "joining": "How it comes together", "passage": "As it goes through", "joint_cut": "The joint cut open", "joint_pattern": "Where they go in", "painting": "What becomes of each side", "set_out": "Set out, from above", "on_wall": "On its wall", "hands": "Flipped onto each other", "plan_board": "A board and its parts", "moulding": "A moulding cut across",
}  # fmt: skip


# Those that fill the sheet, by the button that brings them.
VIEWS_SHORT = {
    "blank": "Sheet",
    "profile": "Cut across",
    "moulding": "Cut across",
    "front": "Front",
    "above": "From above",
    "side": "Side",
}


@dataclass(frozen=True)
class Naming:
    """What the assemblies of a project are called, by id, and how many sides each has: an odd number has no opposite sides."""

    names: tuple[tuple[str, str], ...] = ()
    sides: tuple[tuple[str, int], ...] = ()

    def whose(self, id: str) -> str:
        """An assembly's name, to be said with what belongs to it; nothing where there is only the one."""
        return dict(self.names).get(id, id) if len(self.names) > 1 else ""

    def called(self, id: str) -> str:
        """An assembly's name."""
        return dict(self.names).get(id, id)

    def odd(self, id: str) -> bool:
        """Whether an assembly has an odd number of sides."""
        return dict(self.sides).get(id, 4) % 2 == 1


NOBODY = Naming()


def naming_of(spec: Any) -> Naming:
    """The naming of a project's spec."""
    members = spec.members.items()
    return Naming(tuple((id, m.name) for id, m in members), tuple((id, m.spec.sides) for id, m in members))


def label(code: str, naming: Naming = NOBODY) -> str:
    """The words for a code; a code with a colon is about the thing after it, one with a slash belongs to an assembly."""
    if code in LABELS:
        return LABELS[code]
    if code.startswith(("piece_a:", "piece_b:")):
        end, start, key, board = code.split(":", 3)
        whose = naming.whose(key.partition("/")[0]) if "/" in key else ""
        begins = "Begins" if end == "piece_a" else "Ends"
        called = f"{board[:1].lower()}{board[1:]}" + (f" of {whose}" if whose else "")
        return f"{begins} on {called}, from its {STARTS_AT[start]}"
    if code.startswith("rests:"):
        _, side, names = code.split(":", 2)
        return f"{SIDES_TO_LIE_ON[side]} of {names[:1].lower()}{names[1:]}"
    if code.startswith("on:"):
        return f"on {naming.called(code[3:])}"
    if code.startswith("add:"):
        return f"add: {STARTS[code[4:]]}"
    asked = measure_of(code)
    whose = naming.whose(asked.member) if asked.member else ""
    return f"{whose}: {own_label(code, naming)}" if whose else own_label(code, naming)


def own_label(code: str, naming: Naming = NOBODY) -> str:
    """What a size is called within its assembly."""
    asked = measure_of(code)
    return LABELS.get(asked.own) or _measure(asked, odd=naming.odd(asked.member))


def _measure(asked: Measure, *, odd: bool) -> str:
    """A size, or something else about a side, a corner or a line."""
    what, which = asked.what, asked.side
    if what in ("side", "through"):
        return which if what == "side" else f"{which} runs through"
    if what in BY_SIDE:
        return BY_SIDE[what].format(which)
    if what in MEASURES:
        text = MEASURES[what]
        if "{side}" in text:
            return text.format(side=which)
        return f"{text}, {SLOPING.get(which, which)}" if which else text
    line, kind = asked.line, asked.quantity
    if line not in LINES:
        return asked.own.replace("_", " ")
    if kind == "side":
        edge = {"opening": "opening edge", "rabbet": "rabbet line", "outside": "outer edge"}.get(line, f"{LINES[line]}, side")
        if line not in ("opening", "rabbet", "outside"):
            return f"{edge} {which}" if which else f"{LINES[line]}, one side"
        return f"{edge} of {which}" if which else f"one {edge}"
    if kind == "angle":
        return f"corner {which}"
    if kind in ("width", "depth"):
        return f"{LINES[line]}, {kind}" if line not in ("opening", "outside") else f"{LINES[line]} {kind}"
    if kind == "diagonal" and which:
        return f"{LINES[line]}, corner {which[:2]} to corner {which[2:]}"
    words = KINDS_ODD if odd else KINDS_EVEN
    return f"{LINES[line]}, {words.get(kind, kind)}"


def facts_text(codes: Iterable[str]) -> str:
    """The facts for the line under the title."""
    return ", ".join(fact(code) for code in codes).capitalize()


def fact(code: str) -> str:
    """A fact for the line under the title."""
    what, _, number = code.partition(":")
    if what == "sides":
        return f"{number} sides"
    if what == "free":
        return "fixed by its sizes" if number == "0" else f"{number} more size{'s' if number != '1' else ''} would fix it"
    if what == "together":
        return f"{number} assemblies"
    if what == "pieces":
        return f"{number} piece{'s' if number != '1' else ''} fitted"
    if what in ("legs", "posts", "runs"):
        return f"{number} {what if number != '1' else what[:-1]}"
    if what == "left_out":
        return f"{number} left out"
    return FACTS.get(what, what)

"""What things are called on the screen, by their code."""

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from fennup.core.parts.measures import Measure, measure_of

LINES = {
    "opening": "opening", "rabbet": "rabbet line", "outside": "outside", "outer_bottom": "outside at the bottom",
    "outer_top": "outside at the top", "inner_bottom": "inside at the bottom", "inner_top": "inside at the top",
    "cap_outside": "outside of the cap", "cap_opening": "opening of the cap", "eaves": "eaves",
}  # fmt: skip
WHOLE = {
    "flat_frame": "The frame",
    "box": "The box",
    "stand": "The stand",
    "brace": "The brace",
    "roof": "The roof",
    "together": "All of it",
}
FAMILY = {
    "flat_frame": "Flat frames",
    "box": "Boxes and cases",
    "stand": "Stands on splayed legs",
    "brace": "Braces and props",
    "roof": "Small roofs",
    "together": "Several that belong together",
}
PART = {"flat_frame": "rail", "box": "wall", "stand": "leg", "brace": "brace", "roof": "board", "together": "part"}
ON_WALLS = {
    "height": "height", "slope": "slope from vertical", "level_slope": "slope from level", "run": "how far it leans out",
    "slant": "along the slope", "board_width": "board width before ripping",
}  # fmt: skip
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
}
KINDS_ODD = {**KINDS_EVEN, "flats": "inner circle", "corners": "outer circle", "reach": "corner to opposite side"}

STARTS_AT = {"low": "lower end", "left": "left end"}

LABELS = {
    "piece_aside": "And off the middle there", "piece_width": "Its width", "piece_thickness": "Its thickness",
    "piece_lies": "It lies", "on_its_edge": "on edge", "lying_flat": "flat", "piece_away": "Piece", "take_it_away": "take it away",
    "stands_on": "It stands", "on_ground": "on the ground", "stands_higher": "Higher by", "follows": "Follows", "own_figure": "its own figure",
    "follows_plus": "And more", "assemblies": "Assemblies", "all_there": "these", "one_assembly_less": "take the last one away",
    "add_assembly": "Add another assembly", "alone": "this one alone",
    "left_run": "run on the left, wall to ridge", "right_run": "run on the right, wall to ridge", "left_pitch": "pitch on the left",
    "right_pitch": "pitch on the right", "left_rise": "rise on the left", "right_rise": "rise on the right",
    "left_top_edge": "left rafter, top edge", "right_top_edge": "right rafter, top edge", "left_ridge_to_heel": "left rafter, ridge to heel",
    "right_ridge_to_heel": "right rafter, ridge to heel", "span": "span, wall to wall", "eaves_step": "right wall higher than the left by",
    "pitch": "pitch", "slant": "up the slope", "seam": "seam, from eaves to point", "dihedral_angle": "between two panels",
    "rise": "rise", "hip_length": "hip, from corner to point", "hip_pitch": "pitch of the hip", "eaves_width": "eaves, width",
    "eaves_depth": "eaves, depth", "eaves_side": "eaves, one side", "front_pitch": "pitch of front and back", "side_pitch": "pitch of the sides",
    "backing_left_angle": "hip's backing towards the first side", "backing_right_angle": "hip's backing towards the second side",
    "jack_in_theory": "first jack at the front, to the hip's middle", "front_height": "front, height", "back_height": "back, height",
    "body_width": "width", "body_depth": "depth", "slope_length": "down the slope", "gable_sides": "The two sides", "sides_alike": "alike", "sides_unlike": "each its own",
    "pairs": "Pairs of rafters", "pair_spacing": "Middle to middle", "rafter_depth": "Rafter, depth", "rafter_thickness": "Rafter, thickness",
    "ridge": "The heads meet", "no_ridge": "each other, mitered", "with_ridge": "a ridge board", "ridge_thickness": "Ridge thickness",
    "ridge_depth": "Ridge depth", "rafter_foot": "The feet", "foot_birdsmouth": "birdsmouth, and on", "foot_seat": "end on the wall", "foot_flush": "flush with the wall", "foot_plates": "seated on plates", "above_plate": "Above the plate, plumb",
    "heel": "Heel, plumb", "overhang": "Overhang, level", "plate": "Wall plate, width", "eaves": "Edges at the eaves",
    "eaves_level": "level", "eaves_plumb": "plumb", "eaves_square": "square to the panel", "lid_over": "Lid reaches over, all round",
    "jack_spacing": "Jacks, middle to middle", "hip_depth": "Hip, depth", "hip_thickness": "Hip, thickness", "jack_depth": "Jacks, depth",
    "jack_thickness": "Jacks, thickness",
    "corner_angle": "corner of the members", "post_leg": "down the post", "beam_leg": "along the beam", "clear": "clear between the members",
    "brace_rise": "rise from left to right", "start": "second brace starts higher by", "second_rise": "rise of the second brace",
    "crosses_at": "crossing, from the left end", "second_crosses_at": "crossing on the second brace, from the left end",
    "lower_edge": "lower edge, end to end", "upper_edge": "upper edge, end to end", "stand_off": "foot out from the wall",
    "wall_height": "head up the wall", "prop_lean": "lean from upright", "tread_rise": "rise from tread to tread",
    "measured_on": "Sizes are taken on", "by_lower": "its lower edge", "by_centre": "its middle line", "by_upper": "its upper edge",
    "knee_by_lower": "its long edge", "knee_by_upper": "its edge towards the corner", "by_corners": "corner to corner, edge to edge",
    "by_pocket": "corner to corner, in pockets", "member": "Width of the members", "second_brace": "Braces", "one_brace": "one",
    "two_braces": "two, half lapped", "second_width": "Width of the second", "ground_tilt": "Ground rises towards the wall",
    "wall_tilt": "Wall leans away", "treads": "Treads", "no_treads": "none, one prop", "with_treads": "level, between two uprights",
    "boxes": "On the treads", "bare_treads": "nothing", "with_boxes": "a front and a back: boxes", "box_height": "Boxes, height inside",
    "tread_count": "Number of treads", "tread_clear": "Clear between the uprights", "tread_thickness": "Tread thickness",
    "top_width": "top, width", "top_depth": "top, depth", "top_side": "top, leg to leg", "foot_width": "feet, width",
    "foot_depth": "feet, depth", "foot_side": "feet, leg to leg", "foot_diagonal": "feet, diagonal",
    "front_splay": "splay seen from the front", "side_splay": "splay seen from the side", "front_offset": "how far a foot stands out, from the front",
    "side_offset": "how far a foot stands out, from the side", "true_lean": "true lean of a leg", "leg_length": "leg, along its outer corner",
    "residual_angle": "other side of a leg, out of its plane", "legs": "Number of legs", "leg_width": "Leg width", "leg_thickness": "Leg thickness",
    "roll": "A leg is turned", "roll_in_plane": "face in the side's plane", "roll_even": "evenly, tilted without twist",
    "roll_rhombic": "planed to both planes", "beam": "The heads meet", "no_beam": "each other", "with_beam": "a beam",
    "beam_thickness": "Beam thickness", "beam_depth": "Beam depth", "beam_over": "Beam reaches past the legs",
    "rails": "Rails", "one_more_rail": "add a row of rails", "one_rail_less": "one less", "rail_height": "Lower edge above the ground",
    "rails_width": "Rail width", "rail_thickness": "Rail thickness", "set_in": "Set in from the side's plane", "rail_sides": "Rails in", "in_all": "every side",
    "in_AC": "front and back", "in_BD": "left and right", "rings": "Rings round the legs", "one_more_ring": "add a ring",
    "one_ring_less": "one less", "ring_height": "Lower edge above the ground", "ring_tall": "Height, upright", "ring_thickness": "Ring thickness",
    "braces": "Crossing braces", "no_braces": "none", "crossing": "half lapped", "brace_low": "They start above the ground",
    "brace_high": "They end above the ground", "brace_width": "Brace width", "brace_thickness": "Brace thickness", "brace_sides": "Braces in",
    "top": "Top", "no_top": "none", "top_plate": "a plate", "top_thickness": "Top thickness", "top_over": "Reaches over, each side",
    "object_flats": "what it holds, across flats", "object_width": "what it holds, width", "object_depth": "what it holds, depth",
    "rails_AC": "front and back rails", "rails_BD": "side rails", "rail_width": "rail width", "width": "Width, actual",
    "thickness": "Thickness, actual", "rabbet_width": "Rabbet width", "rabbet_depth": "Rabbet depth",
    "sides": "Number of sides", "sized_by": "I know the size of", "by_opening": "the opening", "by_outside": "the outside",
    "by_holds": "what it holds", "by_floats": "what floats in it", "play": "Play, in all", "reveal": "Reveal, each side",
    "free_corners": "Free the corners", "nominal": "Board from the yard", "as_measured": "as I measured it",
    "panel": "Panel", "no_panel": "none", "in_the_rabbet": "let into the rabbet",
    "panel_thickness": "Thickness of the panel", "rabbet": "Rabbet for a panel", "no_rabbet": "none", "with_rabbet": "along the opening", "joint": "All corners",
    "all_miter": "mitered", "all_butt": "butted, round and round", "corner": "Corner", "corner_miter": "miter",
    "sides_there": "Sides there", "loose_ends": "Loose ends", "ends_square": "cut square", "ends_ground": "flat to the ground",
    "this_rail_width": "Width of this rail", "this_wall_thickness": "Thickness of this wall", "slopes": "Slopes",
    "slopes_alike": "all walls alike", "slopes_pairs": "opposite walls alike", "slopes_each": "each wall its own",
    "liner": "Built round", "no_liner": "its own sizes", "round_liner": "a liner", "liner_rim": "Liner at its rim, under the lip",
    "liner_foot": "Liner at its foot", "liner_rim_depth": "Its rim, front to back", "liner_foot_depth": "Its foot, front to back",
    "liner_height": "Liner height", "liner_lip": "Lip reaches out, each side", "liner_play": "Play, in all",
    "edges": "Top and bottom edges", "edges_level": "ripped to lie level", "edges_square": "left square",
    "grain": "The grain runs", "grain_round": "round the box", "grain_up": "up: each wall a stave",
    "courses": "Each wall of", "one_board": "one board", "several_courses": "several boards, one above the other",
    "course_count": "Boards in a wall", "course_width": "Width of the boards", "floor": "Floor", "no_floor": "none",
    "floor_panel": "a panel", "floor_slats": "slats", "floor_height": "Floor, underside above the bottom",
    "floor_thickness": "Floor thickness", "bars_count": "How many", "bars_width": "Width of each", "bars_way": "Running at",
    "bars_spacing": "Spaced by", "spaced_gaps": "equal gaps", "spaced_flush": "first and last flush",
    "spaced_half": "half a gap at the ends", "spaced_margins": "margins", "spaced_centres": "equal centres",
    "bars_margin": "Margin at each end", "inner": "Cross pieces", "no_inner": "none", "one_way": "one way",
    "both_ways": "both ways, half lapped", "inner_height": "Their underside is up", "inner_thickness": "Thickness of all inside",
    "gussets": "Gussets in the corners", "no_gussets": "none", "with_gussets": "in every corner",
    "gusset_set_back": "In from the corner", "gusset_width": "Gusset width",
    "back": "Back panel", "no_back": "none", "back_rabbet": "in a rabbet", "back_groove": "in a groove",
    "back_thickness": "Panel thickness", "back_depth": "Depth into the walls", "back_from_edge": "In from the bottom edge",
    "shelves": "Shelves", "one_more_shelf": "one more", "one_shelf_less": "one less", "shelf_height": "Height of shelf",
    "shelf_thickness": "Thickness of shelf", "cap": "Cap ring", "no_cap": "none", "cap_ring": "mitered round the top",
    "cap_thickness": "Cap thickness", "cap_over_in": "Overhang inwards", "cap_over_out": "Overhang outwards",
    "feet": "Feet", "no_feet": "none", "battens": "battens underneath", "feet_thickness": "Thickness of the feet",
    "holes": "Holes", "no_holes": "none", "a_row": "a row of them", "hole_count": "Number of holes", "hole_diameter": "Their diameter",
    "hole_up": "Above the lower edge", "hole_spacing": "Holes spaced by", "hole_margin": "Margin at each end",
    "cladding": "Strips over the corners", "no_cladding": "none", "corner_strips": "a pair at each", "strip_width": "Width on the narrow side",
    "strip_thickness": "Strip thickness", "allowance": "Widest gap that you let pass", "lid": "Lid", "no_lid": "none", "lid_sawn": "sawn off when it is together", "lid_depth": "Depth of the lid", "corners_on": "Corners lie on", "on_opening": "the opening", "on_outside": "the outside",
    "swing_left_deg": "Swing, stop at the left", "swing_right_deg": "Swing, stop at the right",
    "tilt_left_deg": "Tilt, stop at the left", "tilt_right_deg": "Tilt, stop at the right",
    "swing_counts_from": "Swing scale counts", "tilt_counts_from": "Tilt scale counts",
    "from_square": "0 at a square cut", "from_fence": "90 at a square cut",
    "swing_step_deg": "Smallest swing you can read", "tilt_step_deg": "Smallest tilt you can read", "kerf_mm": "Kerf of the blade",
}  # fmt: skip

GROUPS = {
    "place": "Where it stands, what it follows", "assemblies": "Assemblies",
    "outline": "Outline", "legs": "Legs", "between": "Between the legs", "there": "What is there already", "foot": "Where it stands", "inside": "Inside", "on_top": "On top and outside", "care": "How exact", "board": "Board", "corners": "Corners", "each_corner": "Corner by corner", "open": "Open sides",
    "part": "This part", "scales": "Scales and blade",
}  # fmt: skip

STARTS = {
    "rectangle": "Rectangle", "triangle": "Three sides", "hexagon": "Six sides", "octagon": "Eight sides",
    "irregular": "Any outline", "open_octagon": "Arch, one side open", "case": "Case of six", "tapered_box": "Leaning box",
    "tub": "Tub of eight", "trough": "Trough", "any_box": "Case of any plan",
    "stool": "Four splayed legs", "three_legs": "Three legs", "trestle": "Trestle", "tower": "Tower",
    "knee_brace": "Knee brace", "diagonal": "Diagonal", "crossing": "Crossing braces", "prop": "Prop", "ladder": "Ladder", "box_ladder": "Ladder of boxes",
    "gable": "Gable", "pyramid": "Pyramid", "hip": "Hip roof", "lean_to": "Lean-to",
    "bin_on_stand": "Bin on a stand",
    "posts_and_rail": "Posts and a sloping rail",
}  # fmt: skip

NEW_NAMES = {
    "rectangle": "Rectangular frame", "triangle": "Three-sided frame", "hexagon": "Six-sided frame",
    "octagon": "Eight-sided frame", "irregular": "Frame of my own outline", "open_octagon": "Arch", "case": "Six-sided case",
    "tapered_box": "Leaning box", "tub": "Tub", "trough": "Trough", "any_box": "Case of my own plan", "stool": "Stool", "three_legs": "Three-legged stool", "trestle": "Trestle", "tower": "Tower",
    "knee_brace": "Knee brace", "diagonal": "Diagonal brace", "crossing": "Crossing braces", "prop": "Prop", "ladder": "Ladder", "box_ladder": "Ladder of boxes",
    "gable": "Gable roof", "pyramid": "Pyramid roof", "hip": "Hip roof", "lean_to": "Lean-to",
    "bin_on_stand": "Bin on a stand",
    "posts_and_rail": "Posts and a sloping rail",
}  # fmt: skip

VIEWS = {
    "front": "Seen from the front", "above": "Seen from above", "side": "Seen from the right", "corner": "Section through a corner", "roll": "A leg cut square, and its sides", "feet": "The feet on the ground", "backing": "A hip cut square, with its sides", "section": "Cut across", "part": "Seen from its face",
    "operator": "As you stand at the saw", "saw_above": "From above: swing", "saw_front": "From the front: tilt",
}  # fmt: skip


# Those that fill the sheet, by the button that brings them.
VIEWS_SHORT = {"front": "Front", "above": "From above", "side": "Side"}


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
    if what == "butt_from":
        return f"butted, {which} and every other one run through"
    if what == "jack_length":
        return f"first jack of side {which}, along its top"
    if what in ON_WALLS:
        return f"{ON_WALLS[what]}, {SLOPING.get(which, which)}" if which else ON_WALLS[what]
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
    if what == "legs":
        return f"{number} legs"
    if what == "left_out":
        return f"{number} left out"
    return {
        "case_regular": "case", "case_rectangle": "case, rectangle", "case_irregular": "case, any plan",
        "box_regular": "box with leaning walls", "box_rectangle": "box with leaning walls, rectangle",
        "box_irregular": "box with leaning walls, any plan", "form_regular": "flat frame", "form_rectangle": "flat frame, rectangle", "form_irregular": "flat frame, any outline",
        "stand_four": "stand, splayed both ways", "stand_upright": "stand, upright", "stand_round": "stand, round", "roof_gable": "gable roof", "roof_pyramid": "pyramid of panels", "roof_hip": "hip roof", "roof_lean_to": "lean-to with a lid", "brace_knee": "brace in a corner", "brace_between": "brace between two members", "brace_prop": "prop against a wall", "stand_pairs": "trestle of two pairs",
        "mitered": "mitered", "butted": "butted", "mixed_joints": "miters and butts",
    }.get(what, what)  # fmt: skip

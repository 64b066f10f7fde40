"""What there is to decide about a box, in the order in which one decides it."""

from math import ceil

from fennup.core.drawing.edit import Choose, Edit
from fennup.core.drawing.view import Control, Option
from fennup.core.kinds.asking import Answers, choice, figure, measured_at, one_of, with_or_without
from fennup.core.kinds.box.courses import counted
from fennup.core.kinds.box.fitting_controls import corner_controls, lining_controls, stave_controls, strip_rails
from fennup.core.kinds.box.spec import Back, BoxSpec, Irregular, Rectangle, Regular
from fennup.core.kinds.box.walls import walls_of
from fennup.core.kinds.covers import cover_controls
from fennup.core.kinds.inner_controls import bars_controls, holes_controls, inner_controls
from fennup.core.kinds.stopping import stopped_controls

THIN_MM = 6.0
USUAL_WIDTH_MM = 145.0  # of a board from the yard


def controls_of(spec: BoxSpec) -> tuple[Control, ...]:
    """Plan and slopes first, then boards and corners, then what goes inside, on top and outside."""
    controls: list[Control] = []
    if isinstance(spec.plan, Regular):
        controls.append(figure("sides", "outline", float(spec.sides), "plan.sides", "count"))
    controls.append(_slopes(spec))
    if not isinstance(spec.plan, Irregular):
        free = Choose(op="choose", path="plan.form", value="irregular")
        controls.append(Control("free_corners", "outline", (Option("free_corners", (free,), False),)))
        controls += _liner(spec)
    controls += measured_at(spec.measured_at_mm, spec.height_mm / 2)
    controls += [*_boards(spec), *_joints(spec), *_inside(spec), *_on_top(spec)]
    courses = counted(spec, spec.courses, walls_of(spec))[0] if spec.courses else 0
    for letter in spec.letters:
        path = f"thicknesses_mm.{letter}"
        boards = [f"{letter}{i + 1}" for i in range(courses or (spec.staves if spec.staves > 1 else 0))] or [letter]
        for board in boards:
            controls += stopped_controls(spec.stopped, board, "wall")
            controls += holes_controls(spec.holes, board, spec.height_mm / (2 * len(boards)))
            controls.append(figure("this_wall_thickness", "part", spec.thickness_of(letter), path, about=board))
    for id, there in (("floor", spec.floor and not spec.floor.slats), ("insert", spec.insert), ("cover", spec.cover)):
        controls += holes_controls(spec.holes, id, spec.thickness_mm) if there else []
    return tuple(controls)


def _slopes(spec: BoxSpec) -> Control:
    """Which walls share a slope."""
    groups = sorted(spec.slopes_deg)
    now = "alike" if not groups else "pairs" if groups == ["AC", "BD"] else "each"
    names = ["alike", *(["pairs"] if spec.sides == 4 else []), "each"]
    return one_of("slopes", "outline", "slopes_deg", {f"slopes_{name}": name for name in names}, now)


def _liner(spec: BoxSpec) -> list[Control]:
    liner = spec.liner
    made = [with_or_without("liner", "outline", "liner", ("no_liner", "round_liner"), "usual", liner)]
    if liner is None:
        return made
    named = [("rim", liner.rim_mm), ("foot", liner.foot_mm)]
    if isinstance(spec.plan, Rectangle):
        named += [("rim_depth", liner.rim_depth_mm or liner.rim_mm), ("foot_depth", liner.foot_depth_mm or liner.foot_mm)]
    named += [("height", liner.height_mm), ("lip", liner.lip_mm), ("play", liner.play_mm)]
    return made + [figure(f"liner_{name}", "outline", value, f"liner.{name}_mm") for name, value in named]


def _boards(spec: BoxSpec) -> list[Control]:
    """What the walls are made of."""
    made = [
        figure("thickness", "board", spec.thickness_mm, "thickness_mm"),
        one_of("edges", "board", "edges", {"edges_level": "level", "edges_square": "square"}, spec.edges),
        one_of("grain", "board", "grain", {"grain_round": "round", "grain_up": "up"}, spec.grain),
    ]
    if len({spec.slope_of(letter) for letter in spec.letters}) > 1 or spec.rims == "alike":
        made.append(one_of("rims", "board", "rims", {"rims_level": "level", "rims_alike": "alike"}, spec.rims))
    if spec.grain == "up":
        return [*made, *stave_controls(spec)]
    several = {"count": max(2, ceil(spec.height_mm / USUAL_WIDTH_MM))}
    made.append(with_or_without("courses", "board", "courses", ("one_board", "several_courses"), several, spec.courses))
    if spec.courses:
        count, width = counted(spec, spec.courses, walls_of(spec))
        given = spec.courses
        made.append(figure("course_width", "board", width, "courses.board_width_mm", follows=given.board_width_mm is None))
        made.append(figure("course_count", "board", float(count), "courses.count", "count", follows=given.count is None))
    return made


def _joints(spec: BoxSpec) -> list[Control]:
    """All corners alike, or each by itself."""

    def everywhere(joint: str, corners: dict[str, object]) -> tuple[Edit, ...]:
        return (Choose(op="choose", path="joint", value=joint), Choose(op="choose", path="corners", value=corners))

    now = {name: corner.model_dump(mode="json") for name, corner in spec.corners.items()}
    plain = not spec.corners
    options = [Option("all_miter", everywhere("miter", {}), plain and spec.joint == "miter")]
    if spec.sides % 2 == 0:
        for first, letters in (("A", spec.letters[::2]), ("B", spec.letters[1::2])):
            corners: dict[str, object] = {
                name: {"joint": "butt", "through": next(x for x in name if x in letters)} for name in spec.corner_names
            }
            options.append(Option(f"butt_from:{first}", everywhere("butt", corners), now == corners))
    options.append(Option("all_butt", everywhere("butt", {}), plain and spec.joint == "butt"))
    controls = [Control("joint", "corners", tuple(options))]
    for name in spec.corner_names:
        own = spec.corners.get(name)
        joint, through = (own.joint if own else spec.joint), (own.through if own else None) or name[0]
        answers: Answers = {"corner_miter": ({"joint": "miter"}, joint == "miter")}
        for letter in name:
            runs = joint == "butt" and through == letter
            answers[f"through:{letter}"] = ({"joint": "butt", "through": letter}, runs)
        controls.append(choice("corner", "each_corner", f"corners.{name}", answers, name))
    return controls


def _inside(spec: BoxSpec) -> list[Control]:
    low = min(spec.thickness_mm, spec.height_mm / 4)
    panel = {"height_mm": low, "thickness_mm": low, "play_mm": 2.0}
    floor = spec.floor
    floors: Answers = {
        "no_floor": (None, floor is None),
        "floor_panel": (panel, floor is not None and floor.slats is None),
        "floor_slats": ({**panel, "slats": {"count": 5, "width_mm": 40.0}}, floor is not None and floor.slats is not None),
    }
    made = [choice("floor", "inside", "floor", floors)]
    if floor:
        made.append(figure("floor_height", "inside", floor.height_mm, "floor.height_mm"))
        made.append(figure("floor_thickness", "inside", floor.thickness_mm, "floor.thickness_mm"))
        made.append(figure("play", "inside", floor.play_mm, "floor.play_mm", about="floor"))
    if floor and floor.slats:
        made += bars_controls(floor.slats, "floor.slats", "slats")
    made += inner_controls(spec.inner, spec.thickness_mm)
    made += corner_controls(spec)
    return [*made, *_in_a_case(spec)] if spec.upright else made


def _let_in(spec: BoxSpec, name: str, now: Back | None) -> list[Control]:
    """A panel in a rabbet or a groove, near the bottom or near the top."""
    thin = min(THIN_MM, spec.thickness_mm / 2)
    usual = {"thickness_mm": thin, "depth_mm": spec.thickness_mm / 2, "play_mm": 1.0}
    ways: Answers = {
        "no_back": (None, now is None),
        "back_rabbet": (usual, now is not None and now.from_edge_mm == 0),
        "back_groove": ({**usual, "from_edge_mm": thin}, now is not None and now.from_edge_mm > 0),
    }
    made = [choice(name, "inside", name, ways)]
    if now is None:
        return made
    for what, value in (("thickness", now.thickness_mm), ("depth", now.depth_mm), ("from_edge", now.from_edge_mm)):
        made.append(figure(f"{name}_{what}", "inside", value, f"{name}.{what}_mm"))
    made.append(figure("play", "inside", now.play_mm, f"{name}.play_mm", about=name))
    if now.from_edge_mm > 0 and any(spec.through(corner) for corner in spec.corner_names):
        ends: dict[str, object] = {"ends_stopped": "stopped", "ends_filled": "filled"}
        made.append(one_of("groove_ends", "inside", f"{name}.ends", ends, now.ends, name))
    return made


def _in_a_case(spec: BoxSpec) -> list[Control]:
    """What only upright walls can hold: a back panel and shelves."""
    made = [*_let_in(spec, "back", spec.back), *_let_in(spec, "front", spec.front)]
    for i, shelf in enumerate(spec.shelves):
        sides = {f"shelf_from:{letter}": letter for letter in spec.letters}
        made.append(one_of("shelf_from", "inside", f"shelves.{i}.side", dict(sides), shelf.side, str(i + 1)))
        made.append(figure("shelf_height", "inside", shelf.height_mm, f"shelves.{i}.height_mm", about=str(i + 1)))
        made.append(figure("shelf_thickness", "inside", shelf.thickness_mm, f"shelves.{i}.thickness_mm", about=str(i + 1)))
    answers: Answers = {"one_more_shelf": ("one_more", False)}
    if spec.shelves:
        answers["one_shelf_less"] = ([shelf.model_dump(mode="json") for shelf in spec.shelves[:-1]], False)
    return [*made, choice("shelves", "inside", "shelves", answers)]


def _on_top(spec: BoxSpec) -> list[Control]:
    """What is laid on, put under, put over or sawn off; each as it usually is in proportion to the walls."""
    thick, half = spec.thickness_mm, spec.thickness_mm / 2
    cap, feet, clad, lid = spec.cap, spec.feet, spec.cladding, spec.lid
    ring = {"thickness_mm": thick, "over_in_mm": half, "over_out_mm": half}
    battens = {"thickness_mm": thick, "bars": {"count": 2, "width_mm": 2 * thick, "way_deg": 90.0}}
    strips = {"width_mm": 2 * thick, "thickness_mm": half}
    sawn = {"depth_mm": spec.height_mm / 4, "kerf_mm": 2.4}
    made = [with_or_without("cap", "on_top", "cap", ("no_cap", "cap_ring"), ring, cap)]
    if cap:
        for name, value in (("thickness", cap.thickness_mm), ("over_in", cap.over_in_mm), ("over_out", cap.over_out_mm)):
            made.append(figure(f"cap_{name}", "on_top", value, f"cap.{name}_mm"))
    made.append(with_or_without("feet", "on_top", "feet", ("no_feet", "battens"), battens, feet))
    if feet:
        made += bars_controls(feet.bars, "feet.bars", "feet", "on_top")
        made.append(figure("feet_thickness", "on_top", feet.thickness_mm, "feet.thickness_mm"))
    made.append(with_or_without("cladding", "on_top", "cladding", ("no_cladding", "corner_strips"), strips, clad))
    if clad:
        made.append(figure("strip_width", "on_top", clad.width_mm, "cladding.width_mm"))
        made.append(figure("strip_thickness", "on_top", clad.thickness_mm, "cladding.thickness_mm"))
        made.append(figure("strip_past", "on_top", clad.past_mm, "cladding.past_mm"))
        made.append(figure("strip_point", "on_top", clad.point_deg, "cladding.point_deg", "deg"))
        made += strip_rails(spec, clad)
    made += lining_controls(spec.lining)
    made += cover_controls(spec.cover, {letter: f"side {letter}" for letter in spec.letters}, thick)
    made.append(with_or_without("lid", "on_top", "lid", ("no_lid", "lid_sawn"), sawn, lid))
    if lid:
        made.append(figure("lid_depth", "on_top", lid.depth_mm, "lid.depth_mm"))
        made.append(figure("kerf_mm", "on_top", lid.kerf_mm, "lid.kerf_mm"))
    return made

"""What there is to decide about a box, in the order in which one decides it."""

from fennup.core.drawing.edit import Choose, Edit, TypeIn
from fennup.core.drawing.view import Control, Option
from fennup.core.kinds.box.spec import BoxSpec, Irregular, Rectangle, Regular
from fennup.core.kinds.inner_controls import bars_controls, holes_controls, inner_controls

THIN_MM = 6.0


def controls_of(spec: BoxSpec) -> tuple[Control, ...]:
    """Plan and slopes first, then boards and corners, then what goes inside and on top."""
    controls: list[Control] = []
    if isinstance(spec.plan, Regular):
        controls.append(_figure("sides", "outline", float(spec.sides), "plan.sides", "count"))
    controls.append(_slopes(spec))
    if not isinstance(spec.plan, Irregular):
        free = Choose(op="choose", path="plan.form", value="irregular")
        controls.append(Control("free_corners", "outline", (Option("free_corners", (free,), False),)))
    controls += _liner(spec)
    controls.append(_figure("thickness", "board", spec.thickness_mm, "thickness_mm"))
    controls.append(_either("edges", "board", "edges", {"edges_level": "level", "edges_square": "square"}, spec.edges))
    grains: dict[str, object] = {"grain_round": "round", "grain_up": "up"}
    controls.append(_either("grain", "board", "grain", grains, spec.grain))
    controls += [] if spec.grain == "up" else _courses(spec)
    controls += _joints(spec)
    controls += _inside(spec)
    controls += _on_top(spec)
    for letter in spec.letters:
        path = f"thicknesses_mm.{letter}"
        boards = [f"{letter}{i + 1}" for i in range(spec.courses.count)] if spec.courses else [letter]
        for board in boards:
            controls += holes_controls(spec.holes, board, spec.height_mm / (2 * len(boards)))
            controls.append(_figure("this_wall_thickness", "part", spec.thickness_of(letter), path, about=board))
    return tuple(controls)


def _figure(code: str, group: str, value: float, path: str, unit: str = "mm", about: str = "") -> Control:
    acts = TypeIn(op="type", path=path, text="")
    return Control(code, group, value=value, unit=unit, acts=acts, about=about)  # type: ignore[arg-type]


def _choose(path: str, value: object) -> tuple[Edit, ...]:
    return (Choose(op="choose", path=path, value=value),)


def _either(code: str, group: str, path: str, answers: dict[str, object], now: object) -> Control:
    return Control(code, group, tuple(Option(name, _choose(path, v), v == now) for name, v in answers.items()))


def _slopes(spec: BoxSpec) -> Control:
    """Which walls share a slope."""
    groups = sorted(spec.slopes_deg)
    now = "alike" if not groups else "pairs" if groups == ["AC", "BD"] else "each"
    answers = ["alike", *(["pairs"] if spec.sides == 4 else []), "each"]
    return Control("slopes", "outline", tuple(Option(f"slopes_{a}", _choose("slopes_deg", a), a == now) for a in answers))


def _liner(spec: BoxSpec) -> list[Control]:
    if isinstance(spec.plan, Irregular):
        return []
    made = [
        Control(
            "liner",
            "outline",
            (
                Option("no_liner", _choose("liner", None), spec.liner is None),
                Option("round_liner", _choose("liner", "usual"), spec.liner is not None),
            ),
        )
    ]
    liner = spec.liner
    if liner is None:
        return made
    named = [("rim", liner.rim_mm), ("foot", liner.foot_mm)]
    if isinstance(spec.plan, Rectangle):
        named += [("rim_depth", liner.rim_depth_mm or liner.rim_mm), ("foot_depth", liner.foot_depth_mm or liner.foot_mm)]
    named += [("height", liner.height_mm), ("lip", liner.lip_mm), ("play", liner.play_mm)]
    return made + [_figure(f"liner_{name}", "outline", value, f"liner.{name}_mm") for name, value in named]


def _courses(spec: BoxSpec) -> list[Control]:
    several = {"count": 2, "board_width_mm": spec.height_mm}
    made = [
        Control(
            "courses",
            "board",
            (
                Option("one_board", _choose("courses", None), spec.courses is None),
                Option("several_courses", _choose("courses", several), spec.courses is not None),
            ),
        )
    ]
    if spec.courses:
        made.append(_figure("course_count", "board", float(spec.courses.count), "courses.count", "count"))
        made.append(_figure("course_width", "board", spec.courses.board_width_mm, "courses.board_width_mm"))
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
        miter = _choose(f"corners.{name}", {"joint": "miter"})
        made = [Option("corner_miter", miter, joint == "miter")]
        for letter in name:
            butt = _choose(f"corners.{name}", {"joint": "butt", "through": letter})
            made.append(Option(f"through:{letter}", butt, joint == "butt" and through == letter))
        controls.append(Control("corner", "each_corner", tuple(made), about=name))
    return controls


def _inside(spec: BoxSpec) -> list[Control]:
    thin = min(THIN_MM, spec.thickness_mm / 2)
    low = min(spec.thickness_mm, spec.height_mm / 4)
    panel = {"height_mm": low, "thickness_mm": low, "play_mm": 2.0}
    slats = {**panel, "slats": {"count": 5, "width_mm": 40.0}}
    floor = spec.floor
    made = [
        Control(
            "floor",
            "inside",
            (
                Option("no_floor", _choose("floor", None), floor is None),
                Option("floor_panel", _choose("floor", panel), floor is not None and floor.slats is None),
                Option("floor_slats", _choose("floor", slats), floor is not None and floor.slats is not None),
            ),
        )
    ]
    if floor:
        made.append(_figure("floor_height", "inside", floor.height_mm, "floor.height_mm"))
        made.append(_figure("floor_thickness", "inside", floor.thickness_mm, "floor.thickness_mm"))
        made.append(_figure("play", "inside", floor.play_mm, "floor.play_mm", about="floor"))
    if floor and floor.slats:
        made += bars_controls(floor.slats, "floor.slats", "slats")
    made += inner_controls(spec.inner, spec.thickness_mm)
    if not spec.upright:
        return made
    back = spec.back
    usual = {"thickness_mm": thin, "depth_mm": spec.thickness_mm / 2, "play_mm": 1.0}
    made.append(
        Control(
            "back",
            "inside",
            (
                Option("no_back", _choose("back", None), back is None),
                Option("back_rabbet", _choose("back", usual), back is not None and back.from_edge_mm == 0),
                Option(
                    "back_groove", _choose("back", {**usual, "from_edge_mm": thin}), back is not None and back.from_edge_mm > 0
                ),
            ),
        )
    )
    if back:
        for name, value in (("thickness", back.thickness_mm), ("depth", back.depth_mm), ("from_edge", back.from_edge_mm)):
            made.append(_figure(f"back_{name}", "inside", value, f"back.{name}_mm"))
        made.append(_figure("play", "inside", back.play_mm, "back.play_mm", about="back"))
    for i, shelf in enumerate(spec.shelves):
        made.append(_figure("shelf_height", "inside", shelf.height_mm, f"shelves.{i}.height_mm", about=str(i + 1)))
        made.append(_figure("shelf_thickness", "inside", shelf.thickness_mm, f"shelves.{i}.thickness_mm", about=str(i + 1)))
    options = [Option("one_more_shelf", _choose("shelves", "one_more"), False)]
    if spec.shelves:
        fewer = [shelf.model_dump(mode="json") for shelf in spec.shelves[:-1]]
        options.append(Option("one_shelf_less", _choose("shelves", fewer), False))
    made.append(Control("shelves", "inside", tuple(options)))
    return made


def _on_top(spec: BoxSpec) -> list[Control]:
    ring = {"thickness_mm": spec.thickness_mm, "over_in_mm": spec.thickness_mm / 2, "over_out_mm": spec.thickness_mm / 2}
    lid = {"depth_mm": spec.height_mm / 4, "kerf_mm": 2.4}
    made = [
        Control(
            "cap",
            "on_top",
            (
                Option("no_cap", _choose("cap", None), spec.cap is None),
                Option("cap_ring", _choose("cap", ring), spec.cap is not None),
            ),
        )
    ]
    if spec.cap:
        for name, value in (
            ("thickness", spec.cap.thickness_mm), ("over_in", spec.cap.over_in_mm), ("over_out", spec.cap.over_out_mm),
        ):  # fmt: skip
            made.append(_figure(f"cap_{name}", "on_top", value, f"cap.{name}_mm"))
    feet = {"thickness_mm": spec.thickness_mm, "bars": {"count": 2, "width_mm": 2 * spec.thickness_mm, "way_deg": 90.0}}
    made.append(
        Control(
            "feet",
            "on_top",
            (
                Option("no_feet", _choose("feet", None), spec.feet is None),
                Option("battens", _choose("feet", feet), spec.feet is not None),
            ),
        )
    )
    if spec.feet:
        made += bars_controls(spec.feet.bars, "feet.bars", "feet", "on_top")
        made.append(_figure("feet_thickness", "on_top", spec.feet.thickness_mm, "feet.thickness_mm"))
    clad = {"width_mm": 2 * spec.thickness_mm, "thickness_mm": spec.thickness_mm / 2}
    made.append(
        Control(
            "cladding",
            "on_top",
            (
                Option("no_cladding", _choose("cladding", None), spec.cladding is None),
                Option("corner_strips", _choose("cladding", clad), spec.cladding is not None),
            ),
        )
    )
    if spec.cladding:
        made.append(_figure("strip_width", "on_top", spec.cladding.width_mm, "cladding.width_mm"))
        made.append(_figure("strip_thickness", "on_top", spec.cladding.thickness_mm, "cladding.thickness_mm"))
    made.append(
        Control(
            "lid",
            "on_top",
            (
                Option("no_lid", _choose("lid", None), spec.lid is None),
                Option("lid_sawn", _choose("lid", lid), spec.lid is not None),
            ),
        )
    )
    if spec.lid:
        made.append(_figure("lid_depth", "on_top", spec.lid.depth_mm, "lid.depth_mm"))
        made.append(_figure("kerf_mm", "on_top", spec.lid.kerf_mm, "lid.kerf_mm"))
    return made

"""What a flat frame shows of itself: its dimensions where they stand, its grips, and what there is to decide."""

from fennup.core.assembly.model import Assembly
from fennup.core.drawing.board_views import front_shapes, section_shapes
from fennup.core.drawing.edit import Choose, Edit, Give, TypeIn
from fennup.core.drawing.view import Control, Description, Dimension, Grip, Mark, Option, Shape, SizeRow, Standing, View
from fennup.core.geometry.vec import Point2
from fennup.core.kinds.flat_frame.outline import Baseline, baseline, given_line, regular_corners
from fennup.core.kinds.flat_frame.place import assemble
from fennup.core.kinds.flat_frame.spec import (
    CornerPin,
    FlatFrameSpec,
    FloatingPanel,
    FloatingRound,
    HeldPanel,
    HeldRound,
    Irregular,
    LineSize,
    LineSizes,
    Rectangle,
    Regular,
)
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid
from fennup.core.stock.timber import NOMINALS

UP, DOWN, RIGHT, LEFT = (0.0, 1.0), (0.0, -1.0), (1.0, 0.0), (-1.0, 0.0)


def describe(spec: FlatFrameSpec, ruler: Ruler, solids: dict[str, Solid]) -> Description:
    """Views, controls and sizes of a solved frame."""
    base, assembly = baseline(spec), ruler.assembly
    shapes = list(front_shapes(assembly, solids))
    dimensions, grips, more = _of_shape(spec, ruler, base)
    shapes += more
    shapes += _left_out(spec, base)
    letters = [Mark("letter", _middle_of_rail(assembly, b.id), b.id, b.id) for b in assembly.boards]
    front = View("front", tuple(shapes), tuple(letters), tuple(dimensions), tuple(grips))
    return Description(_facts(spec), (front, _section(spec, assembly)), _controls(spec), _sizes(spec, ruler))


def _facts(spec: FlatFrameSpec) -> tuple[str, ...]:
    """What the line under the title says."""
    joints = {spec.joint} | {c.joint for c in spec.corners.values()}
    joint = "mixed_joints" if len(joints) == 2 else ("mitered" if "miter" in joints else "butted")
    out = (f"left_out:{len(spec.left_out)}",) if spec.left_out else ()
    return (f"form_{spec.shape.form}", f"sides:{spec.sides}", joint, *out)


def _middle_of_rail(assembly: Assembly, id: str) -> Point2:
    origin = assembly.board(id).frame.origin
    return (origin[0], origin[1])


def _left_out(spec: FlatFrameSpec, base: Baseline) -> list[Shape]:
    """Where sides left out would run, on the outer edge: the way to put them back."""
    shapes = []
    for side in base.sides:
        if side.letter in spec.left_out:
            out = (side.way[1] * side.outer, -side.way[0] * side.outer)
            ends = tuple((p[0] + out[0], p[1] + out[1]) for p in (side.start, side.end))
            shapes.append(Shape("left_out", ends, False, side.letter))
    return shapes


Drawn = tuple[list[Dimension], list[Grip], list[Shape]]


def _of_shape(spec: FlatFrameSpec, ruler: Ruler, base: Baseline) -> Drawn:
    if isinstance(spec.shape, Regular):
        return _regular(spec, spec.shape, ruler)
    if isinstance(spec.shape, Rectangle):
        return _rectangle(spec, spec.shape, ruler)
    return _irregular(spec, spec.shape, base)


# --- regular frames -------------------------------------------------------------------------------------------------


def _regular(spec: FlatFrameSpec, shape: Regular, ruler: Ruler) -> Drawn:
    """Across the opening in the middle, across the outside below, one side above; the given one is always there."""
    size, n = shape.size, shape.sides
    given = size.by if isinstance(size, LineSize) else ""
    wanted = ["opening_flats", "outside_reach" if n % 2 else "outside_flats", "outside_side", "opening_side"]
    if given and given not in wanted:
        wanted.insert(0, given)
    dimensions = [d for name in wanted if (d := _regular_dimension(name, given, spec, shape, ruler))]
    shapes: list[Shape] = []
    if n % 2:
        circles = {name.split("_")[0]: name.split("_")[1] for name in (given, "opening_flats") if name}
        for line, kind in circles.items():
            value = ruler.measure(f"{line}_{kind}") if kind in ("flats", "corners") else None
            if value:
                shapes.append(Shape("circle", tuple(regular_corners(72, value / 2)), True))
    if not isinstance(size, LineSize):
        dimensions, held = _round_held(size, n, dimensions)
        shapes += held
    return dimensions, _regular_grips(shape, given, given_line(spec, shape)[1], spec), shapes


def _regular_dimension(name: str, given: str, spec: FlatFrameSpec, shape: Regular, ruler: Ruler) -> Dimension | None:
    """One named size of a regular frame as a dimension line; None where this frame cannot be measured so."""
    value = ruler.measure(name)
    if value is None:
        return None
    line, kind = name.split("_")
    n = shape.sides
    flats = 2 * _apothem_of(spec, shape, line)
    corners = regular_corners(n, flats / 2)
    inside = line == "opening"
    top = n // 2 if n % 2 == 0 else 0
    lane, away = 0.0, UP
    if kind == "side":
        a, b = corners[top], corners[(top + 1) % n]
        away = UP if n % 2 == 0 else DOWN
        away = (-away[0], -away[1]) if inside else away
        lane = 1.0
    elif kind == "flats":
        a, b = ((-flats / 2, 0.0), (flats / 2, 0.0)) if n % 2 or n % 4 == 0 else ((0.0, -flats / 2), (0.0, flats / 2))
        if not inside:
            level = n % 2 or n % 4 == 0
            away, lane = (DOWN, 2.4) if n % 2 else ((DOWN, 1.0) if level else (LEFT, 1.0))
            edge = min(c[0] for c in corners)
            a, b = ((-flats / 2, -flats / 2), (flats / 2, -flats / 2)) if level else ((edge, -flats / 2), (edge, flats / 2))
    elif kind == "reach":
        apex = corners[(n + 1) // 2]
        edge = max(c[0] for c in corners)
        a, b, away, lane = (edge, corners[0][1]), (edge, apex[1]), RIGHT, 1.8
        if inside:
            a, b, lane = (0.0, corners[0][1]), (0.0, apex[1]), 0.0
    elif kind == "corners" and n % 2:
        a, b, away, lane = (-value / 2, -flats / 2), (value / 2, -flats / 2), DOWN, 2.4
        if inside:
            a, b, lane = (-value / 2, 0.0), (value / 2, 0.0), 0.0
    else:
        a, b = corners[0], corners[n // 2]
    standing: Standing = "given" if name == given else "derived"
    acts: Edit = TypeIn(op="type", path="shape.size.mm", text="") if name == given else Give(op="give", measure=name)
    return Dimension(name, name, a, b, value, "mm", standing, away, lane, acts=acts)


def _apothem_of(spec: FlatFrameSpec, shape: Regular, line: str) -> float:
    """Where a line runs, from the middle, by the one that was given and the board's width."""
    given, apothem = given_line(spec, shape)
    return apothem + spec.board.width_mm * ((line == "outside") - (given == "outside"))


def _round_held(size: HeldRound | FloatingRound, n: int, dimensions: list[Dimension]) -> tuple[list[Dimension], list[Shape]]:
    """What is held, drawn in its place and measured across; the opening across flats steps aside for it."""
    half = size.object_mm / 2
    level = n % 2 == 1 or n % 4 == 0
    a, b = ((-half, 0.0), (half, 0.0)) if level else ((0.0, -half), (0.0, half))
    acts = TypeIn(op="type", path="shape.size.object_mm", text="")
    across = Dimension("object", "object_flats", a, b, size.object_mm, "mm", "given", UP, 0.0, acts=acts)
    rest = [d for d in dimensions if d.id != "opening_flats"]
    opening = next((d for d in dimensions if d.id == "opening_flats"), None)
    if opening:
        moved = Dimension(
            opening.id, opening.label, opening.a, opening.b, opening.value, "mm", "derived",
            DOWN if level else RIGHT, 2.0, acts=opening.acts,
        )  # fmt: skip
        rest.append(moved)
    return [across, *rest], [Shape("held", tuple(regular_corners(n, half)), True)]


def _regular_grips(shape: Regular, given: str, half: float, spec: FlatFrameSpec) -> list[Grip]:
    """A ring at each end of the given dimension, and one on the edge that the rail's width moves."""
    n = shape.sides
    corners = regular_corners(n, half)
    if given.endswith("corners"):
        places = [("corner", 0), ("corner", n // 2)]
    elif n % 4 == 0:
        places = [("flat", n // 4), ("flat", 3 * n // 4)]
    else:
        places = [("flat", 0), ("flat", n // 2)] if n % 2 == 0 else [("flat", 0)]
    grips = []
    for kind, i in places:
        a, b = corners[i % n], corners[(i + 1) % n]
        at = a if kind == "corner" else ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
        grips.append(Grip(f"size:{kind}:{i}", at, at))
    side = n // 2 if n % 2 == 0 else 0
    if not spec.rails and spec.letters[side] not in spec.left_out:
        a, b = corners[side], corners[(side + 1) % n]
        at = ((a[0] + b[0]) / 2, (a[1] + b[1]) / 2)
        grow = spec.board.width_mm * (-1 if given.startswith("outside") else 1) / half
        # Beside the middle, so that it never hides a size grip or a letter.
        at = (at[0] * (1 + grow) + (b[0] - a[0]) / 4, at[1] * (1 + grow) + (b[1] - a[1]) / 4)
        grips.append(Grip(f"width:{spec.letters[side]}", at, UP if side else DOWN))
    return grips


# --- rectangles -----------------------------------------------------------------------------------------------------


def _rectangle(spec: FlatFrameSpec, shape: Rectangle, ruler: Ruler) -> Drawn:
    """Opening across its middle, outside below and at the left, rail widths on the rails."""
    size = shape.size
    given = size.by if isinstance(size, LineSizes) else ""
    whole = Ruler(assemble(spec.model_copy(update={"left_out": []}))) if spec.left_out else ruler
    opening, outside = _box(whole, "opening"), _box(whole, "outside")
    dimensions = []
    for line, box in (("opening", opening), ("outside", outside)):
        (x0, y0), (x1, y1) = box
        # Inside, the two lines stand off the middle, so that neither figure lies on the other's line.
        level, rise = ((3 * y0 + y1) / 4, (3 * x0 + x1) / 4) if line == "opening" else (y0, x0)
        for kind, a, b, away in (
            ("width", (x0, level), (x1, level), DOWN),
            ("depth", (rise, y0), (rise, y1), LEFT),
        ):
            name = f"{line}_{kind}"
            value = ruler.measure(name)
            if value is None:
                continue
            own = line == given
            acts: Edit = TypeIn(op="type", path=f"shape.size.{kind}_mm", text="") if own else Give(op="give", measure=name)
            lane = 0.0 if line == "opening" else 1.0
            dimensions.append(Dimension(name, name, a, b, value, "mm", "given" if own else "derived", away, lane, acts=acts))
    shapes: list[Shape] = []
    if isinstance(size, HeldPanel | FloatingPanel):
        dimensions = [d for d in dimensions if not d.id.startswith("opening")]
        held, extra = _panel_held(size, opening)
        dimensions += held
        shapes += extra
    dimensions += _rail_widths(spec, outside, opening)
    box = outside if given == "outside" else opening
    (x0, y0), (x1, y1) = box
    grips = [
        Grip("across:B", (x1, (2 * y1 + y0) / 3), RIGHT), Grip("across:D", (x0, (2 * y1 + y0) / 3), LEFT),
        Grip("along:C", ((2 * x1 + x0) / 3, y1), UP), Grip("along:A", ((2 * x1 + x0) / 3, y0), DOWN),
    ]  # fmt: skip
    return dimensions, grips, shapes


Box = tuple[Point2, Point2]


def _box(ruler: Ruler, line: str) -> Box:
    """Lowest left and highest right corner of a line."""
    runs = ruler.runs("opening" if line == "opening" else "outside") or {}
    points = [p for run in runs.values() for p in run]
    xs, ys = [p[0] for p in points], [p[1] for p in points]
    return (min(xs), min(ys)), (max(xs), max(ys))


def _panel_held(size: HeldPanel | FloatingPanel, opening: Box) -> tuple[list[Dimension], list[Shape]]:
    (x0, y0), (x1, y1) = opening
    mx, my = (x0 + x1) / 2, (y0 + y1) / 2
    w, d = size.object_width_mm / 2, size.object_depth_mm / 2
    shape = Shape("held", ((mx - w, my - d), (mx + w, my - d), (mx + w, my + d), (mx - w, my + d)), True)
    made = []
    for kind, a, b, value in (
        ("width", (mx - w, my - d / 2), (mx + w, my - d / 2), size.object_width_mm),
        ("depth", (mx - w / 2, my - d), (mx - w / 2, my + d), size.object_depth_mm),
    ):
        acts = TypeIn(op="type", path=f"shape.size.object_{kind}_mm", text="")
        made.append(Dimension(f"object_{kind}", f"object_{kind}", a, b, value, "mm", "given", UP, 0.0, acts=acts))
    return made, [shape]


def _rail_widths(spec: FlatFrameSpec, outside: Box, opening: Box) -> list[Dimension]:
    """Front and back rails' width at the top right, sides' width along the top."""
    dimensions = []
    for pair, a, b, away in (
        ("AC", (outside[1][0], opening[1][1]), (outside[1][0], outside[1][1]), RIGHT),
        ("BD", (opening[1][0], outside[1][1]), (outside[1][0], outside[1][1]), UP),
    ):
        if spec.width_of(pair[0]) == spec.width_of(pair[1]):
            acts = TypeIn(op="type", path=f"rails.{pair}.width_mm", text="")
            name = f"rails_{pair}"
            dimensions.append(Dimension(name, name, a, b, spec.width_of(pair[0]), "mm", "given", away, 1.0, acts=acts))
    return dimensions


# --- irregular outlines ---------------------------------------------------------------------------------------------


def _irregular(spec: FlatFrameSpec, shape: Irregular, base: Baseline) -> Drawn:
    """Every side's length along it, every corner's angle in it, a ring at every corner."""
    pinned = {p.corner if isinstance(p, CornerPin) else p.side for p in shape.pins}
    dimensions = []
    grips = []
    n = len(base.sides)
    inside = shape.line == "opening"
    for i, side in enumerate(base.sides):
        outward = (side.way[1], -side.way[0])
        away = (-outward[0], -outward[1]) if inside else outward
        length = ((side.end[0] - side.start[0]) ** 2 + (side.end[1] - side.start[1]) ** 2) ** 0.5
        name = f"{shape.line}_side:{side.letter}"
        held = side.letter in pinned
        dimensions.append(
            Dimension(
                name,
                name,
                side.start,
                side.end,
                length,
                "mm",
                "given" if held else "derived",
                away,
                2.2 if inside else 1.0,
                acts=Give(op="give", measure=name),
                can_free=held,
            )
        )
        corner, nxt = spec.corner_names[i], base.sides[(i + 1) % n]
        name = f"{shape.line}_angle:{corner}"
        held = corner in pinned
        back = (-side.way[0], -side.way[1])
        dimensions.append(
            Dimension(
                name,
                name,
                nxt.way,
                back,
                180.0 - base.turns_deg[i],
                "deg",
                "given" if held else "derived",
                about=side.end,
                acts=Give(op="give", measure=name),
                can_free=held,
            )
        )
        grips.append(Grip(f"corner:{(i + 1) % n}", nxt.start))
    return dimensions, grips, []


# --- section, sizes, controls ---------------------------------------------------------------------------------------


def _section(spec: FlatFrameSpec, assembly: Assembly) -> View:
    """The rail cut across, opening edge at the left, face upwards."""
    board = assembly.boards[0]
    y, z = board.section.width_mm / 2, board.section.thickness_mm / 2
    width = TypeIn(op="type", path=f"rails.{board.id}.width_mm" if board.id in spec.rails else "board.width_mm", text="")
    if isinstance(spec.shape, Rectangle) and board.id in spec.rails:
        width = TypeIn(op="type", path=f"rails.{'AC' if board.id in 'AC' else 'BD'}.width_mm", text="")
    dimensions = [
        Dimension("width", "rail_width", (-y, z), (y, z), 2 * y, "mm", "given", UP, 1.0, acts=width),
        Dimension(
            "thickness", "thickness", (y, -z), (y, z), 2 * z, "mm", "given", RIGHT, 1.5,
            acts=TypeIn(op="type", path="board.thickness_mm", text=""),
        ),
    ]  # fmt: skip
    if spec.rabbet:
        step, floor = y - spec.rabbet.width_mm, -z + spec.rabbet.depth_mm
        dimensions += [
            Dimension(
                "rabbet_width", "rabbet_width", (-y, -z), (-step, -z), spec.rabbet.width_mm, "mm", "given", DOWN, 1.0,
                acts=TypeIn(op="type", path="rabbet.width_mm", text=""),
            ),
            Dimension(
                "rabbet_depth", "rabbet_depth", (-y, -z), (-y, floor), spec.rabbet.depth_mm, "mm", "given", LEFT, 1.5,
                acts=TypeIn(op="type", path="rabbet.depth_mm", text=""),
            ),
        ]  # fmt: skip
    return View("section", section_shapes(board), (), tuple(dimensions))


def _sizes(spec: FlatFrameSpec, ruler: Ruler) -> tuple[SizeRow, ...]:
    """Every line that can be measured on this frame, as a list."""
    if isinstance(spec.shape, Irregular):
        pinned = {p.corner if isinstance(p, CornerPin) else p.side for p in spec.shape.pins}
        names = [f"{spec.shape.line}_side:{s}" for s in spec.letters]
        names += [f"{spec.shape.line}_angle:{c}" for c in spec.corner_names]
        given = {name for name in names if name.split(":")[1] in pinned}
    elif isinstance(spec.shape, Rectangle):
        names = [f"{line}_{kind}" for line in ("opening", "outside") for kind in ("width", "depth")]
        given = {name for name in names if name.startswith(spec.shape.size.by)}
    else:
        kinds = ("flats", "corners", "side", *(("reach",) if spec.sides % 2 else ()))
        names = [f"{line}_{kind}" for line in ("opening", "outside") for kind in kinds]
        names += ["outside_diagonal"] if spec.sides % 2 else []
        given = {spec.shape.size.by}
    rows = []
    for name in names:
        value = ruler.measure(name)
        if value is not None:
            standing: Standing = "given" if name in given else "derived"
            unit = "deg" if "_angle" in name else "mm"
            free = standing == "given" and isinstance(spec.shape, Irregular)
            rows.append(SizeRow(name, value, unit, standing, Give(op="give", measure=name), free))  # type: ignore[arg-type]
    return tuple(rows)


def _controls(spec: FlatFrameSpec) -> tuple[Control, ...]:
    """What there is to decide, in the order in which one decides it."""
    controls = [_sized_by(spec)] if not isinstance(spec.shape, Irregular) else [_line(spec.shape)]
    if not isinstance(spec.shape, Rectangle):
        acts = TypeIn(op="type", path="shape.sides", text="")
        controls.insert(0, Control("sides", "outline", value=float(spec.sides), unit="count", acts=acts))
    size = None if isinstance(spec.shape, Irregular) else spec.shape.size
    if isinstance(size, HeldRound | HeldPanel):
        controls.append(_figure("play", "outline", size.play_mm, "shape.size.play_mm"))
    if isinstance(size, FloatingRound | FloatingPanel):
        controls.append(_figure("reveal", "outline", size.reveal_mm, "shape.size.reveal_mm"))
    if not isinstance(spec.shape, Irregular):
        free = Choose(op="choose", path="shape.form", value="irregular")
        controls.append(Control("free_corners", "outline", (Option("free_corners", (free,), False),)))
    controls += [_nominal(spec), _figure("width", "board", spec.board.width_mm, "board.width_mm")]
    controls.append(_figure("thickness", "board", spec.board.thickness_mm, "board.thickness_mm"))
    controls.append(_rabbet(spec))
    if spec.rabbet:
        controls.append(_figure("rabbet_width", "board", spec.rabbet.width_mm, "rabbet.width_mm"))
        controls.append(_figure("rabbet_depth", "board", spec.rabbet.depth_mm, "rabbet.depth_mm"))
    controls += _joints(spec)
    controls += _open_sides(spec)
    for letter in spec.letters:
        if letter not in spec.left_out:
            controls.append(_figure("this_rail_width", "part", spec.width_of(letter), f"rails.{letter}.width_mm", letter))
    return tuple(controls)


def _figure(code: str, group: str, value: float, path: str, about: str = "") -> Control:
    return Control(code, group, value=value, unit="mm", acts=TypeIn(op="type", path=path, text=""), about=about)


def _choice(code: str, group: str, path: str, options: dict[str, object], chosen: object, about: str = "") -> Control:
    """A choice of one value for one path."""
    made = tuple(Option(name, (Choose(op="choose", path=path, value=value),), value == chosen) for name, value in options.items())
    return Control(code, group, made, about=about)


def _sized_by(spec: FlatFrameSpec) -> Control:
    assert not isinstance(spec.shape, Irregular)
    by = spec.shape.size.by
    now = by if by in ("holds", "floats") else by.split("_")[0]
    options: dict[str, object] = {f"by_{name}": name for name in ("opening", "outside", "holds", "floats")}
    return _choice("sized_by", "outline", "shape.size.by", options, now)


def _line(shape: Irregular) -> Control:
    return _choice("corners_on", "outline", "shape.line", {"on_opening": "opening", "on_outside": "outside"}, shape.line)


def _nominal(spec: FlatFrameSpec) -> Control:
    options: dict[str, object] = {"as_measured": None, **{name: name for name in NOMINALS}}
    return Control(
        "nominal",
        "board",
        tuple(
            Option(n, (Choose(op="choose", path="board.nominal", value=v),), v == spec.board.nominal) for n, v in options.items()
        ),
        style="list",
    )


def _rabbet(spec: FlatFrameSpec) -> Control:
    yes = Choose(op="choose", path="rabbet", value="usual")
    no = Choose(op="choose", path="rabbet", value=None)
    has = spec.rabbet is not None
    return Control("rabbet", "board", (Option("no_rabbet", (no,), not has), Option("with_rabbet", (yes,), has)))


def _joints(spec: FlatFrameSpec) -> list[Control]:
    """All corners at once (which forgets exceptions), then each corner."""

    def everywhere(joint: str) -> tuple[Edit, ...]:
        return (Choose(op="choose", path="corners", value={}), Choose(op="choose", path="joint", value=joint))

    plain = not spec.corners
    options = (
        Option("all_miter", everywhere("miter"), plain and spec.joint == "miter"),
        Option("all_butt", everywhere("butt"), plain and spec.joint == "butt"),
    )
    controls = [Control("joint", "corners", options)]
    for name in spec.corner_names:
        if set(name) & set(spec.left_out):
            continue
        own = spec.corners.get(name)
        joint = own.joint if own else spec.joint
        through = (own.through if own else None) or name[0]
        made = [
            Option(
                "corner_miter",
                (Choose(op="choose", path=f"corners.{name}", value={"joint": "miter"}),),
                joint == "miter",
            )
        ]
        for letter in name:
            act = Choose(op="choose", path=f"corners.{name}", value={"joint": "butt", "through": letter})
            made.append(Option(f"through:{letter}", (act,), joint == "butt" and through == letter))
        controls.append(Control("corner", "each_corner", tuple(made), about=name))
    return controls


def _open_sides(spec: FlatFrameSpec) -> list[Control]:
    """Which sides are there, and how loose ends are cut when some are not."""
    options = []
    for letter in spec.letters:
        out = letter in spec.left_out
        value = [s for s in spec.left_out if s != letter] if out else sorted([*spec.left_out, letter])
        options.append(Option(f"side:{letter}", (Choose(op="choose", path="left_out", value=value),), not out))
    controls = [Control("sides_there", "open", tuple(options), style="toggles")]
    if spec.left_out:
        ends: dict[str, object] = {"ends_square": "square", "ends_ground": "ground"}
        controls.append(_choice("loose_ends", "open", "loose_ends", ends, spec.loose_ends))
    return controls

"""The dimensions of a flat frame where they stand on the drawing, and the grips that drag them."""

from fennup.core.drawing.edit import Edit, Give, TypeIn
from fennup.core.drawing.view import DOWN, LEFT, RIGHT, UP, Dimension, Grip, Shape, Standing
from fennup.core.geometry.polygon import regular_corners
from fennup.core.geometry.vec import Point2
from fennup.core.kinds.flat_frame.outline import Baseline, given_line
from fennup.core.kinds.flat_frame.place import assemble
from fennup.core.kinds.flat_frame.shapes import (
    SPANS,
    CornerPin,
    FloatingPanel,
    FloatingRound,
    HeldPanel,
    HeldRound,
    Irregular,
    LineSize,
    LineSizes,
    Rectangle,
    Regular,
    SpanPin,
    pinned_measure,
)
from fennup.core.kinds.flat_frame.spec import FlatFrameSpec
from fennup.core.parts.measure import Ruler
from fennup.core.parts.measures import measure_of

ROUND = 72  # corners that a circle is drawn with

OVERALL_LANE = 2.6  # beyond the sides' own

Drawn = tuple[list[Dimension], list[Grip], list[Shape]]


def dimensions_of(spec: FlatFrameSpec, ruler: Ruler, base: Baseline) -> Drawn:
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
        circles = {m.line: m.quantity for m in map(measure_of, filter(None, (given, "opening_flats")))}
        for line, kind in circles.items():
            value = ruler.measure(f"{line}_{kind}") if kind in ("flats", "corners") else None
            if value:
                shapes.append(Shape("circle", tuple(regular_corners(ROUND, value / 2)), True))
    if not isinstance(size, LineSize):
        dimensions, held = _round_held(size, n, dimensions)
        shapes += held
    return dimensions, _regular_grips(shape, given, given_line(spec, shape)[1], spec), shapes


def _regular_dimension(name: str, given: str, spec: FlatFrameSpec, shape: Regular, ruler: Ruler) -> Dimension | None:
    """One named size of a regular frame as a dimension line; None where this frame cannot be measured so."""
    value = ruler.measure(name)
    if value is None:
        return None
    line, kind = measure_of(name).line, measure_of(name).quantity
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
    is_round = isinstance(size, HeldRound) and size.form == "round"
    across = Dimension(
        "object", "object_round" if is_round else "object_flats", a, b, size.object_mm, "mm", "given", UP, 0.0, acts=acts
    )
    rest = [d for d in dimensions if d.id != "opening_flats"]
    opening = next((d for d in dimensions if d.id == "opening_flats"), None)
    if opening:
        moved = Dimension(
            opening.id, opening.label, opening.a, opening.b, opening.value, "mm", "derived",
            DOWN if level else RIGHT, 2.0, acts=opening.acts,
        )  # fmt: skip
        rest.append(moved)
    return [across, *rest], [Shape("held", tuple(regular_corners(ROUND if is_round else n, half)), True)]


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
        grips.append(Grip(f"size:{kind}:{i}", at, at, ("flats", "corners", "side", "reach", "diagonal")))
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
        Grip("across:B", (x1, (2 * y1 + y0) / 3), RIGHT, ("width",)), Grip("across:D", (x0, (2 * y1 + y0) / 3), LEFT, ("width",)),
        Grip("along:C", ((2 * x1 + x0) / 3, y1), UP, ("depth",)), Grip("along:A", ((2 * x1 + x0) / 3, y0), DOWN, ("depth",)),
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
    pinned = {p.corner if isinstance(p, CornerPin) else p.span if isinstance(p, SpanPin) else p.side for p in shape.pins}
    dimensions = [_span(spec, shape, base, p) for p in shape.pins if isinstance(p, SpanPin)]
    grips = []
    n = len(base.sides)
    inside = shape.line != "outside"
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
    panel = Shape("held", tuple(side.start for side in base.sides), True)
    return dimensions, grips, [panel] if shape.line == "held" and not base.misfit else []


def _span(spec: FlatFrameSpec, shape: Irregular, base: Baseline, pin: SpanPin) -> Dimension:
    """How far the whole goes along side A or square to it, below and at the left; or from corner to corner."""
    name, starts = pinned_measure(shape, pin), [side.start for side in base.sides]
    if pin.span not in SPANS:
        a, b = (starts[spec.letters.index(letter)] for letter in (pin.span[1], pin.span[3]))
        return Dimension(name, name, a, b, pin.mm, "mm", "given", acts=Give(op="give", measure=name), can_free=True)
    way = base.sides[0].way
    up = (-way[1], way[0])
    along, across = ([p[0] * d[0] + p[1] * d[1] for p in starts] for d in (way, up))
    if pin.span == "wide":
        ends = [(low, min(across)) for low in (min(along), max(along))]
    else:
        ends = [(min(along), low) for low in (min(across), max(across))]
    a, b = ((x * way[0] + y * up[0], x * way[1] + y * up[1]) for x, y in ends)
    away = (-up[0], -up[1]) if pin.span == "wide" else (-way[0], -way[1])
    return Dimension(
        name, name, a, b, pin.mm, "mm", "given", away, OVERALL_LANE, acts=Give(op="give", measure=name), can_free=True
    )

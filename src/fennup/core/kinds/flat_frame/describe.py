"""What a flat frame shows of itself: the whole from the front, a rail cut across, and every size of it."""

from collections.abc import Iterator
from dataclasses import replace

from fennup.core.assembly.model import Assembly
from fennup.core.drawing.board_views import front_shapes
from fennup.core.drawing.edit import Give, TypeIn
from fennup.core.drawing.view import Description, Dimension, Mark, Shape, SizeRow, Standing, View
from fennup.core.geometry.vec import Point2
from fennup.core.kinds.flat_frame.controls import controls_of
from fennup.core.kinds.flat_frame.dimensions import dimensions_of
from fennup.core.kinds.flat_frame.outline import Baseline, baseline
from fennup.core.kinds.flat_frame.profile import section_views
from fennup.core.kinds.flat_frame.shapes import SPANS, Irregular, Rectangle
from fennup.core.kinds.flat_frame.spec import FlatFrameSpec
from fennup.core.kinds.gauged import corners_across
from fennup.core.parts.measure import Ruler
from fennup.core.parts.measures import measure_of
from fennup.core.parts.solid import Solid


def describe(spec: FlatFrameSpec, ruler: Ruler, solids: dict[str, Solid]) -> Description:
    """Views, controls and sizes of a solved frame."""
    base, assembly = baseline(spec), ruler.assembly
    shapes = list(front_shapes(assembly, solids))
    dimensions, grips, more = dimensions_of(spec, ruler, base)
    shapes += more
    shapes += _left_out(spec, base)
    picture = tuple(s for s in shapes if s.role in ("wood", "joint", "held"))
    letters = [Mark("letter", _middle_of_rail(assembly, b.id), b.id, b.id) for b in assembly.boards if b.role != "strip"]
    dimensions = [_standing(spec, d) for d in dimensions]
    front = View("front", tuple(shapes), tuple(letters), tuple(dimensions), tuple(grips))
    cut = section_views(spec, assembly)
    return Description(_facts(spec, base), picture, (front, *cut), lambda: controls_of(spec), _sizes(spec, ruler))


def _standing(spec: FlatFrameSpec, d: Dimension) -> Dimension:
    """A dimension of the frame's size as suggested, where nobody has given it."""
    own = isinstance(d.acts, TypeIn) and d.acts.path.startswith("shape.size.")
    return replace(d, standing=spec.standing_of(d.acts.path.rpartition(".")[2])) if own else d  # type: ignore[union-attr]


def _facts(spec: FlatFrameSpec, base: Baseline) -> tuple[str, ...]:
    """What the line under the title says."""
    joints = {spec.joint} | {c.joint for c in spec.corners.values()}
    joint = "mixed_joints" if len(joints) == 2 else ("mitered" if "miter" in joints else "butted")
    out = (f"left_out:{len(spec.left_out)}",) if spec.left_out else ()
    free = (f"free:{base.free}",) if isinstance(spec.shape, Irregular) else ()
    return (f"form_{spec.shape.form}", f"sides:{spec.sides}", joint, *out, *free)


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


def _sizes(spec: FlatFrameSpec, ruler: Ruler) -> tuple[SizeRow, ...]:
    """Every line that can be measured on this frame, as a list."""
    if isinstance(spec.shape, Irregular):
        names = [f"{spec.shape.line}_side:{s}" for s in spec.letters]
        names += [f"{spec.shape.line}_angle:{c}" for c in spec.corner_names]
        names += [f"{spec.shape.line}_{span}" for span in SPANS]
        names += [f"{spec.shape.line}_diagonal:{a}{b}" for a, b in corners_across(spec.corner_names)]
    elif isinstance(spec.shape, Rectangle):
        names = [f"{line}_{kind}" for line in ("opening", "outside") for kind in ("width", "depth")]
    else:
        kinds = ("flats", "corners", "side", *(("reach",) if spec.sides % 2 else ()))
        names = [f"{line}_{kind}" for line in ("opening", "outside") for kind in kinds]
        names += ["outside_diagonal"] if spec.sides % 2 else []
        names += [f"outside_{span}" for span in SPANS]
    names += list(ruler.assembly.by_name)
    # What it holds or what floats in it is given by itself: no line is.
    given = {pin.measure for pin in spec.usual_pins()} if spec.by_line else set()
    rows = []
    for name in names:
        value = ruler.measure(name)
        if value is not None:
            standing: Standing = "derived"
            if name in given:
                quantity = measure_of(name).quantity
                standing = spec.standing_of(f"{quantity}_mm" if quantity in ("width", "depth") else "mm")
            unit = "deg" if measure_of(name).is_angle else "mm"
            free = standing != "derived" and isinstance(spec.shape, Irregular)
            rows.append(SizeRow(name, value, unit, standing, Give(op="give", measure=name), free))  # type: ignore[arg-type]
    return (*rows, *_lip(spec))


def _lip(spec: FlatFrameSpec) -> Iterator[SizeRow]:
    """How far the lip covers what the frame holds: in the middle of its play, and where it is pushed to the other side."""
    plays = spec.held_plays_mm
    for name, play in zip(("lip_covers", "lip_covers_depth") if len(set(plays)) > 1 else ("lip_covers",), plays, strict=False):
        if spec.recess:
            yield SizeRow(name, spec.recess.lip_mm - play / 2, "mm", "derived", None)
            yield SizeRow(f"{name}_least", spec.recess.lip_mm - play, "mm", "derived", None)

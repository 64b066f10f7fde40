"""What there is to decide about a roof, in the order in which one decides it."""

from fennup.core.drawing.view import Control
from fennup.core.kinds.asking import figure, one_of, with_or_without
from fennup.core.kinds.covers import cover_controls
from fennup.core.kinds.roof.spec import Gable, Hip, LeanTo, Pyramid, RoofSpec

LID_SIDES = {"A": "the front", "B": "the right", "C": "the back", "D": "the left"}


def controls_of(spec: RoofSpec) -> tuple[Control, ...]:
    """The shape first, then its boards, then what it stands on."""
    shape = spec.shape
    if isinstance(shape, Gable):
        return tuple(_gable(spec, shape))
    if isinstance(shape, Pyramid):
        eaves: dict[str, object] = {f"eaves_{how}": how for how in ("level", "plumb", "square")}
        return (
            figure("sides", "outline", float(shape.sides), "shape.sides", "count"),
            one_of("eaves", "outline", "shape.eaves", eaves, shape.eaves),
            figure("thickness", "board", spec.thickness_mm, "thickness_mm"),
            with_or_without("cone", "on_top", "shape.cone", ("no_cone", "cone_of_sheet"), {}, shape.cone),
            *(
                figure(f"cone_{name}", "on_top", getattr(shape.cone, f"{name}_mm"), f"shape.cone.{name}_mm")
                for name in ("over", "lap")
                if shape.cone
            ),
        )
    if isinstance(shape, LeanTo):
        return (
            figure("thickness", "board", spec.thickness_mm, "thickness_mm"),
            *cover_controls(shape.cover, LID_SIDES, spec.thickness_mm, "shape.cover", "board")[1:],
        )
    return tuple(_hip(spec, shape))


def _gable(spec: RoofSpec, shape: Gable) -> list[Control]:
    other = shape.left.model_dump(mode="json")
    plumb = spec.depth_mm * 1.5
    usual = {"thickness_mm": spec.thickness_mm, "depth_mm": plumb}
    made = [
        with_or_without("gable_sides", "outline", "shape.right", ("sides_alike", "sides_unlike"), other, shape.right),
        figure("pairs", "outline", float(shape.pairs), "shape.pairs", "count"),
    ]
    if shape.pairs > 1:
        made.append(figure("pair_spacing", "outline", shape.spacing_mm, "shape.spacing_mm"))
    made += [
        figure("rafter_depth", "board", spec.depth_mm, "depth_mm"),
        figure("rafter_thickness", "board", spec.thickness_mm, "thickness_mm"),
        with_or_without("ridge", "board", "shape.ridge", ("no_ridge", "with_ridge"), usual, shape.ridge),
    ]
    if shape.ridge:
        made.append(figure("ridge_thickness", "board", shape.ridge.thickness_mm, "shape.ridge.thickness_mm"))
        made.append(figure("ridge_depth", "board", shape.ridge.depth_mm, "shape.ridge.depth_mm"))
    made += [
        one_of(
            "rafter_foot",
            "foot",
            "shape.foot",
            {f"foot_{how}": how for how in ("birdsmouth", "seat", "level", "plumb")},
            shape.foot,
        ),
    ]
    heels = shape.foot in ("birdsmouth", "seat")
    if heels:
        made.append(figure("heel", "foot", shape.heel_mm, "shape.heel_mm"))
    if shape.right and heels:
        for name, side in (("left", shape.left), ("right", shape.right)):
            both = ("heel_alike", "heel_own")
            made.append(with_or_without(f"{name}_heel", "foot", f"shape.{name}.heel_mm", both, shape.heel_mm, side.heel_mm))
            if side.heel_mm is not None:
                made.append(figure(f"{name}_heel_mm", "foot", side.heel_mm, f"shape.{name}.heel_mm"))
    if shape.foot == "birdsmouth":
        made.append(figure("overhang", "foot", shape.overhang_mm, "shape.overhang_mm"))
        made.append(one_of("tail", "foot", "shape.tail", {f"tail_{how}": how for how in ("plumb", "square")}, shape.tail))
    if not shape.ridge:
        made.append(one_of("heads", "board", "shape.heads", {f"heads_{how}": how for how in ("miter", "plumb")}, shape.heads))
    made.append(figure("plate", "there", shape.plate_mm, "shape.plate_mm"))
    return made


def _hip(spec: RoofSpec, shape: Hip) -> list[Control]:
    made = [figure("sides", "outline", float(shape.sides), "shape.sides", "count")] if shape.sides else []
    if not shape.sides:
        usual = {
            "length_mm": max(shape.depth_mm - shape.width_mm, shape.depth_mm / 3),
            "thickness_mm": spec.thickness_mm / 2,
            "depth_mm": 1.5 * spec.depth_mm,
        }
        made.append(with_or_without("hip_ridge", "outline", "shape.ridge", ("to_a_point", "with_ridge"), usual, shape.ridge))
        if shape.ridge:
            made.append(figure("ridge_thickness", "board", shape.ridge.thickness_mm, "shape.ridge.thickness_mm"))
            made.append(figure("ridge_depth", "board", shape.ridge.depth_mm, "shape.ridge.depth_mm"))
    seats = [("above_plate", shape.above_plate_mm), ("plate", shape.plate_mm)] if shape.foot != "flush" else []
    seats += [("overhang", shape.overhang_mm)] if shape.foot == "birdsmouth" else []
    return [
        *made,
        figure("jack_spacing", "outline", shape.spacing_mm, "shape.spacing_mm"),
        figure("hip_depth", "board", shape.hip_depth_mm, "shape.hip_depth_mm"),
        figure("hip_thickness", "board", shape.hip_thickness_mm, "shape.hip_thickness_mm"),
        figure("jack_depth", "board", spec.depth_mm, "depth_mm"),
        figure("jack_thickness", "board", spec.thickness_mm, "thickness_mm"),
        one_of(
            "rafter_foot",
            "foot",
            "shape.foot",
            {"foot_flush": "flush", "foot_plates": "seat", "foot_birdsmouth": "birdsmouth"},
            shape.foot,
        ),
        *(figure(name, "foot", size, f"shape.{name}_mm") for name, size in seats),
    ]

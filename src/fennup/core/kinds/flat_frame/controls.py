"""What there is to decide about a flat frame, in the order in which one decides it."""

from fennup.core.drawing.edit import Choose, Edit, TypeIn
from fennup.core.drawing.view import Control, Option
from fennup.core.kinds.asking import figure, one_of, with_or_without
from fennup.core.kinds.flat_frame.spec import (
    FlatFrameSpec,
    FloatingPanel,
    FloatingRound,
    HeldPanel,
    HeldRound,
    Irregular,
    Rectangle,
)
from fennup.core.kinds.inner_controls import holes_controls, inner_controls
from fennup.core.kinds.ploughing import ploughed_controls
from fennup.core.parts.measures import measure_of
from fennup.core.stock.timber import NOMINALS

USUAL_PANEL_MM = 4.0


def controls_of(spec: FlatFrameSpec) -> tuple[Control, ...]:
    """What there is to decide, in the order in which one decides it."""
    controls = [_sized_by(spec)] if not isinstance(spec.shape, Irregular) else [_line(spec.shape)]
    if not isinstance(spec.shape, Rectangle):
        acts = TypeIn(op="type", path="shape.sides", text="")
        controls.insert(0, Control("sides", "outline", value=float(spec.sides), unit="count", acts=acts))
    size = None if isinstance(spec.shape, Irregular) else spec.shape.size
    if isinstance(size, HeldRound | FloatingRound):
        code = "object_round" if isinstance(size, HeldRound) and size.form == "round" else "object_flats"
        controls.append(figure(code, "outline", size.object_mm, "shape.size.object_mm"))
    if isinstance(spec.shape, Irregular) and spec.shape.line == "held":
        controls.append(figure("play", "outline", spec.shape.play_mm, "shape.play_mm"))
    if isinstance(size, HeldRound | HeldPanel):
        controls.append(figure("play", "outline", size.play_mm, "shape.size.play_mm"))
    if isinstance(size, FloatingRound | FloatingPanel):
        controls.append(figure("reveal", "outline", size.reveal_mm, "shape.size.reveal_mm"))
    if not isinstance(spec.shape, Irregular):
        free = Choose(op="choose", path="shape.form", value="irregular")
        controls.append(Control("free_corners", "outline", (Option("free_corners", (free,), False),)))
    controls += [_nominal(spec), figure("width", "board", spec.board.width_mm, "board.width_mm")]
    controls.append(figure("thickness", "board", spec.board.thickness_mm, "board.thickness_mm"))
    controls.append(_rabbet(spec))
    if spec.rabbet:
        controls.append(figure("rabbet_width", "board", spec.rabbet.width_mm, "rabbet.width_mm"))
        controls.append(figure("rabbet_depth", "board", spec.rabbet.depth_mm, "rabbet.depth_mm"))
    own = ploughed_controls(spec.section_of(spec.narrowest), spec.board.ploughed, "board.ploughed", "rail")
    if spec.rabbet and not spec.left_out:
        usual = {"thickness_mm": min(USUAL_PANEL_MM, spec.rabbet.depth_mm), "play_mm": 2.0}
        controls.append(with_or_without("panel", "board", "panel", ("no_panel", "in_the_rabbet"), usual, spec.panel))
        if spec.panel:
            controls.append(figure("panel_thickness", "board", spec.panel.thickness_mm, "panel.thickness_mm"))
            controls.append(figure("play", "board", spec.panel.play_mm, "panel.play_mm", about="panel"))
    controls += [*own, *_joints(spec)]
    if not spec.left_out:
        controls += inner_controls(spec.inner, spec.board.thickness_mm)
    controls += _open_sides(spec)
    for letter in spec.letters:
        if letter not in spec.left_out:
            controls.append(figure("this_rail_width", "part", spec.width_of(letter), f"rails.{letter}.width_mm", about=letter))
            controls += holes_controls(spec.holes, letter, spec.width_of(letter) / 2)
    return tuple(controls)


def _sized_by(spec: FlatFrameSpec) -> Control:
    assert not isinstance(spec.shape, Irregular)
    size = spec.shape.size
    now = measure_of(size.by).line or size.by
    if isinstance(size, HeldRound) and size.form == "round":
        now = "holds_round"
    # In a rectangle lies a rectangle.
    held = (
        {"by_holds": "holds"}
        if isinstance(spec.shape, Rectangle)
        else {"by_holds_round": "holds_round", "by_holds_sided": "holds"}
    )
    options: dict[str, object] = {"by_opening": "opening", "by_outside": "outside", **held, "by_floats": "floats"}
    return one_of("sized_by", "outline", "shape.size.by", options, now)


def _line(shape: Irregular) -> Control:
    return one_of(
        "corners_on", "outline", "shape.line", {"on_opening": "opening", "on_outside": "outside", "on_held": "held"}, shape.line
    )


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
        controls.append(one_of("loose_ends", "open", "loose_ends", ends, spec.loose_ends))
    return controls

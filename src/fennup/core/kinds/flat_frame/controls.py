"""What there is to decide about a flat frame, in the order in which one decides it."""

from dataclasses import replace

from pydantic import ValidationError

from fennup.core.drawing.edit import Choose, Edit, TypeIn
from fennup.core.drawing.view import Control, Option
from fennup.core.editing import put_at
from fennup.core.errors import SpecError
from fennup.core.kinds.asking import figure, one_of, with_or_without
from fennup.core.kinds.flat_frame.layer import MOST_LAYERS, Layer
from fennup.core.kinds.flat_frame.shapes import FloatingPanel, FloatingRound, HeldPanel, HeldRound, Irregular, Rectangle
from fennup.core.kinds.flat_frame.spec import FlatFrameSpec
from fennup.core.kinds.inner_controls import holes_controls, inner_controls
from fennup.core.kinds.ploughing import ploughed_controls
from fennup.core.kinds.stopping import stopped_controls
from fennup.core.parts.measures import measure_of
from fennup.core.stock.timber import NOMINALS

USUAL_PANEL_MM = 4.0
USUAL_STAND_OFF_MM = 25.0
SWELLS = 0.01  # of a wooden panel's width across its grain: a usual room for a year's swelling


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
        controls += _play("play", spec.shape.play_mm, "shape.play_mm")
    if isinstance(size, HeldRound | HeldPanel):
        controls += _play("play", size.play_mm, "shape.size.play_mm")
    if isinstance(size, HeldPanel):
        names = ("play_alike", "play_in_depth")
        swollen = size.play_mm + SWELLS * size.object_depth_mm
        controls.append(with_or_without("play_swells", "outline", "shape.size.play_depth_mm", names, swollen, size.play_depth_mm))
        if size.play_depth_mm is not None:
            controls += _play("play_depth", size.play_depth_mm, "shape.size.play_depth_mm")
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
    if spec.rabbet or spec.board.ploughed:
        comes: dict[str, object] = {"rails_made": False, "rails_bought": True}
        own = [one_of("rails_come", "section", "board.bought", comes, spec.board.bought), *own]
    if spec.recess and not spec.left_out:
        usual = {"thickness_mm": min(USUAL_PANEL_MM, spec.recess.depth_mm), "play_mm": 2.0}
        controls.append(with_or_without("panel", "board", "panel", ("no_panel", "in_the_rabbet"), usual, spec.panel))
        if spec.panel:
            controls.append(figure("panel_thickness", "board", spec.panel.thickness_mm, "panel.thickness_mm"))
            controls.append(figure("play", "board", spec.panel.play_mm, "panel.play_mm", about="panel"))
    controls += [*own, *_joints(spec)]
    if not spec.left_out:
        controls += inner_controls(spec.inner, spec.board.thickness_mm)
    controls += _layers(spec)
    if spec.as_one:
        controls = [_possible(spec, control) if control.group in ("section", "layers") else control for control in controls]
        controls = [control for control in controls if control.options or control.acts]
    controls += _open_sides(spec)
    for letter in spec.letters:
        if letter not in spec.left_out:
            controls.append(figure("this_rail_width", "part", spec.width_of(letter), f"rails.{letter}.width_mm", about=letter))
            controls += stopped_controls(spec.stopped, letter, "rail")
            controls += holes_controls(spec.holes, letter, spec.width_of(letter) / 2)
    return tuple(controls)


def _play(code: str, total: float, path: str) -> list[Control]:
    """A play in all, and at each side: either can be typed."""
    return [
        figure(code, "outline", total, path),
        figure(f"{code}_each", "outline", total / 2, path.replace("_mm", "_each_mm"), follows=True),
    ]


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
    own = [] if spec.board.nominal in (None, *NOMINALS) else [spec.board.nominal]  # a moulding's
    options: dict[str, object] = {"as_measured": None, **{str(name): name for name in (*own, *NOMINALS)}}
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


def _layers(spec: FlatFrameSpec) -> list[Control]:
    """One more layer of strips, and of each how it lies, what is ploughed along it, and that it goes."""
    add = [Option(f"layer_on_{side}", (Choose(op="choose", path="layers.add", value=side),), False) for side in ("face", "back")]
    made = [Control("more_layers", "layers", tuple(add), style="menu")] if len(spec.layers) < MOST_LAYERS else []
    for id, layer in spec.layers.items():
        path, about = f"layers.{id}", f"layer {id}" if len(spec.layers) > 1 else ""
        made += [
            one_of("layer_side", "layers", f"{path}.side", {"rail_face": "face", "rail_back": "back"}, layer.side, about),
            figure("layer_width", "layers", layer.width_mm, f"{path}.width_mm", about=about),
            figure("layer_thickness", "layers", layer.thickness_mm, f"{path}.thickness_mm", about=about),
            one_of(
                "layer_keeps_to",
                "layers",
                f"{path}.keeps_to",
                {"on_outside": "outside", "on_opening": "opening"},
                layer.keeps_to,
                about,
            ),
            figure("layer_set_back", "layers", layer.set_back_mm, f"{path}.set_back_mm", about=about),
        ]
        if spec.as_one:  # they are cut with their rail, wherever that is
            made += ploughed_controls(layer.section, layer.ploughed, f"{path}.ploughed", "rail", "layers", about, "plough_layer")
            made.append(_away(id, about))
            continue
        ways: dict[str, object] = {"all_miter": "miter", "all_butt": "round"}
        ways |= {"long_AC": "long_AC", "long_BD": "long_BD"} if spec.sides == len("ABCD") else {}
        made.append(replace(one_of("layer_corners", "layers", f"{path}.corners", ways, layer.corners, about), style="list"))
        made.append(_rails_with(spec, layer, path, about))
        made += ploughed_controls(layer.section, layer.ploughed, f"{path}.ploughed", "rail", "layers", about, "plough_layer")
        made.append(_away(id, about))
    if spec.layers and not spec.left_out and not any(layer.left_out for layer in spec.layers.values()):
        made.append(one_of("layers_are", "layers", "glued_up", {"layers_apart": False, "layers_glued": True}, spec.glued_up))
    if any(layer.side == "back" for layer in spec.layers.values()):
        now = spec.stand_off_mm
        made.append(
            with_or_without("off_the_wall", "layers", "stand_off_mm", ("no_stand_off", "as_far_as"), USUAL_STAND_OFF_MM, now)
        )
        made += [] if now is None else [figure("off_the_wall_mm", "layers", now, "stand_off_mm")]
    return made


def _possible(spec: FlatFrameSpec, control: Control) -> Control:
    """What there is to choose, without what would be ploughed where glue closes it in."""

    def can(option: Option) -> bool:
        document = spec.model_dump(mode="json")
        for act in option.acts:
            if not isinstance(act, Choose) or "ploughed" not in act.path:
                return True
            document = put_at(document, act.path, act.value)
        try:
            FlatFrameSpec.model_validate(document)
        except (SpecError, ValidationError):
            return False
        return True

    return replace(control, options=tuple(option for option in control.options if option.chosen or can(option)))


def _away(id: str, about: str) -> Control:
    """A layer that goes."""
    away = Option("take_it_away", (Choose(op="choose", path="layers.away", value=id),), False)
    return Control("layer_away", "layers", (away,), about=about, style="sentence")


def _rails_with(spec: FlatFrameSpec, layer: Layer, path: str, about: str) -> Control:
    """On which rails its strips lie."""
    options = []
    for letter in spec.letters:
        if letter not in spec.left_out:
            out = letter in layer.left_out
            value = [s for s in layer.left_out if s != letter] if out else sorted([*layer.left_out, letter])
            options.append(Option(f"side:{letter}", (Choose(op="choose", path=f"{path}.left_out", value=value),), not out))
    return Control("layer_there", "layers", tuple(options), about=about, style="toggles")

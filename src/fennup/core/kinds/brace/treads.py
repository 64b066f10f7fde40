"""What lies between two leaning uprights: level treads at even rises, or boxes made of them."""

from itertools import pairwise

from fennup.core.assembly.board import ENDS, Board
from fennup.core.assembly.model import Gauge, Joint, Mating, Spot
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.frame import Frame
from fennup.core.geometry.plane import Plane, meeting_point
from fennup.core.geometry.vec import Vec, cross, dot
from fennup.core.kinds.brace.spec import BraceSpec, Treads
from fennup.core.kinds.inner import Added
from fennup.core.parts.solid import extent_along, solid_of
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING

Y: Vec = (0.0, 1.0, 0.0)
FRONT: Vec = (0.0, -1.0, 0.0)
BACKWARDS: Vec = (-1.0, 0.0, 0.0)
UP: Vec = (0.0, 0.0, 1.0)
DOWN: Vec = (0.0, 0.0, -1.0)
STEEP = 0.1  # the least sine of the uprights' angle from level that treads can lie between
UPRIGHTS = (("left", "prop", "back"), ("right", "prop 2", "face"))


def add_treads(spec: BraceSpec, treads: Treads, prop: Board, added: Added) -> list[Gauge]:
    """Level treads, each as deep as the uprights are, at even rises between foot and head; of boxes the walls too.

    SpecError `treads_close`, `treads_on_flat`, `tread_off`, `box_too_tall`, `box_no_room`.
    """
    lean = prop.frame.x
    if lean[2] < STEEP:
        raise SpecError("treads_on_flat", ("place.treads",))
    deep = spec.width_mm / lean[2] + treads.thickness_mm * abs(lean[0] / lean[2])
    low, high = (_on_axis(prop, at) for at in ENDS)
    tall = high[2] - low[2]
    shares = [(i + 1) / (treads.count + 1) for i in range(treads.count)]
    if treads.tops_mm:
        shares = [(top - treads.thickness_mm / 2) / tall for top in sorted(treads.tops_mm)]
    rise = min(b - a for a, b in pairwise((*shares, 1.0 if treads.box_mm else 2.0))) * tall
    if treads.tops_mm and rise < treads.thickness_mm:
        raise SpecError("treads_close", ("place.treads.tops_mm",), mm=rise, limit_mm=treads.thickness_mm)
    if treads.box_mm is not None:
        _check_boxes(spec, treads, rise, lean)
    for i, share in enumerate(shares):
        x, z = (low[k] + (high[k] - low[k]) * share for k in (0, 2))
        frame = Frame((x, 0.0, z), Y, BACKWARDS, UP)
        tread = Board(
            f"tread {i + 1}", f"Tread {i + 1}", Section(deep, treads.thickness_mm), frame, role="tread",
            upper_rip=frame.plane_to_local(prop.side_in_world("upper")), lower_rip=frame.plane_to_local(prop.side_in_world("lower")),
        )  # fmt: skip
        walls = _walls(treads, prop, z, i + 1) if treads.box_mm is not None else []
        for board in (tread, *walls):
            _add_between(board, treads, prop, added)
        for wall in walls:
            stands = Mating(wall.id, "lower")
            added.joints.append(Joint(f"{wall.id} on its tread", "butt", stands, Mating(tread.id, "face"), ()))
    if len(shares) == 1:
        return []
    return [Gauge("tread_rise", Spot("tread 1", "left"), Spot("tread 2", "left"), "along", UP, follows=True)]


def _check_boxes(spec: BraceSpec, treads: Treads, rise: float, lean: Vec) -> None:
    """A box must end below the next tread, and its two walls leave room between them."""
    room = rise - treads.thickness_mm
    if treads.box_mm and treads.box_mm > room:
        raise SpecError("box_too_tall", ("place.treads.box_mm",), mm=treads.box_mm, limit_mm=room)
    if 2 * treads.thickness_mm >= spec.width_mm:
        raise SpecError("box_no_room", ("place.treads.thickness_mm",), mm=2 * treads.thickness_mm, limit_mm=spec.width_mm)


def _walls(treads: Treads, prop: Board, middle: float, number: int) -> list[Board]:
    """A box's front and back: flush with the uprights' edges, ripped level to stand on the tread and at the top."""
    lean, thick, tall = prop.frame.x, treads.thickness_mm, treads.box_mm or 0.0
    bottom = middle + thick / 2
    width = tall / lean[2] + thick * abs(lean[0] / lean[2])
    made = []
    for name, side in (("Front", prop.side_in_world("upper")), ("Back", prop.side_in_world("lower"))):
        out = side.normal
        at = meeting_point(Plane(out, side.offset - thick / 2), Plane(UP, bottom + tall / 2), Plane(Y, 0.0))
        frame = Frame(at, cross(lean, out), lean, out)
        made.append(
            Board(
                f"{name.lower()} {number}", f"{name} {number}", Section(width, thick), frame, role="wall",
                upper_rip=frame.plane_to_local(Plane(UP, bottom + tall)),
                lower_rip=frame.plane_to_local(Plane(DOWN, -bottom)),
            )
        )  # fmt: skip
    return made


def _add_between(board: Board, treads: Treads, prop: Board, added: Added) -> None:
    """A board cut to stand between the uprights, with a butt joint at each. SpecError `tread_off` where they are cut away."""
    half = treads.clear_mm / 2
    front, back = Plane(FRONT, half), Plane(Y, half)
    ahead = dot(board.frame.x, Y) > 0
    try:
        board = board.with_cut("left", front if ahead else back).with_cut("right", back if ahead else front)
        corners = [p for piece in solid_of(board).world for p in piece.points]
    except CutError:
        raise SpecError("box_no_room", ("place.treads.box_mm",), mm=treads.thickness_mm, limit_mm=prop.section.width_mm) from None
    cuts = [prop.frame.plane_to_world(cut) for cut in (*prop.left, *prop.right)]
    if max(cut.beyond(p) for cut in cuts for p in corners) > NOTHING:
        raise SpecError("tread_off", ("place.treads.count",), part=board.name)
    added.boards.append(board)
    for end, on, side in UPRIGHTS if ahead else (("right", *UPRIGHTS[0][1:]), ("left", *UPRIGHTS[1][1:])):
        here = Mating(board.id, f"{end}:0")
        added.joints.append(Joint(f"{board.id} {end}", "butt", here, Mating(on, side), ((board.id, end),)))  # type: ignore[arg-type]


def _on_axis(board: Board, end: str) -> Vec:
    """Where a board's middle line comes to its end, in the middle of the thickness."""
    x = extent_along(board, 0.0, 0.0)[end == "right"]
    return board.frame.to_world((x, 0.0, 0.0))

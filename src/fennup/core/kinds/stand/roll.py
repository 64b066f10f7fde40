"""How a leg is turned about its own length: drawn cut square, with its two sides' planes, as it is and as it could be."""

from functools import lru_cache

from fennup.core.drawing.board_views import sliced
from fennup.core.drawing.view import Dimension, Mark, Shape, View
from fennup.core.geometry.plane import plane_through
from fennup.core.geometry.vec import Vec, add, cross, dot, scale, sub, unit
from fennup.core.kinds.gauged import Paper
from fennup.core.kinds.stand.place import shell
from fennup.core.kinds.stand.sides import Flank, flanks_of, residual_deg, seam
from fennup.core.kinds.stand.spec import Roll, StandSpec
from fennup.core.parts.solid import Solid, solid_of

MUCH_DEG = 32.0  # a splay at which the ways to turn a leg can be told apart in a small picture


def roll_view(spec: StandSpec, leg: Solid) -> View:
    """The first leg cut square across, seen from its head, where its two sides' planes run, and how far the side that was
    not laid in one is out of it."""
    paper, corner = _paper(spec)
    return View("roll", *_drawn(spec, leg, paper, corner), _out_of_plane(spec, leg, paper, corner))


@lru_cache(maxsize=64)
def roll_picture(roll: Roll, legs: int | None) -> View:
    """One way to turn a leg, on a stand that is splayed so much that it shows; `legs` of a round one."""
    plan = (
        {"form": "round", "legs": legs, "top_side_mm": 1000.0, "lean_deg": MUCH_DEG}
        if legs
        else {
            "form": "four",
            "top_width_mm": 1000.0,
            "top_depth_mm": 1000.0,
            "front_splay_deg": MUCH_DEG,
            "side_splay_deg": MUCH_DEG,
        }
    )
    leg = {"width_mm": 40.0, "thickness_mm": 40.0}
    spec = StandSpec.model_validate({"kind": "stand", "plan": plan, "height_mm": 400.0, "leg": leg, "roll": roll})
    paper, corner = _paper(spec)
    return View("roll", *_drawn(spec, solid_of(shell(spec).boards[0]), paper, corner))


def _paper(spec: StandSpec) -> tuple[Paper, Vec]:
    """The paper square to where the first two sides meet, half way up, and that place."""
    a, b = flanks_of(spec)[:2]
    foot, head = seam(a, b, spec.height_mm)
    axis, middle = unit(sub(head, foot)), scale(add(foot, head), 0.5)
    right = unit(sub(a.along, scale(axis, dot(a.along, axis))))
    return Paper("roll", right, cross(axis, right)), middle


def _drawn(spec: StandSpec, leg: Solid, paper: Paper, corner: Vec) -> tuple[tuple[Shape, ...], tuple[Mark, ...]]:
    """The leg's section, and the two sides' planes as lines from their corner, lettered."""
    a, b = flanks_of(spec)[:2]
    axis = cross(paper.right, paper.up)
    shapes = list(sliced({leg.board.id: leg}, plane_through(corner, axis), paper.right, paper.up))
    reach = 1.35 * max(spec.leg.width_mm, spec.leg.thickness_mm)
    marks = []
    for flank, sense in ((a, -1.0), (b, 1.0)):
        inwards = _inwards(flank, axis, sense)
        far = add(corner, scale(inwards, reach))
        shapes.append(Shape("held", (paper.flat(add(corner, scale(inwards, -reach / 4))), paper.flat(far))))
        marks.append(Mark("letter", paper.flat(add(far, scale(flank.plane.normal, reach / 7))), flank.letter))
    return tuple(shapes), tuple(marks)


def _inwards(flank: Flank, axis: Vec, sense: float) -> Vec:
    """Along a side, square to the leg, away from the corner."""
    way = unit(cross(axis, flank.plane.normal))
    return way if dot(way, scale(flank.along, sense)) > 0 else scale(way, -1.0)


def _out_of_plane(spec: StandSpec, leg: Solid, paper: Paper, corner: Vec) -> tuple[Dimension, ...]:
    """The angle between the leg's outer edge and the plane of the side that it was not laid in."""
    if spec.roll != "in_plane":
        return ()
    flanks = flanks_of(spec)
    axis = cross(paper.right, paper.up)
    lines = [unit(cross(axis, normal)) for normal in (leg.board.side_in_world("lower").normal, flanks[1].plane.normal)]
    edge, plane = (paper.flat(line if dot(line, paper.up) > 0 else scale(line, -1.0)) for line in lines)
    first, second = (plane, edge) if plane[0] * edge[1] - plane[1] * edge[0] >= 0 else (edge, plane)
    about = paper.flat(corner)
    at = (about[0] + spec.leg.width_mm / 2, about[1] + spec.leg.thickness_mm / 2)
    value = residual_deg(leg.board, flanks, 0)
    return (Dimension("residual_angle", "residual_angle", first, second, value, "deg", "fixed", about=about, at=at),)

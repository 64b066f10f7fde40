"""Whether each assembly bears on what it stands on, and whether it would stand there by its own weight."""

from collections.abc import Iterable

from fennup.core.assembly.model import Finding
from fennup.core.geometry.polygon import beyond_hull
from fennup.core.geometry.polyhedron import Polyhedron, clip
from fennup.core.geometry.vec import Point2, Vec, add
from fennup.core.parts.solid import Solid
from fennup.core.project.spec import ProjectSpec

HAIR_MM = 0.02  # what stands is sunk in by so much: the wood that it then shares is where it bears


def bearing_findings(spec: ProjectSpec, solids: dict[str, list[Solid]]) -> list[Finding]:
    """What bears on nothing (`stands_on_air`), would fall over by its own weight and that of what stands on it
    (`tips_over`, by how far), or is held up by something else (`held_above`).

    What is laid on a sloping face is left out: whether it would slide nobody can tell from its shape. `solids`: every assembly's,
    where it stands.
    """
    found = []
    wood = {id: [piece for s in own if not s.board.found for piece in s.world] for id, own in solids.items()}
    weights = {id: _weight(pieces) for id, pieces in wood.items()}
    for id, member in spec.members.items():
        fixed = any(solid.board.found for solid in solids[id])
        if member.up_mm > 0:
            found.append(Finding("held_above", "note", (id,), value=member.up_mm))
        if member.up_mm != 0 or fixed or member.upon is not None:
            continue
        if member.on is None:
            footprint = _lowest(wood[id])
        else:
            footprint = _borne(wood[id], wood[member.on], -HAIR_MM)
            if not footprint:
                found.append(Finding("stands_on_air", "warning", (id, member.on)))
                continue
        over = beyond_hull(footprint, _middle(spec, id, weights))
        if over > 0 and over < float("inf"):
            found.append(Finding("tips_over", "warning", (id,), value=over))
        elif over > 0:
            found.append(Finding("tips_over", "warning", (id,)))
    return found


def _lowest(pieces: Iterable[Polyhedron]) -> list[Point2]:
    """Where the lowest wood touches the ground, seen from above."""
    points = [p for piece in pieces for p in piece.points]
    ground = min(p[2] for p in points) + HAIR_MM
    return [(p[0], p[1]) for p in points if p[2] < ground]


def _borne(upper: list[Polyhedron], lower: list[Polyhedron], lift: float) -> list[Point2]:
    """Where some wood, lifted, bears on other wood, seen from above."""
    found = []
    bottom = min(p[2] for piece in upper for p in piece.points) + lift
    near = [(piece, _over_ground(piece)) for piece in lower if max(p[2] for p in piece.points) > bottom]
    for piece in upper:
        if min(p[2] for p in piece.points) + lift > bottom + HAIR_MM:
            continue
        lifted = Polyhedron(tuple(add(p, (0.0, 0.0, lift)) for p in piece.points), piece.facets)
        (left, front), (right, back) = _over_ground(piece)
        for other, (low, high) in near:
            if left > high[0] or right < low[0] or front > high[1] or back < low[1]:
                continue
            if any(all(facet.plane.beyond(p) >= 0 for p in lifted.points) for facet in other.facets):
                continue
            common = lifted
            for facet in other.facets:
                common = clip(common, facet.plane, facet.name)
                if not common.points:
                    break
            found += [(p[0], p[1]) for p in common.points]
    return found


def _over_ground(piece: Polyhedron) -> tuple[Point2, Point2]:
    """The least and the greatest x and y of a piece."""
    xs, ys = [p[0] for p in piece.points], [p[1] for p in piece.points]
    return (min(xs), min(ys)), (max(xs), max(ys))


def _weight(pieces: list[Polyhedron]) -> tuple[float, Vec]:
    """The volume of some wood, and that times where its middle lies."""
    moment: Vec = (0.0, 0.0, 0.0)
    for piece in pieces:
        moment = add(moment, piece.moment())
    return sum(piece.volume() for piece in pieces), moment


def _middle(spec: ProjectSpec, id: str, weights: dict[str, tuple[float, Vec]]) -> Point2:
    """The middle of the weight of an assembly and of all that stands on it, seen from above; all wood weighs the same."""
    volume, moment = 0.0, (0.0, 0.0, 0.0)
    carried = {id}
    for above, other in spec.members.items():
        if other.on in carried:
            carried.add(above)
    for each in carried:
        volume += weights[each][0]
        moment = add(moment, weights[each][1])
    return (moment[0] / volume, moment[1] / volume)

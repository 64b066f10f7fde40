"""The finished parts as points and facets for a view that turns."""

from fennup.app.schemas.api import JointOut, PieceOut, SolidOut, SolidsOut
from fennup.core.drawing.board_views import looked_from
from fennup.core.geometry.vec import Vec, norm, scale, sub
from fennup.core.project.describe import stands
from fennup.core.solve import Solution


def solids_out(solution: Solution, version: int) -> SolidsOut:
    """Every part and every joint in the assembly's axes."""
    middles = {id: _middle([p for piece in solid.world for p in piece.points]) for id, solid in solution.design.solids.items()}
    centre = _middle(list(middles.values()))
    reach = max(norm(sub(m, centre)) for m in middles.values()) or 1.0
    return SolidsOut(
        version=version,
        stands=stands(solution.spec),
        turn=looked_from(solution.design.solids),
        solids=[
            SolidOut(
                id=board.id,
                name=board.name,
                pieces=[
                    PieceOut(points=list(p.points), facets=[list(f.loop) for f in p.facets])
                    for p in solution.design.solids[board.id].world
                ],
                push=scale(sub(middles[board.id], centre), 1.0 / reach),
                found=board.found,
            )
            for board in solution.design.assembly.boards
        ],
        joints=[
            JointOut(
                id=joint.id,
                closes=check.closes,
                outlines=[
                    list(patch.points)
                    for mating in (joint.a, joint.b)
                    if mating.facet not in ("upper", "lower")
                    for patch in solution.design.solids[mating.board].patches(mating.facet)
                ],
            )
            for joint, check in zip(solution.design.assembly.joints, solution.design.joints, strict=True)
        ],
    )


def _middle(points: list[Vec]) -> Vec:
    """The mean of some points."""
    count = len(points)
    return (sum(p[0] for p in points) / count, sum(p[1] for p in points) / count, sum(p[2] for p in points) / count)

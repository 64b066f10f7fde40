"""The faces that a piece can be put between, on every view, with what they are called."""

from fennup.app.schemas.api import FaceOut, FacesOut
from fennup.app.services.validate import from_core
from fennup.app.wording.figures import Voice
from fennup.app.wording.members import sides_of, whose
from fennup.core.errors import SpecError
from fennup.core.project.faces import Target, targets
from fennup.core.solve import Solution


def faces_out(solution: Solution, first: tuple[str, str] | None, voice: Voice) -> FacesOut:
    """Every face to begin on, or those that look at the first; Invalid when there is no such one."""
    try:
        found = targets(solution.design.solids, first)
    except SpecError as error:
        raise from_core(error, voice) from None

    def out(target: Target) -> FaceOut:
        owner = whose(solution, target.board)
        name = solution.design.assembly.board(target.board).name
        side = sides_of(solution, target.board)[target.side]
        label = f"{owner}: {name}, {side}" if owner else f"{name}, {side}"
        return FaceOut(board=target.board, side=target.side, label=label, outline=list(target.outline), at=target.at)

    return FacesOut(views={view: [out(target) for target in on] for view, on in found.items()})

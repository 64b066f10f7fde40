"""Where a number comes from: what it is measured from, and how it follows from what was given."""

from fennup.app.wording.figures import Voice
from fennup.app.wording.labels import label
from fennup.core.assembly.board import Board, End
from fennup.core.assembly.model import Joint
from fennup.core.parts.solid import arris_line, end_cut, extent_along
from fennup.core.solve import Solution


def given_lines(solution: Solution, voice: Voice) -> list[str]:
    """What was given, and that the finished solids measure it."""
    lines = []
    for check in solution.claims:
        if check.measured is None:
            continue
        asked, measured = (
            (voice.say_angle(v) if check.claim.unit == "deg" else voice.say(v)) for v in (check.claim.asked, check.measured)
        )
        words = label(check.claim.measure, solution.spec.sides)
        lines.append(f"Given: {words} {asked}. Measured on the finished parts: {measured}.")
    return lines or ["Given: the corners as they were dragged."]


def joint_at(solution: Solution, board: str, end: End) -> Joint | None:
    """The joint that an end belongs to; None for a loose end."""
    return next((j for j in solution.assembly.joints if (board, end) in j.ends), None)


def miter_lines(solution: Solution, board: Board, end: End, voice: Voice) -> list[str]:
    """Why an end is cut at its angle."""
    miter = end_cut(board.ends(end)[0]).miter_deg
    own = f"{voice.say_angle(abs(miter))} from square, on {board.name}."
    joint = joint_at(solution, board.id, end)
    if joint is None:
        loose = (
            "flat to the ground, the line that joins the two loose outer corners"
            if solution.spec.loose_ends == "ground"
            else "square"
        )
        return [f"This end is loose. It is cut {loose}.", f"Read off the finished part: {own}"]
    inside = solution.ruler.measure(f"outside_angle:{joint.id}")
    angle = voice.say_angle(inside) if inside is not None else "their angle"
    meet = f"At corner {joint.id} the rails meet at {angle} inside."
    other = next(id for id, _ in joint.ends if id != board.id)
    if joint.kind == "miter":
        theirs = solution.assembly.board(other)
        their_end: End = "left" if end == "right" else "right"
        their_miter = end_cut(theirs.ends(their_end)[0]).miter_deg
        split = (
            f"The joint runs from the inner corner to the outer corner. It turns {voice.say_angle(abs(miter))} of the corner's "
            f"{voice.say_angle(miter + their_miter)} into this rail and {voice.say_angle(abs(their_miter))} into {other}."
        )
        return [meet, split, f"Read off the finished part: {own}"]
    if joint.a.board == board.id:
        return [
            meet,
            f"{other} runs through; this end stands on its opening edge.",
            f"Read off the finished part: {own}",
        ]
    return [
        meet,
        f"This rail runs through and is cut flush along the outer edge of {other}.",
        f"Read off the finished part: {own}",
    ]


def edge_lines(solution: Solution, board: Board, voice: Voice) -> list[str]:
    """How the two long edges of a part follow from each other, as measured at each end."""
    upper = extent_along(board, *arris_line(board, "face_upper"))
    lower = extent_along(board, *arris_line(board, "face_lower"))
    lines = [f"Opening edge, tip to tip on the finished part: {voice.say(upper[1] - upper[0])}."]
    for end, added in (("left", upper[0] - lower[0]), ("right", lower[1] - upper[1])):
        miter = end_cut(board.ends("left" if end == "left" else "right")[0]).miter_deg
        word = "more" if added >= 0 else "less"
        lines.append(
            f"At the {end} end the outer edge reaches {voice.say(abs(added))} {word}: "
            f"{voice.say(board.section.width_mm)} across at {voice.say_angle(abs(miter))} "
            f"(width × tan {voice.say_angle(abs(miter))})."
        )
    lines.append(f"Outer edge: {voice.say(lower[1] - lower[0])}.")
    return lines

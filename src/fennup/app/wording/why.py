"""Where a number comes from: what it is measured from, and how it follows from what was given."""

from math import atan2, degrees

from fennup.app.wording.figures import Voice
from fennup.app.wording.labels import PART, label, naming_of
from fennup.app.wording.members import ROLES, end_word, own_spec, sides_of
from fennup.app.wording.names import in_sentence
from fennup.core.assembly.board import ENDS, Board, End
from fennup.core.assembly.model import Joint
from fennup.core.geometry.vec import Vec, cross, dot, norm
from fennup.core.parts.solid import arris_line, end_cut, extent_along
from fennup.core.solve import Solution
from fennup.core.tolerances import NOTHING


def given_lines(solution: Solution, voice: Voice, part: Board | None = None) -> list[str]:
    """What was given, and that the finished solids measure it; for a part of one of several assemblies, what was given there."""
    lines = []
    whose = part.id.partition("/")[0] if part and "/" in part.id else ""
    if part and not whose:
        return ["Given: the two faces, and the places on them where it begins and ends."]
    for check in solution.design.claims:
        if check.measured is None or not check.claim.measure.startswith(f"{whose}/" if whose else ""):
            continue
        asked, measured = (
            (voice.say_angle(v) if check.claim.unit == "deg" else voice.say(v)) for v in (check.claim.asked, check.measured)
        )
        words = label(check.claim.measure, naming_of(solution.spec))
        lines.append(f"Given: {words} {asked}. Measured on the finished parts: {measured}.")
    return lines or ["Given: the corners as they were dragged."]


def joint_at(solution: Solution, board: str, end: End) -> Joint | None:
    """The joint that an end belongs to; None for a loose end."""
    return next((j for j in solution.design.assembly.joints if (board, end) in j.ends), None)


def miter_lines(solution: Solution, board: Board, end: End, voice: Voice) -> list[str]:
    """Why an end is cut at its angle."""
    cut = end_cut(board.ends(end)[0])
    miter = cut.miter_deg
    tilt = "" if abs(cut.bevel_deg) < NOTHING else f", the blade tilted {voice.say_angle(abs(cut.bevel_deg))}"
    own = f"{voice.say_angle(abs(miter))} from square{tilt}, on {in_sentence(board.name)}."
    read = f"Read off the finished part: {own}"
    joint = joint_at(solution, board.id, end)
    if joint is None:
        return [_loose(solution, board, end), read]
    if len(joint.ends) == 1:
        stands_on = solution.design.assembly.board(joint.b.board).name
        return [f"This end stands on {in_sentence(stands_on)} and follows it.", read]
    other = next(id for id, _ in joint.ends if id != board.id)
    role, words = ROLES.get(board.role), sides_of(solution, board.id)
    word = (role.piece if role else "") or PART[own_spec(solution, board.id).kind]
    inside = 180.0 - _turn_deg(board.frame.x, solution.design.assembly.board(other).frame.x)
    corner = joint.id.rpartition("/")[2].split()[-1]
    meet = f"At {corner} the {word}s meet at {voice.say_angle(inside)} inside."
    leaning = abs(board.frame.z[2]) > NOTHING and abs(board.frame.x[2]) < NOTHING and abs(board.frame.y[2]) > NOTHING
    if leaning:
        meet = f"{meet} Seen from above, that is; leaning makes the cut compound."
    theirs = solution.design.assembly.board(other)
    named = in_sentence(theirs.name)
    if joint.kind == "miter":
        their_end: End = "left" if end == "right" else "right"
        their_miter = end_cut(theirs.ends(their_end)[0]).miter_deg
        split = (
            "The joint lies in the plane through the outer and the inner corner line, so that both faces cover each other."
            if abs(cut.bevel_deg) > NOTHING
            else f"The joint runs from the inner corner to the outer corner. It turns {voice.say_angle(abs(miter))} of the corner's "
            f"{voice.say_angle(miter + their_miter)} into this {word} and {voice.say_angle(abs(their_miter))} into {named}."
        )
        return [meet, split, read]
    if joint.a.board == board.id:
        return [meet, f"{named[:1].upper()}{named[1:]} runs through; this end stands on its {words[_side(joint.b.facet)]}.", read]
    flush = words["lower"] if _side(joint.b.facet) == "upper" else words["face"]
    return [meet, f"This {word} runs through and is cut flush along the {flush} of {named}.", read]


def _side(facet: str) -> str:
    return facet.partition(":")[0]


def _loose(solution: Solution, board: Board, end: End) -> str:
    """Why an end that meets nothing is cut as it is."""
    normal = board.frame.plane_to_world(board.ends(end)[0]).normal
    spec = own_spec(solution, board.id)
    if hasattr(spec, "loose_ends"):
        ground = "flat to the ground, the line that joins the two loose outer corners"
        return f"This end is loose. It is cut {ground if spec.loose_ends == 'ground' else 'square'}."
    if abs(normal[2]) > 1 - NOTHING:
        return "This end is cut level, however the board leans."
    if abs(normal[2]) < NOTHING:
        return "This end is cut plumb."
    return "This end follows the board that it meets."


def _turn_deg(a: Vec, b: Vec) -> float:
    """The angle between two directions."""
    return degrees(atan2(norm(cross(a, b)), dot(a, b)))


def edge_lines(board: Board, voice: Voice, words: dict[str, str], through: str = "") -> list[str]:
    """How the two long edges of a part's face follow from each other, as measured at each end; `through` to the back the
    `upper` or the `lower` one's corner there follows from that on the face."""
    (y_up, _), (y_low, _) = arris_line(board, "face_upper"), arris_line(board, "face_lower")
    upper = extent_along(board, *arris_line(board, "face_upper"))
    lower = extent_along(board, *arris_line(board, "face_lower"))
    long_first, short = words["lower"].capitalize(), words["upper"].capitalize()
    lines = [f"{short}, tip to tip on the finished part: {voice.say(upper[1] - upper[0])}."]
    for end, added in (("left", upper[0] - lower[0]), ("right", lower[1] - upper[1])):
        side: End = "left" if end == "left" else "right"
        miter = end_cut(board.ends(side)[0]).miter_deg
        word = "more" if added >= 0 else "less"
        lines.append(
            f"At the {end_word(board, side)} the {words['lower']} reaches {voice.say(abs(added))} {word}: "
            f"{voice.say(y_up - y_low)} across at {voice.say_angle(abs(miter))} "
            f"(width × tan {voice.say_angle(abs(miter))})."
        )
    lines.append(f"{long_first}: {voice.say(lower[1] - lower[0])}.")
    if through:
        on_face = upper if through == "upper" else lower
        behind = extent_along(board, *arris_line(board, "back_upper" if through == "upper" else "back_lower"))
        reaches = [
            f"{voice.say(abs(by))} {'more' if by >= 0 else 'less'} at the {end_word(board, ENDS[i])}"
            for i, by in enumerate((on_face[0] - behind[0], behind[1] - on_face[1]))
        ]
        thick = voice.say(board.section.thickness_mm)
        lines.append(f"Through the thickness, {thick}, its {words['back']} reaches {' and '.join(reaches)}.")
        lines.append(f"{words[through].capitalize()}, {words['back']}: {voice.say(behind[1] - behind[0])}.")
    return lines

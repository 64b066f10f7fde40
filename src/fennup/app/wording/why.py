"""Where a number comes from: what it is measured from, and how it follows from what was given."""

from math import atan2, degrees, pi, sin, tan

from fennup.app.wording.derivations import derivation_lines
from fennup.app.wording.figures import Voice
from fennup.app.wording.labels import PART, label, naming_of
from fennup.app.wording.members import ROLES, end_word, own_spec, sides_of
from fennup.app.wording.names import in_sentence
from fennup.core.assembly.board import ENDS, Board, End
from fennup.core.assembly.model import Claim, Joint
from fennup.core.geometry.vec import Vec, cross, dot, norm
from fennup.core.parts.derived import derived_cut
from fennup.core.parts.measures import measure_of
from fennup.core.parts.solid import ARRISES, arris_length, arris_line, end_cut, extent_along
from fennup.core.solve import Solution
from fennup.core.tolerances import NOTHING, SAME


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
        if part:
            lines += _from_across(solution, part, check.claim, voice)
    return lines or ["Given: the corners as they were dragged."]


def _from_across(solution: Solution, part: Board, claim: Claim, voice: Voice) -> list[str]:
    """How long a side is whose figure is so wide across, if one of the part's edges is as long."""
    quantity, sides = measure_of(claim.measure).quantity, getattr(own_spec(solution, part.id), "sides", 0)
    if quantity not in ("flats", "corners") or sides < 3 or part.panel:
        return []
    half = pi / sides
    side = claim.asked * (tan(half) if quantity == "flats" else sin(half))
    if all(abs(arris_length(part, arris) - side) > SAME for arris in ARRISES):
        return []
    how = "tan" if quantity == "flats" else "sin"
    return [f"{sides} sides: each is {voice.say(claim.asked)} × {how} (180° / {sides}) = {voice.say(side)}."]


def joint_at(solution: Solution, board: str, end: End) -> Joint | None:
    """The joint that an end belongs to; None for a loose end."""
    return next((j for j in solution.design.assembly.joints if (board, end) in j.ends), None)


def miter_lines(solution: Solution, board: Board, end: End, voice: Voice) -> list[str]:
    """Why an end is cut at its angles: what meets there, then how each of its cuts follows, where the solid measures the same."""
    joint = joint_at(solution, board.id, end)
    meet, other, word = _meeting(solution, board, end, joint, voice)
    lines = [meet]
    cuts = board.ends(end)
    for i in range(len(cuts)):
        found = derived_cut(solution.design.assembly, solution.design.solids[board.id], end, i, joint)
        if found:
            face = sides_of(solution, board.id)["face"]
            sides = getattr(own_spec(solution, board.id), "sides", 0)
            derived = derivation_lines(found, word, face, other, sides, voice)
            lines += [f"Cut {i + 1}: {derived[0][:1].lower()}{derived[0][1:]}"] if len(cuts) > 1 else derived
    return lines


def _meeting(solution: Solution, board: Board, end: End, joint: Joint | None, voice: Voice) -> tuple[str, str, str]:
    """What meets at an end, what the other board is called, and what one of the two is."""
    role = ROLES.get(board.role)
    spec = own_spec(solution, board.id)
    word = (role.piece if role else "") or (PART[spec.kind] if spec else "piece")
    if joint is None:
        return _loose(solution, board, end), "", word
    if len(joint.ends) == 1:
        named = in_sentence(solution.design.assembly.board(joint.b.board).name)
        return f"This end stands on {named} and follows it.", named, word
    theirs = solution.design.assembly.board(next(id for id, _ in joint.ends if id != board.id))
    named, words = in_sentence(theirs.name), sides_of(solution, board.id)
    if joint.kind == "miter":
        inside = 180.0 - _turn_deg(board.frame.x, theirs.frame.x)
        leans = abs(board.frame.z[2]) > NOTHING and abs(board.frame.x[2]) < NOTHING and abs(board.frame.y[2]) > NOTHING
        seen = " seen from above" if leans else ""
        return f"At this corner it meets {named} at {voice.say_angle(inside)} inside{seen}.", named, word
    if joint.a.board == board.id:
        return f"{named[:1].upper()}{named[1:]} runs through; this end stands on its {words[_side(joint.b.facet)]}.", named, word
    flush = words["lower"] if _side(joint.b.facet) == "upper" else words["face"]
    return f"This {word} runs through and is cut flush along the {flush} of {named}.", named, word


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

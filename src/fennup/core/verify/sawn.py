"""The simulated saw: it knows nothing but what the printed steps say. It lays the raw piece on the table, sets blade and stop to the readings,
cuts, keeps the side that is named, and turns the piece as it is told.

It shares nothing with what made the steps but planes and convex solids. Its input is the document of `./fennup cuts`, docs/formats.md.
"""

from collections.abc import Iterator, Mapping, Sequence
from math import asin, cos, degrees, radians, sin
from typing import Any

from fennup.core.geometry.plane import Plane, plane_through
from fennup.core.geometry.polyhedron import Facet, Polyhedron, clip
from fennup.core.geometry.vec import Vec, add, cross, distance, dot, scale

Read = Mapping[str, Any]
SIDES: dict[str, Vec] = {
    "face": (0.0, 0.0, 1.0), "back": (0.0, 0.0, -1.0), "upper": (0.0, 1.0, 0.0), "lower": (0.0, -1.0, 0.0),
}  # fmt: skip
Axes = tuple[Vec, Vec, Vec]
Pieces = list[Polyhedron]


def sawn_parts(document: Read) -> dict[str, list[Vec]]:
    """The corners of every part as the steps make it, by the part's key, x from its left tip, y and z from the middle of its raw section."""
    made = {}
    for part in document["parts"]:
        pieces, bare = _raw(part), _bare(part)
        for step in document["steps"]:
            if step["part"] != part["key"] or step.get("pattern"):
                continue
            if step.get("rip"):  # before anything is ploughed: fence and table are at the bare board
                plane = _rip(step, bare)
                pieces, bare = _kept(pieces, plane), _kept(bare, plane)
            else:
                pieces = _done(step, pieces, part)
        made[part["key"]] = list(_from_left_tip(pieces))
    return made


def farthest_mm(document: Read) -> dict[str, float]:
    """By how much the farthest corner of every part is off from where the part's own solid has it, mm; infinite where a step cannot be done."""
    sawn = sawn_parts(document)
    found = {}
    for part in document["parts"]:
        wanted = [tuple(p) for p in part["corners_mm"]]
        got = sawn[part["key"]]
        ways = ((wanted, got), (got, wanted))
        found[part["key"]] = max(
            (min((distance(a, b) for b in of), default=float("inf")) for these, of in ways for a in these), default=float("inf")
        )
    return found


def _raw(part: Read) -> Pieces:
    """The raw piece as the saw gets it: its section, as convex figures of wood, and its length."""
    return [_pushed_out(outline, part["raw_length_mm"]) for outline in part["section"]["wood_mm"]]


def _bare(part: Read) -> Pieces:
    """The same before anything is ploughed."""
    y, z = part["section"]["width_mm"] / 2, part["section"]["thickness_mm"] / 2
    return [_pushed_out(((-y, -z), (y, -z), (y, z), (-y, z)), part["raw_length_mm"])]


def _pushed_out(outline: Sequence[tuple[float, float]], long: float) -> Polyhedron:
    """A convex figure, anticlockwise seen from the right end, pushed out along x."""
    count = len(outline)
    corners = (*((0.0, y, z) for y, z in outline), *((long, y, z) for y, z in outline))
    ends = ((-1.0, 0.0, 0.0), tuple(range(count))[::-1]), ((1.0, 0.0, 0.0), tuple(range(count, 2 * count)))
    facets = [Facet("raw", plane_through(corners[loop[0]], normal), loop) for normal, loop in ends]
    for k in range(count):
        j = (k + 1) % count
        (y0, z0), (y1, z1) = outline[k], outline[j]
        facets.append(Facet("raw", plane_through(corners[k], (0.0, z1 - z0, y0 - y1)), (k, j, j + count, k + count)))
    return Polyhedron(corners, tuple(facets))


def _done(step: Read, pieces: Pieces, part: Read) -> Pieces:
    """The pieces after one step."""
    if step.get("notch"):
        return _notched(step["notch"], pieces)
    if step.get("pocket"):
        return _pocketed(step["pocket"], pieces, part["section"])
    if not step.get("pose"):
        return pieces  # nothing that takes a plane side off: holes, what is ploughed, what is made by hand without figures
    axes = _lying(step["pose"], step["tool"]["fence"])
    blade = _blade(
        _angle(step["scale"]["swing"], "right") + step["wedge_deg"],
        _angle(step["scale"]["tilt"], "left"),
        step["pose"]["kept"],
        axes,
    )
    if line := step.get("line"):
        return [p for piece in pieces if (p := clip(piece, _through(blade, _on_sheet(step, line, part)), "cut")).facets]
    return [p for piece in pieces if (p := clip(piece, _against_stop(step, blade, axes, pieces), "cut")).facets]


def _lying(pose: Read, fence: str) -> Axes:
    """The operator's axes, X right, Y away, Z up, in the piece's own, from which side is down and which one is at the fence; a piece that leans
    turns about its length."""
    down, at_fence = SIDES[pose["down"]], SIDES[pose["fence"]]
    up, away = scale(down, -1.0), at_fence if fence != "near" else scale(at_fence, -1.0)
    if lean := radians(pose["lean_deg"]):
        # Its top goes to the fence: so what was up is then a little away from it, in the piece's own axes.
        to_fence = at_fence
        up, to_fence = (
            add(scale(up, cos(lean)), scale(to_fence, -sin(lean))),
            add(scale(to_fence, cos(lean)), scale(up, sin(lean))),
        )
        away = to_fence if fence != "near" else scale(to_fence, -1.0)
    return cross(away, up), away, up


def _angle(scale_of: Read, plus: str) -> float:
    """The angle from square that a reading stands for, + to the side that counts as plus."""
    size = scale_of["reads_deg"] if scale_of["counts_from"] == "square" else 90.0 - scale_of["reads_deg"]
    return float(size if scale_of["to"] in (plus, "") else -size)


def _blade(swing: float, tilt: float, kept: str, axes: Axes) -> Vec:
    """The outward normal that the blade leaves on the kept piece. The blade stands along Y; a swing to the right turns its near end to the
    right about Z, a tilt to the left leans its top to the left about the line that it runs along."""
    s, t = radians(swing), radians(tilt)
    right_of_blade = (cos(t) * cos(s), cos(t) * sin(s), sin(t))
    out = right_of_blade if kept == "left" else scale(right_of_blade, -1.0)
    return add(add(scale(axes[0], out[0]), scale(axes[1], out[1])), scale(axes[2], out[2]))


def _through(normal: Vec, point: Vec) -> Plane:
    return plane_through(point, normal)


def _against_stop(step: Read, normal: Vec, axes: Axes, pieces: Pieces) -> Plane:
    """The piece lies on the table and at the fence, its other end at the stop."""
    right, away, up = axes
    points = [p for piece in pieces for p in piece.points]
    table = min(dot(up, p) for p in points)
    fence = (min if step["tool"]["fence"] == "near" else max)(dot(away, p) for p in points)
    left = step["pose"]["kept"] == "left"
    tip = (min if left else max)(dot(right, p) for p in points)
    at = tip + step["stop"]["distance_mm"] * (1.0 if left else -1.0)
    return _through(normal, add(add(scale(right, at), scale(away, fence)), scale(up, table)))


def _on_sheet(step: Read, line: Read, part: Read) -> Vec:
    """A place on the side that is down, from the blank's left end and lower edge."""
    section = part["section"]
    z = section["thickness_mm"] / 2 * (-1.0 if step["pose"]["down"] == "back" else 1.0)
    return (line["from_left_mm"], line["from_lower_mm"] - section["width_mm"] / 2, z)


def _rip(step: Read, pieces: Pieces) -> Plane:
    """Along the rip fence on the right: X to the fence, Z up, the piece between fence and blade is kept."""
    rip = step["rip"]
    to_fence, up = SIDES[rip["fence"]], scale(SIDES[rip["down"]], -1.0)
    points = [p for piece in pieces for p in piece.points]
    at = max(dot(to_fence, p) for p in points) - rip["fence_mm"]
    table = min(dot(up, p) for p in points)
    tilt = radians(_angle(step["scale"]["tilt"], "left"))
    # The blade's top leans to the left: the piece on its right ends in a face that looks to the left and down.
    normal = add(scale(to_fence, -cos(tilt)), scale(up, -sin(tilt)))
    return _through(normal, add(scale(to_fence, at), scale(up, table)))


def _kept(pieces: Pieces, plane: Plane) -> Pieces:
    return [p for piece in pieces if (p := clip(piece, plane, "rip")).facets]


def _notched(notch: Read, pieces: Pieces) -> Pieces:
    """Every wall is a cut that leaves the wood on its kept side; between them it goes, down to the depth."""
    axes = _lying({"down": notch["down"], "fence": notch["fence"], "lean_deg": 0.0}, "beyond")
    _, away, up = axes
    points = [p for piece in pieces for p in piece.points]
    table, fence = min(dot(up, p) for p in points), max(dot(away, p) for p in points)
    left = min(p[0] for p in points)
    inside: list[Plane] = []
    for wall in notch["walls"]:
        normal = _blade(wall["swing_deg"], wall["tilt_deg"], wall["kept"], axes)
        corner = add(scale(away, fence), scale(up, table))
        at = (left + wall["from_left_mm"], corner[1], corner[2])
        inside.append(_through(normal, at).flipped())
    if notch["deep_mm"] is not None:
        top = max(dot(up, p) for p in points) - notch["deep_mm"]
        inside.append(_through(scale(up, -1.0), scale(up, top)))
    return [left_over for piece in pieces for left_over in _outside(piece, inside)]


def _pocketed(pocket: Read, pieces: Pieces, section: Read) -> Pieces:
    """A groove that stops, worked from one side: its walls along the board, those where it ends, its floor."""
    left = min(p[0] for piece in pieces for p in piece.points)
    lower, deep = -section["width_mm"] / 2 + pocket["from_lower_mm"], section["thickness_mm"] / 2 - pocket["deep_mm"]
    inside = [Plane((0.0, -1.0, 0.0), -lower), Plane((0.0, 1.0, 0.0), lower + pocket["width_mm"])]
    if pocket["from_left_mm"] is not None:
        inside.append(Plane((-1.0, 0.0, 0.0), -(left + pocket["from_left_mm"])))
    if pocket["to_left_mm"] is not None:
        inside.append(Plane((1.0, 0.0, 0.0), left + pocket["to_left_mm"]))
    inside.append(Plane((0.0, 0.0, 1.0 if pocket["side"] == "back" else -1.0), -deep))
    return [left_over for piece in pieces for left_over in _outside(piece, inside)]


def _outside(piece: Polyhedron, inside: list[Plane]) -> Iterator[Polyhedron]:
    """What of a piece lies outside of where all the planes have wood: nothing is taken where the notch passes it by."""
    common = piece
    for plane in inside:
        common = clip(common, plane, "wall")
        if not common.facets:
            yield piece
            return
    rest = piece
    for plane in inside:
        beyond = clip(rest, plane.flipped(), "wall")
        if beyond.facets:
            yield beyond
        rest = clip(rest, plane, "wall")


def _from_left_tip(pieces: Pieces) -> Iterator[Vec]:
    left = min((p[0] for piece in pieces for p in piece.points), default=0.0)
    for piece in pieces:
        for x, y, z in piece.points:
            yield (x - left, y, z)


def lean_of(rest: Vec, down: str) -> float:
    """How far a piece that rests on a ripped edge leans out of upright, degrees, unsigned."""
    return degrees(asin(min(1.0, abs(dot(rest, SIDES["face"]))))) if down in ("upper", "lower") else 0.0

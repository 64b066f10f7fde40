"""Templates at true size: ends to wrap round a board, wedges, tapers, gussets and panels, the angle of a leaning box's corner, and a box to fold up.

Flat drawings in mm, y up; their lines lie where the solids have them.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from itertools import pairwise
from math import acos, atan2, cos, degrees, hypot, radians, sin
from typing import Literal

from fennup.core.assembly.board import ENDS, Board, End
from fennup.core.assembly.model import Assembly, Blank
from fennup.core.design import Design
from fennup.core.geometry.polygon import circle, hull
from fennup.core.geometry.vec import Point2, distance, dot
from fennup.core.parts.facts import PartFacts
from fennup.core.parts.solid import Arris, arris_line, face_sides
from fennup.core.saw.marking import crossing
from fennup.core.steps.jigs import wedge_for
from fennup.core.steps.step import Step
from fennup.core.tolerances import SAME

Ink = Literal["cut", "fold", "edge", "unseen"]
BEYOND_MM = 25.0
LEG_MM = 90.0
TAB_MM = 12.0
SHARED_EDGE = 1e-6


@dataclass(frozen=True)
class Line:
    """A run of points: what is cut by, what is folded, an edge of the sheet to cut out, or what lies underneath."""

    ink: Ink
    points: tuple[Point2, ...]
    closed: bool = False


@dataclass(frozen=True)
class Note:
    """Words at a place, by a code with what it is about; `turn_deg` anticlockwise."""

    code: str
    at: Point2
    turn_deg: float = 0.0


@dataclass(frozen=True)
class Template:
    """One flat drawing. `key`: the step or the thing that it is for; `sort`: end, wedge, outline, corner, model or blank; `part`: whose it is."""

    key: str
    sort: Literal["end", "wedge", "outline", "corner", "model", "blank", "pattern"]
    part: str
    lines: tuple[Line, ...]
    notes: tuple[Note, ...] = ()

    def box(self) -> tuple[Point2, Point2]:
        """The least and the greatest corner round all its lines."""
        points = [p for line in self.lines for p in line.points]
        xs, ys = [p[0] for p in points], [p[1] for p in points]
        return (min(xs), min(ys)), (max(xs), max(ys))


# Round the board, from the lower edge over the face and the upper edge to the back: the corners between.
ROUND: tuple[Arris, ...] = ("back_lower", "face_lower", "face_upper", "back_upper", "back_lower")
SIDES_ROUND = ("lower", "face", "upper", "back")


def end_template(facts: PartFacts, end: End) -> Template:
    """A strip to wrap round the board's end: every side of it, folded at the corners, with the line of every cut. x runs along the board, out of the end."""
    board = facts.board
    places = [arris_line(board, arris) for arris in ROUND]
    ups = [0.0]
    for (y0, z0), (y1, z1) in pairwise(places):
        ups.append(ups[-1] + hypot(y1 - y0, z1 - z0))
    side = 1.0 if end == "right" else -1.0
    traces = [[side * crossing(cut, place) for place in places] for cut in board.ends(end)]
    far = max(x for trace in traces for x in trace)
    # The strip begins where the innermost cut is, and a little before.
    low = min(x for trace in traces for x in trace) - BEYOND_MM - far
    lines = [Line("edge", ((low, ups[0]), (BEYOND_MM, ups[0]), (BEYOND_MM, ups[-1]), (low, ups[-1])), True)]
    lines += [Line("fold", ((low, up), (BEYOND_MM, up))) for up in ups[1:-1]]
    lines += [Line("cut", tuple((x - far, up) for x, up in zip(trace, ups, strict=True))) for trace in traces]
    notes = [Note(f"side:{name}", (low + 6.0, (a + b) / 2)) for name, (a, b) in zip(SIDES_ROUND, pairwise(ups), strict=True)]
    return Template(f"{facts.key} {end}", "end", facts.key, tuple(lines), tuple(notes))


def outline_template(facts: PartFacts) -> Template:
    """A panel's, a gusset's or a stave's face at true size; dashed, where its back is larger."""
    if facts.board.panel:
        face = tuple((a[0], a[1]) for _, (a, _), _ in face_sides(facts.solid))
    else:
        half = facts.board.section.thickness_mm / 2
        face = hull([(x, y) for piece in facts.solid.local for x, y, z in piece.points if abs(z - half) < SAME])
    back = hull([(x, y) for piece in facts.solid.local for x, y, _ in piece.points])
    lines = [Line("cut", face, True)]
    if any(min(hypot(x - u, y - v) for u, v in face) > SAME for x, y in back):
        lines.append(Line("unseen", back, True))
    middle = (sum(x for x, _ in face) / len(face), sum(y for _, y in face) / len(face))
    return Template(facts.key, "outline", facts.key, tuple(lines), (Note("part", middle),))


def wedge_template(key: str, part: str, angle_deg: float) -> Template:
    """A wedge for the fence."""
    wedge = wedge_for(angle_deg)
    points = ((0.0, 0.0), (wedge.long_mm, 0.0), (wedge.long_mm, wedge.thick_mm))
    return Template(
        key, "wedge", part, (Line("cut", points, True),), (Note("wedge", (wedge.long_mm * 0.62, wedge.thick_mm * 0.2)),)
    )


def corner_template(key: str, part: str, angle_deg: float) -> Template:
    """The angle between two walls' faces, to hold a gauge or a corner to: from inside and from outside."""
    angle = radians(angle_deg)
    tip = (LEG_MM * cos(angle), LEG_MM * sin(angle))
    return Template(
        key, "corner", part, (Line("cut", ((LEG_MM, 0.0), (0.0, 0.0), tip)),), (Note("corner", (LEG_MM * 0.3, LEG_MM * 0.2)),)
    )


def templates_of(design: Design, steps: tuple[Step, ...]) -> list[Template]:
    """Everything that a project's work can be marked by."""
    found: list[Template] = []
    for facts in design.facts:
        if facts.board.panel or facts.board.stave:
            found.append(outline_template(facts))
        else:
            found += [end_template(facts, end) for end in ENDS if facts.board.ends(end)]
    wedges: dict[float, Template] = {}
    for step in steps:
        for way in step.ways:
            chosen = step.way is not None and (step.way.id == way.id or bool(step.way.misses))
            if way.jig == "wedge" and chosen and not way.misses:
                wedges.setdefault(round(abs(way.wedge_deg), 6), wedge_template(f"wedge {step.key}", step.part, way.wedge_deg))
    found += wedges.values()
    return [*found, *_corners(design), *(blank_template(key, blank) for key, blank in blanks_of(design.assembly))]


def blanks_of(assembly: Assembly) -> list[tuple[str, Blank]]:
    """All that is cut of sheet, each by its key."""
    inside = [(f"{id}/{blank.id}", blank) for id, own in assembly.inside.items() for blank in own.blanks]
    return inside or [(blank.id, blank) for blank in assembly.blanks]


def blank_template(key: str, blank: Blank) -> Template:
    """Sheet at true size, laid flat."""
    lines = [Line("cut", blank.cut, True), *(Line("fold", fold) for fold in blank.folds)]
    lines += [Line("cut", circle(middle, wide), True) for middle, wide in blank.holes]
    middle = (sum(x for x, _ in blank.cut) / len(blank.cut), sum(y for _, y in blank.cut) / len(blank.cut))
    return Template(key, "blank", blank.name, tuple(lines), (Note("part", middle),))


def _corners(design: Design) -> Iterator[Template]:
    """The corners of walls that lean, each angle once: where the angle is not that which the plan has."""
    seen: set[float] = set()
    for joint in design.assembly.joints:
        a, b = (design.boards[mating.board] for mating in (joint.a, joint.b))
        if joint.kind not in ("miter", "butt") or len(joint.ends) != 2 or not (_leans(a) or _leans(b)):
            continue
        angle = 180.0 - degrees(_turn(a, b))
        if round(angle, 6) not in seen:
            seen.add(round(angle, 6))
            yield corner_template(f"corner {joint.id}", a.id, angle)


def _leans(board: Board) -> bool:
    return SAME < abs(board.frame.z[2]) < 1.0 - SAME


def _turn(a: Board, b: Board) -> float:
    return acos(max(-1.0, min(1.0, dot(a.frame.z, b.frame.z))))


def model_of(design: Design, scale: float) -> Template | None:
    """A box to fold up at 1 : scale: the walls' outsides side by side, edge to edge, with a tab to glue; None where they do not share their edges."""
    for ring in design.assembly.rings:
        upright = all(abs(dot(a, b)) < 1.0 - SAME for a, b in pairwise(design.boards[id].frame.z for id in ring.boards))
        if ring.closed and upright and (walls := _walls(design, ring.boards)):
            return _folded(ring.boards, walls, scale)
    return None


def _walls(design: Design, boards: tuple[str, ...]) -> list[tuple[Point2, ...]] | None:
    """Each wall's outside as (bottom left, bottom right, top right, top left), where every two share an edge."""
    found: list[tuple[Point2, ...]] = []
    for id in boards:
        board, solid = design.boards[id], design.solids[id]
        if board.panel or board.stave or len(board.left) != 1 or len(board.right) != 1 or len(solid.local) != 1:
            return None
        y0, y1 = (arris_line(board, arris) for arris in ("face_lower", "face_upper"))
        corners = [
            (crossing(cut, place), place[0])
            for cut, place in ((board.left[0], y0), (board.right[0], y0), (board.right[0], y1), (board.left[0], y1))
        ]
        found.append(tuple(corners))
    worlds = []
    for id, outline in zip(boards, found, strict=True):
        frame, half = design.boards[id].frame, design.boards[id].section.thickness_mm / 2
        worlds.append([frame.to_world((x, y, half)) for x, y in outline])
    for one, other in zip(worlds, [*worlds[1:], worlds[0]], strict=True):
        if distance(one[1], other[0]) > SHARED_EDGE or distance(one[2], other[3]) > SHARED_EDGE:
            return None
    return found


def _folded(boards: tuple[str, ...], walls: list[tuple[Point2, ...]], scale: float) -> Template:
    lines: list[Line] = []
    notes: list[Note] = []
    at, turn = (0.0, 0.0), 0.0
    for number, (id, wall) in enumerate(zip(boards, walls, strict=True)):
        (x0, y0), *_ = wall
        placed = []
        for x, y in wall:
            dx, dy = (x - x0) / scale, (y - y0) / scale
            placed.append((at[0] + dx * cos(turn) - dy * sin(turn), at[1] + dx * sin(turn) + dy * cos(turn)))
        lines.append(Line("edge", (placed[0], placed[1])))
        lines.append(Line("edge", (placed[3], placed[2])))
        lines.append(Line("edge" if number == 0 else "fold", (placed[0], placed[3])))
        middle = (sum(p[0] for p in placed) / 4, sum(p[1] for p in placed) / 4)
        notes.append(Note(f"board:{id}", middle, degrees(turn)))
        at = placed[1]
        following = walls[(number + 1) % len(walls)]
        # The next wall's left edge comes to lie on this one's right edge.
        mine = (placed[2][0] - placed[1][0], placed[2][1] - placed[1][1])
        its = (following[3][0] - following[0][0], following[3][1] - following[0][1])
        turn = _bearing(mine) - _bearing(its)
        last = placed
    (ax, ay), (bx, by) = last[1], last[2]
    long = hypot(bx - ax, by - ay)
    out = ((by - ay) / long * TAB_MM, -(bx - ax) / long * TAB_MM)
    inset = ((bx - ax) * 0.08, (by - ay) * 0.08)
    tab = ((ax, ay), (ax + out[0] + inset[0], ay + out[1] + inset[1]), (bx + out[0] - inset[0], by + out[1] - inset[1]), (bx, by))
    lines += [Line("fold", (last[1], last[2])), Line("edge", tab)]
    return Template(f"model 1:{scale:g}", "model", boards[0], tuple(lines), tuple(notes))


def _bearing(v: Point2) -> float:
    return atan2(v[1], v[0])

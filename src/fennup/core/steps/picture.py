"""The operator's picture of a step, drawn from the solids: seen from where one stands, the fence away, the board as it lies, the blade, what is kept
and what falls off, the stop. And the same from the front, where the blade's lean is seen, and from the right, where a board stands up."""

from dataclasses import dataclass, replace
from math import cos, radians, sin, tan

from fennup.core.assembly.board import End
from fennup.core.drawing.saw_views import round_from_up
from fennup.core.drawing.view import Dimension, Mark, Shape, View
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.polygon import hull
from fennup.core.geometry.polyhedron import Polyhedron, clip
from fennup.core.geometry.vec import Point2, Vec, dot
from fennup.core.parts.solid import arris_line
from fennup.core.saw.marking import crossing
from fennup.core.saw.tool import FencePlace
from fennup.core.saw.ways import Way
from fennup.core.steps.lengths import along_fence, as_it_lies, fence_line, pieces_so_far
from fennup.core.steps.step import Raw, Step
from fennup.core.tolerances import NOTHING, SAME

SEEN = 2.0  # how many widths of the board are shown on the kept side before it is broken off
LEAST_SEEN_MM = 170.0
WASTE_SEEN = 1.1
BREAK_MM = 8.0
SCANT = 0.25
CLOSE_SEEN, CLOSE_LEAST_MM, CLOSE_WASTE = 1.1, 84.0, 0.75  # the same where there is little room, as on a phone beside the saw


@dataclass(frozen=True)
class Said:
    """What stands on the picture: on the piece that is kept, on what falls off, at fence and stop, on the side that is up."""

    keep: str
    up: str = ""
    waste: str = "waste"
    fence: str = "fence"
    stop: str = "stop"
    tip: tuple[str, str] = ("long point, at the far edge", "long point, nearest to you")
    face_up: bool = False
    triangle_deg: float | None = None


@dataclass(frozen=True)
class _Scene:
    """A piece on the table in the operator's axes: the blade crosses the corner of fence and table at 0, 0, 0."""

    kept: tuple[Polyhedron, ...]
    waste: tuple[Polyhedron, ...]
    swing_deg: float
    tilt_deg: float
    kept_left: bool
    fence: FencePlace
    wedge_deg: float
    close: bool = False

    def seen(self, wide: float) -> float:
        """How much of the kept side is shown."""
        return max(CLOSE_SEEN * wide, CLOSE_LEAST_MM) if self.close else max(SEEN * wide, LEAST_SEEN_MM)

    def waste_seen(self, wide: float) -> float:
        """How much of what falls off is shown at most."""
        return CLOSE_WASTE * max(wide, CLOSE_LEAST_MM / 2) if self.close else WASTE_SEEN * max(wide, LEAST_SEEN_MM / 2)

    @property
    def side(self) -> float:
        """-1 where the kept piece lies left of the blade, else 1."""
        return -1.0 if self.kept_left else 1.0

    def box(self) -> tuple[Vec, Vec]:
        """Round all the wood."""
        points = [p for piece in (*self.kept, *self.waste) for p in piece.points]
        lows, highs = zip(*((min(v), max(v)) for v in zip(*points, strict=True)), strict=True)
        return lows, highs


def end_views(
    raw: Raw, step: Step, fence: FencePlace, made: dict[End, list[Plane]], said: Said, *, close: bool = False
) -> tuple[View, ...]:
    """A cut of an end: from above, from the front, and from the right where the board does not lie flat. `close`: less of the board, and no
    length in the picture, where there is little room."""
    scene = replace(_laid(raw, step, fence, made), close=close)
    assert step.way
    views = [_from_above(scene, raw, step, made, said), _from_front(scene)]
    profile = _profile(raw, step.way, fence)
    return tuple(views) if step.way.pose.stance == "flat" and not profile else (*views, _from_right(scene, profile))


def _profile(raw: Raw, way: Way, fence: FencePlace) -> tuple[Point2, ...]:
    """The end of a board that something is ploughed along, as it lies: across to the fence and up. None of a plain one, whose end has no hollows."""
    board = as_it_lies(raw, way).board
    if board.section.plain or board.rips:
        return ()
    (_, away, up), y0, z0 = fence_line(board, way, fence)
    return tuple((dot(away, (0.0, *p)) - y0, dot(up, (0.0, *p)) - z0) for p in board.section.outline)


def _laid(raw: Raw, step: Step, fence: FencePlace, made: dict[End, list[Plane]]) -> _Scene:
    way, cut = step.way, step.cut
    assert way and cut
    raw = as_it_lies(raw, way)
    axes, y0, z0 = fence_line(raw.board, way, fence)
    at = along_fence(cut, axes, y0, z0) if abs(dot(cut.normal, axes[0])) > SAME else 0.0

    def seen(piece: Polyhedron) -> Polyhedron:
        points = tuple((dot(axes[0], p) - at, dot(axes[1], p) - y0, dot(axes[2], p) - z0) for p in piece.points)
        return Polyhedron(points, piece.facets)

    pieces = pieces_so_far(raw, [*made["left"], *made["right"]])
    kept = tuple(seen(p) for piece in pieces if (p := clip(piece, cut, "cut")).facets)
    waste = tuple(seen(p) for piece in pieces if (p := clip(piece, cut.flipped(), "cut")).facets)
    return _Scene(kept, waste, way.swing_deg, way.tilt_deg, way.kept == "left", fence, way.wedge_deg)


def _outline(pieces: tuple[Polyhedron, ...], i: int, j: int) -> tuple[Point2, ...]:
    """The silhouette of some wood along one axis: it has no hollows."""
    return hull([(p[i], p[j]) for piece in pieces for p in piece.points])


def cut_off(outline: tuple[Point2, ...], at: float, side: float) -> tuple[Point2, ...]:
    """What of an outline lies on the blade's side of a line across."""
    made: list[Point2] = []
    for k, (x, y) in enumerate(outline):
        px, py = outline[k - 1]
        if (x - at) * side < 0 < (px - at) * side or (px - at) * side < 0 < (x - at) * side:
            part = (at - px) / (x - px)
            made.append((at, py + (y - py) * part))
        if (x - at) * side <= 0:
            made.append((x, y))
    return tuple(made)


def _from_above(scene: _Scene, raw: Raw, step: Step, made: dict[End, list[Plane]], said: Said) -> View:
    low, high = scene.box()
    wide = high[1] - low[1]
    side = scene.side
    kept, waste = _outline(scene.kept, 0, 1), _outline(scene.waste, 0, 1)
    seen = scene.seen(wide)
    tip = max(side * x for x, _ in kept)
    start = max(0.0, min(side * x for x, _ in kept))  # away from the blade where an earlier cut has taken the wood there
    broken = tip - start - seen if tip - start > seen * 1.3 else 0.0
    break_at = start + seen * 0.62
    near_part = cut_off(kept, side * break_at, side) if broken else kept
    shapes = [*_fences(scene, low, high, seen)]
    grain = (1.0, 0.0)
    shapes.append(Shape("wood", near_part, True, step.part, grain))
    if broken:
        far = cut_off(kept, side * (broken + break_at + BREAK_MM), -side)
        shapes.append(Shape("wood", tuple((x - side * broken, y) for x, y in far), True, step.part, grain))
    if waste:
        shapes.append(Shape("waste", cut_off(waste, -side * scene.waste_seen(wide), -side), True))
    stop_at = side * (tip - broken)
    if step.stop and step.work != "first_end" and scene.fence != "none":
        shapes.append(Shape("block", _block(stop_at, side, low[1], high[1]), True))
    swing = radians(scene.swing_deg)
    top_y, near_y = high[1] + wide * SCANT, low[1] - wide * SCANT * 2
    shapes.append(Shape("blade", ((-top_y * tan(swing), top_y), (-near_y * tan(swing), near_y))))
    marks = _marks(scene, step, said, near_part, waste, high)
    if scene.fence != "none":
        deep = wide * SCANT / 2 * (1.0 if scene.fence == "beyond" else -1.0)
        marks.append(Mark("name", (-side * (seen * 0.5 + wide * 0.1), deep), said.fence))
    if any(shape.role == "block" for shape in shapes):
        below = 0.42 if scene.close else 0.16  # where little room is, under the words of the long point
        marks.append(Mark("name", (stop_at + side * 4.0, low[1] - wide * below), said.stop))
    return View(
        "operator",
        tuple(shapes),
        tuple(marks),
        () if scene.close else _measured(scene, raw, step, made, stop_at, high if scene.fence != "near" else low),
    )


def _fences(scene: _Scene, low: Vec, high: Vec, seen: float) -> list[Shape]:
    """The fence, in two halves where the blade goes through; a wedge before it where the board lies against one."""
    if scene.fence == "none":
        return []
    wide = high[1] - low[1]
    deep = wide * SCANT * (1.0 if scene.fence == "beyond" else -1.0)
    gap, reach = max(10.0, wide * 0.12), seen + wide * 0.3
    halves = [((-reach, 0.0), (-gap, 0.0), (-gap, deep), (-reach, deep)), ((gap, 0.0), (reach, 0.0), (reach, deep), (gap, deep))]
    if abs(scene.wedge_deg) < NOTHING:
        return [Shape("fence", half, True) for half in halves]
    # The picture keeps the board level: with a jig it is the fence that lies turned, as the board lies on the jig.
    turn = radians(scene.wedge_deg if abs(scene.wedge_deg) < 60 else 0.0)
    turned = [
        tuple((x * cos(turn) + y * sin(turn), -x * sin(turn) + y * cos(turn) + reach * abs(sin(turn))) for x, y in half)
        for half in halves
    ]
    edge = reach * abs(sin(turn))
    jig = (
        (-reach, 0.0),
        (reach, 0.0),
        (reach * cos(turn), -reach * sin(turn) + edge),
        (-reach * cos(turn), reach * sin(turn) + edge),
    )
    return (
        [*(Shape("fence", half, True) for half in turned), Shape("jig", jig, True)]
        if turn
        else [Shape("fence", half, True) for half in halves]
    )


def _block(at: float, side: float, low: float, high: float) -> tuple[Point2, ...]:
    thick = (high - low) * 0.1 + 4.0
    return ((at, low), (at + side * thick, low), (at + side * thick, high), (at, high))


def _marks(scene: _Scene, step: Step, said: Said, kept: tuple[Point2, ...], waste: tuple[Point2, ...], high: Vec) -> list[Mark]:
    side, wide = scene.side, high[1] - scene.box()[0][1]
    middle = high[1] - wide / 2
    far = max(side * x for x, _ in kept)
    marks = [Mark("name", (side * far * 0.5, middle + wide * 0.14), said.keep)]
    if waste:
        spread = min(max(-side * x for x, _ in waste), scene.waste_seen(wide))
        place = spread * 0.6 if spread > wide * 0.4 else spread + wide * 0.16  # beside it where there is no room on it
        up = 0.14 if spread > wide * 0.4 else -0.24
        marks.append(Mark("name", (-side * place, middle + wide * up), said.waste))
    if said.up:
        marks.append(Mark("name", (side * far * 0.33, middle - wide * 0.27), said.up))
    tips = [(p[0], p[1]) for piece in scene.kept for p in piece.points]
    reach = max(-side * x for x, _ in tips)
    points = [(x, y) for x, y in tips if -side * x > reach - SAME]
    ys = [y for _, y in points]
    if max(ys) - min(ys) < SAME:  # a line across is no long point
        tip = points[0]
        nearest = abs(tip[1] - high[1]) > wide / 2
        marks.append(Mark("long_point", tip))
        # At the fence the words stand on the waste's side, where nothing else is.
        words = (
            (tip[0] + side * wide * 0.5, tip[1] - wide * 0.16) if nearest else (tip[0] - side * wide * 0.75, tip[1] - wide * 0.14)
        )
        marks.append(Mark("name", words, said.tip[nearest]))
    if said.triangle_deg is not None:
        marks.append(Mark("triangle", (side * far * 0.72, middle - wide * 0.24), turn_deg=said.triangle_deg))
    if said.face_up:
        marks.append(Mark("face_mark", (side * far * 0.28, middle - wide * 0.24)))
    return marks


def _measured(
    scene: _Scene, raw: Raw, step: Step, made: dict[End, list[Plane]], stop_at: float, fence_edge: Vec
) -> tuple[Dimension, ...]:
    """From the stop to the blade along the fence; of an end's first cut nothing, of its others the distance from what is cut there already."""
    up = 1.0 if scene.fence != "near" else -1.0
    if step.stop and step.stop.touches == "made_end" and step.work != "first_end" and scene.fence != "none":
        return (
            Dimension(
                "stop", "stop_distance", (stop_at, 0.0), (0.0, 0.0), step.stop.distance_mm, "mm", "derived", (0.0, up), 3.6
            ),
        )
    mark = step.marking
    if mark and mark.arris and step.way and step.cut:
        y, z = arris_line(raw.board, mark.arris)
        axes, y0, z0 = fence_line(raw.board, step.way, scene.fence)
        at = along_fence(step.cut, axes, y0, z0)
        places = []
        for plane in (mark.datum, step.cut):
            p = (crossing(plane, (y, z)), y, z)
            places.append((dot(axes[0], p) - at, dot(axes[1], p) - y0))
        return (Dimension("mark", "mark_distance", places[0], places[1], mark.length_mm, "mm", "derived", (0.0, -up), 1.0),)
    return ()


def _from_front(scene: _Scene) -> View:
    """The board's height round the blade, seen from where one stands, and the blade as it leans."""
    _, high = scene.box()
    tall, span = high[2], max(1.3 * high[2], 26.0)
    lean = tan(radians(scene.tilt_deg))
    side = scene.side
    kept: tuple[Point2, ...] = ((side * span, 0.0), (0.0, 0.0), (-tall * lean, tall), (side * span, tall))
    waste: tuple[Point2, ...] = ((-side * span, 0.0), (0.0, 0.0), (-tall * lean, tall), (-side * span, tall))
    blade_top = round_from_up(scene.tilt_deg, max(tall * 1.7, 44.0))
    shapes = (
        Shape(
            "table",
            ((-span * 1.2, -tall * 0.16 - 2), (span * 1.2, -tall * 0.16 - 2), (span * 1.2, 0.0), (-span * 1.2, 0.0)),
            True,
        ),
        Shape("wood", kept, True, None, (1.0, 0.0)),
        Shape("waste", waste, True),
        Shape("arc", ((0.0, 0.0), (0.0, max(tall * 1.7, 44.0)))),
        Shape("blade", ((0.0, 0.0), blade_top)),
    )
    return View("saw_front_step", shapes)


def _from_right(scene: _Scene, profile: tuple[Point2, ...]) -> View:
    """The board's section as it lies or stands at the fence."""
    low, high = scene.box()
    wide, tall = max(high[1] - low[1], 20.0), high[2]
    section = profile or _outline(scene.kept, 1, 2)
    back = 1.0 if scene.fence == "beyond" else -1.0
    shapes = [
        Shape("table", ((low[1] - wide, -6.0), (high[1] + wide, -6.0), (high[1] + wide, 0.0), (low[1] - wide, 0.0)), True),
        Shape("wood", section, True, None, (1.0, 0.0)),
    ]
    if scene.fence != "none":
        shapes.insert(1, Shape("fence", ((0.0, 0.0), (back * 10.0, 0.0), (back * 10.0, tall * 0.8), (0.0, tall * 0.8)), True))
    return View("saw_right_step", tuple(shapes))


def rip_views(raw: Raw, step: Step, said: Said) -> tuple[View, ...]:
    """A rip: from above with the fence on the right, and from the front."""
    rip, cut, board = step.rip, step.cut, raw.board
    assert rip and cut
    to_fence = 1.0 if rip.fence == "upper" else -1.0
    up = 1.0 if rip.down == "back" else -1.0
    half_y, half_z = board.section.width_mm / 2, board.section.thickness_mm / 2
    wide, thick = board.section.width_mm, board.section.thickness_mm

    def at(z: float) -> float:
        """Where the blade stands across the board, from the fence, at a height in the board's axes."""
        return to_fence * (cut.offset - cut.normal[2] * z) / cut.normal[1] - half_y

    bottom, top = at(-up * half_z), at(up * half_z)
    long = max(wide * 1.4, 150.0)
    kept: tuple[Point2, ...] = ((top, 0.0), (0.0, 0.0), (0.0, long), (top, long))
    waste: tuple[Point2, ...] = ((-wide, 0.0), (top, 0.0), (top, long), (-wide, long))
    fence: tuple[Point2, ...] = ((0.0, -20.0), (wide * 0.18, -20.0), (wide * 0.18, long + 20.0), (0.0, long + 20.0))
    above = View(
        "operator",
        (
            Shape("fence", fence, True),
            Shape("wood", kept, True, step.part, (0.0, 1.0)),
            Shape("waste", waste, True),
            Shape("blade", ((bottom, -30.0), (bottom, long + 20.0))),
        ),
        (Mark("name", (top / 2, long / 2), said.keep), *((Mark("face_mark", (top / 2, long * 0.25)),) if said.face_up else ())),
        (Dimension("stop", "rip_distance", (bottom, long), (0.0, long), rip.fence_mm, "mm", "derived", (0.0, 1.0), 1.6),),
    )
    return above, _leaning_rip(rip.tilt_deg, thick, bottom, -wide)


def _leaning_rip(tilt_deg: float, thick: float, fence: float, far: float) -> View:
    """The blade at the board's edge, seen from the front; the wood on both sides only as far as one looks."""
    lean, span = thick * tan(radians(tilt_deg)), thick * 2.2
    way = round_from_up(tilt_deg, thick * 1.8)
    kept, waste = min(-fence, span), min(fence - far + abs(lean) + 1.0, span)
    shapes = (
        Shape("table", ((-span * 1.2, -thick * 0.3), (span * 1.2, -thick * 0.3), (span * 1.2, 0.0), (-span * 1.2, 0.0)), True),
        Shape("wood", ((0.0, 0.0), (kept, 0.0), (kept, thick), (-lean, thick)), True, None, (1.0, 0.0)),
        Shape("waste", ((-waste, 0.0), (0.0, 0.0), (-lean, thick), (-waste, thick)), True),
        Shape("arc", ((0.0, 0.0), (0.0, thick * 1.8))),
        Shape("blade", ((0.0, 0.0), way)),
    )
    return View("saw_front_step", shapes)


def line_views(raw: Raw, step: Step, said: Said) -> tuple[View, ...]:
    """A line over a sheet or a stave: seen from above, as it lies, with the finished outline on it."""
    way, cut = step.way, step.cut
    assert way and cut
    scene = _laid(raw, step, "none", {"left": [], "right": []})
    kept, waste = _outline(scene.kept, 0, 1), _outline(scene.waste, 0, 1)
    low, high = scene.box()
    middle = ((low[0] + high[0]) / 2, (low[1] + high[1]) / 2)
    shapes = [Shape("wood", kept, True, step.part, (1.0, 0.0) if not raw.board.stave else (0.0, 1.0))]
    if waste:
        shapes.append(Shape("waste", waste, True))
    both = [p for p in kept if any(abs(p[0] - q[0]) + abs(p[1] - q[1]) < SAME for q in waste)]
    if len(both) > 1:
        shapes.append(Shape("blade", (both[0], both[-1])))
    return View("operator", tuple(shapes), (Mark("name", middle, said.keep),)), _from_front(scene)

"""What readings mean: is it right, and if not which way it is out, what is held, what is moved and by how much."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from math import atan, degrees, radians, sin
from typing import Literal

from fennup.core.assembly.board import Board
from fennup.core.bench.task import Check, Misread, Slip, slips_of
from fennup.core.design import Design
from fennup.core.fit.feet import Trim, firm_ways
from fennup.core.fit.polygon import Figure, held_on, impossible_by, opened_by, out_of_square, shape_of
from fennup.core.fit.reading import Expected, Sheet
from fennup.core.geometry.vec import Vec, cross, sub, unit
from fennup.core.records.entry import Verdict
from fennup.core.tolerances import NOTHING, SAME

FAR_TIMES, FAR_MM, FAR_DEG = 8.0, 12.0, 8.0  # farther out than that it was misread rather than made so
IMPOSSIBLE_MM = 3.0  # what the readings of one figure may miss every shape by before one of them must be wrong
HUNDREDFOLD = 20.0
SLIP_SHARE = 0.004  # of a length: as near as a misread figure must come to the expected one

Sides = Mapping[tuple[int, int], float]  # sides that were read, by their corners

Way = Literal[
    "right", "near", "over", "under", "out_of_square", "out_of_shape", "equal_wrong", "no_shape", "unit", "slip", "rocks", "stands",
    "open_corner", "tight_corner", "leans", "not_level", "wind", "apart_more", "apart_less", "gap",
]  # fmt: skip


@dataclass(frozen=True)
class Move:
    """What is to be done: `held` stays, `moved` goes by so much in a direction (of the assembly's axes, or `out` or `in` of a figure). Corners and sides by name."""

    held: str
    moved: tuple[str, ...]
    by_mm: float
    way: Vec


@dataclass(frozen=True)
class Told:
    """A verdict on one reading, or on several of one figure. `off`: by how much it is out, in its unit; `figures`: what else the words need."""

    keys: tuple[str, ...]
    way: Way
    verdict: Verdict
    off: float = 0.0
    figures: Mapping[str, float] = field(default_factory=dict)
    moves: tuple[Move, ...] = ()
    trims: tuple[Trim, ...] = ()
    slip: Slip | None = None
    value: float = 0.0


def verdicts(design: Design, sheet: Sheet, read: Mapping[str, float], graduation_mm: float, allowance_mm: float) -> list[Told]:
    """What all readings mean, those of one figure together. Readings of what is not there are passed over."""
    known = {key: value for key, value in read.items() if key in sheet.by_key}
    told: list[Told] = []
    together: set[str] = set()
    for figure in sheet.figures.values():
        own = {
            key: value
            for key, value in known.items()
            if sheet.by_key[key].figure == figure.id and _is_diagonal(sheet.by_key[key])
        }
        sides = {e.pair: known[key] for key in known if (e := sheet.by_key[key]).figure == figure.id and e.kind == "feet_side"}
        misread = {} if _one_shape(sheet, figure, own, sides, graduation_mm) else _misreadings(sheet, own)
        told += misread.values()
        sound = {key: value for key, value in own.items() if key not in misread}
        together |= set(own)
        if sound:
            told.append(_of_figure(sheet, figure, sound, sides, graduation_mm))
    for key, value in known.items():
        if key not in together:
            told.append(
                _misread(sheet.by_key[key], value) or _alone(design, sheet, sheet.by_key[key], value, graduation_mm, allowance_mm)
            )
    return told


def _misreadings(sheet: Sheet, read: Mapping[str, float]) -> dict[str, Told]:
    return {key: slip for key, value in read.items() if (slip := _misread(sheet.by_key[key], value))}


def _one_shape(sheet: Sheet, figure: Figure, read: Mapping[str, float], sides: Sides, graduation_mm: float) -> bool:
    """Whether several readings of a figure fit one shape of its sides: then none was misread, however far out they are."""
    pairs = {sheet.by_key[key].pair: value for key, value in read.items()}
    if len(pairs) < 2 or any(impossible_by(figure, pair, value, sides) > 0 for pair, value in pairs.items()):
        return False
    return shape_of(figure, {**sides, **pairs}).missed_mm <= max(IMPOSSIBLE_MM, graduation_mm)


def _is_diagonal(expected: Expected) -> bool:
    return expected.kind in ("diagonal", "crosswise", "feet_diagonal")


def near_of(expected: Expected, graduation_mm: float) -> float:
    """How far off still does not matter: never less than the tape can tell."""
    return max(expected.near, graduation_mm / 2) if expected.unit == "mm" else expected.near


def verdict_on(expected: Expected, value: float, graduation_mm: float) -> Verdict:
    """Whether a single reading is right, near enough, or wrong."""
    near = near_of(expected, graduation_mm)
    off = abs(value - expected.value)
    return (
        "right"
        if off <= max(expected.right, graduation_mm / 2 if expected.unit == "mm" else 0.0)
        else "near"
        if off <= near
        else "wrong"
    )


def _misread(expected: Expected, value: float) -> Told | None:
    """Whether a reading is far out and would be right with another unit, another foot or inch, or the other angle."""
    off = value - expected.value
    far = max(FAR_TIMES * expected.near, FAR_MM if expected.unit == "mm" else FAR_DEG)
    if abs(off) <= far or expected.value <= SAME:
        if expected.unit == "mm" and expected.value <= SAME and abs(off) > HUNDREDFOLD:
            return Told((expected.key,), "unit", "wrong", off, value=value)
        return None
    what: Literal["length", "face"] = "length" if expected.unit == "mm" else "face"
    check = Check(what, expected.value, expected.unit, expected.right, expected.near, far, 1.0)
    found = [slip for slip in slips_of(check) if abs(slip.value - value) <= max(expected.near, SLIP_SHARE * slip.value)]
    best: Misread | None = min(found, key=lambda slip: abs(slip.value - value), default=None)
    if best:
        return Told((expected.key,), "slip", "wrong", off, slip=best.slip, value=value)
    if not 1 / HUNDREDFOLD < value / expected.value < HUNDREDFOLD:
        return Told((expected.key,), "unit", "wrong", off, value=value)
    return None


def _of_figure(sheet: Sheet, figure: Figure, read: dict[str, float], sides: Sides, graduation_mm: float) -> Told:
    keys = tuple(read)
    beyond = {key: impossible_by(figure, sheet.by_key[key].pair, value, sides) for key, value in read.items()}
    if max(beyond.values()) > max(graduation_mm, SAME):
        most = max(beyond, key=lambda key: beyond[key])
        return _no_shape(keys, most, read, beyond[most], impossible=True)
    all_ = [sheet.by_key[key] for key in keys]
    offs = [read[e.key] - e.value for e in all_]
    worst = max(range(len(offs)), key=lambda k: abs(offs[k]))
    verdict = max((verdict_on(e, read[e.key], graduation_mm) for e in all_), key=("right", "near", "wrong").index)
    if verdict == "right" or (verdict == "near" and len(figure.corners) != 4):
        return Told(keys, verdict, verdict, offs[worst], value=read[keys[worst]])
    alike = (
        len(offs) > 1
        and max(offs) - min(offs) <= max(graduation_mm, abs(offs[worst]) / 4)
        and min(map(abs, offs)) > graduation_mm / 2
    )
    if alike and len({round(e.value, 3) for e in all_}) < len(all_):
        mean = sum(offs) / len(offs)
        return Told(keys, "equal_wrong", verdict, mean, _sides_for(figure, all_[0], mean), value=read[keys[0]])
    shape = shape_of(figure, {**sides, **{e.pair: read[e.key] for e in all_}})
    if shape.missed_mm > max(IMPOSSIBLE_MM, graduation_mm):
        suspect = _suspect(figure, all_, read, sides)
        return _no_shape(keys, suspect.key, read, _missed_by_others(figure, all_, suspect, read, sides))
    turned = max(abs(t) for t in shape.turned_deg)
    figures = {"turned_deg": turned, "opens_mm": opened_by(figure.joint_mm, turned)}
    n = len(figure.corners)
    if n == 4:
        held = _rightmost(figure)
        moves = held_on(figure, shape, held)
        moved = (held + 2) % 4
        by = (moves[moved] + moves[(moved + 1) % 4]) / 2
        if figure.is_right and len(all_) == 2:
            a, b = figure.planned(0, 1), figure.planned(1, 2)
            figures["turned_deg"] = abs(out_of_square(a, b, read[keys[0]], read[keys[1]]))
        size = float((by @ by) ** 0.5)
        way = figure.in_space(by / size) if size > NOTHING else (0.0, 0.0, 0.0)
        return Told(
            keys, "out_of_square", verdict, offs[worst], figures, (Move(figure.sides[held], (figure.sides[moved],), size, way),)
        )
    held = next(k for k in range(n) if k != figure.open_side)
    by_corner = held_on(figure, shape, held)
    sizes = [float((m @ m) ** 0.5) for m in by_corner]
    k = max(range(n), key=lambda i: sizes[i])
    way = figure.in_space(by_corner[k] / sizes[k]) if sizes[k] > NOTHING else (0.0, 0.0, 0.0)
    return Told(
        keys, "out_of_shape", "wrong", offs[worst], figures, (Move(figure.sides[held], (figure.corners[k].name,), sizes[k], way),)
    )


def _no_shape(keys: tuple[str, ...], suspect: str, read: Mapping[str, float], off: float, *, impossible: bool = False) -> Told:
    """No figure of these sides has such readings: the one that was most likely misread first, with how far it is past what can be, or from what the others make it."""
    ordered = (suspect, *(key for key in keys if key != suspect))
    return Told(ordered, "no_shape", "wrong", off, {"impossible": float(impossible)}, value=read[suspect])


def _missed_by_others(figure: Figure, all_: list[Expected], one: Expected, read: Mapping[str, float], sides: Sides) -> float:
    """How far a reading is from what the other ones make it."""
    shape = shape_of(figure, {**sides, **{e.pair: read[e.key] for e in all_ if e is not one}})
    i, j = one.pair
    return read[one.key] - float(((shape.corners[i] - shape.corners[j]) ** 2).sum() ** 0.5)


def _suspect(figure: Figure, all_: list[Expected], read: Mapping[str, float], sides: Sides) -> Expected:
    """The reading without which the others fit best; of those that are alike in that the farthest from what is planned."""

    def without(one: Expected) -> tuple[float, float]:
        shape = shape_of(figure, {**sides, **{e.pair: read[e.key] for e in all_ if e is not one}})
        return round(shape.missed_mm, 3), -abs(read[one.key] - one.value)

    return min(all_, key=without)


def _sides_for(figure: Figure, expected: Expected, off: float) -> dict[str, float]:
    """By how much the sides would have to be longer for equal diagonals that are both out: one pair of a rectangle, or all of them alike."""
    if len(figure.corners) != 4:
        return {"all_mm": off * figure.planned(0, 1) / expected.value}
    one, other = figure.planned(0, 1), figure.planned(1, 2)
    return {"one_mm": off * expected.value / one, "other_mm": off * expected.value / other}


def _rightmost(figure: Figure) -> int:
    """The side that is held: the one farthest to the right, of walls seen from outside the lowest."""
    middles = [tuple((figure.corners[k].at[i] + figure.corners[(k + 1) % 4].at[i]) / 2 for i in range(3)) for k in range(4)]
    x, y = figure.axes
    level = abs(cross(x, y)[2]) > 0.5
    return max(range(4), key=lambda k: (round(middles[k][0] if level else -middles[k][2], 6), -k))


def _alone(design: Design, sheet: Sheet, e: Expected, value: float, graduation_mm: float, allowance_mm: float) -> Told:
    off, verdict = value - e.value, verdict_on(e, value, graduation_mm)
    keys = (e.key,)
    if e.kind == "rock":
        ways = firm_ways(sheet.feet[e.figure], e.boards[0], value) if value > SAME else ()
        return Told(
            keys,
            "stands" if verdict != "wrong" else "rocks",
            verdict,
            value,
            trims=ways if verdict != "right" else (),
            value=value,
        )
    if verdict != "wrong":
        return Told(keys, verdict, verdict, off, value=value)
    if e.kind == "corner":
        figures = {"each_deg": abs(off) / 2, "opens_mm": opened_by(_wide(e, allowance_mm), off)}
        return Told(keys, "open_corner" if off > 0 else "tight_corner", verdict, off, figures, value=value)
    if e.kind in ("lean", "plumb", "level"):
        board = design.boards[e.names[0]]
        low, high = design.solids[board.id].extent_x()
        long = board.section.width_mm if e.names[1] == "face" else high - low
        return Told(
            keys,
            "not_level" if e.kind == "level" else "leans",
            verdict,
            off,
            {"at_end_mm": abs(long * sin(radians(off)))},
            value=value,
        )
    if e.kind == "flat":
        return Told(keys, "wind", verdict, off, value=value)
    if e.kind == "spacing":
        moved = design.boards[e.boards[1]]
        way = unit(tuple(b - a for a, b in zip(e.a, e.b, strict=True)))  # type: ignore[arg-type]
        move = Move(e.boards[0], (moved.id,), abs(off), way if off < 0 else tuple(-v for v in way))  # type: ignore[arg-type]
        return Told(
            keys, "apart_more" if off > 0 else "apart_less", verdict, off, _parallel(e, off, moved, design), (move,), value=value
        )
    if e.kind in ("feet_side", "apart"):
        along = unit(sub(e.a, e.b) if off > 0 else sub(e.b, e.a))
        return Told(
            keys,
            "over" if off > 0 else "under",
            verdict,
            off,
            {},
            (Move(e.boards[0], (e.boards[1],), abs(off), along),),
            value=value,
        )
    return Told(keys, "gap" if e.kind == "gap" else "over" if off > 0 else "under", verdict, off, value=value)


def _wide(e: Expected, allowance_mm: float) -> float:
    """The joint's reach from which an angle's allowance was made."""
    return allowance_mm / radians(e.near)


def _parallel(e: Expected, off: float, moved: Board, design: Design) -> dict[str, float]:
    """By how much a board that stands would lean if only this end of it were out."""
    low, high = design.solids[moved.id].extent_x()
    return {"lean_deg": degrees(atan(abs(off) / (high - low)))} if e.names[2] in ("top", "bottom") else {}

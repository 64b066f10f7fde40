"""From corners and pins to an outline: the nearest one that keeps every pin that can be kept."""

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fennup.core.errors import SpecError
from fennup.core.kinds.flat_frame.spec import CornerPin, FlatFrameSpec, Irregular, SidePin

Corners = NDArray[np.float64]
KEPT = 1e-9
ROUNDS = 60


@dataclass(frozen=True)
class PinnedOutline:
    """`sides_mm` and `turns_deg` (outside angle at each side's end) as pinned or as they follow, and the solved corners.

    `misfits` are indices of pins that disagree with earlier ones; `spare` of those that only repeat what follows
    anyway; `free` is how many more independent pins would fix the shape.
    """

    corners: tuple[tuple[float, float], ...]
    sides_mm: tuple[float, ...]
    turns_deg: tuple[float, ...]
    misfits: tuple[int, ...]
    spare: tuple[int, ...]
    free: int


def pinned_outline(spec: FlatFrameSpec, shape: Irregular) -> PinnedOutline:
    """Newton's method with least steps from the corners given (so the nearest shape), pin after pin.

    A pin is independent when its gradient is not in the span of the earlier ones. SpecError `pin_impossible` when
    an independent pin cannot be met, `reflex` when a corner is not convex.
    """
    corners: Corners = np.array(shape.corners, dtype=float)
    _check_convex(corners, spec)
    kept: list[int] = []
    doubtful: list[int] = []
    basis: list[NDArray[np.float64]] = []
    for index, pin in enumerate(shape.pins):
        gradient = _gradient(corners, spec, pin)
        rest = gradient - sum((np.dot(b, gradient) * b for b in basis), np.zeros_like(gradient))
        if np.linalg.norm(rest) < 1e-7 * np.linalg.norm(gradient):
            doubtful.append(index)
            continue
        kept.append(index)
        corners = _satisfy(corners, spec, shape, kept)
        basis = _span([_gradient(corners, spec, shape.pins[i]) for i in kept])
    corners = _facing_as_before(corners, np.array(shape.corners, dtype=float))
    sides, turns = _lengths(corners), _turns_deg(corners)
    misfits = tuple(i for i in doubtful if abs(_error(corners, spec, shape.pins[i])) > 1e-7)
    for i in misfits:
        pin = shape.pins[i]
        if isinstance(pin, SidePin):
            sides[spec.letters.index(pin.side)] = pin.mm
        else:
            turns[spec.corner_names.index(pin.corner)] = 180.0 - pin.deg
    return PinnedOutline(
        tuple((float(x), float(y)) for x, y in corners),
        tuple(sides),
        tuple(turns),
        misfits,
        tuple(i for i in doubtful if i not in misfits),
        2 * len(corners) - 3 - len(kept),
    )


def _satisfy(corners: Corners, spec: FlatFrameSpec, shape: Irregular, kept: list[int]) -> Corners:
    """The nearest corners that meet the kept pins, to KEPT."""
    newest = kept[-1]
    start = corners
    for _ in range(ROUNDS):
        errors = np.array([_error(corners, spec, shape.pins[i]) for i in kept])
        if float(np.max(np.abs(errors))) < KEPT:
            _check_convex(corners, spec, f"shape.pins.{newest}")
            return corners
        slopes = np.array([_gradient(corners, spec, shape.pins[i]) for i in kept])
        step = np.linalg.lstsq(slopes, errors, rcond=None)[0].reshape(corners.shape)
        reach = float(np.max(np.abs(step))) / max(1e-9, float(np.min(_lengths(corners))))
        corners = corners - step * min(1.0, 0.5 / reach if reach > 0 else 1.0)
        if not np.all(np.isfinite(corners)):
            break
    _check_convex(start, spec)
    raise SpecError("pin_impossible", (f"shape.pins.{newest}",), **_pin_data(shape.pins[newest]))


def _facing_as_before(corners: Corners, given: Corners) -> Corners:
    """The solved corners turned about their middle so that side A runs the way it was given."""
    way, wanted = corners[1] - corners[0], given[1] - given[0]
    cosine = float(np.dot(way, wanted))
    sine = float(way[0] * wanted[1] - way[1] * wanted[0])
    length = np.hypot(cosine, sine)
    turn = np.array([[cosine, -sine], [sine, cosine]]) / length
    middle = corners.mean(axis=0)
    turned: Corners = (corners - middle) @ turn.T + middle
    return turned


def _pin_data(pin: SidePin | CornerPin) -> dict[str, object]:
    return {"side": pin.side, "mm": pin.mm} if isinstance(pin, SidePin) else {"corner": pin.corner, "deg": pin.deg}


def _lengths(corners: Corners) -> list[float]:
    """Length of each side, from its corner to the next."""
    return [float(np.linalg.norm(np.roll(corners, -1, axis=0)[i] - corners[i])) for i in range(len(corners))]


def _turns_deg(corners: Corners) -> list[float]:
    """Outside angle at the end of each side: what the direction turns by to the left."""
    ways = np.roll(corners, -1, axis=0) - corners
    following = np.roll(ways, -1, axis=0)
    crossed = ways[:, 0] * following[:, 1] - ways[:, 1] * following[:, 0]
    return [float(a) for a in np.degrees(np.arctan2(crossed, np.sum(ways * following, axis=1)))]


def _check_convex(corners: Corners, spec: FlatFrameSpec, field: str | None = None) -> None:
    """Every corner turns left by less than half a turn, and they turn once round in all."""
    for i, turn in enumerate(_turns_deg(corners)):
        if not 1e-6 < turn < 180 - 1e-6:
            name = spec.corner_names[i]
            place = field or f"shape.corners.{(i + 1) % len(corners)}"
            raise SpecError("reflex", (place,), corner=name, deg=180.0 - turn)
    if abs(sum(_turns_deg(corners)) - 360.0) > 1e-6:
        raise SpecError("crossed", (field or "shape.corners",))


def _error(corners: Corners, spec: FlatFrameSpec, pin: SidePin | CornerPin) -> float:
    """How far the corners are from the pin: mm for a side, degrees for a corner."""
    if isinstance(pin, SidePin):
        return _lengths(corners)[spec.letters.index(pin.side)] - pin.mm
    return 180.0 - _turns_deg(corners)[spec.corner_names.index(pin.corner)] - pin.deg


def _gradient(corners: Corners, spec: FlatFrameSpec, pin: SidePin | CornerPin) -> NDArray[np.float64]:
    """How the pinned quantity changes with every corner coordinate, flattened."""
    slopes = np.zeros_like(corners)
    n = len(corners)
    if isinstance(pin, SidePin):
        i = spec.letters.index(pin.side)
        j = (i + 1) % n
        way = (corners[j] - corners[i]) / np.linalg.norm(corners[j] - corners[i])
        slopes[i], slopes[j] = -way, way
        return slopes.ravel()
    i = spec.corner_names.index(pin.corner)
    before, here, after = i, (i + 1) % n, (i + 2) % n
    # The inside angle falls by the turn; a side's direction changes with its end by the normal over its length.
    into, out = corners[here] - corners[before], corners[after] - corners[here]
    spin_in = np.array([-into[1], into[0]]) / np.dot(into, into)
    spin_out = np.array([-out[1], out[0]]) / np.dot(out, out)
    slopes[before] += -spin_in
    slopes[here] += spin_in + spin_out
    slopes[after] += -spin_out
    return np.degrees(slopes).ravel()


def _span(rows: list[NDArray[np.float64]]) -> list[NDArray[np.float64]]:
    """An orthonormal basis of the rows, by Gram and Schmidt, twice over for accuracy."""
    basis: list[NDArray[np.float64]] = []
    for row in rows:
        rest = row / np.linalg.norm(row)
        for _ in range(2):
            for b in basis:
                rest = rest - np.dot(b, rest) * b
        basis.append(rest / np.linalg.norm(rest))
    return basis

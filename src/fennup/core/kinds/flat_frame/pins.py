"""From corners and pins to an outline: the nearest one that keeps every pin that can be kept."""

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from fennup.core.errors import SpecError
from fennup.core.given.solver import Pin, settle
from fennup.core.kinds.flat_frame.shapes import SPANS, AnyPin, CornerPin, Irregular, SidePin, SpanPin
from fennup.core.kinds.flat_frame.spec import FlatFrameSpec
from fennup.core.tolerances import SAME

Corners = NDArray[np.float64]


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
    """The nearest outline to the corners given. SpecError `side_impossible`, `corner_impossible` when an independent pin cannot be met,
    `span_impossible`, `span_disagrees` where a span cannot be beside what is given, `reflex` when a corner is not convex."""
    given: Corners = np.array(shape.corners, dtype=float)
    _check_convex(given, spec)
    pins = [Pin(_name(pin), _value(pin), f"shape.pins.{i}") for i, pin in enumerate(shape.pins)]

    def read(values: Sequence[float]) -> list[float | None]:
        corners = np.array(values).reshape(given.shape)
        return [_measured(corners, spec, pin) for pin in shape.pins]

    place = {pin.field: i for i, pin in enumerate(pins)}
    try:
        found = settle(
            [float(v) for v in given.ravel()],
            pins,
            read,
            2 * len(given) - 3,
            both_ways=any(isinstance(pin, SpanPin) for pin in shape.pins),
        )
    except SpecError as error:
        data = shape.pins[place[error.fields[0]]].model_dump()
        code = "side_impossible" if "side" in data else "span_impossible" if "span" in data else "corner_impossible"
        raise SpecError(code, error.fields, **data) from None
    corners = np.array(found.values).reshape(given.shape)
    _check_convex(corners, spec, pins[-1].field if pins else None)
    corners = _facing_as_before(corners, given)
    sides, turns = _lengths(corners), _turns_deg(corners)
    misfits = tuple(place[misfit.pin.field] for misfit in found.misfits)
    for i in misfits:
        pin = shape.pins[i]
        if isinstance(pin, SpanPin):  # there is no gap that would show it: it cannot be kept
            misfit = next(misfit for misfit in found.misfits if place[misfit.pin.field] == i)
            raise SpecError("span_disagrees", (misfit.pin.field,), span=pin.span, mm=pin.mm, gives=misfit.gives)
        if isinstance(pin, SidePin):
            sides[spec.letters.index(pin.side)] = pin.mm
        else:
            turns[spec.corner_names.index(pin.corner)] = 180.0 - pin.deg
    return PinnedOutline(
        tuple((float(x), float(y)) for x, y in corners),
        tuple(sides),
        tuple(turns),
        misfits,
        tuple(place[pin.field] for pin in found.spare),
        found.free,
    )


def _name(pin: AnyPin) -> str:
    if isinstance(pin, SpanPin):
        return f"span:{pin.span}"
    return f"side:{pin.side}" if isinstance(pin, SidePin) else f"angle:{pin.corner}"


def _value(pin: AnyPin) -> float:
    return pin.deg if isinstance(pin, CornerPin) else pin.mm


def _measured(corners: Corners, spec: FlatFrameSpec, pin: AnyPin) -> float:
    """What the corners make of a pinned side or span, mm, or corner, degrees."""
    n = len(corners)
    if isinstance(pin, SidePin):
        i = spec.letters.index(pin.side)
        return float(np.hypot(*(corners[(i + 1) % n] - corners[i])))
    if isinstance(pin, SpanPin) and pin.span not in SPANS:
        # A corner lies where its second side begins.
        a, b = (corners[spec.letters.index(name)] for name in (pin.span[1], pin.span[3]))
        return float(np.hypot(*(b - a)))
    if isinstance(pin, SpanPin):
        way = (corners[1] - corners[0]) / np.hypot(*(corners[1] - corners[0]))
        along = corners @ (way if pin.span == "wide" else np.array([-way[1], way[0]]))
        return float(along.max() - along.min())
    i = spec.corner_names.index(pin.corner)
    before, here, after = (corners[(i + k) % n] for k in range(3))
    into, out = here - before, after - here
    return 180.0 - float(np.degrees(np.arctan2(into[0] * out[1] - into[1] * out[0], np.dot(into, out))))


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
        if not SAME < turn < 180 - SAME:
            name = spec.corner_names[i]
            place = field or f"shape.corners.{(i + 1) % len(corners)}"
            raise SpecError("reflex", (place,), corner=name, deg=180.0 - turn)
    if abs(sum(_turns_deg(corners)) - 360.0) > SAME:
        raise SpecError("crossed", (field or "shape.corners",))

"""Wood that there is or that can be bought, and the ways in which it can be made into bars of a wanted section."""

from collections.abc import Iterable
from dataclasses import dataclass
from functools import cached_property
from math import floor

from fennup.core.stock.section import Section as Profile
from fennup.core.tolerances import SAME

AS_LARGE = 0.05  # mm: a board that is this near to a wanted size is that size
MOST_WAYS = 160  # of one source, with strips of several widths side by side
Section = tuple[float, float]


@dataclass(frozen=True)
class Flaw:
    """A knot, a split, a nail: nothing is cut from there. Along the board and across it from its near edge, mm."""

    from_mm: float
    to_mm: float
    low_mm: float
    high_mm: float


@dataclass(frozen=True)
class Source:
    """Boards or sheets that are alike. `count` None: as many as one likes. `price`: what one costs, 0 of what is there. `grade` 0 is
    clear and straight, 1 sound, 2 rough. `any_way`: without a grain. `trim`: what comes off each end, with the kerf of that cut. `profile`: it is a moulding that looks so; nothing
    else is cut from it."""

    id: str
    name: str
    length_mm: float
    width_mm: float
    thickness_mm: float
    count: int | None = 1
    price: float = 0.0
    bought: bool = False
    grade: int = 1
    sheet: bool = False
    trim: tuple[float, float] = (0.0, 0.0)
    flaws: tuple[Flaw, ...] = ()
    any_way: bool = False
    profile: Profile | None = None

    @property
    def volume(self) -> float:
        """In cubic mm."""
        return self.length_mm * self.width_mm * self.thickness_mm


@dataclass(frozen=True)
class Milling:
    """What may be done to make another section of a board: ripped, resawn, planed; the saw's kerf, what is planed off every ripped
    edge and every sawn or rough face, and the most that is planed off a face where nothing is sawn."""

    kerf_mm: float
    rip: bool = True
    resaw: bool = False
    plane: bool = False
    edge_mm: float = 0.0
    face_mm: float = 1.5
    most_planed_mm: float = 3.0


@dataclass(frozen=True)
class Strip:
    """A bar within a board: from where to where along it, its low edge across it, its underside above the board's, its section."""

    from_mm: float
    to_mm: float
    low_mm: float
    under_mm: float
    section: Section

    @property
    def length_mm(self) -> float:
        """Of wood without a flaw."""
        return self.to_mm - self.from_mm


@dataclass(frozen=True)
class Way:
    """One way to make bars of a source: `strips`, each in clear stretches, and what is over across it."""

    source: Source
    strips: tuple[Strip, ...]
    sawn: bool
    over_mm: float = 0.0

    @cached_property
    def supply(self) -> dict[tuple[Section, float], int]:
        """How many bars of each section and length it gives."""
        found: dict[tuple[Section, float], int] = {}
        for strip in self.strips:
            key = (strip.section, round(strip.length_mm, 6))
            found[key] = found.get(key, 0) + 1
        return found


def strips_across(board_mm: float, strip_mm: float, kerf_mm: float) -> tuple[int, float]:
    """How many strips of a width come out of a board, and what is left over, the kerf that frees it taken off."""
    count = floor((board_mm + kerf_mm + SAME) / (strip_mm + kerf_mm))
    return count, max(0.0, board_mm - count * (strip_mm + kerf_mm))


def resawn(board_mm: float, sheets: int, kerf_mm: float, planed_mm: float) -> float:
    """How thick each of so many boards is, sawn out of a thick one and planed on both faces."""
    return (board_mm - (sheets - 1) * kerf_mm) / sheets - 2 * planed_mm


def layers_of(thick: float, wanted: float, milling: Milling) -> tuple[tuple[float, ...], bool] | None:
    """The undersides of the bars of a wanted thickness in a board, and whether it is sawn flat for them; None where none comes out."""
    if abs(thick - wanted) <= AS_LARGE:
        return (0.0,), False
    if milling.resaw:
        each = wanted + 2 * milling.face_mm
        count = floor((thick + milling.kerf_mm + SAME) / (each + milling.kerf_mm))
        if count > 1:
            return tuple(n * (each + milling.kerf_mm) + milling.face_mm for n in range(count)), True
    if milling.plane and 0 < thick - wanted <= 2 * milling.most_planed_mm + SAME:
        return ((thick - wanted) / 2,), False
    return None


def ways_of(source: Source, sections: Iterable[Section], milling: Milling) -> tuple[list[Way], bool]:
    """Every way to make bars of the wanted sections of a source that cannot be made fuller, the most alike first; and whether those
    are all there are."""
    by_thickness: dict[float, list[float]] = {}
    for width, thick in sorted(set(sections), reverse=True):
        by_thickness.setdefault(thick, []).append(width)
    found: list[Way] = []
    complete = True
    for thick, widths in by_thickness.items():
        layers = layers_of(source.thickness_mm, thick, milling)
        if layers is None:
            continue
        sets, all_there = _side_by_side(source.width_mm, widths, milling)
        complete &= all_there
        found += [_way(source, widths_there, thick, layers, milling) for widths_there in sets]
    return found, complete


def only_strips(source: Source, sections: Iterable[Section], milling: Milling) -> bool:
    """Whether strips that run the whole board are all that it can be sawn into with any gain: nothing is ripped, or all that comes of it is as wide as the
    board, or of one width out of a board without a flaw. Else one may also cut across first, and rip the pieces; that is not weighed. Nor is a
    board that could be turned on edge for a section, or a flaw in part of the width, which might fall under a slanted end."""
    there = [(w, t) for w, t in sections if layers_of(source.thickness_mm, t, milling) and w <= source.width_mm + AS_LARGE]
    turned = any(
        abs(w - t) > AS_LARGE and layers_of(source.thickness_mm, w, milling) is not None and t <= source.width_mm + AS_LARGE
        for w, t in sections
    )
    narrow = {w for w, _ in there if w < source.width_mm - AS_LARGE}
    if turned or any(flaw.high_mm - flaw.low_mm < source.width_mm - AS_LARGE for flaw in source.flaws):
        return False
    return not milling.rip or not narrow or len({w for w, _ in there}) == 1


def _side_by_side(across: float, widths: list[float], milling: Milling) -> tuple[list[tuple[float, ...]], bool]:
    """The fullest sets of strips that fit side by side in a board, widest first in each."""
    same = [width for width in widths if abs(width - across) <= AS_LARGE]
    whole: list[tuple[float, ...]] = [(same[0],)] if same else []
    if not milling.rip:
        return whole, True
    fitting = [w for w in widths if w < across - AS_LARGE]
    found: list[tuple[float, ...]] = []
    enough = True

    def fill(taken: tuple[float, ...], start: int, room: float) -> None:
        nonlocal enough
        if len(found) >= MOST_WAYS:
            enough = False
            return
        needs = [w + 2 * milling.edge_mm + milling.kerf_mm for w in fitting]
        if not any(need <= room + SAME for need in needs):
            if taken:
                found.append(taken)
            return
        for k in range(start, len(fitting)):
            if needs[k] <= room + SAME:
                fill((*taken, fitting[k]), k, room - needs[k])

    fill((), 0, across + milling.kerf_mm)
    for width in fitting if not enough else ():
        alone = (width,) * strips_across(across, width + 2 * milling.edge_mm, milling.kerf_mm)[0]
        if alone not in found:
            found.append(alone)
    return [*whole, *sorted(found, key=lambda set: (len(dict.fromkeys(set)), set))], enough


def _way(
    source: Source, widths: tuple[float, ...], thick: float, layers: tuple[tuple[float, ...], bool], milling: Milling
) -> Way:
    """The strips in clear stretches, one beside another and one above another."""
    undersides, flat = layers
    whole = len(widths) == 1 and abs(widths[0] - source.width_mm) <= AS_LARGE
    low, strips = 0.0, []
    for width in widths:
        edge = 0.0 if whole else milling.edge_mm
        for start, end in clear_stretches(source, low + edge, low + edge + width, milling.kerf_mm):
            strips += [Strip(start, end, low + edge, under, (width, thick)) for under in undersides]
        low += width + 2 * edge + milling.kerf_mm
    over = 0.0 if whole else max(0.0, source.width_mm - low)
    return Way(source, tuple(strips), flat, over)


def clear_stretches(source: Source, low: float, high: float, kerf_mm: float) -> list[tuple[float, float]]:
    """Where along a board a strip of it has no flaw and is not trimmed off. Between two stretches there is room for the saw."""
    start, end = source.trim[0], source.length_mm - source.trim[1]
    found = []
    for flaw in sorted(source.flaws, key=lambda flaw: flaw.from_mm):
        if flaw.high_mm <= low + SAME or flaw.low_mm >= high - SAME:
            continue
        if flaw.from_mm > start + SAME:
            found.append((start, min(end, flaw.from_mm)))
        start = max(start, flaw.to_mm, flaw.from_mm + kerf_mm)
    if end > start + SAME:
        found.append((start, end))
    return [(a, b) for a, b in found if b > a + SAME]

"""What a thing holds, weighs, how it stands or hangs, and where somebody small could be caught: from the solids, for one project's wishes."""

from dataclasses import dataclass
from functools import cached_property
from itertools import combinations

from fennup.core.errors import SpecError
from fennup.core.finish.planned import Finish
from fennup.core.finish.tables import Plastic
from fennup.core.geometry.polygon import signed_area
from fennup.core.geometry.vec import Point2
from fennup.core.site.fill import LITRE_MM3, Filled, filled
from fennup.core.site.gaps import Caught, Opening, caught_in, openings
from fennup.core.site.moving import Lies, plastic_moves_mm, room_at, stack_in_rabbet, wood_moves_mm
from fennup.core.site.setout import Hung, Move, Pair, distances, hung, moves, out_of_square_deg, three_lengths
from fennup.core.site.sun import caught_part, noon_altitude_deg, slope_deg
from fennup.core.site.weight import (
    MM3_PER_M3,
    Footing,
    Mass,
    Tipping,
    Wind,
    corners_of_made,
    extent,
    footing_of,
    in_order_round,
    pull_on_wall,
    shares,
    stack_kg,
    tipping,
    weight_of,
    wind_on,
)

LEVEL_DEG, STEEPEST_DEG = 3.0, 60.0  # sides between these slope
LID_MM2 = 50_000.0
WIDE_MM = 60.0  # narrower boards do not move enough to ask
FLAT_PART = 0.3  # a thing no higher than this part of how wide and deep it is was drawn lying, and can hang
FOOT_PART = 0.35  # of the whole: what touches the ground over more of it is no foot but an edge
HALF_PI_DEG = 90.0


@dataclass(frozen=True)
class Moves:
    """How much a part grows and shrinks over a year: across the grain, of plastic along and across; how long that is."""

    part: str
    wide_mm: float
    by_mm: float
    along_mm: float = 0.0
    long_mm: float = 0.0


@dataclass(frozen=True)
class Sun:
    """What a lid gets of the noon sun: at its slope, and at others."""

    altitude_deg: float
    slope_deg: float
    variants: tuple[tuple[float, float], ...]


@dataclass(frozen=True)
class Standing:
    """All of it for one finish."""

    finish: Finish

    # What it holds.

    @cached_property
    def room(self) -> Filled | None:
        """What it is filled with, of the ring that holds most. SpecError `holds_nothing` where a level was said that holds nothing."""
        level = self.finish.wishes.holds.level_mm
        design = self.finish.design
        rings = [ring for ring in design.assembly.rings if ring.closed]
        if level is None or not rings:
            return None
        found: list[Filled] = []
        refused: SpecError | None = None
        for ring in rings:
            try:
                found.append(filled(design, ring, level))
            except SpecError as error:
                refused = error
        if not found and refused:
            raise SpecError(refused.code, ("holds/level_mm",), **refused.data)
        return max(found, key=lambda room: room.litres)

    @cached_property
    def held(self) -> Filled | None:
        """The same; None where that level holds nothing."""
        try:
            return self.room
        except SpecError:
            return None

    @property
    def filling_kg(self) -> float:
        """What that weighs."""
        filling = self.finish.tables.fillings.get(self.finish.wishes.holds.filling or "")
        return self.held.litres * LITRE_MM3 / MM3_PER_M3 * filling.kg_m3 if self.held and filling else 0.0

    def inside_at(self, up_mm: float) -> tuple[float, float] | None:
        """How wide and deep it is inside at a height, from its floor to the level."""
        return room_at(self.held, up_mm) if self.held else None

    def liner_play(self) -> list[tuple[float, float, float]]:
        """What is left beside a liner at its lower and upper end: at which height, how much at each side in its width and its depth."""
        holds = self.finish.wishes.holds
        if self.held is None or holds.liner_width_mm is None or holds.liner_depth_mm is None:
            return []
        low = max(self.held.from_mm, self.held.from_mm + holds.liner_from_mm)
        high = min(self.held.to_mm, holds.liner_to_mm + self.held.from_mm if holds.liner_to_mm else self.held.to_mm)
        found = []
        for up in (low, high):
            if room := self.inside_at(up):
                found.append((up, (room[0] - holds.liner_width_mm) / 2, (room[1] - holds.liner_depth_mm) / 2))
        return found

    def moves(self) -> list[Moves]:
        """How much every wide part moves over a year."""
        finish, found = self.finish, []
        for part in finish.design.parts:
            wide = finish.design.boards[part.id].section.width_mm
            if wide < WIDE_MM:
                continue
            of, out = finish.wood_of(part.id), finish.exposure_of(part.id) in ("outdoors", "soil")
            season = finish.tables.season
            if isinstance(of, Plastic):
                warm = season.outdoors_c if out else season.indoors_c
                low, high = finish.design.solids[part.id].extent_x()
                found.append(
                    Moves(
                        part.id,
                        wide,
                        plastic_moves_mm(wide, of.per_degree, warm),
                        plastic_moves_mm(high - low, of.per_degree, warm),
                        high - low,
                    )
                )
            else:
                percent = season.outdoors_percent if out else season.indoors_percent
                found.append(Moves(part.id, wide, wood_moves_mm(wide, of.flat_part, percent)))
        return found

    def recesses(self) -> list[tuple[str, float, Lies]]:
        """How a stack lies in each recess: the first board that goes round it, how deep it is, and how."""
        holds = self.finish.wishes.holds
        layers = (holds.glass_mm, holds.spacer_mm, holds.art_mm, holds.back_mm)
        inside = self.finish.design.assembly.inside or {"": self.finish.design.assembly}
        return [
            (f"{id}/{recess.boards[0]}".removeprefix("/"), recess.depth_mm, stack_in_rabbet(recess.depth_mm, *layers))
            for id, own in inside.items()
            for recess in own.recesses
        ]

    @cached_property
    def layers_kg(self) -> float:
        """What the layers in its recesses weigh: as large as what it holds, else as the recess."""
        holds, total = self.finish.wishes.holds, 0.0
        design = self.finish.design
        for id, own in (design.assembly.inside or {"": design.assembly}).items():
            ruler = design.ruler.within(id) if id else design.ruler
            for recess in own.recesses:
                area = recess.area_mm2
                if area is None:
                    runs = ruler.runs("held") or ruler.runs("rabbet") or ruler.runs("opening") or {}
                    area = abs(signed_area([(start[0], start[1]) for start, _ in runs.values()]))
                total += stack_kg(area, holds.glass_mm, holds.spacer_mm + holds.art_mm + holds.back_mm)
        return total

    # Load.

    @cached_property
    def own(self) -> Mass:
        """The thing itself."""
        return weight_of(self.finish.design, {id: self.finish.wood_of(id).kg_m3 for id in self.finish.design.solids})

    @cached_property
    def loaded(self) -> Mass:
        """With what it holds, and what weighs on it besides over its middle, at its top."""
        mass = self.own
        if self.held and self.filling_kg:
            mass = mass.and_also(Mass(self.filling_kg, self.held.middle))
        if self.layers_kg:
            mass = mass.and_also(Mass(self.layers_kg, self.own.at))
        load = self.finish.wishes.holds.load_kg
        return mass.and_also(Mass(load, (self.own.at[0], self.own.at[1], self.high))) if load else mass

    @cached_property
    def high(self) -> float:
        """The level of its highest wood."""
        return max(p[2] for p in corners_of_made(self.finish.design))

    @cached_property
    def footing(self) -> Footing:
        """Where it stands."""
        return footing_of(self.finish.design)

    @property
    def shares(self) -> dict[str, float]:
        """What each foot carries, kg."""
        return shares(self.footing, self.loaded)

    @property
    def push_up_mm(self) -> float:
        """How high a push comes: as said, else at its top."""
        return self.finish.wishes.holds.push_up_mm or max(1.0, self.high - self.footing.ground_mm)

    @property
    def tips(self) -> Tipping | None:
        """The easiest way over, empty: then it is lightest."""
        return tipping(self.footing, self.own, self.push_up_mm)

    @property
    def tips_loaded(self) -> Tipping | None:
        """The same with all that it holds."""
        return tipping(self.footing, self.loaded, self.push_up_mm)

    @property
    def wind(self) -> Wind | None:
        """What the wind does to it, empty."""
        speed, site = self.finish.tables.speed, self.finish.wishes.site
        return wind_on(
            self.finish.design, self.footing, self.own, speed.wind_n_m2, site.anchors, covered=site.stretched != "nothing"
        )

    # Where somebody could be caught.

    @cached_property
    def openings(self) -> list[Opening]:
        """Every gap between its parts."""
        return openings(self.finish.design)

    @property
    def caught(self) -> list[Caught]:
        """Those in which a child could be caught."""
        limits = self.finish.tables.limits
        return caught_in(
            self.openings,
            {
                "finger": (limits.finger_from_mm, limits.finger_to_mm),
                "limb": (limits.limb_from_mm, limits.limb_to_mm),
                "head": (limits.head_from_mm, limits.head_to_mm),
            },
        )

    # Set up.

    @cached_property
    def places(self) -> dict[str, Point2]:
        """The places to set out, in their order round: the middles of feet; of what stands on edges its corners."""
        footing = self.footing
        whole = extent(footing.outline)
        if len(footing.feet) < 3 or max(footing.extents.values()) > FOOT_PART * whole:
            return {f"corner {k}": p for k, p in enumerate(footing.outline, 1)}
        return {name: footing.feet[name] for name in in_order_round(footing.feet)}

    @property
    def distances(self) -> dict[Pair, float]:
        """From every place to every other one."""
        return distances(self.places)

    @property
    def sides(self) -> list[Pair]:
        """The pairs that lie beside each other; the others are diagonals."""
        names = list(self.places)
        return [
            (a, b) for a, b in combinations(names, 2) if (names.index(b) - names.index(a)) % len(names) in (1, len(names) - 1)
        ]

    @property
    def readings(self) -> dict[Pair, float]:
        """What the tape read, of places that there are."""
        found = {}
        for key, value in self.finish.wishes.site.readings.items():
            a, _, b = key.partition("|")
            if (a, b) in self.distances:
                found[a, b] = value
        return found

    @property
    def moves_to(self) -> dict[str, Move]:
        """Which place is to be moved where; nothing before anything was read, or where the diagonals cannot be."""
        try:
            _ = self.out_of_square
        except SpecError:
            return {}
        return moves(self.places, self.readings) if self.readings and len(self.places) > 1 else {}

    @property
    def out_of_square(self) -> float | None:
        """By how much four places are out of square, degrees, where both diagonals were read. SpecError `diagonals_impossible`."""
        names = list(self.places)
        if len(names) != 4:
            return None
        lengths = {**self.distances, **self.readings}
        first, second = (names[0], names[2]), (names[1], names[3])
        if first not in self.readings or second not in self.readings:
            return None
        return out_of_square_deg(lengths[names[0], names[1]], lengths[names[1], names[2]], lengths[first], lengths[second])

    def three(self, step_mm: float) -> tuple[float, float, float] | None:
        """Three lengths that make the first corner square; None where it has no room for them."""
        names = list(self.places)
        if len(names) < 3:
            return None
        try:
            return three_lengths(self.distances[names[0], names[1]], self.distances[names[0], names[-1]], step_mm)
        except SpecError:
            return None

    @property
    def packing(self) -> dict[str, float]:
        """What goes under each place so that all are level, as rises were read."""
        rises = {name: self.finish.wishes.site.rises.get(name, 0.0) for name in self.places}
        top = max(rises.values(), default=0.0)
        return {name: top - rise for name, rise in rises.items()}

    @cached_property
    def size(self) -> tuple[float, float, float]:
        """How wide, deep and high it is, over all."""
        points = corners_of_made(self.finish.design)
        w, d, h = (max(p[k] for p in points) - min(p[k] for p in points) for k in range(3))
        return w, d, h

    @property
    def lies_flat(self) -> bool:
        """Whether it was drawn lying, as frames are."""
        return self.size[2] < FLAT_PART * min(self.size[:2])

    @property
    def hung(self) -> Hung | None:
        """Marks for hanging it; none where no height is said. SpecError as `site.setout.hung`."""
        site = self.finish.wishes.site
        if site.top_mm is None:
            return None
        inset = self.size[0] / 5 if site.hooks_in_mm is None else site.hooks_in_mm
        try:
            return hung(self.size[0], site.top_mm, inset, site.drop_mm, site.first_stud_mm, site.studs_mm)
        except SpecError as error:
            raise SpecError(error.code, tuple(f.replace(".", "/") for f in error.fields), **error.data) from None

    @property
    def wall_pull_n(self) -> float:
        """How hard it is pulled off the wall at its hooks, N, when it hangs with all that it holds."""
        _, deep, high = self.size
        deep, high = (high, deep) if self.lies_flat else (deep, high)
        return pull_on_wall(self.loaded.kg, deep / 2, max(1.0, high - self.finish.wishes.site.drop_mm))

    @property
    def sun(self) -> Sun | None:
        """Noon sun on its largest slope; None where it has none."""
        design, site = self.finish.design, self.finish.wishes.site
        slopes = [
            (patch_area, slope)
            for face in self.finish.faces
            for patch_area, slope in [(face.area_mm2, slope_deg(design.solids[face.board].patches(face.facet)[0].plane.normal))]
            if LEVEL_DEG < slope < STEEPEST_DEG and patch_area > LID_MM2
        ]
        if not slopes:
            return None
        slope = max(slopes)[1]
        altitude = noon_altitude_deg(site.latitude_deg, site.day)
        best = max(0.0, min(HALF_PI_DEG, HALF_PI_DEG - altitude))
        at = sorted({round(s, 1) for s in (0.0, slope - 10, slope, slope + 10, best) if 0 <= s <= HALF_PI_DEG})
        return Sun(altitude, slope, tuple((s, caught_part(s, altitude)) for s in at))

"""One project's finish: what holds it together, what coats it, in which order and by which day, from a design, the workshop's tables, wishes and records."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, field, replace
from datetime import date, datetime, time, timedelta
from functools import cached_property
from math import ceil

from fennup.core.design import Design
from fennup.core.errors import SpecError
from fennup.core.fasten.fastened import Fastened, all_driven, check_choice, fastened, pieces_needed
from fennup.core.fasten.meeting import Meeting, meetings
from fennup.core.finish.faces import MM2_PER_M2, Face, faces_of
from fennup.core.finish.hours import FreeHours
from fennup.core.finish.plan import Placed, Task, earliest_plan, latest_plan, longest_span_h, ready_at
from fennup.core.finish.tables import Exposure, Glue, Plastic, Recipe, Tables, Wood
from fennup.core.finish.wishes import NO_COAT, FaceUse, FinishWishes, Weather
from fennup.core.records.entry import DidBody, Entry
from fennup.core.records.fold import live
from fennup.core.tolerances import NOTHING

HOUR_MIN = 60.0
TO_FIVE_MIN = 12.0  # parts of an hour
SETTING_H = 0.25  # to stir, to clean brushes
MASK_H = 0.5
DID = "day "  # what the keys of records of this place begin with
HUMID = 85.0  # percent: more, and a coat does not dry
WET_MM = 0.2  # of rain
HALF_DAY_H = 10.0  # a coat that takes longer dries into the next day
STEPS = ("cut", "smooth", "fit", "mask", "glue", "fasten", "setup")


@dataclass(frozen=True)
class Known:
    """Kinds of joints with what holds them, and sides with what was painted on them."""

    fastened: tuple[Fastened, ...]
    faces: tuple[Face, ...]
    painted: Mapping[str, FaceUse]


@dataclass(frozen=True)
class Finish:
    """All that follows. Hours, m2, kg, mm. `known`: what was worked out before a change and may still hold."""

    design: Design
    tables: Tables
    wishes: FinishWishes
    entries: tuple[Entry, ...] = ()
    known: "Known | None" = field(default=None, compare=False)

    # What it is of.

    def wood_of(self, board: str) -> Wood | Plastic:
        """What a board is of: as said of its part, else as all of it."""
        name = self.wishes.materials.get(self.part_of[board], self.wishes.wood)
        tables = self.tables
        return tables.woods.get(name) or tables.plastics.get(name) or next(iter(tables.woods.values()))

    def exposure_of(self, board: str) -> Exposure:
        """What a board must stand."""
        return self.wishes.exposures.get(self.part_of[board], self.wishes.exposure)

    @cached_property
    def part_of(self) -> dict[str, str]:
        """The first board of a board's part; of what is there already itself."""
        found = {id: id for id in self.design.solids}
        return found | {id: part.id for part in self.design.parts for id in part.boards}

    @property
    def outdoors(self) -> bool:
        """Whether any of it stands out in the weather or in soil."""
        return any(self.exposure_of(part.id) in ("outdoors", "soil") for part in self.design.parts)

    # Together.

    @cached_property
    def fastened(self) -> list[Fastened]:
        """Every kind of joint with what holds it."""
        known = self.known.fastened if self.known else ()
        return fastened(self.design, self.tables.fasteners, self.wishes.joints, known)

    @property
    def worked_out(self) -> "Known":
        """What took longest to work out."""
        return Known(tuple(self.fastened), tuple(self.faces), self.wishes.faces)

    @cached_property
    def numbers(self) -> dict[str, int]:
        """The joints' numbers for taking it apart and putting it up again, in the order of their kinds."""
        ids = [joint.id for one in self.fastened for joint in one.kind.joints]
        return {id: k for k, id in enumerate(ids, 1)}

    @cached_property
    def met(self) -> list[tuple[str, str, Meeting]]:
        """Fasteners that come too near each other, by their joints."""
        every = all_driven(self.fastened)
        found = meetings([one for _, one in every], self.tables.fasteners.rules)
        return [(every[m.first][0], every[m.second][0], m) for m in found]

    @cached_property
    def buys(self) -> dict[tuple[str, str, float], int]:
        """Fasteners to buy, with spares."""
        return pieces_needed(self.fastened, self.tables.speed.spare_part)

    # Coats.

    @cached_property
    def faces(self) -> list[Face]:
        """Every side of every part."""
        known = self.known
        if known and known.painted == self.wishes.faces and [*map(id, known.fastened)] == [*map(id, self.fastened)]:
            return list(known.faces)
        return faces_of(self.design, self.fastened, self.wishes.faces)

    @cached_property
    def recipe(self) -> Recipe | None:
        """As chosen; else the first for where it stands; none where it is left bare."""
        recipes = self.tables.recipes
        if self.wishes.recipe == NO_COAT:
            return None
        return recipes.get(self.wishes.recipe or "") or next(
            (r for r in recipes.values() if r.outdoors == self.outdoors), next(iter(recipes.values()))
        )

    @property
    def coats(self) -> int:
        """How many coats."""
        return (self.wishes.coats or self.recipe.coats) if self.recipe else 0

    @cached_property
    def glue(self) -> Glue:
        """As chosen, else the first that stands what it must."""
        glues = self.tables.glues
        return glues.get(self.wishes.glue or "") or next(
            (g for g in glues.values() if g.outdoors == self.outdoors), next(iter(glues.values()))
        )

    @property
    def glued(self) -> list[Fastened]:
        """The kinds of joint that are glued."""
        return [one for one in self.fastened if one.glued]

    @cached_property
    def coated_m2(self) -> float:
        """How much gets all coats."""
        return sum(face.coated_mm2 for face in self.faces) / MM2_PER_M2

    @cached_property
    def hidden_m2(self) -> float:
        """How much gets one."""
        return sum(face.hidden_mm2 for face in self.faces) / MM2_PER_M2

    @cached_property
    def glued_m2(self) -> float:
        """How much is glued, one side of each joint."""
        return sum(one.kind.area_mm2 * len(one.kind.joints) for one in self.glued) / MM2_PER_M2

    @property
    def litres(self) -> float:
        """Of what it is coated with, all coats."""
        return (self.coated_m2 * self.coats + self.hidden_m2) / self.recipe.m2_l if self.recipe else 0.0

    @property
    def glue_g(self) -> float:
        """How much glue."""
        return self.glued_m2 * self.glue.g_m2

    @cached_property
    def smooth_before(self) -> list[Face]:
        """Sides that one cannot well smooth once it is together."""
        return [face for face in self.faces if face.close_mm is not None and face.use == "coated" and not face.covered]

    # By the day.

    @cached_property
    def tasks(self) -> list[Task]:
        """All steps from cutting to setting up, with what each waits for. SpecError `paint_before_glue`: coats come first, but something is to be glued."""
        if self.wishes.coat_when == "before" and self.coats and self.glued:
            raise SpecError("paint_before_glue", ("coat_when",), name=self.glued[0].kind.key)
        return _tasks(self)

    @property
    def needed(self) -> datetime | None:
        """When it must be ready."""
        if self.wishes.needed is None:
            return None
        return datetime.combine(self.wishes.needed, time()) + timedelta(hours=self.wishes.needed_h)

    @property
    def free(self) -> FreeHours:
        """When somebody has time for it."""
        return FreeHours(self.tables.hours, frozenset((*self.tables.away, *self.wishes.away)))

    @cached_property
    def plan(self) -> list[Placed]:
        """Everything as late as it may be; nothing where no day is said. It hangs on no clock."""
        return latest_plan(self.tasks, self.needed, self.free) if self.needed else []

    @cached_property
    def did(self) -> dict[str, Entry]:
        """The steps that are done, by task."""
        ids = {task.id for task in self.tasks}
        found = {e.key.removeprefix(DID): e for e in live(self.entries) if isinstance(e.body, DidBody) and e.key.startswith(DID)}
        return {id: entry for id, entry in found.items() if id in ids}

    def late(self, now: datetime) -> list[Placed]:
        """What should have been begun, and was not done."""
        return [placed for placed in self.plan if placed.start < now and placed.task.id not in self.did]

    def ready_from(self, start: datetime) -> datetime | None:
        """When it would be ready if one goes on from then; None where all is done already."""
        done = self._waited()
        left = [task for task in self.tasks if task.id not in done]
        if not left:
            return None
        return ready_at(earliest_plan(self.tasks, start, self.free, done))

    def going_on(self, start: datetime) -> list[Placed]:
        """What is still to do, as early as it can be from then on."""
        return earliest_plan(self.tasks, start, self.free, self._waited())

    def _waited(self) -> dict[str, datetime]:
        waits = {task.id: timedelta(hours=task.wait_h) for task in self.tasks}
        return {id: by_clock(entry.at) + waits[id] for id, entry in self.did.items()}

    def ways_out(self, now: datetime) -> list["WayOut"]:
        """What would make it ready sooner, each tried; those first that make it ready in time, then those that gain most."""
        needed, ready = self.needed, self.ready_from(now)
        if needed is None or ready is None or ready <= needed:
            return []
        found = [WayOut(code, name, other.ready_from(now) or now, cost) for code, name, other, cost in _others(self)]
        return sorted((way for way in found if way.ready < ready), key=lambda way: (way.ready > needed, way.ready))


def by_clock(at: datetime) -> datetime:
    """A time as the clock on the wall shows it."""
    return at.astimezone().replace(tzinfo=None) if at.tzinfo else at


@dataclass(frozen=True)
class WayOut:
    """Something left out or done faster: what, of which name, when it would be ready then, and what that costs: years until it is coated again."""

    code: str
    name: str
    ready: datetime
    cost: float = 0.0


def _others(finish: Finish) -> list[tuple[str, str, Finish, float]]:
    wishes, tables, recipe = finish.wishes, finish.tables, finish.recipe

    def wished(**changed: object) -> Finish:
        return replace(finish, wishes=wishes.model_copy(update=changed), known=finish.worked_out)

    found: list[tuple[str, str, Finish, float]] = []
    if recipe and finish.coats > 1:
        less = finish.coats - 1
        found.append(("coat_less", recipe.name, wished(coats=less), recipe.years * less / finish.coats))
    if recipe:
        for other in tables.recipes.values():
            if other.name != recipe.name and other.outdoors >= recipe.outdoors:
                found.append(("recipe", other.name, wished(recipe=other.name, coats=None), other.years))
    for glue in tables.glues.values():
        if glue.cured_h < finish.glue.cured_h and glue.outdoors >= finish.glue.outdoors:
            found.append(("glue", glue.name, wished(glue=glue.name), 0.0))
    longer = tuple(tuple((start, min(24.0, end + 1.0)) for start, end in spans[-1:]) if spans else () for spans in tables.hours)
    longer = tuple((*spans[:-1], *more) for spans, more in zip(tables.hours, longer, strict=True))
    found.append(
        ("hour_more", "", replace(finish, tables=tables.model_copy(update={"hours": longer}), known=finish.worked_out), 0.0)
    )
    if wishes.away:
        found.append(("days_back", "", wished(away=()), 0.0))
    if recipe and wishes.coat_where == "outdoors":
        found.append(("coat_indoors", "", wished(coat_where="indoors"), 0.0))
    return found


def _tasks(finish: Finish) -> list[Task]:
    """Cut, smooth, fit, then glue, fasten and coat, or coat masked and then glue; set up."""
    speed, design = finish.tables.speed, finish.design
    cuts = sum(len(board.left) + len(board.right) for board in design.boards.values() if not board.found)
    inside = sum(face.area_mm2 for face in finish.smooth_before) / MM2_PER_M2
    joints = sum(len(one.kind.joints) for one in finish.fastened)
    pieces = sum(one.count + one.screws_behind for one in finish.fastened)
    usual = {
        "cut": cuts * speed.cut_min, "smooth": inside * speed.smooth_min, "fit": joints * speed.fit_min,
        "mask": MASK_H * HOUR_MIN, "glue": sum(len(one.kind.joints) for one in finish.glued) * speed.glue_min,
        "fasten": pieces * speed.fasten_min, "site": speed.site_min, "setup": speed.setup_min,
    }  # fmt: skip
    there = [name for name in STEPS if usual[name] > 0]
    if finish.wishes.coat_when != "masked" or not finish.coats or not finish.glued:
        there.remove("mask")
    coats = [f"coat {k}" for k in range(1, finish.coats + 1)]
    first = [name for name in there if name in ("cut", "smooth", "fit", "mask")]
    together = [name for name in there if name in ("glue", "fasten")]
    order = [*first, *together, *coats] if finish.wishes.coat_when == "after" else [*first, *coats, *together]
    order += [name for name in there if name == "setup"]
    room = longest_span_h(finish.free)
    recipe = finish.recipe
    coat_h = (finish.coated_m2 / recipe.m2_h if recipe else 0.0) + SETTING_H
    never = unfit_days(finish.wishes.weather, recipe) if finish.wishes.coat_where == "outdoors" and recipe else frozenset()
    tasks: list[Task] = []
    for k, name in enumerate(order):
        wait, work = 0.0, finish.wishes.hours.get(name)
        if work is None:
            work = ceil((coat_h if name in coats else usual[name] / HOUR_MIN) * TO_FIVE_MIN - NOTHING) / TO_FIVE_MIN
        if name in coats and recipe:
            wait = recipe.use_h if name == coats[-1] else recipe.between_h
        elif name == "glue":
            wait = finish.glue.cured_h
        whole = name in (*coats, "glue") and work <= room
        after = tuple(order[k - 1 : k])
        if name == "coat 1" and "glue" in order[:k] and "glue" not in after:
            after = (*after, "glue")
        if name == "setup":  # the place waits for nothing, and what is set up waits for it
            tasks.append(Task("site", finish.wishes.hours.get("site", usual["site"] / HOUR_MIN)))
            after = (*after, "site")
        tasks.append(Task(name, work, wait, after, whole, never if name in coats else frozenset()))
    return tasks


def meanwhile(plan: Sequence[Placed]) -> list[tuple[str, str]]:
    """Which tasks are worked at while another one waits: the one that waits, and the one that is done."""
    found = []
    for waiting in plan:
        for other in plan:
            if any(waiting.end <= start and end <= waiting.ready for start, end in other.spans) and other.task.work_h:
                found.append((waiting.task.id, other.task.id))
    return found


def unfit_days(weather: Weather | None, recipe: Recipe) -> frozenset[date]:
    """Days that were foretold too cold, too wet or too damp for a coat outdoors; rain of the day after spoils it too, where it dries so long."""
    if weather is None:
        return frozenset()
    bad = {d.day for d in weather.days if d.low_c < recipe.least_c or d.rain_mm > WET_MM or d.humid_percent > HUMID}
    wet = {d.day for d in weather.days if d.rain_mm > WET_MM}
    before = {day - timedelta(days=1) for day in wet} if recipe.between_h > HALF_DAY_H else set()
    return frozenset(bad | before)


def check_weather(weather: Weather, today: date) -> None:
    """SpecError `weather_past` where all that it says is over."""
    if all(d.day < today for d in weather.days):
        raise SpecError("weather_past", ("weather",))


def check_wishes(wishes: FinishWishes, tables: Tables, before: FinishWishes, today: date) -> None:
    """What a document alone cannot say: SpecError `needed_past`, `no_such_size`, `no_such_row`, naming the field."""
    if wishes.needed is not None and wishes.needed != before.needed and wishes.needed < today:
        raise SpecError("needed_past", ("needed",))
    for key, choice in wishes.joints.items():
        if before.joints.get(key) != choice:
            check_choice(tables.fasteners, key, choice)
    for place, name, there in (
        ("wood", wishes.wood, (*tables.woods, *tables.plastics)), ("recipe", wishes.recipe, (*tables.recipes, NO_COAT)),
        ("glue", wishes.glue, tables.glues), ("holds/filling", wishes.holds.filling, tables.fillings),
    ):  # fmt: skip
        if name is not None and name not in there:
            raise SpecError("no_such_row", (place,), name=name)


def days_of(placed: Sequence[Placed]) -> list[date]:
    """The days from the first to the last of a plan."""
    if not placed:
        return []
    first, last = min(p.start for p in placed).date(), max(p.ready for p in placed).date()
    return [first + timedelta(days=k) for k in range((last - first).days + 1)]

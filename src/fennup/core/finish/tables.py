"""What one fastens, glues, coats and reckons with: plain tables of the workshop, usual figures until somebody types their own."""

from datetime import date
from itertools import pairwise
from typing import Annotated, Any, Literal

from pydantic import Field, model_validator

from fennup.core.drawing.edit import Choose, Drag, Edit, Free, Give
from fennup.core.editing import edit_field, edit_within, read_figure
from fennup.core.errors import SpecError
from fennup.core.fasten.table import USUAL_SOURCE, Fasteners, Name, Source
from fennup.core.finish.hours import FreeHours
from fennup.core.saw.tool import Strict
from fennup.core.units.lengths import Tape

Hours = Annotated[float, Field(ge=0, le=2000, allow_inf_nan=False)]
Part = Annotated[float, Field(ge=0, le=2, allow_inf_nan=False)]
Weight = Annotated[float, Field(gt=0, le=25_000, allow_inf_nan=False)]
Reach = Annotated[float, Field(gt=0, le=100, allow_inf_nan=False)]
Gap_mm = Annotated[float, Field(ge=0, le=2000, allow_inf_nan=False)]
Price = Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False)]
Exposure = Literal["indoors", "outdoors", "soil", "child"]
EXPOSURES: tuple[Exposure, ...] = ("indoors", "outdoors", "soil", "child")
MOST_ROWS = 40


class Wood(Strict):
    """Kind of wood. `kg_m3` as it is used; `hard`: drilled as hard wood; how much of its width it moves for each percent of moisture, sawn so that
    the rings lie flat (`flat_part`) or stand (`quarter_part`); `lasts`: outdoors without a coat."""

    name: Name
    kg_m3: Weight
    hard: bool
    flat_part: Part
    quarter_part: Part
    lasts: bool = False
    source: Source = USUAL_SOURCE


class Plastic(Strict):
    """Plastic or glass in sheets: its weight, and how much of its length it moves for each degree."""

    name: Name
    kg_m3: Weight
    per_degree: Annotated[float, Field(ge=0, le=1, allow_inf_nan=False)]
    source: Source = USUAL_SOURCE


class Recipe(Strict):
    """How something is coated: so many coats, `between_h` from one to the next, `use_h` after the last until it is used, sanded between with
    `grit`; `m2_l`: how far a litre goes, one coat; not below `least_c`; `m2_h`: how much one coats in an hour. For outdoors; for contents one eats
    of; after how many years it is renewed."""

    name: Name
    coats: Annotated[int, Field(ge=1, le=12)]
    between_h: Hours
    use_h: Hours
    grit: Annotated[int, Field(ge=0, le=2000)] = 0
    m2_l: Reach
    m2_h: Reach = 3.0
    least_c: Annotated[float, Field(ge=-20, le=40, allow_inf_nan=False)] = 8.0
    outdoors: bool = False
    food: bool = False
    oily: bool = False
    years: Annotated[float, Field(gt=0, le=100, allow_inf_nan=False)] = 5.0
    fills: Literal["paint", "clear", "oil", "bare"] = "paint"
    source: Source = USUAL_SOURCE


class Glue(Strict):
    """A glue: how long it stays open and clamped, until it is worked on; whether water lets it go; how much a square metre takes."""

    name: Name
    open_min: Annotated[float, Field(gt=0, le=600, allow_inf_nan=False)]
    clamp_h: Hours
    cured_h: Hours
    outdoors: bool
    g_m2: Annotated[float, Field(gt=0, le=2000, allow_inf_nan=False)] = 180.0
    source: Source = USUAL_SOURCE


class Filling(Strict):
    """What something is filled with."""

    name: Name
    kg_m3: Weight
    source: Source = USUAL_SOURCE


class Limits(Strict):
    """Openings that a child could be caught in, from and to, mm: its head, a limb, a finger. Usual figures; what holds where one lives stands in
    its codes. SpecError `limits_crossed` names the field."""

    finger_from_mm: Gap_mm = 7.0
    finger_to_mm: Gap_mm = 12.0
    limb_from_mm: Gap_mm = 25.0
    limb_to_mm: Gap_mm = 45.0
    head_from_mm: Gap_mm = 89.0
    head_to_mm: Gap_mm = 230.0
    source: Source = USUAL_SOURCE

    @model_validator(mode="after")
    def _in_order(self) -> "Limits":
        fields = ("finger_from_mm", "finger_to_mm", "limb_from_mm", "limb_to_mm", "head_from_mm", "head_to_mm")
        for low, high in pairwise(fields):
            if getattr(self, low) > getattr(self, high):
                raise SpecError("limits_crossed", (f"limits.{high}",), mm=getattr(self, high), limit_mm=getattr(self, low))
        return self


class Season(Strict):
    """How much moisture in wood changes over a year, percent, and the temperature, degrees, indoors and outdoors."""

    indoors_percent: Annotated[float, Field(ge=0, le=30, allow_inf_nan=False)] = 4.0
    outdoors_percent: Annotated[float, Field(ge=0, le=30, allow_inf_nan=False)] = 6.0
    indoors_c: Annotated[float, Field(ge=0, le=120, allow_inf_nan=False)] = 15.0
    outdoors_c: Annotated[float, Field(ge=0, le=120, allow_inf_nan=False)] = 50.0
    source: Source = USUAL_SOURCE


class Speed(Strict):
    """How long work takes: minutes for a cut, a joint's fitting, its gluing, a fastener, to prepare where something goes, and to set it up; smoothing in minutes for a square
    metre; spares of what is bought in small, as a part."""

    cut_min: Hours = 5.0
    fit_min: Hours = 6.0
    glue_min: Hours = 6.0
    fasten_min: Hours = 2.0
    smooth_min: Hours = 20.0
    site_min: Hours = 60.0
    setup_min: Hours = 60.0
    spare_part: Part = 0.1
    wind_n_m2: Annotated[float, Field(ge=0, le=5000, allow_inf_nan=False)] = 500.0
    source: Source = USUAL_SOURCE


Span_h = Annotated[tuple[float, float], Field(description="from an hour of the day to another one")]
EVENINGS: tuple[tuple[Span_h, ...], ...] = (((19.0, 21.0),),) * 5 + (((9.0, 13.0),), ())
WOODS = {
    name: Wood(name=name, kg_m3=kg, hard=hard, flat_part=flat, quarter_part=quarter, lasts=lasts)
    for name, kg, hard, flat, quarter, lasts in (
        ("spruce", 450, False, 0.0029, 0.0015, False), ("pine", 510, False, 0.0030, 0.0017, False),
        ("larch", 590, False, 0.0032, 0.0016, True), ("oak", 700, True, 0.0036, 0.0018, True),
        ("beech", 710, True, 0.0043, 0.0021, False), ("birch plywood", 680, False, 0.0002, 0.0002, False),
    )
}  # fmt: skip
PLASTICS = {
    name: Plastic(name=name, kg_m3=kg, per_degree=per)
    for name, kg, per in (("acrylic", 1190, 7.0e-5), ("polycarbonate", 1200, 6.5e-5), ("PVC", 1380, 8.0e-5), ("glass", 2500, 9.0e-6))
}  # fmt: skip
RECIPES = {
    recipe.name: recipe
    for recipe in (
        Recipe(name="outdoor paint", coats=3, between_h=16, use_h=24, grit=180, m2_l=10, outdoors=True, years=6),
        Recipe(name="indoor paint", coats=2, between_h=6, use_h=24, grit=180, m2_l=10, years=10),
        Recipe(name="clear varnish", coats=3, between_h=12, use_h=48, grit=240, m2_l=12, fills="clear", years=8),
        Recipe(name="outdoor stain", coats=2, between_h=12, use_h=24, m2_l=11, outdoors=True, years=3, fills="clear"),
        Recipe(name="boat varnish", coats=5, between_h=16, use_h=48, grit=240, m2_l=13, outdoors=True, years=4, fills="clear", least_c=10),
        Recipe(name="linseed oil", coats=2, between_h=24, use_h=72, m2_l=15, outdoors=True, food=True, oily=True, years=1, fills="oil"),
        Recipe(name="hard wax oil", coats=2, between_h=10, use_h=48, m2_l=20, food=True, oily=True, years=5, fills="oil"),
    )
}  # fmt: skip
GLUES = {
    glue.name: glue
    for glue in (
        Glue(name="white glue", open_min=8, clamp_h=1, cured_h=12, outdoors=False),
        Glue(name="water-resistant glue", open_min=8, clamp_h=1, cured_h=12, outdoors=True),
        Glue(name="polyurethane glue", open_min=20, clamp_h=4, cured_h=12, outdoors=True, g_m2=150),
        Glue(name="epoxy", open_min=30, clamp_h=8, cured_h=24, outdoors=True, g_m2=300),
    )
}  # fmt: skip
FILLINGS = {
    name: Filling(name=name, kg_m3=kg)
    for name, kg in (("water", 1000), ("wet soil", 1900), ("dry soil", 1300), ("wet sand", 2000), ("dry sand", 1600), ("rope", 350),
                     ("firewood", 400), ("gear", 200), ("books", 600))
}  # fmt: skip
ROWS = ("woods", "plastics", "recipes", "glues", "fillings")  # tables to which rows can be added
SIZES = ("screws", "nails", "bolts", "dowels", "biscuits")  # and those of fasteners


class Tables(Strict):
    """The workshop's tables. `hours`: free hours by weekday, Monday first; `away`: days that are crossed out; `prices`: what is paid for one of what is bought in
    small, a litre or a kilogram; `wood_money`: for a cubic metre of wood that has no price of its own."""

    fasteners: Fasteners = Fasteners()
    woods: Annotated[dict[Name, Wood], Field(min_length=1, max_length=MOST_ROWS)] = WOODS
    plastics: Annotated[dict[Name, Plastic], Field(min_length=1, max_length=MOST_ROWS)] = PLASTICS
    recipes: Annotated[dict[Name, Recipe], Field(min_length=1, max_length=MOST_ROWS)] = RECIPES
    glues: Annotated[dict[Name, Glue], Field(min_length=1, max_length=MOST_ROWS)] = GLUES
    fillings: Annotated[dict[Name, Filling], Field(min_length=1, max_length=MOST_ROWS)] = FILLINGS
    limits: Limits = Limits()
    season: Season = Season()
    speed: Speed = Speed()
    hours: Annotated[tuple[Annotated[tuple[Span_h, ...], Field(max_length=6)], ...], Field(min_length=7, max_length=7)] = EVENINGS
    away: Annotated[tuple[Annotated[date, Field(ge=date(2000, 1, 1), lt=date(2200, 1, 1))], ...], Field(max_length=400)] = ()
    prices: Annotated[dict[Annotated[str, Field(max_length=80)], Price], Field(max_length=400)] = {}
    wood_money: Price | None = None

    @property
    def free(self) -> FreeHours:
        """When somebody has time."""
        return FreeHours(self.hours, frozenset(self.away))

    @model_validator(mode="after")
    def _free(self) -> "Tables":
        self.free.check()
        return self


USUAL_TABLES = Tables()


def edit_tables(tables: Tables, act: Edit, on: Tape) -> dict[str, Any]:
    """The tables after one act, as a document still to be validated. Paths have `/` between their parts: `recipes/clear varnish/coats`. Choosing
    `away/2026-12-24` crosses a day out or takes it back, `hours/0` takes a text of hours, `18-20, 21-22`; choosing `recipes/add` copies a row under
    another name, `recipes/NAME` null takes one away. What is typed is somebody's own figure from then on. SpecError or UnitError."""
    document = tables.model_dump(mode="json")
    if isinstance(act, Give | Free | Drag):
        raise SpecError("no_such_field", (act.measure if not isinstance(act, Drag) else act.grip,))
    parts = act.path.split("/")
    if isinstance(act, Choose) and parts[0] == "away" and len(parts) == 2:
        rest = [day for day in document["away"] if day != parts[1]]
        return {**document, "away": sorted([*rest, parts[1]]) if act.value else rest}
    if act.op == "type" and parts[0] == "hours" and len(parts) == 2:
        return edit_field(document, Choose(op="choose", path=f"hours.{parts[1]}", value=spans_in(act.text, act.path)), on)
    if isinstance(act, Choose) and parts[-1] == "add" and isinstance(act.value, dict):
        like, name = str(act.value.get("like", "")), str(act.value.get("name", "")).strip()
        if parts[0] == "fasteners" and len(parts) == 3 and parts[1] in SIZES:
            return {**document, "fasteners": _copied(document["fasteners"], parts[1], act.path, like, name)}
        if parts[0] in ROWS and len(parts) == 2:
            return _copied(document, parts[0], act.path, like, name)
    if parts[0] == "prices" and len(parts) == 2:
        price = (
            act.value
            if isinstance(act, Choose)
            else read_figure(f"{act.path}_money", act.text, on, False)
            if act.op == "type"
            else None
        )
        others = {name: now for name, now in document["prices"].items() if name != parts[1]}
        return {**document, "prices": others if price is None else {**others, parts[1]: price}}
    if act.op == "type" and parts[-1] == "lengths_mm":
        lengths = [
            read_figure(act.path, piece, on, act.inches_meant) for piece in act.text.replace(";", ",").split(",") if piece.strip()
        ]
        act = Choose(op="choose", path=act.path, value=lengths)
    return edit_within(document, parts, act, on, _own)


def _own(row: dict[str, Any], field: str) -> dict[str, Any]:
    """A row that was changed is somebody's own."""
    return {**row, "source": "own figure"} if "source" in row and field != "source" else row


def _copied(document: dict[str, Any], table: str, path: str, like: str, name: str) -> dict[str, Any]:
    rows = document[table]
    if like not in rows:
        raise SpecError("no_such_field", (path,))
    if not name or "/" in name:
        raise SpecError("row_name", (path,))
    if name in rows:
        raise SpecError("row_twice", (path,), name=name)
    return {**document, table: {**rows, name: {**rows[like], "name": name, "source": "own figure"}}}


def spans_in(text: str, field: str) -> list[list[float]]:
    """`18-20, 21:30-22` as spans of hours; nothing as none. SpecError `no_hours` naming the field."""
    found = []
    for piece in text.replace(";", ",").split(","):
        if not piece.strip():
            continue
        try:
            start, end = (_hour(part) for part in piece.replace("–", "-").split("-"))
        except ValueError:
            raise SpecError("no_hours", (field,), text=text[:40]) from None
        found.append([start, end])
    return found


def _hour(text: str) -> float:
    hour, _, minute = text.strip().partition(":")
    return int(hour) + (int(minute) / 60 if minute else 0)

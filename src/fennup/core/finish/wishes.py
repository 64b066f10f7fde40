"""How somebody wants one project fastened, coated, filled and set up, and by when: a document of the project's own."""

from datetime import date
from typing import Annotated, Any, Literal

from pydantic import Field

from fennup.core.drawing.edit import Choose, Drag, Edit, Free, Give
from fennup.core.editing import edit_within
from fennup.core.errors import SpecError
from fennup.core.fasten.choice import Fastening
from fennup.core.fasten.table import Name
from fennup.core.finish.tables import Exposure, Hours
from fennup.core.saw.tool import Strict
from fennup.core.units.lengths import Tape

Key = Annotated[str, Field(max_length=120)]
FaceUse = Literal["coated", "hidden", "bare", "soil", "contents"]
FACE_USES: tuple[FaceUse, ...] = ("coated", "hidden", "bare", "soil", "contents")
CoatWhen = Literal["after", "masked", "before"]
Large_mm = Annotated[float, Field(gt=0, le=20_000, allow_inf_nan=False)]
Some_mm = Annotated[float, Field(ge=0, le=20_000, allow_inf_nan=False)]
Rise_mm = Annotated[float, Field(ge=-5_000, le=5_000, allow_inf_nan=False)]
Day = Annotated[date, Field(ge=date(2000, 1, 1), lt=date(2200, 1, 1))]
Load_kg = Annotated[float, Field(ge=0, le=20_000, allow_inf_nan=False)]
NO_COAT = "none"
MOST = 600


class WeatherDay(Strict):
    """A day's weather as it was foretold."""

    day: date
    low_c: Annotated[float, Field(ge=-60, le=60)]
    high_c: Annotated[float, Field(ge=-60, le=60)]
    rain_mm: Annotated[float, Field(ge=0, le=1000)]
    humid_percent: Annotated[float, Field(ge=0, le=100)]


class Weather(Strict):
    """What a weather service said, and when."""

    place: Annotated[str, Field(max_length=60)]
    as_of: Annotated[str, Field(max_length=40)]
    days: Annotated[tuple[WeatherDay, ...], Field(min_length=1, max_length=31)]


class Holds(Strict):
    """What it holds: of what, up to which level, and what weighs on it besides. `stack`: layers that lie in a rabbet, from the lip: glass, spacer, picture,
    back. `liner`: what is to go in, its outer sizes and from which height to which; `swells`: of which wood, if it swells."""

    filling: Name | None = None
    level_mm: Some_mm | None = None
    load_kg: Load_kg = 0.0
    push_up_mm: Large_mm | None = None
    glass_mm: Some_mm = 0.0
    spacer_mm: Some_mm = 0.0
    art_mm: Some_mm = 0.0
    back_mm: Some_mm = 0.0
    liner_width_mm: Large_mm | None = None
    liner_depth_mm: Large_mm | None = None
    liner_from_mm: Some_mm = 0.0
    liner_to_mm: Large_mm | None = None


class Site(Strict):
    """Where it stands or hangs. `readings`: what the tape reads between two feet, `AB/CD`; `rises`: how much higher the ground is at a foot than at the first;
    `top_mm`: how high its top hangs, `hooks_in_mm`: how far in from its sides, `drop_mm`: how far below its top they carry, `studs_mm`: how far
    apart what carries is in the wall, `first_stud_mm` from the middle; `stretched`: what hangs over it that the wind meets, besides its own wood; `anchors`; `latitude_deg` and `day` for the sun."""

    readings: Annotated[dict[Key, Large_mm], Field(max_length=MOST)] = {}
    rises: Annotated[dict[Key, Rise_mm], Field(max_length=200)] = {}
    top_mm: Large_mm | None = None
    hooks_in_mm: Some_mm | None = None
    drop_mm: Some_mm = 30.0
    studs_mm: Large_mm = 600.0
    first_stud_mm: Rise_mm = 0.0
    stretched: Literal["nothing", "sheet"] = "nothing"
    anchors: Annotated[int, Field(ge=0, le=40)] = 4
    latitude_deg: Annotated[float, Field(ge=-90, le=90, allow_inf_nan=False)] = 52.0
    day: Day = date(2027, 3, 20)


class FinishWishes(Strict):
    """`wood` and `exposure` of all of it, `exposures` and `materials` of single parts, by their first board; `joints`: how each kind is fastened, by its first joint; `faces`: what becomes of
    a face, `m1/A face`; `recipe`, `glue`, `coats`: none as is usual; `hours`: of a task, where somebody knows better; `needed`: by when; `away`:
    days that are crossed out for it."""

    wood: Name = "spruce"
    exposure: Exposure = "indoors"
    exposures: Annotated[dict[Key, Exposure], Field(max_length=MOST)] = {}
    materials: Annotated[dict[Key, Name], Field(max_length=MOST)] = {}
    joints: Annotated[dict[Key, Fastening], Field(max_length=MOST)] = {}
    faces: Annotated[dict[Key, FaceUse], Field(max_length=MOST)] = {}
    recipe: Name | None = None
    glue: Name | None = None
    coats: Annotated[int, Field(ge=1, le=12)] | None = None
    coat_when: CoatWhen = "after"
    coat_where: Literal["indoors", "outdoors"] = "indoors"
    hours: Annotated[dict[Key, Hours], Field(max_length=60)] = {}
    needed: Day | None = None
    needed_h: Annotated[float, Field(ge=0, le=24, allow_inf_nan=False)] = 10.0
    weather: Weather | None = None
    away: Annotated[tuple[Day, ...], Field(max_length=400)] = ()
    holds: Holds = Holds()
    site: Site = Site()


KEYED = ("joints", "faces", "exposures", "materials", "hours", "readings", "rises")  # their keys have `/` in them


def edit_finish_wishes(wishes: FinishWishes, act: Edit, on: Tape) -> dict[str, Any]:
    """The wishes after one act, as a document still to be validated. Paths have `/` between their parts; a joint's, a face's or a part's key stands whole
    between them: `joints/m1/AB/sunk_mm`, `faces/m1/A face`, `site/readings/m1/AB|m1/CD`. Choosing null empties a field, or forgets a key. SpecError
    or UnitError names the field."""
    document = wishes.model_dump(mode="json")
    if isinstance(act, Give | Free | Drag):
        raise SpecError("no_such_field", (act.measure if not isinstance(act, Drag) else act.grip,))
    parts = _parts(act.path)
    if isinstance(act, Choose) and len(parts) == 1 and parts[0] == "joints":
        return {**document, "joints": act.value or {}}
    if isinstance(act, Choose) and parts[0] == "away" and len(parts) == 2:
        rest = [day for day in document["away"] if day != parts[1]]
        return {**document, "away": sorted([*rest, parts[1]]) if act.value else rest}
    if parts[0] == "joints" and len(parts) == 3:
        held = document["joints"].get(parts[1]) or Fastening().model_dump(mode="json")
        document = {**document, "joints": {**document["joints"], parts[1]: held}}
    if parts[-2:-1] and parts[-2] in ("readings", "rises") and act.op == "type":
        parts = [*parts[:-1], f"{parts[-1]} mm"]  # told by its name that it is a length
        changed = edit_within(document, parts, act, on)
        site = changed["site"]
        plain = {key.removesuffix(" mm"): value for key, value in site[parts[-2]].items()}
        return {**changed, "site": {**site, parts[-2]: plain}}
    if parts[0] == "hours" and act.op == "type":
        changed = edit_within(document, ["hours", f"{parts[1]}_h"], act, on)
        return {**changed, "hours": {key.removesuffix("_h"): value for key, value in changed["hours"].items()}}
    return edit_within(document, parts, act, on)


def _parts(path: str) -> list[str]:
    """A path taken apart, a key whole."""
    first, *rest = path.split("/")
    if first == "joints" and len(rest) > 1:
        return [first, "/".join(rest[:-1]), rest[-1]]
    if first in KEYED:
        return [first, "/".join(rest)] if rest else [first]
    if first == "site" and rest and rest[0] in KEYED:
        return [first, rest[0], "/".join(rest[1:])]
    return [first, *rest]

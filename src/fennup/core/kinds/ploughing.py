"""What somebody says is ploughed along boards: what can be, and what there is to decide about it."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass, field, replace
from typing import Annotated, Literal

from pydantic import Field, ValidationError

from fennup.core.drawing.edit import Choose, TypeIn
from fennup.core.drawing.view import DOWN, LEFT, RIGHT, UP, Control, Dimension, Mark, Option
from fennup.core.errors import SpecError
from fennup.core.geometry.vec import Point2
from fennup.core.kinds.asking import Answers, choice, figure
from fennup.core.kinds.fields import Section_mm, Strict
from fennup.core.kinds.registry import Called
from fennup.core.stock.ploughed import CORNERS, FORMS, Chamfer, Cove, Form, Groove, Long, Milled, Ploughed, Rabbet, Round, Tongue
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING

MOST_PLOUGHED = 12
LEAST_WORKED_MM = 2.0  # across and through: on thinner wood nothing is offered
GROUP = "section"
FIGURE_SHARE = 0.11  # of a section's width, that half a figure with its words takes beside it
LEVEL_LANE, UPRIGHT_LANE = 1.6, 3.0  # how far apart dimensions stand beside a section, in text heights


class Profile(Strict):
    """A moulding as it comes, with its opening or upper edge as the upper one: what boards become that are made of it. `finish`: what is on it already."""

    name: Annotated[str, Field(max_length=60)] = ""
    width_mm: Section_mm
    thickness_mm: Section_mm
    ploughed: Annotated[tuple[Ploughed, ...], Field(max_length=MOST_PLOUGHED)] = ()
    finish: Annotated[str, Field(max_length=60)] = ""

    @property
    def section(self) -> Section:
        """It cut across."""
        return Section(self.width_mm, self.thickness_mm, self.ploughed)


def chosen_profile(value: object) -> Profile:
    """The moulding that somebody chose. SpecError `no_such_moulding`, or what is wrong with its section."""
    try:
        profile = Profile.model_validate(value)
    except ValidationError:
        raise SpecError("no_such_moulding", ("moulding",)) from None
    check_ploughed(profile.section, 0, "moulding.ploughed")
    return profile


Span = tuple[float, float]


@dataclass
class Beside:
    """What stands beside a drawing of a section: the box round it, and in each row on each side from where to where figures stand so far."""

    low: Point2
    high: Point2
    taken: dict[Point2, list[list[Span]]] = field(default_factory=dict)

    def dimension(self, name: str, label: str, span: Span, away: Point2, value: float, path: str) -> Dimension:
        """The next one on a side, from where to where along that, typed into a field."""
        row = self._row(span, away)
        level = away in (UP, DOWN)
        rim = {UP: self.high[1], DOWN: self.low[1], RIGHT: self.high[0], LEFT: self.low[0]}[away]
        a, b = (((at, rim) if level else (rim, at)) for at in span)
        lane = 1.0 + row * LEVEL_LANE if level else 1.5 + row * UPRIGHT_LANE
        return Dimension(name, label, a, b, value, "mm", "given", away, lane, acts=TypeIn(op="type", path=path, text=""))

    def _row(self, span: Span, away: Point2) -> int:
        """The first row on a side in which there is room for a line and its figure."""
        half = max(abs(span[1] - span[0]) / 2, FIGURE_SHARE * (self.high[0] - self.low[0]))
        middle = (span[0] + span[1]) / 2
        low, high = middle - half, middle + half
        rows = self.taken.setdefault(away, [])
        for number, row in enumerate(rows):
            if all(high <= start or low >= end for start, end in row):
                row.append((low, high))
                return number
        rows.append([(low, high)])
        return len(rows) - 1


def check_ploughed(section: Section, first: int, field: str) -> None:
    """Each thing ploughed must find its wood: SpecError `ploughed_too_large` with the figure and what there is, `ploughed_meets` where two
    run into each other or nothing holds the rest together, `milled_ends` where something milled does not begin and end on its sides. `first`: from which on
    they are the field's own."""
    for k, cut in enumerate(section.ploughed[first:]):
        if isinstance(cut, Milled) and not cut.reaches_sides:
            raise SpecError("milled_ends", (f"{field}.{k}.path",))
        for name, mm, limit in _figures(cut, section):
            if mm >= limit - NOTHING:
                raise SpecError("ploughed_too_large", (f"{field}.{k}.{name}",), mm=mm, limit_mm=limit, form=cut.form)
    for k in range(first, len(section.ploughed)):
        if not replace(section, ploughed=section.ploughed[: k + 1]).hangs_together:
            raise SpecError("ploughed_meets", (f"{field}.{k - first}",), form=section.ploughed[k].form)


def _figures(cut: Ploughed, section: Section) -> Iterator[tuple[str, float, float]]:
    """(field, figure, what it must stay under) of one thing ploughed."""
    wide, thick = section.width_mm, section.thickness_mm
    if isinstance(cut, Rabbet | Chamfer):
        yield "width_mm", cut.width_mm, wide
        yield "depth_mm", cut.depth_mm, thick
    elif isinstance(cut, Round | Cove):
        yield "radius_mm", cut.radius_mm, min(wide, thick)
    elif isinstance(cut, Groove):
        long, deep = (wide, thick) if cut.side in ("face", "back") else (thick, wide)
        yield "depth_mm", cut.depth_mm, deep
        yield "from_mm", cut.from_mm, long
        yield "width_mm", cut.width_mm, long - cut.from_mm + 2 * NOTHING
    elif isinstance(cut, Tongue):
        yield "long_mm", cut.long_mm, wide
        yield "from_mm", cut.from_mm, thick
        yield "thickness_mm", cut.thickness_mm, thick - cut.from_mm + 2 * NOTHING
    elif isinstance(cut, Milled):
        across = (thick, wide) if cut.at in ("upper", "lower") else (wide, thick)
        for figures, limit in zip(zip(*cut.path, strict=True), across, strict=True):
            yield "path", max(figures), limit + 2 * NOTHING


def usual(form: Form, section: Section) -> Ploughed | None:
    """A usual one of a form where this section still has wood for it; None where nowhere."""
    return next((cut for cut in _usual(form, section) if _fits(section, cut)), None)


def _usual(form: Form, section: Section) -> list[Ploughed]:
    """Usual ones of a form, wherever it can be."""
    wide, thick = section.width_mm, section.thickness_mm
    if min(wide, thick) < LEAST_WORKED_MM:
        return []
    small, deep = min(wide, thick) / 4, min(wide, thick) / 3
    if form == "rabbet":
        return [Rabbet(width_mm=min(thick / 2, wide / 4), depth_mm=thick / 2, corner=corner) for corner in CORNERS[::-1]]
    if form == "groove":
        middles: dict[Long, float] = {"back": wide / 2, "face": wide / 2, "lower": thick / 2, "upper": thick / 2}
        return [Groove(from_mm=at - deep / 2, width_mm=deep, depth_mm=deep, side=side) for side, at in middles.items()]
    if form == "chamfer":
        return [Chamfer(corner=corner, width_mm=small, depth_mm=small) for corner in CORNERS]
    if form == "tongue":
        edges: tuple[Literal["lower", "upper"], ...] = ("lower", "upper")
        return [Tongue(edge=edge, from_mm=deep, thickness_mm=deep, long_mm=deep) for edge in edges]
    curve = Round if form == "round" else Cove
    return [curve(corner=corner, radius_mm=small) for corner in CORNERS]


def _fits(section: Section, cut: Ploughed) -> bool:
    """Whether a section still has wood for one thing more."""
    sizes = all(mm < limit - NOTHING for _, mm, limit in _figures(cut, section))
    return sizes and replace(section, ploughed=(*section.ploughed, cut)).hangs_together


def ploughed_controls(
    section: Section,
    ploughed: Sequence[Ploughed],
    path: str,
    sides: str,
    group: str = GROUP,
    whose: str = "",
    more_code: str = "plough",
) -> list[Control]:
    """One more, and of each what it measures, where it is, and that it goes. `section` has them all; `sides` begins the codes of a kind's own
    sides and corners, `more_code` is that of the first."""
    rows = [cut.model_dump(mode="json") for cut in ploughed]
    more = [(form, usual(form, section)) for form in FORMS] if len(rows) < MOST_PLOUGHED else []
    offered = [
        Option(f"add_{form}", (Choose(op="choose", path=path, value=[*rows, cut.model_dump(mode="json")]),), False)
        for form, cut in more
        if cut is not None
    ]
    made = [Control(more_code, group, tuple(offered), about=whose, style="menu")] if offered else []
    for k, cut in enumerate(ploughed):
        alike = [other for other in ploughed if other.form == cut.form]
        about = " ".join(part for part in (whose, str(alike.index(cut) + 1) if len(alike) > 1 else "") if part)
        others = replace(section, ploughed=tuple(other for other in section.ploughed if other is not cut))
        made += [figure(f"{cut.form}_{name}", group, mm, f"{path}.{k}.{name}_mm", about=about) for name, mm in figures_of(cut)]
        answers: Answers = {
            f"{sides}_{place_of(moved)}": (moved.model_dump(mode="json"), place_of(moved) == place_of(cut))
            for moved in _elsewhere(cut, others)
        }
        if not isinstance(cut, Milled):  # where that is it was drawn
            made.append(choice(f"{cut.form}_at", group, f"{path}.{k}", answers, about, style="list"))
        if isinstance(cut, Groove):
            made.append(_counted_from(cut, others, f"{path}.{k}", sides, about, group))
        rest = [row for other, row in enumerate(rows) if other != k]
        gone = Option("take_it_away", (Choose(op="choose", path=path, value=rest),), False)
        made.append(Control(f"{cut.form}_away", group, (gone,), about=about, style="sentence"))
    return made


def figures_of(cut: Ploughed) -> list[tuple[str, float]]:
    """What it measures, by the names of its fields without their unit."""
    return [(name[:-3], value) for name, value in cut if name.endswith("_mm")]


def place_of(cut: Ploughed) -> str:
    """The corner, the side or the edge that it is at."""
    return str(getattr(cut, _place_field(cut)))


def _place_field(cut: Ploughed) -> str:
    return (
        "side"
        if isinstance(cut, Groove)
        else "edge"
        if isinstance(cut, Tongue)
        else "at"
        if isinstance(cut, Milled)
        else "corner"
    )


def _elsewhere(cut: Ploughed, others: Section) -> Iterator[Ploughed]:
    """The same at every place where there is wood for it, where it is included; as large as there if it can be, else a usual one. None of what is
    milled."""
    if isinstance(cut, Milled):
        return
    for there in _usual(cut.form, others):
        same = cut.model_copy(update={_place_field(cut): place_of(there)})
        if place_of(there) == place_of(cut) or _fits(others, same):
            yield same
        elif _fits(others, there):
            yield there


def _counted_from(cut: Groove, section: Section, path: str, sides: str, about: str, group: str) -> Control:
    """From which edge a groove is counted: where it lies it stays."""
    long, ends = (
        (section.width_mm, ("lower", "upper")) if cut.side in ("face", "back") else (section.thickness_mm, ("back", "face"))
    )
    turned = cut.model_copy(update={"far": not cut.far, "from_mm": long - cut.from_mm - cut.width_mm})
    answers: Answers = {
        f"{sides}_{end}": ((cut if cut.far == far else turned).model_dump(mode="json"), cut.far == far)
        for end, far in zip(ends, (False, True), strict=True)
    }
    return choice("groove_counted", group, path, answers, about)


def side_marks(section: Section, called: Called) -> tuple[Mark, ...]:
    """A section's sides by their names, on its wood, as it is drawn with its middle at 0."""
    y, z = section.width_mm / 2, section.thickness_mm / 2
    places: tuple[tuple[str, Point2], ...] = (
        (called.face, (0.0, z / 2)), (called.back, (0.0, -z / 2)), (called.upper, (-y / 3, 0.0)), (called.lower, (y / 2, 0.0))
    )  # fmt: skip
    return tuple(Mark("name", at, text) for text, at in places)


def ploughed_dimensions(
    section: Section, ploughed: Sequence[Ploughed], path: str, beside: Beside, at: Point2 = (0.0, 0.0)
) -> Iterator[Dimension]:
    """Every figure of what is ploughed, on the section as it is drawn with its middle at a place: x is -y, so that the upper edge is at the left, and
    y is z."""
    for k, cut in enumerate(ploughed):
        for name, mm in figures_of(cut):
            (ay, az), (by, bz) = _ends_of(cut, name, section)
            level = abs(az - bz) < NOTHING
            span = (at[0] - ay, at[0] - by) if level else (at[1] + az, at[1] + bz)
            away = (UP if az > 0 else DOWN) if level else (LEFT if ay > 0 else RIGHT)
            yield beside.dimension(f"{path}.{k}.{name}", f"{cut.form}_{name}", span, away, mm, f"{path}.{k}.{name}_mm")


def _ends_of(cut: Ploughed, name: str, section: Section) -> tuple[Point2, Point2]:
    """From where to where a figure goes, (y, z) on the section, beside what it measures."""
    half = (section.width_mm / 2, section.thickness_mm / 2)
    if isinstance(cut, Tongue):
        y = half[0] if cut.edge == "upper" else -half[0]
        low = -half[1] + (0.0 if name == "from" else cut.from_mm)
        if name == "long":
            return (y, -half[1]), (y - cut.long_mm if y > 0 else y + cut.long_mm, -half[1])
        return (y, low), (y, low + (cut.from_mm if name == "from" else cut.thickness_mm))
    if isinstance(cut, Groove):
        axis = 0 if cut.side in ("face", "back") else 1
        sense = -1.0 if cut.far else 1.0
        start = -sense * half[axis]
        near = start + sense * cut.from_mm
        along = {"from": (start, near), "width": (near, near + sense * cut.width_mm)}.get(name)
        out = 1.0 if cut.side in ("face", "upper") else -1.0
        rim = out * half[1 - axis]
        if along is None:
            at = near + sense * cut.width_mm / 2
            ends = ((at, rim), (at, rim - out * cut.depth_mm))
        else:
            ends = ((along[0], rim), (along[1], rim))
        return ends if axis == 0 else ((ends[0][1], ends[0][0]), (ends[1][1], ends[1][0]))
    side, _, edge = place_of(cut).partition("_")
    y, z = (half[0] if edge == "upper" else -half[0]), (half[1] if side == "face" else -half[1])
    figures = dict(figures_of(cut))
    if name == "depth":
        return (y, z), (y, z - figures[name] if z > 0 else z + figures[name])
    return (y, z), (y - figures[name] if y > 0 else y + figures[name], z)

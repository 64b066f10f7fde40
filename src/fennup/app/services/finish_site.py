"""Setting up, in words: set-out, falling ground, hanging, sun."""

from dataclasses import dataclass
from datetime import date
from math import hypot

from fennup.app.schemas.finish import GroupOut, PlacesOut, WhyOut
from fennup.app.schemas.sheet import ViewOut
from fennup.app.services.controls import figure_in, picked
from fennup.app.services.drawings import named, view_out
from fennup.app.services.wall_view import wall_view
from fennup.app.wording import finish as told
from fennup.app.wording.fit import FitWords
from fennup.app.wording.problems import problem_text
from fennup.core.drawing.edit import TypeIn
from fennup.core.drawing.view import Dimension, Mark, Shape, Standing, View
from fennup.core.errors import CoreError
from fennup.core.finish.planned import Finish
from fennup.core.finish.standing import Standing as Stands
from fennup.core.geometry.polygon import circle, hull
from fennup.core.geometry.vec import Point2
from fennup.core.site.setout import Pair
from fennup.core.tolerances import SAME

ON_WALL = {"top": "Hung with its top at", "in": "Hooks in from each side", "drop": "They carry below its top by"}
STEP_MM = 10.0
SQUARE_DEG = 0.011  # nobody sees less
SEEN_MM = 0.3
MOST_PLACES = 8
DOT = 0.03  # of the whole: how large a place is drawn


@dataclass(frozen=True)
class SiteSheet:
    """The part about setting up."""

    finish: Finish
    words: FitWords

    @property
    def standing(self) -> Stands:
        """The figures."""
        return Stands(self.finish)

    def out(self) -> PlacesOut:
        """All of it."""
        standing = self.standing
        lies = standing.lies_flat
        setting = 2 < len(standing.places) <= MOST_PLACES and not lies
        groups = [*([self._set_out(), self._ground()] if setting else []), self._wall()]
        if standing.sun and not lies:
            groups.append(self._sun())
        if holes := self._holes():
            groups.append(GroupOut(title="Drains, pipes and holes", controls=[], rows=holes))
        on_wall = None if setting else wall_view(standing)
        view = self.view() if setting else named(view_out(on_wall, self.words.voice), ON_WALL) if on_wall else None
        return PlacesOut(view=view, groups=groups, care=self._care())

    def place(self, name: str) -> str:
        """A foot, or a corner on the ground."""
        return self.words.short(name) if name in self.finish.design.solids else name

    def pair(self, pair: Pair) -> str:
        """Two places."""
        return f"{self.place(pair[0])} to {self.place(pair[1])}"

    # Set-out.

    def view(self) -> ViewOut:
        """The places from above, with the sides and diagonals between them."""
        standing = self.standing
        places = standing.places
        names = list(places)
        span = max(standing.distances.values(), default=1.0)
        outline = hull([(x, y) for x, y in standing.footing.outline]) if standing.footing.outline else ()
        shapes = [Shape("unseen", outline, True)] if outline else []
        shapes += [Shape("hole", circle(p, span * DOT), True) for p in places.values()]
        marks = tuple(Mark("letter", _beside(p, places, span), self.place(name)) for name, p in places.items())
        middle = (sum(x for x, _ in places.values()) / len(places), sum(y for _, y in places.values()) / len(places))
        sizes = []
        across = [(names[0], names[2]), (names[1], names[3])] if len(names) == 4 else []
        for pair in (*standing.sides, *across):
            read = standing.readings.get(pair)
            sizes.append(_line(pair, places, read, None if pair in across else middle))
        seen = view_out(View("set_out", tuple(shapes), marks, tuple(sizes)), self.words.voice)
        return named(seen, {f"{pair[0]}|{pair[1]}": f"{self.pair(pair)} reads" for pair in (*standing.sides, *across)})

    def _set_out(self) -> GroupOut:
        standing, voice = self.standing, self.words.voice
        names, places = list(standing.places), standing.places
        first = places[names[0]]
        rows, controls, note = [], [], ""
        for pair, mm in standing.distances.items():
            side = pair in standing.sides or (pair[1], pair[0]) in standing.sides
            dx, dy = places[pair[1]][0] - places[pair[0]][0], places[pair[1]][1] - places[pair[0]][1]
            lines = [
                told.both_forms(mm),
                f"By another way: {voice.say(round(abs(dx), 2))} along and {voice.say(round(abs(dy), 2))} across; the root of both squares together.",
            ]
            rows.append(
                WhyOut(title=f"{'Side' if side else 'Diagonal'}: {self.pair(pair)}", figure=voice.say(round(mm, 2)), lines=lines)
            )
            read = standing.readings.get(pair)
            controls.append(
                figure_in(
                    f"site/readings/{pair[0]}|{pair[1]}",
                    f"{self.pair(pair)} reads",
                    voice.of(read if read is not None else mm, "mm", "given"),
                    given=read is not None,
                )
            )
        three = standing.three(25.4 * 3 if voice.tape.unit == "in" else STEP_MM)
        if three:
            a, b, c = (voice.say(mm) for mm in three)
            rows.append(
                WhyOut(
                    title=f"A right angle at {self.place(names[0])}",
                    figure=f"{a}, {b}, {c}",
                    note="along one side, along the other, tip to tip",
                    lines=[
                        "Three to four to five: the corner is square when tip to tip reads right.",
                        *(told.both_forms(mm) for mm in three),
                    ],
                )
            )
        for name in names:
            x, y = places[name][0] - first[0], places[name][1] - first[1]
            rows.append(
                WhyOut(
                    title=f"Middle of {self.place(name)}",
                    figure=f"{voice.say(round(x, 1))}, {voice.say(round(y, 1))}",
                    note=f"to the right and back of {self.place(names[0])}",
                    lines=[
                        "Where it touches the ground, from the finished parts.",
                        f"{told.both_forms(x)}; {told.both_forms(y)}",
                    ],
                )
            )
        try:
            rows = [*self._read(), *rows]
        except CoreError as error:
            note = problem_text(error, voice)
        return GroupOut(title="Set it out", controls=controls, rows=rows, note=note)  # fmt: skip

    def _read(self) -> list[WhyOut]:
        """What readings mean: out of square by how much, which place goes where."""
        standing, voice = self.standing, self.words.voice
        if not standing.readings:
            return []
        found = []
        names = list(standing.places)
        square = standing.out_of_square
        if square is not None:
            longer = (names[0], names[2]) if square > 0 else (names[1], names[3])
            note = f"the diagonal {self.pair(longer)} is the longer one" if abs(square) > SAME else "both diagonals agree"
            found.append(
                WhyOut(
                    title="Out of square by",
                    figure=f"{abs(square):.4f}°",
                    note=note,
                    tone="near" if abs(square) > SQUARE_DEG else "right",
                    lines=[
                        "From both sides and both diagonals as they read.",
                        "Equal diagonals alone do not say that the sides are right: read those too.",
                    ],
                )
            )
        moved = {name: m for name, m in standing.moves_to.items() if max(abs(m.right_mm), abs(m.back_mm)) > SEEN_MM}
        for name, move in moved.items():
            ways = []
            if abs(move.right_mm) > SEEN_MM:
                ways.append(f"{voice.small(abs(move.right_mm))} {'on' if move.right_mm > 0 else 'back'} along the base line")
            if abs(move.back_mm) > SEEN_MM:
                ways.append(f"{voice.small(abs(move.back_mm))} {'away from' if move.back_mm > 0 else 'towards'} it")
            lines = [
                f"The base line goes from {self.place(names[0])} to {self.place(names[1])}; the first stays where it is.",
                "The shape that comes nearest to all readings, laid on the plan.",
            ]
            far = voice.small(hypot(move.right_mm, move.back_mm))
            found.append(WhyOut(title=f"Move {self.place(name)}", figure=far, note=", ".join(ways), lines=lines, tone="near"))
        if not moved:
            found.append(
                WhyOut(
                    title="As read",
                    figure="every place is right",
                    tone="right",
                    lines=["No place is off by more than can be seen."],
                )
            )
        return found  # fmt: skip

    def _ground(self) -> GroupOut:
        standing, voice = self.standing, self.words.voice
        rises = self.finish.wishes.site.rises
        controls = [
            figure_in(f"site/rises/{name}", f"Ground at {self.place(name)}, higher by", voice.of(rises.get(name, 0.0), "mm", "given"), given=name in rises)
            for name in standing.places
        ]  # fmt: skip
        rows = []
        if rises:
            lines = ["All are brought to the height of the highest; less than nothing typed means lower than the first."]
            rows = [
                WhyOut(
                    title=f"Under {self.place(name)}",
                    figure=voice.say(round(mm, 1)),
                    note="of packing, or a leg longer by that, measured upright",
                    lines=lines,
                )
                for name, mm in standing.packing.items()
            ]
        return GroupOut(title="If the ground falls", controls=controls, rows=rows)

    # Wall.

    def _wall(self) -> GroupOut:
        site, voice, standing = self.finish.wishes.site, self.words.voice, self.standing
        controls = [
            figure_in(
                "site/top_mm", "Hung with its top at", voice.of(site.top_mm or 0.0, "mm", "given"), given=site.top_mm is not None
            )
        ]
        if site.top_mm is None:
            return GroupOut(title="On a wall", controls=controls, rows=[])
        inset = round(standing.size[0] / 5, 1) if site.hooks_in_mm is None else site.hooks_in_mm
        for field, label, value, given in (
            ("hooks_in_mm", "Hooks in from each side", inset, site.hooks_in_mm is not None),
            ("drop_mm", "They carry below its top by", site.drop_mm, True),
            ("studs_mm", "Studs in the wall, middle to middle", site.studs_mm, True),
            ("first_stud_mm", "One stud from the middle, to the right", site.first_stud_mm, True),
        ):
            controls.append(figure_in(f"site/{field}", label, voice.of(value, "mm", "given"), given=given))
        try:
            rows = self._hung()
        except CoreError as error:
            return GroupOut(title="On a wall", controls=controls, rows=[], note=problem_text(error, voice))
        return GroupOut(title="On a wall", controls=controls, rows=rows)

    def _hung(self) -> list[WhyOut]:
        """Marks for hooks, studs behind them, weights."""
        say, standing = self.words.voice.say, self.standing
        hung, weight = standing.hung, standing.loaded.kg
        assert hung
        left, right = hung.hooks_mm
        studs = ", ".join(say(round(mm)) for mm in hung.studs_mm) or "none"
        held = (
            "both hooks meet one"
            if hung.on_studs
            else "a hook misses them: move it onto one, screw a rail across two, or take wall fixings for your wall"
        )
        return [
            WhyOut(
                title="Hooks at this height", figure=say(round(hung.up_mm, 1)),
                note=f"{say(round(abs(left), 1))} to the left and {say(round(right, 1))} to the right of the middle",
                lines=["Mark the middle plumb, then a level line at that height through it; measure both from the middle.", told.both_forms(hung.up_mm)],
            ),
            WhyOut(title="Studs behind it", figure=studs, note=f"from its middle; {held}", tone="right" if hung.on_studs else "near",
                   lines=["From the one stud that you gave, on by how far apart they are, as wide as it is."]),
            WhyOut(
                title="On each hook", figure=told.kg(weight / 2), note=f"take one made for {told.kg(weight)} or more",
                lines=["Its weight on two hooks, and twice that for a knock and for one hook alone."],
            ),
            WhyOut(
                title="Pulled off the wall at the top", figure=told.newton(standing.wall_pull_n),
                lines=["As if its weight acted in the middle of how far it stands out, and its lower edge leaned on the wall."],
            ),
        ]  # fmt: skip

    def _sun(self) -> GroupOut:
        site, standing = self.finish.wishes.site, self.standing
        sun = standing.sun
        assert sun
        controls = [figure_in("site/latitude_deg", "Latitude, north +", self.words.voice.angle(site.latitude_deg))]
        lines = [
            "Noon height: 90° less latitude plus how far north the sun stands that day, to some half a degree (Spencer's series). Share: the cosine of how far from square it comes in. A lid that faces the sun, a clear sky."
        ]
        year = site.day.year
        days = [
            (d, told.day_words(date.fromisoformat(d)), d)
            for d in (f"{year}-03-20", f"{year}-06-21", f"{year}-09-22", f"{year}-12-21")
        ]
        controls.append(picked("site/day", "On", days, site.day.isoformat()))
        rows = [WhyOut(title=f"Noon sun on {told.day_words(site.day)}", figure=f"{sun.altitude_deg:.1f}° high", lines=lines)]
        for slope, part in sun.variants:
            mine = abs(slope - sun.slope_deg) < 0.1
            rows.append(
                WhyOut(
                    title=f"Sloping {slope:.1f}°{', as it is' if mine else ''}",
                    figure=f"{100 * part:.0f} %",
                    note="of the full sun",
                    lines=[f"The cosine of {abs(90 - sun.altitude_deg - slope):.1f}°, by which the sun comes in from square."],
                )
            )
        return GroupOut(title="Sun on its slope", controls=controls, rows=rows)

    def _holes(self) -> list[WhyOut]:
        """Where holes are in the parts, so that what goes through them can be made to match."""
        say, found = self.words.voice.say, []
        for facts in self.finish.design.facts:
            name = self.words.short(facts.key)
            for row in facts.holes:
                deep = f", {say(row.deep_mm)} deep" if row.deep_mm else ""
                places = ", ".join(say(round(mm, 1)) for mm in row.along_mm)
                lines = [
                    f"Middles {places} from the left end, running; {say(round(row.up_mm, 1))} up from the lower edge, on the {row.side}.",
                    "Hold the pipe or the drain to the board before anything is glued.",
                ]
                found.append(
                    WhyOut(
                        title=f"{name[:1].upper()}{name[1:]}: {told.how_many(len(row.along_mm), 'hole')}",
                        figure=f"⌀ {say(row.diameter_mm)}{deep}",
                        lines=lines,
                    )
                )
        return found  # fmt: skip

    def _care(self) -> list[str]:
        kg = self.standing.own.kg
        found = []
        if kg > 20:
            found.append(f"{told.kg(kg)}: two people lift it.")
        found.append("Before drilling or driving anything into a wall or the ground: look for cables, pipes and ducts.")
        found.append("Ladders on firm level ground, somebody at the foot; nothing carried up in both hands.")
        found.append("Nothing heavy hung over where somebody sits, sleeps or walks, unless a professional says how.")
        found.append(told.DEFER)
        return found


def _beside(p: Point2, places: dict[str, Point2], span: float) -> Point2:
    """A little inwards of a place, where its name stands."""
    x = sum(q[0] for q in places.values()) / len(places)
    y = sum(q[1] for q in places.values()) / len(places)
    long = max(1.0, ((p[0] - x) ** 2 + (p[1] - y) ** 2) ** 0.5)
    by = -span * 3.5 * DOT
    return (p[0] + (p[0] - x) / long * by, p[1] + (p[1] - y) / long * by)


def _line(pair: Pair, places: dict[str, Point2], read: float | None, middle: Point2 | None) -> Dimension:
    """From place to place, to be typed over with what the tape reads."""
    a, b = places[pair[0]], places[pair[1]]
    if middle is None:  # a diagonal: its figure off the middle, where both cross
        a, b = (a, b) if pair[0] < pair[1] else (b, a)
    dx, dy = b[0] - a[0], b[1] - a[1]
    long = (dx * dx + dy * dy) ** 0.5
    away: Point2 = (0.0, 0.0)
    if middle:
        away = (dy / long, -dx / long)
        if away[0] * (a[0] - middle[0]) + away[1] * (a[1] - middle[1]) < 0:
            away = (-away[0], -away[1])
    key = f"{pair[0]}|{pair[1]}"
    acts = TypeIn(op="type", path=f"site/readings/{key}", text="")
    standing: Standing = "given" if read is not None else "suggested"
    value = read if read is not None else round(long, 1)
    return Dimension(key, "", a, b, value, "mm", standing, away, 2.0 if middle else 0.0, acts=acts)

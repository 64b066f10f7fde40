"""The Fit place in words: will it close, what should be read, and what the readings mean."""

from dataclasses import dataclass
from functools import cached_property
from typing import Literal

from fennup.app.schemas.fit import (
    FitOut,
    FitPictureOut,
    ForecastOut,
    GapJointOut,
    LineOut,
    PictureOut,
    ReadingOut,
    ToldOut,
    Tone,
)
from fennup.app.schemas.sheet import ControlOut, ViewOut
from fennup.app.services import documents
from fennup.app.services.drawings import control_out, view_out
from fennup.app.services.fit_made import Again, FitMade, Source
from fennup.app.services.fit_order import FitOrder
from fennup.app.wording.acts import did_words
from fennup.app.wording.figures import Figure, Voice
from fennup.app.wording.fit import HOWS, PICTURES, FitWords
from fennup.app.wording.fit_forecast import depends, headline, kinds_apart, needs, used_lines
from fennup.app.wording.fit_gaps import cured_text, cured_title
from fennup.app.wording.members import sides_of
from fennup.core.drawing.edit import Choose, TypeIn
from fennup.core.drawing.view import Control, Option
from fennup.core.fit.drawn import fan_seen, fans, picture_view, reading_line
from fennup.core.fit.fitting import Fit
from fennup.core.fit.forecast import Opening
from fennup.core.fit.reading import Expected, Picture
from fennup.core.fit.ways import FILLED_MM
from fennup.core.fit.wishes import EXAGGERATIONS
from fennup.core.records.entry import ReadBody
from fennup.core.saw.hand import USUAL
from fennup.core.solve import Solution

GAP_SIDES: tuple[Literal["face", "back", "upper", "lower"], ...] = ("face", "back", "upper", "lower")


def choosing(path: str, value: object) -> tuple[Choose, ...]:
    """The act that chooses something."""
    return (Choose(op="choose", path=path, value=value),)


def typing(path: str) -> TypeIn:
    """The act that types something."""
    return TypeIn(op="type", path=path, text="")


@dataclass(frozen=True)
class FitSheet:
    """A project's dry fit, ready to be worded. `again`: the project solved with some sizes as they are built; `source`: out of which board a
    piece can be cut again."""

    fit: Fit
    solution: Solution
    voice: Voice
    again: Again | None = None
    source: Source | None = None

    @cached_property
    def words(self) -> FitWords:
        """Names and sentences."""
        return FitWords(self.solution, self.voice)

    @cached_property
    def made(self) -> FitMade:
        """The part about what was made."""
        return FitMade(self.fit, self.words, self.again, self.source)

    @cached_property
    def order(self) -> FitOrder:
        """The part about putting it together."""
        return FitOrder(self.fit, self.words)

    def out(self, state: documents.State, undo: str | None, redo: str | None) -> FitOut:
        """The whole place."""
        readings = [self._reading(e) for e in self.fit.sheet.readings if e.kind != "gap"]
        made = self.made.out()
        return FitOut(
            version=state.version,
            undo=undo or did_words(state.undo, self.voice),
            redo=redo or did_words(state.redo, self.voice),
            foot=self._foot(made.tone, made.headline),
            forecast=self.forecast(),
            pictures=[self._picture(p, readings) for p in self.fit.sheet.pictures if any(r.picture == p.id for r in readings)],
            readings=readings,
            besides=self._besides(readings),
            told=self._told(),
            gaps=[self._gap(e) for e in self.fit.sheet.readings if e.kind == "gap"],
            made=made,
            order=self.order.out(),
            passage=self.order.passage(),
        )

    def _foot(self, tone: Tone, said: str) -> str:
        read = len(self.fit.values)
        if tone == "wrong":
            return said
        if read:
            wrong = sum(told.verdict == "wrong" for told in self.fit.told)
            return f"{read} read, {wrong} out" if wrong else f"{read} read, none out"
        chance = self.fit.forecast.chance
        return f"Every joint within {self.voice.small(self.fit.allowance_mm)}: {_in_ten(chance)}"

    # Will it close?

    def forecast(self) -> ForecastOut:
        """The forecast in words, with all that it is asked from."""
        forecast, words = self.fit.forecast, self.words
        rows = self._rows()
        tone: Tone = "right" if forecast.chance >= 0.9 else "near" if forecast.chance >= 0.5 else "wrong"
        return ForecastOut(
            headline=headline(forecast, words),
            tone=tone,
            picture=self._best_picture(),
            depends=depends(forecast, words),
            needs=needs(forecast, self.voice),
            apart=[LineOut(**line) for line in kinds_apart(forecast, words)],
            rows=rows,
            hand=self._hand(),
            used=[LineOut(**line) for line in used_lines(self.fit.working, self.voice)],
            wishes=self._wishes(),
        )

    def _best_picture(self) -> str:
        """On which the fan of the worst joint is seen: one of what goes round before the whole."""
        worst = self.fit.forecast.worst
        seen = [p for p in self.fit.sheet.pictures if worst and fan_seen(self.fit, p, worst.joint)]
        seen.sort(key=lambda p: p.what != "round")
        return seen[0].id if seen else ""

    def _rows(self) -> list[LineOut]:
        """The last joint of every ring, the widest of its joints by themselves, and every other joint."""
        forecast, words = self.fit.forecast, self.words
        told: list[tuple[str, Opening]] = []
        within: set[str] = set()
        for last, loop in zip(forecast.rings, self.fit.web.rings, strict=True):
            ids = {m.joint.id for m in loop.joints}
            within |= ids
            alone = max((o for o in forecast.joints if o.joint in ids), key=lambda o: o.nine_mm)
            told += [
                (f"{words.joint_capital(last.joint)}, left to the last", last),
                (f"Each of those {len(ids)} joints by itself", alone),
            ]
        told += [
            (words.joint_capital(o.joint), o)
            for o in sorted(forecast.joints, key=lambda o: -round(o.nine_mm, 6))
            if o.joint not in within
        ]
        widest = max((o.nine_mm for _, o in told), default=1.0) or 1.0
        allowed = self.voice.small(forecast.allowance_mm)
        return [
            LineOut(
                text=name,
                figure=self.voice.small(o.nine_mm),
                note=f"expect {self.voice.small(o.expect_mm)}; within {allowed} {_in_ten(o.chance)}",
                share=o.nine_mm / widest,
                tone="right"
                if o.nine_mm <= forecast.allowance_mm
                else "near"
                if o.expect_mm <= forecast.allowance_mm
                else "wrong",
            )
            for name, o in told
        ]

    def _hand(self) -> list[ControlOut]:
        hand = self.fit.plan.workshop.hand
        usual = USUAL[hand.way]
        ways = tuple(Option(f"way_{way}", choosing("hand.way", way), hand.way == way) for way in USUAL)
        controls = [Control("hand_way", "hand", ways)]
        fields: tuple[tuple[str, str, Literal["gap", "deg"], float], ...] = (
            ("hand_length", "length_mm", "gap", usual[0]),
            ("hand_angle", "angle_deg", "deg", usual[1]),
            ("hand_thick", "thick_mm", "gap", usual[2]),
        )
        for code, field, unit, value in fields:
            own = getattr(hand, field)
            controls.append(
                Control(
                    code,
                    "hand",
                    value=own or value,
                    unit=unit,
                    acts=typing(f"hand.{field}"),
                    standing="given" if own else "suggested",
                )
            )
        return [control_out(c, self.voice) for c in controls]

    def _wishes(self) -> list[ControlOut]:
        wishes = self.fit.wishes
        wished = wishes.wished_mm or self.fit.allowance_mm
        controls = [
            Control("wished_gap", "fit", value=wished, unit="gap", acts=typing("wished_mm"), standing="given" if wishes.wished_mm else "suggested"),
            Control("blunt", "fit", value=wishes.blunt_deg, unit="deg", acts=typing("blunt_deg")),
            Control("fan_times", "fit", tuple(Option(f"times_{n}", choosing("times", n), wishes.times == n) for n in EXAGGERATIONS)),
            Control("finish", "fit", tuple(Option(f"finish_{f}", choosing("finish", f), wishes.finish == f) for f in FILLED_MM)),
            Control("stands_where", "fit", tuple(Option(f"stands_{name}", choosing("outdoors", out), wishes.outdoors == out) for name, out in (("indoors", False), ("outdoors", True)))),
        ]  # fmt: skip
        return [control_out(c, self.voice) for c in controls]

    # What should be read.

    def _picture(self, picture: Picture, readings: list[ReadingOut]) -> PictureOut:
        own = [r for r in readings if r.picture == picture.id]
        return PictureOut(
            id=picture.id,
            title=self.words.picture(picture),
            group=PICTURES[picture.what],
            read=sum(r.value is not None for r in own),
            total=len(own),
        )

    @cached_property
    def _pictures(self) -> dict[str, Picture]:
        return {p.id: p for p in self.fit.sheet.pictures}

    def _reading(self, e: Expected) -> ReadingOut:
        entry = self.fit.standing.read.get(e.key)
        body = entry.body if entry and isinstance(entry.body, ReadBody) else None
        a, b = reading_line(self._pictures[e.picture], e.a, e.b)
        told = next((t for t in self.fit.told if e.key in t.keys), None) if body else None
        return ReadingOut(
            key=e.key,
            kind=e.kind,
            picture=e.picture,
            label=self.words.label(e),
            how=HOWS[e.kind],
            unit=e.unit,
            a=a,
            b=b,
            expected=self.figure(e.value, e.unit),
            near=self.words.near(e, self.fit.near(e)),
            value=self.figure(body.measured, e.unit) if body else None,
            typed=body.typed if body else "",
            tone=told.verdict if told else "none",
            record=entry.id if entry else "",
        )

    def figure(self, value: float, unit: str) -> Figure:
        """A figure as it is read: lengths to the mark with what is over, angles to a hundredth."""
        return self.voice.length(value) if unit == "mm" else self.voice.angle(value)

    def _told(self) -> list[ToldOut]:
        by_key = self.fit.sheet.by_key
        order = ("wrong", "near", "right")
        told = [
            ToldOut(
                keys=list(t.keys),
                tone=t.verdict,
                title=self.words.title(t, by_key),
                text=self.words.text(t, by_key, self.fit.near(by_key[t.keys[0]])),
            )
            for t in sorted(self.fit.told, key=lambda t: order.index(t.verdict))
            if by_key[t.keys[0]].kind != "gap"
        ]
        return list({t.title: t for t in told}.values())  # three feet that stand firm are told once

    def _gap(self, e: Expected) -> GapJointOut:
        entry = self.fit.standing.read.get(e.key)
        body = entry.body if entry and isinstance(entry.body, ReadBody) else None
        meeting = self.fit.web.meetings.all[e.names[0]]
        names = sides_of(self.solution, meeting.a.id)
        cured = self.fit.cured.get(e.key)
        tone: Tone = (
            "none"
            if body is None
            else "right"
            if cured is None or cured.cure == "leave"
            else "near"
            if cured.cure != "recut"
            else "wrong"
        )
        return GapJointOut(
            key=e.key,
            label=self.words.joint_capital(e.names[0]),
            sides=[("even", "even all round"), *((side, f"open at the {names[side]}") for side in GAP_SIDES)],
            side=body.side if body else "",
            value=self.voice.gap(body.measured) if body else None,
            tone=tone,
            title=cured_title(cured, self.words) if cured else ("Closed." if body else ""),
            text=cured_text(cured, self.words, self.fit) if cured else [],
            record=entry.id if entry else "",
        )

    def _besides(self, readings: list[ReadingOut]) -> list[ControlOut]:
        """The height at which a width is read besides, of what stands."""
        if not any(r.kind == "width" for r in readings):
            return []
        at = Control(
            "width_at",
            "fit",
            value=self.fit.wishes.at_mm or 0.0,
            unit="mm",
            acts=typing("at_mm"),
            standing="given" if self.fit.wishes.at_mm else "suggested",
        )
        return [control_out(at, self.voice)]

    # Pictures.

    def picture(self, id: str, *, made: bool, with_fans: bool) -> FitPictureOut:
        """One of them. NotFound."""
        picture = self._pictures.get(id)
        if picture is None:
            raise documents.NotFound(id)
        as_made = self.fit.made_with(self.fit.offs, self.fit.wishes.times) if made else None
        solids = as_made.solids if as_made else None
        view = picture_view(self.fit, picture, solids)
        if with_fans:
            view = type(view)(view.id, (*view.shapes, *fans(self.fit, self.fit.forecast, picture, self.fit.wishes.times)))
        return FitPictureOut(view=self._titled(view_out(view, self.voice), picture))

    def _titled(self, view: ViewOut, picture: Picture) -> ViewOut:
        return view.model_copy(update={"title": self.words.picture(picture)})


def _in_ten(chance: float) -> str:
    """A chance in words: 7 in 10, nearly always, hardly ever."""
    if chance > 0.97:
        return "nearly always"
    if chance < 0.03:
        return "hardly ever"
    tenths = max(1, min(9, round(10 * chance)))
    return f"{tenths} {'time' if tenths == 1 else 'times'} in 10"

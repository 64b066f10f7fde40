"""Figures as people read them: with true fractions, their unit, what was rounded off, and how they are spoken."""

from dataclasses import dataclass
from functools import lru_cache
from math import ceil, floor
from typing import Literal

from pydantic import BaseModel

from fennup.app.wording.labels import NOBODY, Naming, label
from fennup.core.drawing.view import BY_ITSELF, Standing, SumOf
from fennup.core.tolerances import NOTHING, SAME
from fennup.core.units.angles import angle_text
from fennup.core.units.lengths import Hair, Tape, decimals, off_the_marks, read_as_typed, read_at_least, read_length

LIMIT_MM = 0.01  # how finely a limit is told


class Figure(BaseModel, frozen=True):
    """A figure for the screen. `whole` and `fraction` are set apart so that the fraction can be set as one; `hair`: on which side of
    the tape's mark it lies, `exact` what it is then; `typed` is what one would type to get it back; `sum`: what it was said as, where that is a sum."""

    whole: str
    fraction: str = ""
    hair: Hair = ""
    exact: str = ""
    unit: str = ""
    spoken: str
    typed: str
    sum: str = ""


@lru_cache(maxsize=4096)  # the same few lengths stand in many places of a sheet
def _length(mm: float, tape: Tape, *, as_typed: bool) -> Figure:
    typed = read_as_typed(mm, tape) if as_typed else None
    read = typed or read_length(mm, tape)
    unit, name = ("″", "inches") if tape.unit == "in" else ("mm", "millimetres")
    whole_and = f"{read.whole} and {read.fraction}" if read.whole and read.fraction else read.text
    exact = mm if tape.unit == "mm" else mm / 25.4
    beside = typed is None and off_the_marks(mm, tape)
    shown = decimals(exact, 2 if tape.unit == "mm" else 3).replace("-", "−") if beside else ""
    return Figure(
        whole=read.whole,
        fraction=read.fraction,
        hair=read.hair,
        exact=f"{shown}{'″' if unit == '″' else ' mm'}" if shown else "",
        unit=unit,
        spoken=f"{f'a hair {read.hair} ' if read.hair else ''}{whole_and} {name}",
        typed=decimals(exact, 4) if beside else read.text.replace("−", "-"),
    )


@dataclass(frozen=True)
class Voice:
    """Words for one project's figures: its tape, and what its assemblies are called."""

    tape: Tape
    naming: Naming = NOBODY

    def label(self, code: str) -> str:
        """What a size or something else with a code is called."""
        return label(code, self.naming)

    def length(self, mm: float) -> Figure:
        """A length on this tape."""
        return _length(mm, self.tape, as_typed=False)

    def angle(self, deg: float, digits: int = 2) -> Figure:
        """An angle in degrees."""
        text = angle_text(deg, digits)
        exact = f"{deg:.6f}".rstrip("0").rstrip(".")
        return Figure(whole=text, unit="°", spoken=f"{text} degrees", typed=exact)

    def gap(self, mm: float) -> Figure:
        """A gap that somebody may type over: too small for the tape's marks, so in decimals of its unit."""
        inches = self.tape.unit == "in"
        text = f"{mm / 25.4 if inches else mm:.{4 if inches else 3}f}".rstrip("0").rstrip(".")
        return Figure(
            whole=text, unit="″" if inches else "mm", spoken=f"{text} {'inches' if inches else 'millimetres'}", typed=text
        )

    def count(self, number: float) -> Figure:
        """A whole number."""
        text = f"{number:.0f}"
        return Figure(whole=text, spoken=text, typed=text)

    def plain(self, number: float, unit: str = "", digits: int = 2) -> Figure:
        """Any other number with its unit: hours, kilograms, litres."""
        text = f"{number:.{digits}f}".rstrip("0").rstrip(".") if digits else f"{number:.0f}"
        return Figure(whole=text.replace("-", "−"), unit=unit, spoken=f"{text} {unit}".strip(), typed=text)

    def of(self, value: float, unit: str, standing: Standing = "derived") -> Figure:
        """A figure by its unit: mm, deg, count, or a gap in mm. A length that follows from no others is shown as it was typed."""
        if unit == "gap":
            return self.gap(value)
        if unit == "deg":
            return self.angle(value)
        return _length(value, self.tape, as_typed=standing in BY_ITSELF) if unit == "mm" else self.count(value)

    def with_sum(self, figure: Figure, said: SumOf | None) -> Figure:
        """A figure with the sum that it was said as."""
        if said is None:
            return figure
        plus = _length(abs(said.plus_mm), self.tape, as_typed=True).typed
        terms = [(said.plus_mm < 0, plus)] if said.plus_mm else []
        terms += [(times < 0, name if abs(times) == 1 else f"{abs(times)} {name}") for times, name in said.terms]
        text = " ".join(f"{'−' if less else '+'} {word}" for less, word in terms).removeprefix("+ ")
        return figure.model_copy(update={"sum": text, "typed": text.replace("−", "-"), "spoken": f"{figure.spoken}, {text}"})

    def say(self, mm: float) -> str:
        """A length inside a sentence."""
        return spoken(_length(mm, self.tape, as_typed=True))

    def say_at_least(self, mm: float) -> str:
        """The same of the least that does: at the tape's first mark that is not less."""
        mark = read_at_least(mm, self.tape)
        return f"{mark.text}{'″' if mark.unit == 'in' else ' mm'}"

    def limit(self, mm: float, side: Literal["most", "least"]) -> str:
        """A length told as a limit: on the side that is allowed, to a hundredth of a millimetre or a 64th of an inch, so that typing it back is taken."""
        step = LIMIT_MM if self.tape.unit == "mm" else 25.4 / 64
        steps = mm / step
        whole = floor(steps + SAME) if side == "most" else ceil(steps - SAME)
        return self.say(mm if abs(steps - round(steps)) < SAME else whole * step)

    def run(self, mm: float) -> str:
        """How much of a board, rounded up to what one buys by: cm, or tenths of a foot."""
        if self.tape.unit == "mm":
            return f"{ceil(mm / 10 - NOTHING) / 100:.2f} m"
        return f"{ceil(mm / 30.48 - NOTHING) / 10:.1f} ft"

    def small(self, mm: float) -> str:
        """A gap: too small for a tape, so in tenths of mm or thousandths of an inch."""
        return f"{mm:.2f} mm" if self.tape.unit == "mm" else f"{mm / 25.4:.3f}″"

    def apart(self, more: float, less: float) -> tuple[str, str]:
        """Two gaps of which the first is the larger, with as many decimals as it takes to see that."""
        factor, unit = (1.0, " mm") if self.tape.unit == "mm" else (25.4, "″")
        for digits in range(2 if self.tape.unit == "mm" else 3, 9):
            texts = (f"{more / factor:.{digits}f}{unit}", f"{less / factor:.{digits}f}{unit}")
            if texts[0] != texts[1]:
                break
        return texts

    def say_angle(self, deg: float) -> str:
        """An angle inside a sentence."""
        return f"{angle_text(deg)}°"


def on_paper(figure: Figure) -> str:
    """The same where nothing can be touched: with what it is exactly."""
    exactly = f" ({figure.exact})" if figure.exact and figure.unit != "mm" else ""
    return spoken(figure) + exactly


def spoken(figure: Figure) -> str:
    """A figure as one string for sentences, lists and tables: in mm the exact one, in inches the mark, or half mark, that it is a hair over or under."""
    if figure.exact and figure.unit == "mm":
        return figure.exact
    text = f"{figure.whole} {figure.fraction}".strip()
    return f"{f'a hair {figure.hair} ' if figure.hair else ''}{text}{'' if figure.unit in ('″', '°') else ' '}{figure.unit}"

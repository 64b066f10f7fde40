"""A check with all that its reading can mean, prepared so that nobody without the server need judge it."""

from fennup.app.schemas.bench import BandOut, CheckOut, SlipOut
from fennup.app.services.drawings import view_out
from fennup.app.services.steps_sheet import SawSheet
from fennup.app.wording import bench as words
from fennup.app.wording.members import sides_of
from fennup.core.bench.picture import lit_view
from fennup.core.bench.task import Check, slips_of
from fennup.core.parts.facts import PartFacts
from fennup.core.records.entry import Verdict
from fennup.core.steps.step import Step
from fennup.core.tolerances import NOTHING


def check_out(check: Check, step: Step, facts: PartFacts | None, sheet: SawSheet, stop: str) -> CheckOut:
    voice = sheet.voice
    names = _names(check, step, facts, sheet)
    view = lit_view(facts, check, step.end, step.index) if facts else None
    return CheckOut(
        what=check.what,
        label=words.LABELS[check.what].format(**names),
        how=words.HOWS[check.what].format(**names),
        unit=check.unit,
        expected=check.expected,
        figure=voice.length(check.expected) if check.unit == "mm" else voice.angle(check.expected),
        opens=check.opens,
        bands=_bands(check, sheet, stop),
        slips=[SlipOut(above=m.value - check.near, to=m.value + check.near, text=words.SLIPS[m.slip]) for m in slips_of(check)],
        view=view_out(view, voice) if view else None,
    )


def _names(check: Check, step: Step, facts: PartFacts | None, sheet: SawSheet) -> dict[str, str]:
    if not facts:
        return {"edge": "", "face": "", "long": "", "sharp": ""}
    names = sides_of(sheet.solution, facts.key)
    edge = ""
    if check.arris:
        side, run = check.arris.split("_")
        edge = f"{names[run]}, {names[side]}" if facts.beveled else names[run]
    cut = facts.ends[step.end][step.index] if step.end and step.work != "test" else None
    long = names["lower" if cut is None or cut.miter_deg >= 0 else "upper"]
    return {"edge": edge, "face": names["face"], "long": long, "sharp": names["back" if cut and cut.bevel_deg > 0 else "face"]}


def _bands(check: Check, sheet: SawSheet, stop: str) -> list[BandOut]:
    """From far under to far over. A spread has no under."""
    e, voice = check.expected, sheet.voice
    allowed = voice.small(sheet.solution.plan.workshop.allowance_mm)
    as_tape = check.unit == "mm" and check.right > check.near / 2 + NOTHING

    def band(to: float | None, verdict: Verdict, side: str, *, ask: bool = False) -> BandOut:
        return BandOut(to=to, verdict=verdict, ask=ask, text=words.means(check, verdict, side, allowed, stop, as_tape=as_tape))

    over = [
        band(e + check.right, "right", "over"),
        *([band(e + check.near, "near", "over")] if check.near > check.right else []),
        band(e + check.far, "wrong", "over"),
        band(None, "wrong", "over", ask=True),
    ]
    if check.what == "spread":
        return over
    under = [
        band(e - check.far, "wrong", "under", ask=True),
        band(e - check.near, "wrong", "under"),
        *([band(e - check.right, "near", "under")] if check.near > check.right else []),
    ]
    return [*under, *over]

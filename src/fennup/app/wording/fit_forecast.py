"""The forecast in sentences: how well it will close, on what that depends, how exactly one must work."""

from fennup.app.wording.figures import Voice
from fennup.app.wording.fit import FitWords
from fennup.core.fit.forecast import Cause, Forecast
from fennup.core.fit.hand import Scatter, Working
from fennup.core.tolerances import UNSEEN_MM

CAUSES: dict[Cause, str] = {
    "swing": "the swing at the ends",
    "tilt": "the tilt at the ends",
    "length": "the lengths",
    "thick": "how thick the wood is",
    "wide": "how wide the wood is",
}
TESTS: dict[Cause, str] = {
    "swing": "test that setting first",
    "tilt": "test that setting first",
    "length": "set the stop with care and measure the first of its like",
    "thick": "plane all to one thickness",
    "wide": "rip all at one setting",
}
TENTHS = (
    "hardly any",
    "a tenth",
    "two tenths",
    "three tenths",
    "four tenths",
    "half",
    "six tenths",
    "seven tenths",
    "eight tenths",
    "nine tenths",
    "all",
)
SOURCES = {"usual": "usual for this way of working", "typed": "as you said", "measured": "from your own {count} measured"}


def headline(forecast: Forecast, words: FitWords) -> str:
    """In one sentence."""
    worst = forecast.worst
    if worst is None:
        return "There is no joint that a saw could make wrong."
    nine = words.voice.small(worst.nine_mm)
    where = words.joint(worst.joint)
    if worst.loop:
        return f"Pushed tight all round, the last joint will open by some {words.voice.small(worst.expect_mm)}; nine in ten stay under {nine}."
    return f"The widest, {where}, will open by some {words.voice.small(worst.expect_mm)}; nine in ten stay under {nine}."


def depends(forecast: Forecast, words: FitWords) -> str:
    """On what the worst joint depends most."""
    if not forecast.shares or forecast.worst is None:
        return ""
    most = forecast.shares[0]
    tenths = round(10 * most.scatter)
    if forecast.worst.constant_mm > forecast.worst.scatter_mm:
        constant = max(forecast.shares, key=lambda s: s.constant_mm)
        return f"Most of it is the same every time: {CAUSES[constant.cause]}. A nearer setting, not a steadier hand, makes it better."
    share = f"{TENTHS[tenths]} of it is" if tenths > 1 else "much comes from"
    return f"{share[:1].upper()}{share[1:]} {CAUSES[most.cause]}: {TESTS[most.cause]}."


def needs(forecast: Forecast, voice: Voice) -> str:
    """How exactly one must work for the wished gap."""
    n = forecast.needs
    if n is None:
        return ""
    wished = voice.small(n.wished_mm)
    if n.angle_deg is None or n.length_mm is None or n.factor is None:
        return f"For {wished} no steady hand is enough: what the scales cannot show is more already. Test the setting and dial against it."
    if n.factor >= 1:
        return f"For {wished} you work exactly enough."
    return f"For {wished} in nine of ten, two cuts of three must be within {n.angle_deg:.2f}° and two lengths of three within {voice.small(n.length_mm)}."


def kinds_apart(forecast: Forecast, words: FitWords) -> list[dict[str, str]]:
    """What is the same every time, and what is scatter, apart, for the worst joint."""
    worst = forecast.worst
    if worst is None:
        return []
    small = words.voice.small
    n = len(worst.boards) if worst.loop else 0
    every = "What the saw, the tape and you do the same way every time"
    adds = f"adds up round all {n} corners" if worst.loop else "stands at this joint"
    scatter = "Scatter from cut to cut"
    makes_up = "mostly makes up for itself" if worst.loop else "comes now so, now so"
    spread = (
        [
            {
                "text": "Spread over all joints, none pushed tight",
                "figure": small(worst.nine_mm / n),
                "note": "at each, in nine of ten",
            }
        ]
        if n
        else []
    )
    return [
        {"text": every, "figure": small(worst.constant_mm) if worst.constant_mm >= UNSEEN_MM else "nothing", "note": adds},
        {"text": scatter, "figure": f"± {small(worst.scatter_mm)}", "note": f"{makes_up}; two of three times less than that"},
        *spread,
    ]


def used_lines(working: Working, voice: Voice) -> list[dict[str, str]]:
    """Which figures of the hand are used, and where they come from."""
    rows: list[tuple[str, Scatter, bool]] = [
        ("Lengths", working.length, False),
        ("Angles", working.angle, True),
        ("Thickness", working.thick, False),
    ]
    found = []
    for name, scatter, angle in rows:
        figure = f"± {scatter.sigma:.2f}°" if angle else f"± {voice.small(scatter.sigma)}"
        source = SOURCES[scatter.source].format(count=scatter.count)
        if scatter.source != "measured" and scatter.count and name != "Thickness":
            source += f"; {scatter.count} of 20 measured at the bench"
        if abs(scatter.always) > UNSEEN_MM:
            always = f"{abs(scatter.always):.2f}°" if angle else voice.small(abs(scatter.always))
            way = (
                ("too square" if scatter.always > 0 else "too pointed")
                if angle
                else ("too long" if scatter.always > 0 else "too short")
            )
            source += f"; always {always} {way}"
        found.append({"text": name, "figure": figure, "note": source})
    return found

"""How some of the boathouse's things are finished: one in good time, one too late, one that cannot be glued any more, one a child climbs on, one that holds wet
sand, one that is set out on falling ground, one that hangs."""

from collections.abc import Callable
from datetime import date, timedelta

from sqlalchemy.orm import Session

from fennup.app.services.own import AT_THE_FINISH
from fennup.core.fasten.choice import Fastening
from fennup.core.finish.wishes import FinishWishes, Holds, Site

IN_GOOD_TIME, TOO_SOON = timedelta(days=24), timedelta(days=3)
OUTDOORS = {"exposure": "outdoors", "wood": "larch"}


def _sand_bin(today: date) -> FinishWishes:
    """Wet sand in it, out in the weather; ready in good time."""
    return FinishWishes(**OUTDOORS, needed=today + IN_GOOD_TIME, holds=Holds(filling="wet sand", level_mm=700.0))


def _hip(today: date) -> FinishWishes:
    """Needed too soon for three coats outdoors."""
    return FinishWishes(**OUTDOORS, needed=today + TOO_SOON, coat_where="outdoors", recipe="boat varnish")


def _board(today: date) -> FinishWishes:
    """Hangs on a wall, with glass."""
    holds = Holds(glass_mm=2.0, spacer_mm=2.0, art_mm=1.0, back_mm=3.0)
    return FinishWishes(
        recipe="hard wax oil", needed=today + IN_GOOD_TIME, holds=holds, site=Site(top_mm=1850.0, first_stud_mm=120.0)
    )


def _trestle(today: date) -> FinishWishes:
    """Set out on falling ground, and read; one joint with a screw that is too long."""
    site = Site(readings={"m1/DA|m1/BC": 890.0, "m1/AB|m1/CD": 894.0}, rises={"m1/BC": -18.0, "m1/CD": -12.0})
    return FinishWishes(**OUTDOORS, site=site, joints={"m1/AB top": Fastening(how="screw", size="5", length_mm=140.0)})


def _stool(today: date) -> FinishWishes:
    """A child climbs on it."""
    return FinishWishes(exposure="child", recipe="hard wax oil")


def _grille(today: date) -> FinishWishes:
    """Children put their fingers through it."""
    return FinishWishes(exposure="child", recipe="outdoor stain")


def _handrail(today: date) -> FinishWishes:
    """Children hold on to it."""
    return FinishWishes(exposure="child", wood="larch", recipe="outdoor stain", coat_where="outdoors")


def _trough(today: date) -> FinishWishes:
    """Wet soil in it, its insides against that."""
    faces = {f"m1/{side}{k} back": "contents" for side in "ABCD" for k in (1, 2, 3)}
    return FinishWishes(**OUTDOORS, faces=faces, holds=Holds(filling="wet soil", level_mm=220.0))


def _bin(today: date) -> FinishWishes:
    """Rope in it."""
    holds = Holds(filling="rope", level_mm=350.0, liner_width_mm=250.0, liner_depth_mm=250.0)
    return FinishWishes(recipe="clear varnish", needed=today + IN_GOOD_TIME, holds=holds)


def _case(today: date) -> FinishWishes:
    """Finished and oiled."""
    return FinishWishes(recipe="hard wax oil", needed=None)


WISHES: dict[str, Callable[[date], FinishWishes]] = {
    "Sand bin on a stand": _sand_bin, "Slip lantern hip": _hip, "Honours board frame": _board, "Boat trestle": _trestle,
    "Coxswain's stool": _stool, "Slip steps handrail": _handrail, "Boat-bay vent grille": _grille, "Landing-stage trough": _trough, "Rope bin": _bin,
    "Key case": _case,
}  # fmt: skip


def fill_finish(session: Session, id: str, name: str, today: date) -> None:
    """What is wished of a project of the demo; nothing of most."""
    if name in WISHES:
        AT_THE_FINISH.save(session, id, 1, WISHES[name](today), {"event": "demo"})

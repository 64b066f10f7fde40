"""What stands in the boathouse's log: hours, a clock that was forgotten, what was learned, what it was made of, what a bin is sold for."""

from datetime import datetime, timedelta
from typing import Any
from uuid import NAMESPACE_URL, uuid5

from sqlalchemy.orm import Session

from fennup.app.services import racks
from fennup.app.services.demo_bench import AT_ITS_WORST, HALF_WAY
from fennup.app.services.own import IN_THE_LOG
from fennup.app.services.records import NewRecord, add_record
from fennup.app.services.upgrade import TABLES
from fennup.core.finish.planned import DID
from fennup.core.finish.tables import USUAL_TABLES
from fennup.core.log.wishes import LogWishes

EVENING = datetime.fromisoformat("2026-11-20T18:30:00+01:00")
MORNING = datetime.fromisoformat("2026-11-21T09:00:00+01:00")
SOLD, FINISHED = "Rope bin", "Key case"
Told = list[tuple[datetime, str, str, dict[str, Any]]]
PRICES = {
    "screw 4 50": 0.06, "screw 4 40": 0.05, "screw 3.5 30": 0.04, "white glue": 9.5, "water-resistant glue": 14.0, "indoor paint": 21.0, "outdoor paint": 26.0,
    "clear varnish": 28.0, "hard wax oil": 44.0,
}  # fmt: skip


def _clock(start: datetime, minutes: float, step: str) -> Told:
    begun: Told = [(start, "log", "clock", {"do": "start", "step": step})]
    return [*begun, (start + timedelta(minutes=minutes), "log", "clock", {"do": "stop"})]


def _half_way() -> Told:
    return [
        *_clock(EVENING, 35, "plan"),
        (
            EVENING + timedelta(minutes=50),
            "log",
            "batch",
            {"what": "wood", "name": "Larch, from the old jetty", "batch": "rack, third shelf", "much": "4 boards"},
        ),
        *_clock(MORNING, 75, "cut"),
        (
            MORNING + timedelta(minutes=80),
            "log",
            "note",
            {"text": "The saw's table was 0.2° out of square: reset it before the first cut."},
        ),
    ]


def _at_its_worst() -> Told:
    said = "Measured from the short point and cut it 1.6 mm short. Hook the tape at the long point, and measure the first one."
    return [
        (MORNING - timedelta(minutes=10), "log", "clock", {"do": "start", "step": "cut"}),
        (MORNING + timedelta(hours=1), "log", "note", {"text": said, "about": {"work": "second_end", "tool": "miter_saw"}}),
    ]


def _finished() -> Told:
    days = [datetime.fromisoformat(f"2026-10-{day:02d}T19:00:00+02:00") for day in (5, 6, 7, 9, 10, 12)]
    told: Told = [*_clock(days[0], 110, "cut"), (days[0] + timedelta(minutes=112), f"{DID}cut", "did", {"text": ""})]
    told += [*_clock(days[1], 65, "fit"), (days[1] + timedelta(minutes=66), f"{DID}fit", "did", {"text": ""})]
    glue = {
        "text": "Six corners in eight minutes is tight: the clamps lay ready, opened to size, and still the last corner was dry.",
        "about": {"task": "glue"},
    }
    told += [
        *_clock(days[2], 25, "glue"),
        (days[2] + timedelta(minutes=26), f"{DID}glue", "did", {"text": ""}),
        (days[2] + timedelta(minutes=40), "log", "note", glue),
    ]
    batch = {"what": "finish", "name": "Hard wax oil, silk", "batch": "2611-07", "much": "0.3 l"}
    told += [
        (days[3], "log", "batch", batch),
        *_clock(days[3], 40, "coat"),
        (days[3] + timedelta(minutes=41), f"{DID}coat 1", "did", {"text": ""}),
    ]
    told += [*_clock(days[4], 35, "coat"), (days[4] + timedelta(minutes=36), f"{DID}coat 2", "did", {"text": ""})]
    return [*told, (days[5], "log", "use", {"what": "wear", "text": "The hinge side rubs a little when it is damp."})]


TOLD = {HALF_WAY: _half_way, AT_ITS_WORST: _at_its_worst, FINISHED: _finished}


def fill_log(session: Session, id: str, name: str) -> None:
    """What stands in a project's log; nothing in most."""
    for number, (at, key, type, body) in enumerate(TOLD[name]() if name in TOLD else []):
        made = str(uuid5(NAMESPACE_URL, f"log {name} {number}"))
        add_record(session, id, NewRecord(id=made, key=key, type=type, device="phone", device_time=at, body=body))
    if name == SOLD:
        wishes = LogWishes(other_money=4.0, bought_money=89.0, sale_money=140.0, rate_money=22.0, say_price=True, for_whom="the coastal rowers' shed",
                           care="Keep the rope dry before it goes in; wipe salt off with fresh water.")  # fmt: skip
        IN_THE_LOG.save(session, id, 1, wishes, {"event": "demo"})
        racks.save(
            session,
            TABLES,
            racks.IDS[TABLES],
            1,
            USUAL_TABLES.model_copy(update={"prices": PRICES, "wood_money": 900.0}),
            {"event": "demo"},
        )

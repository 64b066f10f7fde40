"""From a project and its records to its dry fit; and the project as it was agreed: what is still to cut, cut otherwise, for the saw and the bench."""

from collections import OrderedDict
from collections.abc import Mapping, Sequence
from contextlib import suppress
from datetime import datetime
from typing import Any
from uuid import UUID, uuid5

from sqlalchemy.orm import Session

from fennup.app.models.tables import Record
from fennup.app.schemas.fit import OfferedRecord
from fennup.app.services.projects import PLAIN, ProjectBody, after_acts
from fennup.app.services.records import NewRecord, add_record, check_body, entries_of
from fennup.app.services.solving import solved
from fennup.app.services.validate import Invalid, from_core
from fennup.app.wording.figures import Voice
from fennup.core.design import Design
from fennup.core.drawing.edit import Give
from fennup.core.editing import read_figure
from fennup.core.errors import CoreError, CutError, SpecError
from fennup.core.fit.fitting import Fit, Ground
from fennup.core.fit.made import MOST_CHANGED_MM, with_changes
from fennup.core.fit.state import MADE, MIRRORED, agreed_offs
from fennup.core.fit.wishes import FitWishes
from fennup.core.parts.gauge import is_angle
from fennup.core.plan import Plan, plan_with
from fennup.core.records.entry import Entry, ReadBody
from fennup.core.records.fold import agreed_in, live
from fennup.core.solve import Solution
from fennup.core.workshop import Workshop

OWN = ("read", "agreed")
MOST_KEPT = 12
LARGEST = 1e5  # mm or degrees: nobody reads more than that


_kept: OrderedDict[tuple[int, int], Ground] = OrderedDict()


def ground_of(design: Design, plan: Plan) -> Ground:
    """What hangs on a design and a plan alone, kept for as long as those are: they are told by what they are, not by what is in them."""
    key = (id(design), id(plan))
    ground = _kept.get(key)
    if ground is None:
        ground = _kept[key] = Ground(design, plan)
        while len(_kept) > MOST_KEPT:
            _kept.popitem(last=False)
    return ground


def fit_of(solution: Solution, entries: Sequence[Entry], wishes: FitWishes, measured: Sequence[Entry] = ()) -> Fit:
    """The dry fit of a solution."""
    return Fit(ground_of(solution.design, solution.plan), tuple(entries), wishes, tuple(measured))


def as_built(body: ProjectBody, sizes: Mapping[str, float]) -> ProjectBody:
    """The project with some of its sizes given as they are built. Invalid where there is no such shape."""
    acts = [
        Give(op="give", measure=measure, text=f"{value!r}{'' if is_angle(measure) else ' mm'}")
        for measure, value in sizes.items()
    ]
    return after_acts(body, list(acts))


def as_agreed(body: ProjectBody, workshop: Workshop, entries: Sequence[Entry]) -> Solution:
    """The project as it is to be cut now: with the sizes as they are built and the changes that were said yes to; as planned where there are none, and where the project
    has been changed so that they give no shape any more."""
    agreed = agreed_in(entries)
    if agreed.sizes:
        with suppress(Invalid):
            body = as_built(body, agreed.sizes)
    solution = solved(body, workshop)
    offs = agreed_offs(solution.design, agreed)
    if not offs:
        return solution
    try:
        design = with_changes(solution.design, offs)
    except CutError:
        return solution
    return Solution(solution.spec, design, plan_with(design, solution.plan.workshop))


def measured_anywhere(session: Session) -> list[Entry]:
    """Everything that was ever measured at this workshop's bench, from which its hand is known."""
    found = session.query(Record).filter(Record.type.in_(("measured", "undone"))).all()
    return live(entries_of(found))


def read_record(fit: Fit, key: str, text: str, side: str, voice: Voice, *, inches_meant: bool) -> tuple[dict[str, Any], str]:
    """The body of a reading as it was typed, and the fingerprint of what it is about. Invalid names the field."""
    if key.startswith(MADE) and key.endswith(MIRRORED) and key.removeprefix(MADE).removesuffix(MIRRORED) in fit.design.boards:
        return ReadBody(planned=0.0, measured=1.0, unit="mm", typed=text).model_dump(mode="json"), ""
    expected = fit.expected(key)
    rows = {row.key: row for of in fit.standing.rows.values() for row in of}
    row = rows.get(key)
    if expected is None and row is None:
        raise from_core(SpecError("no_such_reading", ("key",)), voice)
    unit = expected.unit if expected else "deg" if row and row.off.is_angle else "mm"
    planned = expected.value if expected else row.planned if row else 0.0
    try:
        value = float(read_figure("text_deg" if unit == "deg" else "text_mm", text, voice.tape, inches_meant))
    except CoreError as error:
        raise from_core(type(error)(error.code, ("text",), **error.data), voice) from None
    if abs(value) > LARGEST:
        raise from_core(SpecError("reading_huge", ("text",)), voice)
    if row is not None and value <= 0:
        raise from_core(SpecError("made_nothing", ("text",)), voice)
    if expected is not None and expected.kind in ("rock", "flat", "gap") and value < 0:
        raise from_core(SpecError("gap_negative", ("text",)), voice)
    body = ReadBody(planned=planned, measured=value, unit=unit, typed=text, side=side)
    facts = {id: f.fingerprint for f in fit.design.facts for id in f.group.boards}
    return body.model_dump(mode="json"), facts.get(row.off.board, "") if row else ""


def add_own(
    session: Session, project: str, id: str, key: str, type: str, body: dict[str, Any], device: str, fingerprint: str = "",
    at: datetime | None = None,
) -> None:  # fmt: skip
    """Add a record that was made at the desk, now or `at` a time with its zone; the same one sent again is there once. Clash."""
    new = NewRecord(
        id=id,
        key=key,
        type=type,
        device=device,
        device_time=at or datetime.now().astimezone(),
        body=body,
        fingerprint=fingerprint,
    )
    known = session.get(Record, id)
    if known is not None and known.type == type and known.body == body:
        return  # sent again
    check_body(new)
    add_record(session, project, new)


def add_offered(session: Session, project: str, id: str, offered: list[OfferedRecord], device: str) -> None:
    """Add all records of a yes under ids made of its own. Invalid."""
    for k, record in enumerate(offered):
        if record.type == "agreed" and any(
            abs(by) > MOST_CHANGED_MM for by in dict(record.body.get("changes") or {}).values() if isinstance(by, int | float)
        ):
            raise from_core(SpecError("no_correction", (f"records.{k}.body.changes",)), PLAIN)
        own = id if k == 0 else str(uuid5(UUID(id), str(k)))
        add_own(session, project, own, record.key, record.type, record.body, device, record.fingerprint)


def is_fit(entry: Entry) -> bool:
    """Whether an entry was made at the dry fit."""
    return entry.type in OWN


def record_words(record: Record | None) -> str | None:
    """What undo would take back, in words."""
    if record is None:
        return None
    return "what was agreed" if record.type == "agreed" else "a reading"

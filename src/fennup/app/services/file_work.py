"""What is worked out from a project's file alone, without a database: its solution, its boards, all that goes out."""

from collections.abc import Callable
from datetime import UTC, datetime
from typing import Any

from fennup.app.services.bench_sheet import BenchSheet
from fennup.app.services.board_plans import NO_MOULDINGS, asked_for, make_plan
from fennup.app.services.exports import Outgoing
from fennup.app.services.finish_sheet import FinishSheet
from fennup.app.services.finishing import finish_of
from fennup.app.services.lessons import Learned
from fennup.app.services.log_sheet import LogSheet
from fennup.app.services.portable import (
    BoardsEntry,
    FinishEntry,
    Import,
    boards_in_file,
    finish_in_file,
    is_file,
    log_in_file,
    read_project_file,
    records_in_file,
    saw_in_file,
)
from fennup.app.services.projects import PLAIN
from fennup.app.services.saw_wishes import placements
from fennup.app.services.solving import solved, solved_spec
from fennup.app.services.steps_sheet import SawSheet
from fennup.app.services.upgrade import MOULDINGS
from fennup.app.services.validate import from_core, validated
from fennup.app.wording.figures import Voice
from fennup.core.errors import SpecError
from fennup.core.exchange.boards_forms import BoardsDocument
from fennup.core.exchange.fixed import MADE
from fennup.core.exchange.log_document import LogDocument
from fennup.core.exchange.paper import Size
from fennup.core.finish.planned import Finish
from fennup.core.finish.tables import USUAL_TABLES
from fennup.core.log.lessons import lessons_in
from fennup.core.log.wishes import LogWishes
from fennup.core.mouldings.library import Mouldings
from fennup.core.solve import Solution
from fennup.core.workshop import Workshop


def solved_file(document: Any, workshop: Workshop | None = None) -> Solution:
    """A project's file solved to its own tape, a bare spec with lengths as they are. Invalid."""
    if is_file(document):
        return solved(read_project_file(document), workshop or Workshop())
    return solved_spec(document, workshop or Workshop())


def boards_of_file(
    document: Any, solution: Solution, workshop: Workshop, report: Callable[[float], None] = lambda share: None
) -> dict[str, Any]:
    """The plan of the boards with the rack, the list and the wishes that a project's file holds. `report` is told how far it is, 0 to 1."""
    entry, body = BoardsEntry(), None
    if is_file(document):
        body, entry = read_project_file(document), boards_in_file(document)
    asked = asked_for(
        [("", solution.spec.model_dump(mode="json"))], entry.rack, entry.prices, entry.wishes, workshop.kerf_mm,
        body.unit if body else "mm", body.graduation if body else "1", mouldings=entry.mouldings or NO_MOULDINGS,
    )  # fmt: skip
    return make_plan(asked.given, lambda share, result: report(share))


def finish_of_file(document: Any, solution: Solution) -> Finish:
    """The finish with the tables, the wishes and the records that a project's file holds."""
    entry, entries = FinishEntry(), []
    if is_file(document):
        entry, entries = finish_in_file(document), records_in_file(document)
    return finish_of(solution, entry.tables or USUAL_TABLES, entry.wishes, entries)


def log_of_file(
    document: Any, solution: Solution, workshop: Workshop, voice: Voice, now: datetime, plan: BoardsDocument | None
) -> LogSheet:
    """The log that a project's file holds, with its own lessons and slips alone. `now` has a zone."""
    entries = records_in_file(document) if is_file(document) else []
    bench = BenchSheet(SawSheet(solution, voice, placements(plan) if plan else {}), plan)
    finish = FinishSheet(finish_of_file(document, solution), solution, voice, MADE)
    wishes = log_in_file(document) if is_file(document) else LogWishes()
    currency = boards_in_file(document).prices.currency if is_file(document) else ""
    return LogSheet("", wishes, bench, finish, entries, plan, Learned(lessons_in("", entries), {}), [], now, currency)


def log_document_of_file(document: Any, workshop: Workshop, now: datetime, *, boards: bool) -> LogDocument:
    """The log of a project's file as figures; with its cost where the boards are planned. Invalid."""
    workshop = workshop.model_copy(update={"wishes": saw_in_file(document)})
    solution = solved_file(document, workshop)
    plan = BoardsDocument.model_validate(boards_of_file(document, solution, workshop)) if boards else None
    sheet = log_of_file(document, solution, workshop, read_project_file(document).voice(), now, plan)
    return sheet.document()


def outgoing_of_file(document: Any, workshop: Workshop, size: Size, report: Callable[[float], None]) -> Outgoing:
    """All that goes out of a project's file, or of a bare spec. Invalid."""
    body = read_project_file(document) if is_file(document) else None
    if body:
        workshop = workshop.model_copy(update={"wishes": saw_in_file(document)})
    solution = solved_file(document, workshop)
    voice = body.voice() if body else PLAIN

    def besides() -> list[tuple[str, str]]:
        return [
            (line.text, line.figure) for line in FinishSheet(finish_of_file(document, solution), solution, voice, MADE).buys()
        ]

    return Outgoing(
        id="file",
        name=body.name if body else "Project",
        solution=solution,
        voice=voice,
        boards=lambda: BoardsDocument.model_validate(boards_of_file(document, solution, workshop, report)),
        finish=lambda: finish_of_file(document, solution),
        besides=besides,
        client=lambda: log_of_file(document, solution, workshop, voice, MADE.replace(tzinfo=UTC), None).for_client(),
        changed=MADE,
        size=size,
    )


def mouldings_of_file(document: Any) -> tuple[Mouldings, float]:
    """(the mouldings and contents that a workshop's file holds, or a document of both alone; the saw's kerf there). Invalid."""
    if not is_file(document):
        return validated(Mouldings, document, PLAIN), Workshop().kerf_mm
    found = Import(document)
    library = found.stores.get(MOULDINGS)
    if found.workshop is None or not isinstance(library, Mouldings):
        raise from_core(SpecError("no_mouldings_in_it", ("mouldings",)), PLAIN)
    return library, found.workshop.kerf_mm

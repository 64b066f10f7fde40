"""The plan of what comes out of which board: made by the worker, kept by what it is based on, shown as stale while a newer one is made."""

import json
import logging
from dataclasses import dataclass, replace
from hashlib import sha256
from typing import Any

from sqlalchemy.orm import Session

from fennup.app.models.store import Store
from fennup.app.models.tables import Job
from fennup.app.services import jobs
from fennup.app.services.jobs import Report
from fennup.core.boards.planned import BoardsPlan, Cuttings, Order, plan_boards
from fennup.core.boards.rack import PriceList, Rack
from fennup.core.boards.shortage import other_lengths, shortages
from fennup.core.boards.wishes import Wishes
from fennup.core.cures import cures_for
from fennup.core.exchange.boards_document import boards_document
from fennup.core.exchange.boards_forms import BoardsDocument, CureForm, OtherForm, ShortForm, YardForm
from fennup.core.mouldings.library import Mouldings, sources_in
from fennup.core.project.spec import ProjectSpec
from fennup.core.records.fold import AS_PLANNED, Wood
from fennup.core.solve import designed
from fennup.core.units.lengths import tape

TYPE = "boards"
NO_MOULDINGS = Mouldings()
LOG = logging.getLogger("fennup.boards")
ALL_BUT_EXTRAS = 0.8


@dataclass(frozen=True)
class Asked:
    """What a plan is asked for, as data: the projects with their specs, the own one first; rack, list and wishes; the kerf; the
    tape."""

    project: str
    given: dict[str, Any]

    @property
    def based_on(self) -> str:
        """The subject, and all that the plan hangs on."""
        return f"{self.project}:{sha256(json.dumps(self.given, sort_keys=True).encode()).hexdigest()[:40]}"


def asked_for(
    projects: list[tuple[str, dict[str, Any]]],
    rack: Rack,
    prices: PriceList,
    wishes: Wishes,
    kerf_mm: float,
    unit: str,
    graduation: str,
    wood: Wood = AS_PLANNED,
    mouldings: Mouldings = NO_MOULDINGS,
) -> Asked:
    """A plan for some projects by their ids and specs; `wood`: what became of the own one's at the bench."""
    spoiled = {"again": dict(sorted(wood.again.items())), "instead": sorted(wood.instead)} if wood != AS_PLANNED else {}
    # What a moulding is made of, and the lengths of it, are all that a plan hangs on.
    there = (
        mouldings.model_dump(mode="json", include={"mouldings"}, exclude={"mouldings": {"__all__": {"photo", "error_mm"}}})
        if mouldings.mouldings
        else {}
    )
    given = {
        "projects": [{"id": id, "spec": spec, **(spoiled if k == 0 else {})} for k, (id, spec) in enumerate(projects)],
        "rack": rack.model_dump(mode="json"),
        **({"mouldings": there} if there else {}),
        "prices": prices.model_dump(mode="json", exclude={"as_of"}),
        "wishes": wishes.model_dump(mode="json"),
        "kerf_mm": kerf_mm,
        "tape": [unit, graduation],
    }
    return Asked(projects[0][0], given)


@dataclass(frozen=True)
class Found:
    """The plan that there is, whether it is of what now holds, the job that makes the newer one, and the plan before it; `broke`: something went wrong with it."""

    plan: BoardsDocument | None
    stale: bool
    job: int | None
    before: BoardsDocument | None
    broke: bool = False


def plan_or_job(asked: Asked, store: Store, *, has_worker: bool) -> Found:
    """The plan, or the last one with the job that makes the newer one. Without a worker it is made here."""
    with store.reading() as session:
        job = jobs.newest(session, TYPE, asked.based_on)
    ended = job is not None and job.state in ("done", "cancelled") and job.result is not None
    broke = job is not None and job.state == "dropped" and job.tries > 0  # to be asked for again only when something changes
    if not ended and not broke:
        with store.writing() as session:
            jobs.replace_older(session, TYPE, f"{asked.project}:", asked.based_on)
            job = jobs.ask_for(session, TYPE, asked.based_on, asked.given)
        if not has_worker:
            job = _done_here(asked, store, job.id)
    assert job
    with store.reading() as session:
        earlier = jobs.earlier(session, TYPE, f"{asked.project}:", asked.based_on)
    before = _document(earlier) if earlier else None
    mine = _document(job)
    waiting = job.id if job.state in ("waiting", "running") else None
    return Found(mine or before, mine is None, waiting, before, broke)


def plan_there(asked: Asked, store: Store) -> BoardsDocument | None:
    """The finished plan, if there is one; nothing is asked for."""
    with store.reading() as session:
        job = jobs.newest(session, TYPE, asked.based_on)
    return _document(job) if job and job.state == "done" else None


def _document(job: Job) -> BoardsDocument | None:
    """What a job has so far; stopped when it was cancelled."""
    if not job.result:
        return None
    return BoardsDocument.model_validate(job.result | {"stopped": job.state == "cancelled"})


def _done_here(asked: Asked, store: Store, id: int) -> Job:
    result = make_plan(asked.given, lambda share, result: None)
    with store.writing() as session:
        job = session.get(Job, id)
        assert job
        job.state, job.result, job.progress = "done", result, 1.0
        session.flush()
        session.expunge(job)
    return job


def stop(session: Session, asked: Asked) -> None:
    """End the work on a plan: the best so far is kept."""
    job = jobs.newest(session, TYPE, asked.based_on)
    if job and job.result:
        jobs.cancel(session, job.id)


def order_from(given: dict[str, Any]) -> tuple[Order, list[tuple[ProjectSpec, Any]]]:
    """The order that was asked for, and every project's settled spec with its design."""
    found = [designed(ProjectSpec.model_validate(entry["spec"])) for entry in given["projects"]]
    ids = [str(entry["id"]) for entry in given["projects"]]
    woods = [Wood(entry.get("again", {}), frozenset(entry.get("instead", ()))) for entry in given["projects"]]
    cuttings = tuple(
        Cuttings(design.facts, "" if k == 0 else f"{id}:", wood)
        for k, (id, (_, design), wood) in enumerate(zip(ids, found, woods, strict=True))
    )
    rack, prices = Rack.model_validate(given["rack"]), PriceList.model_validate(given["prices"])
    lengths = tuple(sources_in(Mouldings.model_validate(given.get("mouldings", {}))))
    return Order(cuttings, rack, prices, Wishes.model_validate(given["wishes"]), float(given["kerf_mm"]), lengths), found


def make_plan(given: dict[str, Any], report: Report) -> dict[str, Any]:
    """The plan as data, its shortages and what would cure them last; `report` hears of every better one, and may raise to end it."""
    order, projects = order_from(given)
    told: list[BoardsPlan] = []

    def tell(share: float, plan: BoardsPlan) -> None:
        new = (not told or told[-1] is not plan) and not plan.faults
        told.append(plan)
        report(share * ALL_BUT_EXTRAS, boards_document(order, plan).model_dump(mode="json") if new else None)

    plan = plan_boards(order, tell)
    document = boards_document(order, plan)
    if plan.faults:  # what is not proved is never shown
        LOG.error("a plan does not hold: %s", document.faults)
        return document.model_copy(update={"boards": [], "buy": [], "complete": False, "proven": False}).model_dump(mode="json")
    found = shortages(order, plan)
    report(0.9, None)
    spec, design = projects[0]
    cures = [c for short in found[:1] for c in cures_for(spec, design, order, short, tape(*given["tape"]))]
    return document.model_copy(
        update={
            "short": [
                ShortForm(
                    board=s.source.id, name=s.source.name, short_mm=s.mm, width_mm=s.section[0], thickness_mm=s.section[1]
                )
                for s in found
            ],
            "cures": [CureForm(measure=c.measure, from_value=c.value, to_value=c.made, unit="mm") for c in cures],
            "with_yard": _with_yard(order) if found and not order.wishes.use_yard else None,
            "others": [_other(order, other.only_mm, other.plan) for other in other_lengths(order)],
        }
    ).model_dump(mode="json")  # fmt: skip


def _with_yard(order: Order) -> YardForm | None:
    """What is to be bought if the yard's boards may be used; None where that does not do either."""
    plan = plan_boards(replace(order, wishes=order.wishes.model_copy(update={"use_yard": True})), dives=0)
    made = boards_document(order, plan)
    return YardForm(cost=made.cost, boards=sum(line.count for line in made.buy)) if plan.complete else None


def _other(order: Order, only_mm: float, plan: BoardsPlan) -> OtherForm:
    made = boards_document(order, plan)
    return OtherForm(only_mm=only_mm, boards=len(made.boards), cost=made.cost, wood_mm3=made.wood_mm3, fits=plan.complete)

"""The second proof: at once where it is quick, by the worker where one would wait for it."""

import json
from hashlib import sha256
from typing import Any

from fennup.app.models.store import Store
from fennup.app.services import jobs
from fennup.app.services.jobs import Report
from fennup.core.design import Design
from fennup.core.project.spec import ProjectSpec
from fennup.core.solve import Solution, designed
from fennup.core.verify.boolean import BooleanProof, Contact, boolean_proof

TYPE = "second_proof"
# What it comes to, measured: ms for a board and for a lap; half a second is the most that one waits.
BOARD_MS, LAP_MS = 1.2, 4.5
MOST_MS = 500.0


def takes_long(design: Design) -> bool:
    """Whether the proof would take longer than one waits."""
    laps = sum(joint.kind == "lap" for joint in design.assembly.joints)
    return len(design.assembly.boards) * BOARD_MS + laps * LAP_MS > MOST_MS


def proof_or_job(solution: Solution, store: Store, *, has_worker: bool) -> tuple[BooleanProof | None, int | None]:
    """The proof, or, until that is there, the job that makes it. What could not be proved by the worker is told as neither."""
    design = solution.design
    if not has_worker or not takes_long(design) or "proof" in vars(design):
        return design.proof, None
    given = json.loads(solution.spec.model_dump_json())
    based_on = sha256(json.dumps(given).encode()).hexdigest()
    with store.reading() as session:
        job = jobs.newest(session, TYPE, based_on)
    if job and job.state == "done" and job.result:
        vars(design)["proof"] = proof_from(job.result)  # as if it had been made here
        return design.proof, None
    if job and job.state == "dropped":
        return None, None
    if job is None or job.state == "cancelled":
        with store.writing() as session:
            job = jobs.ask_for(session, TYPE, based_on, given)
    return None, job.id


def make_proof(given: dict[str, Any], report: Report) -> dict[str, Any]:
    """The proof of a settled spec, as data; `report` is told how far it is, and may raise to end it."""
    _, design = designed(ProjectSpec.model_validate(given))
    proof = boolean_proof(design.assembly, design.solids, lambda share: report(share, None))
    return {
        "sum_mm3": proof.sum_mm3,
        "first_mm3": proof.first_mm3,
        "unlike": list(proof.unlike),
        "shared": [list(entry) for entry in proof.shared],
        "contacts": [vars(contact) for contact in proof.contacts],
    }


def proof_from(data: dict[str, Any]) -> BooleanProof:
    """The proof that was kept as data."""
    return BooleanProof(
        data["sum_mm3"],
        data["first_mm3"],
        tuple(data["unlike"]),
        tuple((a, b, volume) for a, b, volume in data["shared"]),
        tuple(Contact(**contact) for contact in data["contacts"]),
    )

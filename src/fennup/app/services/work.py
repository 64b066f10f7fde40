"""What the worker can do, by the type of the job."""

from collections.abc import Callable
from typing import Any

from fennup.app.services import board_plans, proofs
from fennup.app.services.jobs import Report

WORK: dict[str, Callable[[dict[str, Any], Report], dict[str, Any]]] = {
    proofs.TYPE: proofs.make_proof,
    board_plans.TYPE: board_plans.make_plan,
}

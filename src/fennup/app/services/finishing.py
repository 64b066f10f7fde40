"""From a project, the workshop's tables and the project's records to its finish; kept while nothing of that changes."""

from collections import OrderedDict
from collections.abc import Sequence
from datetime import date

from fennup.app.services.own import AT_THE_FINISH
from fennup.app.services.validate import from_core
from fennup.app.wording.figures import Voice
from fennup.core.drawing.edit import Edit
from fennup.core.errors import CoreError
from fennup.core.finish.planned import DID, Finish, check_wishes
from fennup.core.finish.tables import Tables
from fennup.core.finish.wishes import FinishWishes
from fennup.core.records.entry import Entry
from fennup.core.solve import Solution

MOST_KEPT = 8
_kept: OrderedDict[tuple[object, ...], Finish] = OrderedDict()


def is_did(entry: Entry) -> bool:
    """Whether an entry says that a step of the finish was done."""
    return entry.type == "did" and entry.key.startswith(DID)


def finish_of(solution: Solution, tables: Tables, wishes: FinishWishes, entries: Sequence[Entry]) -> Finish:
    """The finish of a solution. What it hangs on is told by what it says, the design by what it is."""
    key = (id(solution.design), tables.model_dump_json(), wishes.model_dump_json(), tuple(e.id for e in entries))
    finish = _kept.get(key)
    if finish is None or finish.design is not solution.design:
        before = next((kept for kept in reversed(_kept.values()) if kept.design is solution.design), None)
        finish = _kept[key] = Finish(solution.design, tables, wishes, tuple(entries), before.worked_out if before else None)
        while len(_kept) > MOST_KEPT:
            _kept.popitem(last=False)
    return finish


def after_acts(finish: Finish, acts: list[Edit], voice: Voice, today: date) -> FinishWishes:
    """The wishes after some acts, and possible: Invalid names the field of what is not."""
    changed = AT_THE_FINISH.after(finish.wishes, acts, voice)
    made = Finish(finish.design, finish.tables, changed, finish.entries, finish.worked_out)
    try:
        check_wishes(changed, finish.tables, finish.wishes, today)
        if changed.coat_when != finish.wishes.coat_when:
            made.tasks  # noqa: B018 - coats before glue are refused
    except CoreError as error:
        raise from_core(error, voice) from None
    return changed

"""Building it again: another order or ten of them, in another wood, for other tools; and what several orders share."""

from collections.abc import Sequence

from sqlalchemy.orm import Session

from fennup.app.schemas.fit import LineOut
from fennup.app.schemas.log import AgainAsked
from fennup.app.services import documents, racks
from fennup.app.services.own import AT_THE_FINISH, AT_THE_FIT, AT_THE_SAW, IN_THE_LOG
from fennup.app.services.projects import PLAIN, ProjectBody, checked_name
from fennup.app.services.upgrade import BOARDS, PROJECT
from fennup.app.services.validate import from_core
from fennup.app.wording.figures import Voice
from fennup.app.wording.finish import how_many
from fennup.core.errors import SpecError
from fennup.core.finish.tables import Tables
from fennup.core.saw.tool import ScaleTool
from fennup.core.solve import Solution


def made_again(
    session: Session, of: str, body: ProjectBody, asked: AgainAsked, tables: Tables, tools: Sequence[str]
) -> list[str]:
    """New projects like one that there is, all cut from one plan of the boards; what was wished for it is wished for them, its records stay its own. Their ids.
    Invalid names the field."""
    root = checked_name(asked.name)
    wood, away, orders = asked.wood, tuple(asked.away), asked.orders
    if wood and wood not in (*tables.woods, *tables.plastics):
        raise from_core(SpecError("no_such_row", ("wood",), name=wood), PLAIN)
    unknown = next((id for id in away if id not in tools), None)
    if unknown is not None:
        raise from_core(SpecError("no_such_field", ("away",)), PLAIN)
    made: list[str] = []
    for number in range(orders, 0, -1):  # the first of them is to stand first on the first screen
        called = f"{root[:66]}, {number} of {orders}" if orders > 1 else root
        new = body.model_copy(update={"name": called, "variant_of": None})
        state = documents.create(session, PROJECT, new.model_dump(mode="json"), {"event": "again"})
        racks.copy_wishes(session, of, state.id)
        for wishes in (AT_THE_SAW, AT_THE_FIT, AT_THE_FINISH, IN_THE_LOG):
            wishes.copy(session, of, state.id)
        finish = AT_THE_FINISH.state(session, state.id)
        wished = AT_THE_FINISH.inside(finish).model_copy(
            update={"needed": None, **({"wood": wood, "materials": {}} if wood else {})}
        )
        AT_THE_FINISH.save(session, state.id, finish.version, wished, {"event": "again"})
        if away:
            saw = AT_THE_SAW.state(session, state.id)
            chosen = AT_THE_SAW.inside(saw).model_copy(update={"away": away, "ways": {}})
            AT_THE_SAW.save(session, state.id, saw.version, chosen, {"event": "again"})
        made.insert(0, state.id)
    boards = racks.state_of(session, BOARDS, racks.wishes_id(made[0]))
    # What was pinned and locked was so for the pieces of the one that there is.
    beside = racks.wishes_in(boards).model_copy(update={"beside": made[1:], "pins": {}, "locked": {}})
    racks.save(session, BOARDS, racks.wishes_id(made[0]), boards.version, beside, {"event": "again"}, made[0])
    return made


def shared_settings(orders: Sequence[tuple[str, Solution]], voice: Voice) -> tuple[str, list[LineOut]]:
    """Every position of a saw that the orders need, with how many cuts of how many orders are made at it: (in a sentence, the rows), those that most share first."""
    found: dict[tuple[str, float, float], list[tuple[str, int]]] = {}
    names: dict[tuple[str, float, float], str] = {}
    for name, solution in orders:
        for setting in solution.plan.settings:
            tool = solution.plan.tools[setting.tool]
            at = (tool.name, round(setting.swing_dial_deg, 4) + 0.0, round(setting.tilt_dial_deg, 4) + 0.0)
            found.setdefault(at, []).append((name, sum(use.count for use in setting.uses)))
            swing, tilt = tool.swing_shown(at[1]), tool.tilt_shown(at[2])
            sides = ("right" if at[1] > 0 else "left", "left" if at[2] > 0 else "right")
            said = [f"swing {voice.say_angle(swing)}" + (f" to the {sides[0]}" if at[1] else "")]
            said += [f"tilt {voice.say_angle(tilt)} to the {sides[1]}"] if at[2] else []
            names[at] = f"{tool.name}: {', '.join(said)}" if isinstance(tool, ScaleTool) else tool.name
    one_by_one = sum(len(of) for of in found.values())
    rows = [
        LineOut(
            text=names[at],
            figure=how_many(sum(cuts for _, cuts in of), "cut"),
            note=", ".join(name for name, _ in of) if len(orders) > 1 else "",
        )
        for at, of in sorted(found.items(), key=lambda entry: (-len(entry[1]), entry[0]))
    ]
    headline = how_many(len(found), "setting") + (f" for {len(orders)} projects" if len(orders) > 1 else "")
    return headline + (f"; {one_by_one} if each were made by itself" if one_by_one > len(found) else ""), rows

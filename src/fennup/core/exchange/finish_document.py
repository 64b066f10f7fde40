"""The finish as a document: what `./fennup finish` prints. docs/formats.md describes it."""

from datetime import datetime

from fennup.core.errors import CoreError
from fennup.core.exchange.cuts_forms import Form
from fennup.core.fasten.doubts import doubts_of
from fennup.core.fasten.drawn import marks_of
from fennup.core.fasten.fastened import Fastened
from fennup.core.finish.plan import Placed
from fennup.core.finish.planned import Finish
from fennup.core.finish.standing import Standing


class DoubtForm(Form):
    """What speaks against a fastening: a code, a figure and its limit, mm or degrees, or a board's key."""

    code: str
    value: float
    limit: float
    name: str


class FastenedForm(Form):
    """A kind of joint. `joints`: all that are alike, with their `numbers` on the bag list; `near`: the board that fasteners go in at; `through_mm` and
    `into_mm`: the real way through both boards, `grain_deg` from the far one's grain; lengths: shortest useful, longest safe, the one taken; `bite_mm`
    in the far board, `left_mm` over the tip; `marks_mm`: where they go in the first joint, from the near board's end; drills in mm."""

    key: str
    kind: str
    joints: list[str]
    numbers: list[int]
    how: str
    size: str | None
    near: str | None
    through_mm: float | None
    into_mm: float | None
    grain_deg: float | None
    shortest_mm: float | None
    longest_mm: float | None
    length_mm: float | None
    bite_mm: float | None
    left_mm: float | None
    sunk_mm: float
    count: int
    marks_mm: list[float]
    clearance_mm: float | None
    pilot_mm: float | None
    slot_deep_mm: float | None
    slot_wide_mm: float | None
    glued: bool
    doubts: list[DoubtForm]


class FaceForm(Form):
    """A side of a board: its area, how much of that lies on others and how much of that is glued, mm2, and what becomes of it; `close_mm`: how near what it
    looks at is, where that is near."""

    board: str
    facet: str
    area_mm2: float
    meets_mm2: float
    glued_mm2: float
    use: str
    close_mm: float | None


class CoatsForm(Form):
    """How it is coated and glued: with what, how much."""

    recipe: str | None
    coats: int
    area_m2: float
    litres: float
    glue: str
    glued_m2: float
    glue_g: float
    faces: list[FaceForm]


class TaskForm(Form):
    """A step by the day: working hours, hours in which it only waits; from when to when its work is, and when it has waited too; empty where no day
    is said."""

    id: str
    work_h: float
    wait_h: float
    after: list[str]
    spans: list[tuple[datetime, datetime]]
    ready: datetime | None
    done: bool


class StandingForm(Form):
    """What it weighs and holds, kg, litres; shares by foot, kg; how far it may lean empty before it tips, degrees, and which push at its top does it, N;
    places to set out, mm, and the distances between them; what goes under each; parts that move by so many mm over a year; openings in which a child
    could be caught, from, to, mm."""

    own_kg: float
    loaded_kg: float
    litres: float | None
    shares_kg: dict[str, float]
    tips_deg: float | None
    push_n: float | None
    wind_lift_n: float | None
    places: dict[str, tuple[float, float]]
    distances: list[tuple[str, str, float]]
    packing: dict[str, float]
    out_of_square_deg: float | None
    moves: dict[str, tuple[float, float]]
    swells: dict[str, float]
    caught: list[tuple[str, str, str, float, float]]


class FinishDocument(Form):
    """All of it. `buys`: what, size, length in mm and number, with spares; `met`: two joints whose fasteners come too near each other, and what is left between
    them, mm; `needed`: when it must be ready; `refused`: why there is no plan by the day, a code and its fields."""

    fastened: list[FastenedForm]
    buys: list[tuple[str, str, float, int]]
    met: list[tuple[str, str, float]]
    coats: CoatsForm
    needed: datetime | None
    tasks: list[TaskForm]
    refused: tuple[str, list[str]] | None
    standing: StandingForm


def finish_document(finish: Finish) -> FinishDocument:
    """The finish as figures. SpecError where readings cannot be."""
    refused: tuple[str, list[str]] | None = None
    tasks: list[TaskForm] = []
    try:
        tasks = _tasks(finish)
    except CoreError as error:
        refused = (error.code, list(error.fields))
    return FinishDocument(
        fastened=[_fastened(finish, one) for one in finish.fastened],
        buys=[(*key, count) for key, count in finish.buys.items()],
        met=[(a, b, meeting.left_mm) for a, b, meeting in finish.met],
        coats=CoatsForm(
            recipe=finish.recipe.name if finish.recipe else None,
            coats=finish.coats,
            area_m2=finish.coated_m2,
            litres=finish.litres,
            glue=finish.glue.name,
            glued_m2=finish.glued_m2,
            glue_g=finish.glue_g,
            faces=[
                FaceForm(board=f.board, facet=f.facet, area_mm2=f.area_mm2, meets_mm2=f.meets_mm2, glued_mm2=f.glued_mm2, use=f.use, close_mm=f.close_mm)
                for f in finish.faces
            ],
        ),
        needed=finish.needed,
        tasks=tasks,
        refused=refused,
        standing=_standing(Standing(finish)),
    )  # fmt: skip


def _fastened(finish: Finish, one: Fastened) -> FastenedForm:
    through, lengths, straight = one.through, one.lengths, one.straight
    soft_hard, marks = one.holes, marks_of(one)
    hard = bool(through and getattr(finish.wood_of(through.far), "hard", False))
    return FastenedForm(
        key=one.kind.key,
        kind=one.kind.joints[0].kind,
        joints=[joint.id for joint in one.kind.joints],
        numbers=[finish.numbers[joint.id] for joint in one.kind.joints],
        how=one.how,
        size=straight.name if straight else one.slot.biscuit.name if one.slot.biscuit else None,
        near=through.near or None if through else None,
        through_mm=through.through_mm if through else None,
        into_mm=through.into_mm if through else None,
        grain_deg=through.grain_deg if through else None,
        shortest_mm=lengths.shortest_mm if lengths else None,
        longest_mm=lengths.longest_mm if lengths and lengths.longest_mm != float("inf") else None,
        length_mm=one.length_mm,
        bite_mm=one.bite_mm,
        left_mm=one.left_mm,
        sunk_mm=one.sunk_mm,
        count=one.count,
        marks_mm=list(marks.along_mm) if marks else [],
        clearance_mm=getattr(straight, "clearance_mm", None),
        pilot_mm=(soft_hard[1] if hard else soft_hard[0]) if soft_hard else None,
        slot_deep_mm=one.slot.deep_mm,
        slot_wide_mm=one.slot.wide_mm,
        glued=one.glued,
        doubts=[DoubtForm(code=d.code, value=d.value, limit=d.limit, name=d.name) for d in doubts_of(one)],
    )


def _tasks(finish: Finish) -> list[TaskForm]:
    placed: dict[str, Placed] = {p.task.id: p for p in finish.plan}
    return [
        TaskForm(
            id=task.id,
            work_h=task.work_h,
            wait_h=task.wait_h,
            after=list(task.after),
            spans=list(placed[task.id].spans) if task.id in placed else [],
            ready=placed[task.id].ready if task.id in placed else None,
            done=task.id in finish.did,
        )
        for task in finish.tasks
    ]


def _standing(standing: Standing) -> StandingForm:
    tips, wind = standing.tips, standing.wind
    return StandingForm(
        own_kg=standing.own.kg,
        loaded_kg=standing.loaded.kg,
        litres=standing.held.litres if standing.held else None,
        shares_kg=standing.shares,
        tips_deg=tips.lean_deg if tips else None,
        push_n=tips.push_n if tips else None,
        wind_lift_n=wind.lift_n if wind else None,
        places=standing.places,
        distances=[(a, b, mm) for (a, b), mm in standing.distances.items()],
        packing=standing.packing,
        out_of_square_deg=standing.out_of_square,
        moves={name: (move.right_mm, move.back_mm) for name, move in standing.moves_to.items()},
        swells={move.part: move.by_mm for move in standing.moves()},
        caught=[(c.what, c.opening.a, c.opening.b, c.opening.least_mm, c.opening.most_mm) for c in standing.caught],
    )

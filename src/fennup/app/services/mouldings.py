"""The workshop's mouldings as their page shows them, the frames that come out, and what a project's boards may be made of."""

from collections.abc import Callable
from math import ceil, floor

from sqlalchemy.orm import Session

from fennup.app.models.tables import File
from fennup.app.schemas.fit import LineOut
from fennup.app.schemas.mouldings import (
    CellOut,
    ContentOut,
    FrameOut,
    FramePath,
    FrameRow,
    FramesOut,
    MadeOf,
    MadeOfOut,
    MouldingOut,
    MouldingsOut,
)
from fennup.app.services import documents, racks
from fennup.app.services.drawings import control_out, view_out
from fennup.app.services.photos import photo_in
from fennup.app.services.projects import USUAL_GRADUATION, ProjectBody
from fennup.app.services.records import add_file
from fennup.app.services.upgrade import MOULDINGS, WORKSHOP
from fennup.app.services.validate import from_core
from fennup.app.wording import mouldings as words
from fennup.app.wording.acts import did_words
from fennup.app.wording.boards import section_text
from fennup.app.wording.figures import Voice
from fennup.app.wording.problems import problem_text
from fennup.core.drawing.edit import Choose
from fennup.core.errors import SpecError
from fennup.core.finish.wishes import FinishWishes, Holds
from fennup.core.kinds.catalogue import KINDS
from fennup.core.mouldings.drawn import content_controls, moulding_controls, moulding_view
from fennup.core.mouldings.frames import Bearing, Frame, frame_of, frames_of, profile_of, project_with, short_by_mm
from fennup.core.mouldings.library import SHOWN_CONTENTS, SHOWN_MOULDINGS, Content, Moulding, Mouldings
from fennup.core.project.spec import ProjectSpec
from fennup.core.units.lengths import Unit, tape
from fennup.core.verify.findings import THINNEST_LIP_MM

CM3_IN_MM3 = 1e3


def voice_in(unit: Unit) -> Voice:
    """Words with figures in a unit."""
    return Voice(tape(unit, USUAL_GRADUATION[unit]))


def mouldings_out(state: documents.State, voice: Voice, looked_at: Mouldings | None = None) -> MouldingsOut:
    """All mouldings and all that is to be framed, or what some acts would make of them."""
    library = looked_at or racks.mouldings_in(state)
    return MouldingsOut(
        version=state.version,
        undo=did_words(state.undo, voice),
        redo=did_words(state.redo, voice),
        mouldings=[_moulding(id, moulding, voice) for id, moulding in library.mouldings.items()],
        contents=[_content(id, content, voice) for id, content in library.contents.items()],
    )


def _moulding(id: str, moulding: Moulding, voice: Voice) -> MouldingOut:
    doubts = [] if moulding.section.rabbet else [words.NO_RABBET]
    if moulding.error_mm:
        doubts.append(f"Read from a drawing: its curves are straight pieces, at most {moulding.error_mm:.2f} mm off.")
    return MouldingOut(
        id=id,
        title=words.moulding_title(id, moulding),
        name=moulding.name,
        wood=moulding.wood,
        finish=moulding.finish,
        size_text=section_text(moulding.width_mm, moulding.thickness_mm, voice),
        found_text=words.found_text(moulding, voice),
        view=view_out(moulding_view(id, moulding), voice),
        controls=[control_out(c, voice) for c in moulding_controls(id, moulding)],
        photo=moulding.photo or "",
        doubts=doubts,
    )


def _content(id: str, content: Content, voice: Voice) -> ContentOut:
    kg = f"{content.weighs_kg:.1f} kg"
    return ContentOut(
        id=id,
        title=words.content_title(id, content),
        name=content.name,
        size_text=section_text(content.width_mm, content.height_mm, voice),
        controls=[control_out(c, voice) for c in content_controls(id, content)],
        weight_typed=f"{content.weight_kg:g}" if content.weight_kg else "",
        weight_text=kg if content.weight_kg else f"{kg}, {words.AS_GLASS}",
        stack_text=f"All layers together: {voice.say(content.thick_mm)}.",
    )


def frames_out(library: Mouldings, kerf_mm: float, voice: Voice) -> FramesOut:
    """Every content in every moulding."""
    rows: dict[str, list[CellOut]] = {}
    for frame in frames_of(library, kerf_mm):
        rows.setdefault(frame.content, []).append(_cell(frame, voice))
    over = len(library.mouldings) > SHOWN_MOULDINGS or len(library.contents) > SHOWN_CONTENTS
    shown = list(library.mouldings.items())[:SHOWN_MOULDINGS]
    return FramesOut(
        mouldings=[(id, words.moulding_title(id, moulding)) for id, moulding in shown],
        rows=[
            FrameRow(content=id, title=words.content_title(id, library.contents[id]), cells=cells) for id, cells in rows.items()
        ],
        left_out=words.TOO_MANY.format(mouldings=SHOWN_MOULDINGS, contents=SHOWN_CONTENTS) if over else "",
    )


def _cell(frame: Frame, voice: Voice) -> CellOut:
    text, tone = words.cell_text(frame, voice)
    outside = "" if frame.refused else section_text(*frame.outside_mm, voice)
    return CellOut(
        moulding=frame.moulding,
        figure=outside,
        needs="" if frame.refused else voice.run(frame.needs_mm),
        text=text,
        tone=tone,
    )


def frame_out(library: Mouldings, path: FramePath, kerf_mm: float, voice: Voice) -> FrameOut:
    """One frame. NotFound."""
    content_id, moulding_id = path.content_id, path.moulding_id
    content, moulding = _asked(library, path)
    frame = frame_of(content_id, content, moulding_id, moulding, kerf_mm)
    title = f"{words.content_title(content_id, content)} in {words.moulding_title(moulding_id, moulding)}"
    if frame.refused:
        return FrameOut(title=title, lines=[LineOut(text=problem_text(frame.refused, voice), tone="wrong")], possible=False)
    lines = [*_sizes(frame, voice), *_wood(frame, content, moulding, kerf_mm, voice), *_lip(frame, content, voice)]
    return FrameOut(title=title, lines=lines, possible=True)


def _sizes(frame: Frame, voice: Voice) -> list[LineOut]:
    parts = ", ".join(f"{count} × {voice.say(mm)}" for count, mm in frame.parts)
    return [
        LineOut(text="Outside", figure=section_text(*frame.outside_mm, voice)),
        LineOut(text="Parts, long point to long point", figure=parts),
    ]


def _wood(frame: Frame, content: Content, moulding: Moulding, kerf_mm: float, voice: Voice) -> list[LineOut]:
    """How much of the moulding it needs, and what of it comes out of the lengths that there are."""
    found = [
        LineOut(
            text=f"Out of {voice.say(one.mm)}: {words.pieces_text(one.pieces)}",
            figure=f"{voice.say(_to_tape(one.left_mm, voice, floor))} left" if one.left_mm else "",
        )
        for one in frame.lengths
    ]
    if frame.missing:
        short = short_by_mm(content, moulding, kerf_mm)
        note = f"With one of your lengths {voice.say(_to_tape(short, voice, ceil))} longer all would come out." if short else ""
        found.append(LineOut(text=f"{words.pieces_text(frame.missing)} without a length".capitalize(), note=note, tone="near"))
    return [
        LineOut(text="Needs in one length, saw cuts included", figure=voice.say(_to_tape(frame.needs_mm, voice, ceil))),
        *found,
    ]


def _to_tape(mm: float, voice: Voice, rounding: Callable[[float], int]) -> float:
    """A length on a mark of the tape: what is needed up to the next one, what is left down."""
    return rounding(mm / voice.tape.graduation_mm) * voice.tape.graduation_mm


def _lip(frame: Frame, content: Content, voice: Voice) -> list[LineOut]:
    """What lies in it, behind and on the lip."""
    lines = []
    if frame.stands_out_mm > 0:
        note = "Fasten it with clips or strips that reach over, or build up the back."
        lines.append(LineOut(text=f"It stands out {voice.say(frame.stands_out_mm)} behind", note=note, tone="near"))
    else:
        lines.append(LineOut(text="Room behind it in the rabbet", figure=voice.say(-frame.stands_out_mm)))
    if frame.bearing:
        lines += _bearing(frame.bearing, content, voice)
    return lines


def _bearing(bearing: Bearing, content: Content, voice: Voice) -> list[LineOut]:
    covers = LineOut(text="The lip covers, lying in the middle", figure=voice.say(bearing.cover_mm))
    kg = f"{content.weighs_kg:.1f} kg"
    weighs = kg if content.weight_kg else f"{kg}, {words.AS_GLASS}"
    if bearing.cover_mm <= 0:
        return [covers, LineOut(text="The lip covers nothing: what lies in it falls through", tone="wrong")]
    bears = LineOut(
        text=f"The lip bears {bearing.times:.3g} times what lies on it ({weighs})"
        if bearing.times >= 1
        else f"The lip does not bear what lies on it ({weighs})",
        figure=f"{bearing.times:.2g} ×" if bearing.times < 1 else "",
        note=words.LIES_FACE_DOWN,
        tone="right" if bearing.times >= 1 else "wrong",
    )
    thin = LineOut(text="The lip is thick at its root", figure=voice.say(bearing.least_mm))
    if bearing.least_mm < THINNEST_LIP_MM:
        thin = thin.model_copy(update={"tone": "wrong", "note": f"Under {voice.say(THINNEST_LIP_MM)} it splits in the hand."})
    return [covers, bears, thin]


def frame_project(library: Mouldings, path: FramePath, unit: Unit) -> tuple[ProjectBody, FinishWishes]:
    """(a project that makes one of the frames, what it says in the Finish of what lies in it). NotFound, Invalid."""
    content, moulding = _asked(library, path)
    voice = voice_in(unit)
    try:
        spec = project_with(content, moulding).model_dump(mode="json")
    except SpecError as error:
        raise from_core(error, voice) from None
    name = words.content_title(path.content_id, content)
    body = ProjectBody(name=name, unit=unit, graduation=USUAL_GRADUATION[unit], spec=spec)
    layers = content.model_dump(include={"glass_mm", "spacer_mm", "art_mm", "back_mm"})
    holds = Holds(**layers, load_kg=round(content.weighs_kg, 2))
    return body, FinishWishes(holds=holds)


def _asked(library: Mouldings, path: FramePath) -> tuple[Content, Moulding]:
    """A content and a moulding. NotFound."""
    content, moulding = library.contents.get(path.content_id), library.mouldings.get(path.moulding_id)
    if content is None or moulding is None:
        raise documents.NotFound(f"{path.content_id} {path.moulding_id}")
    return content, moulding


def made_of(project: str, spec: ProjectSpec, state: documents.State, voice: Voice) -> MadeOfOut:
    """The assemblies of a project so called that may be of a moulding, and of which."""
    library = racks.mouldings_in(state)
    found = []
    for id, member in spec.members.items():
        section = KINDS[member.spec.kind].profile(member.spec)
        if section is None:
            continue
        path = f"members.{id}.spec.moulding"
        size = {"width_mm": section.width_mm, "thickness_mm": section.thickness_mm}
        own = {
            "name": f"{project}, {member.name}"[:60] if len(spec.members) > 1 else project[:60],
            **size,
            "ploughed": [cut.model_dump(mode="json") for cut in section.ploughed],
        }
        options = [
            (
                words.moulding_title(of, moulding),
                f"{section_text(moulding.width_mm, moulding.thickness_mm, voice)}, {words.found_text(moulding, voice)}",
                Choose(op="choose", path=path, value=profile_of(moulding)),
            )
            for of, moulding in library.mouldings.items()
        ]
        found.append(
            MadeOf(
                member=id,
                title=member.name if len(spec.members) > 1 else "",
                options=options,
                keep=Choose(op="choose", path="mouldings.new", value=own),
            )
        )
    return MadeOfOut(version=state.version, members=found)


def add_moulding_photo(session: Session, version: int, id: str, name: str, base64: str) -> documents.State:
    """Keep a photo of a moulding: scaled down, without what it says of where it was taken. Conflict, Invalid, NotFound."""
    state = racks.mouldings_state(session)
    library = racks.mouldings_in(state)
    if id not in library.mouldings:
        raise documents.NotFound(id)
    content = photo_in(base64)
    file = add_file(session, WORKSHOP, f"{name.rpartition('.')[0] or name}.jpg", "image/jpeg", content)
    act = Choose(op="choose", path=f"mouldings.{id}.photo", value=file.id)
    changed = racks.mouldings_after(library, [act])
    did = {"acts": [act.model_dump(mode="json")]}
    return racks.save(session, MOULDINGS, racks.IDS[MOULDINGS], version, changed, did)


def moulding_photo(session: Session, file: str) -> File:
    """A moulding's photo. NotFound."""
    found = session.get(File, file)
    if found is None or found.project_id != WORKSHOP or not found.media_type.startswith("image/"):
        raise documents.NotFound(file)
    return found

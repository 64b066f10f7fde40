"""The workshop's mouldings, and the frames that come out of them, over HTTP."""

from typing import Any

from flask import Response
from flask_openapi3 import APIBlueprint

from fennup.app.api.answers import json_of
from fennup.app.api.projects import opened, project_out
from fennup.app.api.sessions import reading, writing
from fennup.app.schemas.api import Nothing, Problem, ProjectOut, ProjectPath, Seen
from fennup.app.schemas.mouldings import (
    FrameOut,
    FramePath,
    FramesOut,
    InUnit,
    MadeOfOut,
    MouldingPhoto,
    MouldingPhotoPath,
    MouldingsChange,
    MouldingsLook,
    MouldingsOut,
)
from fennup.app.services import documents, racks
from fennup.app.services.mouldings import (
    add_moulding_photo,
    frame_out,
    frame_project,
    frames_out,
    made_of,
    moulding_photo,
    mouldings_out,
    voice_in,
)
from fennup.app.services.own import AT_THE_FINISH
from fennup.app.services.solving import solved
from fennup.app.services.upgrade import MOULDINGS, PROJECT
from fennup.app.services.workshops import current_workshop

api = APIBlueprint("mouldings", __name__, url_prefix="/api", abp_responses={404: Problem, 409: Problem, 422: Problem})
PHOTO: dict[Any, Any] = {200: {"content": {"image/jpeg": {"schema": {"type": "string", "format": "binary"}}}}}


@api.get("/mouldings", responses={200: MouldingsOut})
def read_mouldings(query: InUnit) -> Response:
    """The workshop's mouldings, drawn, and what is to be framed."""
    with reading() as session:
        state = racks.mouldings_state(session)
    return json_of(mouldings_out(state, voice_in(query.unit)))


@api.post("/mouldings/acts", responses={200: MouldingsOut})
def change_mouldings(query: InUnit, body: MouldingsChange) -> Response:
    """Change them and save."""
    voice = voice_in(query.unit)
    with reading() as session:
        now = racks.mouldings_of(session)
    changed = racks.mouldings_after(now, list(body.acts), voice)
    did = {"acts": [act.model_dump(mode="json") for act in body.acts]}
    with writing() as session:
        state = racks.save(session, MOULDINGS, racks.IDS[MOULDINGS], body.version, changed, did)
    return json_of(mouldings_out(state, voice))


@api.post("/mouldings/look", responses={200: MouldingsOut})
def look_at_mouldings(query: InUnit, body: MouldingsLook) -> Response:
    """What some acts would make of them, without saving."""
    voice = voice_in(query.unit)
    with reading() as session:
        state = racks.mouldings_state(session)
    return json_of(mouldings_out(state, voice, racks.mouldings_after(racks.mouldings_in(state), list(body.acts), voice)))


@api.post("/mouldings/undo", responses={200: MouldingsOut})
def undo_mouldings(query: InUnit, body: Seen) -> Response:
    """Take the last change back."""
    return _stepped(query, body.version, -1)


@api.post("/mouldings/redo", responses={200: MouldingsOut})
def redo_mouldings(query: InUnit, body: Seen) -> Response:
    """Bring it again."""
    return _stepped(query, body.version, 1)


def _stepped(query: InUnit, version: int, by: int) -> Response:
    with writing() as session:
        known = documents.ever_made(session, MOULDINGS)
        state = documents.step(session, racks.IDS[MOULDINGS], MOULDINGS, version, by) if known else racks.mouldings_state(session)
    return json_of(mouldings_out(state, voice_in(query.unit)))


@api.get("/mouldings/frames", responses={200: FramesOut})
def read_frames(query: InUnit) -> Response:
    """Every content in every moulding: the frames that come out."""
    with reading() as session:
        library, workshop = racks.mouldings_of(session), current_workshop(session)
    return json_of(frames_out(library, workshop.kerf_mm, voice_in(query.unit)))


@api.get("/mouldings/frames/<string:content_id>/<string:moulding_id>", responses={200: FrameOut})
def read_frame(path: FramePath, query: InUnit) -> Response:
    """One of them, with its parts, what it needs, and what its lip bears."""
    with reading() as session:
        library, workshop = racks.mouldings_of(session), current_workshop(session)
    return json_of(frame_out(library, path, workshop.kerf_mm, voice_in(query.unit)))


@api.post("/mouldings/frames/<string:content_id>/<string:moulding_id>/project", responses={201: ProjectOut})
def make_frame(path: FramePath, query: InUnit, body: Nothing) -> Response:
    """A project that makes it; what lies in it stands in its Finish already."""
    with reading() as session:
        library, workshop = racks.mouldings_of(session), current_workshop(session)
    project, wishes = frame_project(library, path, query.unit)
    solution = solved(project, workshop)
    with writing() as session:
        state = documents.create(session, PROJECT, project.model_dump(mode="json"), {"event": "starting"})
        AT_THE_FINISH.save(session, state.id, 1, wishes, {"event": "starting"})
    return project_out(state, project, solution, status=201)


@api.post("/mouldings/photos", responses={200: MouldingsOut})
def keep_moulding_photo(query: InUnit, body: MouldingPhoto) -> Response:
    """A photo of a moulding."""
    with writing() as session:
        state = add_moulding_photo(session, body.version, body.moulding, body.name, body.content)
    return json_of(mouldings_out(state, voice_in(query.unit)))


@api.get("/mouldings/photos/<string:file_id>", responses=PHOTO)
def read_moulding_photo(path: MouldingPhotoPath) -> Response:
    """One of their photos."""
    with reading() as session:
        found = moulding_photo(session, path.file_id)
        content, media_type = found.content, found.media_type
    return Response(content, content_type=media_type, headers={"Cache-Control": "private, max-age=31536000, immutable"})


@api.get("/projects/<string:project_id>/made-of", responses={200: MadeOfOut})
def read_made_of(path: ProjectPath) -> Response:
    """Of which mouldings a project's boards could be made."""
    found = opened(path.project_id)
    with reading() as session:
        state = racks.mouldings_state(session)
    return json_of(made_of(found.body.name, found.solved().spec, state, found.body.voice()))

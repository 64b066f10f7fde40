"""Files that come in over HTTP: looked at first, then brought in."""

from flask import Response
from flask_openapi3 import APIBlueprint

from fennup.app.api.answers import json_of
from fennup.app.api.fit import FitRoom
from fennup.app.api.sessions import device_here, reading, writing
from fennup.app.schemas.api import Problem, ProjectPath
from fennup.app.schemas.bring_in import BroughtIn, FileIn, FileRead, ReadingsIn, ReadingsRead, ReadingsText
from fennup.app.schemas.fit import FitOut
from fennup.app.services import documents
from fennup.app.services.bring_in import bring_in, look
from fennup.app.services.readings_in import bring_readings, readings_read
from fennup.app.services.upgrade import PROJECT

api = APIBlueprint("bring_in", __name__, url_prefix="/api", abp_responses={404: Problem, 409: Problem, 422: Problem})


@api.post("/bring-in/look", responses={200: FileRead})
def look_at_file(body: FileIn) -> Response:
    """What a file is, what of it would come in and what not. Nothing is changed."""
    with reading() as session:
        return json_of(look(body, session))


@api.post("/bring-in", responses={200: BroughtIn})
def bring_file_in(body: FileIn) -> Response:
    """Bring a file in: a project, a workshop, an outline, a list of boards."""
    with writing() as session:
        return json_of(bring_in(body, session))


@api.post("/projects/<string:project_id>/fit/list/look", responses={200: ReadingsRead})
def look_at_readings(path: ProjectPath, body: ReadingsText) -> Response:
    """What a list of readings says, and which reading each line was taken for."""
    room = FitRoom(path.project_id)
    sheet = room.sheet()
    return json_of(readings_read(sheet.fit, sheet.words, body.text))


@api.post("/projects/<string:project_id>/fit/list", responses={200: FitOut})
def bring_readings_in(path: ProjectPath, body: ReadingsIn) -> Response:
    """Write a list of readings down."""
    room = FitRoom(path.project_id)
    fit = room.sheet().fit
    with writing() as session:
        documents.read(session, path.project_id, PROJECT)
        bring_readings(session, path.project_id, fit, room.opened.body.voice(), body.id, body.lines, device_here())
    return json_of(FitRoom(path.project_id).answer())

"""Files in and out, backups, and how far long work has come."""

import json
import time
from collections.abc import Iterator
from typing import Any

from flask import Response
from flask_openapi3 import APIBlueprint

from fennup.app.api.answers import file_name, json_of
from fennup.app.api.sessions import reading, store, writing
from fennup.app.models.store import Store, back_up
from fennup.app.models.tables import Job
from fennup.app.schemas.api import AnyFile, BackedUp, Imported, JobOut, JobPath, Nothing, Problem, ProjectPath
from fennup.app.services import jobs
from fennup.app.services.documents import NotFound
from fennup.app.services.portable import SUFFIX, Import, project_file, workshop_file

api = APIBlueprint("files", __name__, url_prefix="/api", abp_responses={404: Problem, 422: Problem})
LONGEST_SECONDS = 20.0  # then the browser asks again: no connection keeps a thread for good
POLL_SECONDS = 0.15
ANY_JSON: dict[Any, Any] = {200: {"content": {"application/json": {"schema": {"type": "object"}}}}}


def _file(document: dict[str, Any], name: str) -> Response:
    """A document to be saved as a file."""
    headers = {"Content-Disposition": f'attachment; filename="{name}{SUFFIX}"'}
    return Response(json.dumps(document, indent=1, ensure_ascii=False), content_type="application/json", headers=headers)


@api.get("/projects/<string:project_id>/file", responses=ANY_JSON)
def export_project(path: ProjectPath) -> Response:
    """A project with everything that belongs to it, as an open file."""
    with reading() as session:
        document = project_file(session, path.project_id)
    return _file(document, file_name(document["project"]["name"]))


@api.get("/workshop/file", responses=ANY_JSON)
def export_workshop() -> Response:
    """The workshop and all projects, as an open file."""
    with reading() as session:
        document = workshop_file(session)
    return _file(document, "workshop")


@api.post("/import", responses={200: Imported})
def import_file(body: AnyFile) -> Response:
    """Bring in such a file: a project, or a whole workshop."""
    found = Import(body.model_dump())
    with writing() as session:
        ids = found.save(session)
    return json_of(Imported(projects=ids, workshop=found.workshop is not None))


@api.post("/backup", responses={200: BackedUp})
def make_backup(body: Nothing) -> Response:
    """Copy the database beside itself."""
    return json_of(BackedUp(file=str(back_up(store().file))))


def _job_out(job: Job) -> JobOut:
    return JobOut.model_validate(job, from_attributes=True)


@api.post("/jobs/<int:job_id>/cancel", responses={200: JobOut})
def cancel_job(path: JobPath, body: Nothing) -> Response:
    """End work that is no longer wanted."""
    with writing() as session:
        job = jobs.cancel(session, path.job_id)
        if job is None:
            raise NotFound(str(path.job_id))
        return json_of(_job_out(job))


@api.get("/jobs/<int:job_id>/events", responses={200: {"content": {"text/event-stream": {"schema": {"type": "string"}}}}})
def follow_job(path: JobPath) -> Response:
    """How far work has come, as server-sent events, until it has ended."""
    with reading() as session:
        if session.get(Job, path.job_id) is None:
            raise NotFound(str(path.job_id))
    return Response(_events(store(), path.job_id), content_type="text/event-stream")


def _events(of: Store, id: int) -> Iterator[str]:
    began, before = time.monotonic(), ""
    while time.monotonic() - began < LONGEST_SECONDS:
        with of.reading() as session:
            job = session.get(Job, id)
            now = _job_out(job).model_dump_json() if job else ""
        if now != before:
            yield f"data: {now}\n\n"
            before = now
        if job is None or job.state in jobs.ENDED:
            return
        time.sleep(POLL_SECONDS)

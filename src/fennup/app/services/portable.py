"""Projects and the whole workshop as open files: out, and in again, from every version there has been."""

from base64 import b64decode, b64encode
from binascii import Error as NotBase64
from contextlib import suppress
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field
from sqlalchemy.orm import Session

from fennup.app.models.tables import File
from fennup.app.services import documents, racks, records
from fennup.app.services.own import AT_THE_FINISH, AT_THE_FIT, AT_THE_SAW, IN_THE_LOG
from fennup.app.services.projects import PLAIN, ProjectBody, project_in, valid_spec
from fennup.app.services.records import NewRecord
from fennup.app.services.solving import solved
from fennup.app.services.upgrade import BOARDS, MOULDINGS, NEWEST, PRICES, PROJECT, RACK, TABLES, WORKSHOP, upgraded
from fennup.app.services.validate import Invalid, from_core, validated
from fennup.app.services.workshops import BUILT_IN, current_workshop, save_workshop, workshop_state
from fennup.core.boards.rack import PriceList, Rack
from fennup.core.boards.wishes import Wishes
from fennup.core.errors import SpecError
from fennup.core.exchange.boards_forms import BoardsDocument
from fennup.core.exchange.cuts_forms import CutsDocument
from fennup.core.exchange.finish_document import FinishDocument
from fennup.core.exchange.fit_document import FitDocument
from fennup.core.exchange.frames_document import FramesDocument
from fennup.core.exchange.log_document import LogDocument
from fennup.core.finish.tables import USUAL_TABLES, Tables
from fennup.core.finish.wishes import FinishWishes
from fennup.core.fit.wishes import FitWishes
from fennup.core.log.wishes import LogWishes
from fennup.core.mouldings.library import Mouldings
from fennup.core.records.entry import Entry
from fennup.core.saw.wishes import SawWishes
from fennup.core.workshop import Workshop

SUFFIX = ".fennup.json"
PROJECT_FORMAT, WORKSHOP_FORMAT = "fennup.project", "fennup.workshop"
Version = Annotated[int, Field(ge=1, description="of the form of what the file holds")]


class Strict(BaseModel):
    """Unknown keys are refused."""

    model_config = ConfigDict(extra="forbid")


class FileEntry(Strict):
    """A photo or another file that belongs to a project, its content in base64."""

    id: Annotated[str, Field(max_length=36)]
    name: Annotated[str, Field(max_length=200)]
    media_type: Annotated[str, Field(max_length=80)]
    content: str


class BoardsEntry(Strict):
    """What is wished of the plan of its boards, and the rack, the price list and the mouldings that it was made with. Brought in, only the wishes are
    taken over; `./fennup boards` plans with all of them."""

    wishes: Wishes = Wishes()
    rack: Rack = Rack()
    prices: PriceList = PriceList()
    mouldings: Mouldings | None = None


class FinishEntry(Strict):
    """How it is to be fastened, coated and set up; and the workshop's tables, where they are not the usual ones. Brought in, only the wishes are taken
    over; `./fennup finish` reckons with both."""

    wishes: FinishWishes = FinishWishes()
    tables: Tables | None = None


class ProjectEntry(Strict):
    """A project with everything that belongs to it."""

    project: dict[str, Any]
    boards: BoardsEntry | None = None
    saw: SawWishes | None = None
    fit: FitWishes | None = None
    finish: FinishEntry | None = None
    log: LogWishes | None = None
    records: list[NewRecord] = []
    files: list[FileEntry] = []


class ProjectFile(ProjectEntry):
    """A `.fennup.json` file that holds one project."""

    format: Literal["fennup.project"]
    version: Version


class WorkshopFile(Strict):
    """A `.fennup.json` file that holds the workshop with all its projects; `project_version` is that of their form."""

    format: Literal["fennup.workshop"]
    version: Version
    workshop: dict[str, Any]
    rack: Rack | None = None
    prices: PriceList | None = None
    tables: Tables | None = None
    mouldings: Mouldings | None = None
    moulding_photos: list[FileEntry] = []
    project_version: Version
    projects: list[ProjectEntry]


def file_schema() -> dict[str, Any]:
    """JSON Schemas of both files, with what they hold in their newest form."""
    from fennup.core.project.spec import ProjectSpec

    return {
        PROJECT_FORMAT: ProjectFile.model_json_schema(),
        WORKSHOP_FORMAT: WorkshopFile.model_json_schema(),
        "project": ProjectBody.model_json_schema(),
        "spec": ProjectSpec.model_json_schema(),
        "workshop": Workshop.model_json_schema(),
        "boards_plan": BoardsDocument.model_json_schema(),
        "cuts": CutsDocument.model_json_schema(),
        "fit": FitDocument.model_json_schema(),
        "finish": FinishDocument.model_json_schema(),
        "log": LogDocument.model_json_schema(),
        "frames": FramesDocument.model_json_schema(),
        "versions": NEWEST,
    }


def _entry(session: Session, id: str, body: ProjectBody, *, alone: bool) -> dict[str, Any]:
    kept = [{name: getattr(record, name) for name in NewRecord.model_fields} for record in records.records_of(session, id)]
    files = [_file_entry(f) for f in records.files_of(session, id)]
    with suppress(Invalid):  # what can no longer be worked out goes out as it is
        body = body.model_copy(update={"spec": valid_spec(body.spec).model_dump(mode="json")})
    made = {"project": body.model_dump(mode="json", exclude={"variant_of"}), "records": kept, "files": files}
    wishes = racks.wishes_in(racks.state_of(session, BOARDS, racks.wishes_id(id)))
    entry = BoardsEntry(wishes=wishes.model_copy(update={"beside": []}))
    if alone:
        mouldings = racks.mouldings_of(session)
        there = {"rack": racks.rack_in(racks.rack_state(session)), "prices": racks.prices_of(session)}
        entry = entry.model_copy(update={**there, "mouldings": without_photos(mouldings) if mouldings.mouldings else None})
    tables = racks.tables_of(session)
    finish = FinishEntry(wishes=AT_THE_FINISH.of(session, id), tables=tables if alone and tables != USUAL_TABLES else None)
    made["finish"] = finish.model_dump(mode="json", exclude_none=finish.tables is None)
    made["log"] = IN_THE_LOG.of(session, id).model_dump(mode="json")
    made["fit"] = AT_THE_FIT.of(session, id).model_dump(mode="json")
    made["saw"] = AT_THE_SAW.inside(AT_THE_SAW.state(session, id)).model_dump(mode="json")
    return made | {
        "boards": entry.model_dump(
            mode="json",
            exclude={"mouldings"} if alone and not entry.mouldings else None if alone else {"rack", "prices", "mouldings"},
        )
    }


def _file_entry(file: File) -> dict[str, Any]:
    return {"id": file.id, "name": file.name, "media_type": file.media_type, "content": b64encode(file.content).decode()}


def without_photos(library: Mouldings) -> Mouldings:
    """The mouldings with nothing that is a file of the workshop's."""
    bare = {id: moulding.model_copy(update={"photo": None}) for id, moulding in library.mouldings.items()}
    return library.model_copy(update={"mouldings": bare})


def project_file(session: Session, id: str) -> dict[str, Any]:
    """A project as a file. NotFound, Unreadable."""
    state = documents.read(session, id, PROJECT)
    return {"format": PROJECT_FORMAT, "version": NEWEST[PROJECT]} | _entry(session, id, project_in(state.body, id), alone=True)


def workshop_file(session: Session) -> dict[str, Any]:
    """The workshop and all its projects as a file; a project that cannot be read is left out."""
    entries = []
    for state in documents.listed(session, PROJECT):
        try:
            entries.append(_entry(session, state.id, project_in(state.body, state.id), alone=False))
        except documents.Unreadable:
            continue
    library = racks.mouldings_of(session)
    shown = {moulding.photo for moulding in library.mouldings.values()}
    return {
        "format": WORKSHOP_FORMAT,
        "version": NEWEST[WORKSHOP],
        "workshop": current_workshop(session).model_dump(mode="json", exclude={"wishes"}),
        "rack": racks.rack_in(racks.rack_state(session)).model_dump(mode="json"),
        "prices": racks.prices_of(session).model_dump(mode="json"),
        "tables": racks.tables_of(session).model_dump(mode="json"),
        "mouldings": library.model_dump(mode="json"),
        "moulding_photos": [_file_entry(f) for f in records.files_of(session, WORKSHOP) if f.id in shown],
        "project_version": NEWEST[PROJECT],
        "projects": entries,
    }


def project_from(entry: ProjectEntry, version: int, path: str = "project") -> ProjectBody:
    """The project that a file holds, whatever version it is of. Invalid names the field in the file."""
    body = upgraded(PROJECT, version, entry.project)
    if body is None:
        raise from_core(SpecError("file_newer", ("version",), version=version, newest=NEWEST[PROJECT]), PLAIN)
    try:
        made = validated(ProjectBody, body, PLAIN)
    except Invalid as error:
        raise error.within(f"{path}.") from None
    try:
        spec = valid_spec(made.spec, made.voice())
    except Invalid as error:
        raise error.within(f"{path}.spec.") from None
    return made.model_copy(update={"spec": spec.model_dump(mode="json")})


def read_project_file(document: dict[str, Any]) -> ProjectBody:
    """The project that a project's file holds. Invalid."""
    file = validated(ProjectFile, document, PLAIN)
    return project_from(file, file.version)


def boards_in_file(document: dict[str, Any]) -> BoardsEntry:
    """The wishes, the rack and the price list that a project's file holds. Invalid."""
    return validated(ProjectFile, document, PLAIN).boards or BoardsEntry()


def saw_in_file(document: dict[str, Any]) -> SawWishes:
    """What is wished at the saws in a project's file. Invalid."""
    return validated(ProjectFile, document, PLAIN).saw or SawWishes()


def fit_in_file(document: dict[str, Any]) -> FitWishes:
    """What is wished at the dry fit in a project's file. Invalid."""
    return validated(ProjectFile, document, PLAIN).fit or FitWishes()


def finish_in_file(document: dict[str, Any]) -> FinishEntry:
    """What is wished of its finish in a project's file, and with which tables. Invalid."""
    return validated(ProjectFile, document, PLAIN).finish or FinishEntry()


def log_in_file(document: dict[str, Any]) -> LogWishes:
    """What is said of cost and sale in a project's file. Invalid."""
    return validated(ProjectFile, document, PLAIN).log or LogWishes()


def records_in_file(document: dict[str, Any]) -> list[Entry]:
    """What was done at the bench, in a project's file. Invalid."""
    return records.entries_of(validated(ProjectFile, document, PLAIN).records)


def is_file(document: Any) -> bool:
    """Whether something says of itself that it is one of these files."""
    return isinstance(document, dict) and "format" in document


class Import:
    """A file that was read and found sound, to be brought in at once: all of it or nothing. Invalid names the field."""

    def __init__(self, document: Any) -> None:
        self.workshop: Workshop | None = None
        self.stores: dict[str, Rack | PriceList | Tables | Mouldings | None] = {}
        self.photos: list[tuple[FileEntry, bytes]] = []
        kind = document.get("format") if isinstance(document, dict) else None
        if kind == WORKSHOP_FORMAT:
            file = validated(WorkshopFile, document, PLAIN)
            body = upgraded(WORKSHOP, file.version, file.workshop)
            if body is None:
                raise from_core(SpecError("file_newer", ("version",), version=file.version, newest=NEWEST[WORKSHOP]), PLAIN)
            self.workshop = validated(Workshop, body, PLAIN)
            self.stores = {RACK: file.rack, PRICES: file.prices, TABLES: file.tables, MOULDINGS: file.mouldings}
            self.photos = [(photo, _content(photo)) for photo in file.moulding_photos]
            entries, version = file.projects, file.project_version
            paths = [f"projects.{i}.project" for i in range(len(entries))]
        elif kind == PROJECT_FORMAT:
            one = validated(ProjectFile, document, PLAIN)
            entries, version, paths = [one], one.version, ["project"]
        else:
            raise from_core(SpecError("no_fennup_file", ("format",)), PLAIN)
        self.entries = [(project_from(entry, version, path), entry) for entry, path in zip(entries, paths, strict=True)]
        self.contents = [[_content(file) for file in entry.files] for _, entry in self.entries]
        for found, _ in self.entries:
            solved(found, BUILT_IN)  # whatever has no solution is refused before anything is saved

    def save(self, session: Session) -> list[str]:
        """Bring it in; the ids of the new projects, in the file's order. A workshop's file takes the place of the workshop."""
        made = []
        if self.workshop:
            save_workshop(session, workshop_state(session).version, self.workshop, {"event": "import"})
        brought = {
            photo.id: records.add_file(session, WORKSHOP, photo.name, photo.media_type, content, photo.id).id
            for photo, content in self.photos
        }
        for type, store in self.stores.items():
            if isinstance(store, Mouldings):
                store = _with_photos(store, brought)
            if store:
                racks.save(
                    session,
                    type,
                    racks.IDS[type],
                    racks.state_of(session, type, racks.IDS[type]).version,
                    store,
                    {"event": "import"},
                )
        # The first of the file is to stand first on the first screen.
        for (body, entry), contents in reversed(list(zip(self.entries, self.contents, strict=True))):
            state = documents.create(session, PROJECT, body.model_dump(mode="json"), {"event": "import"})
            if entry.boards:
                racks.save(session, BOARDS, racks.wishes_id(state.id), 1, entry.boards.wishes, {"event": "import"}, state.id)
            if entry.saw and entry.saw != SawWishes():
                AT_THE_SAW.save(session, state.id, 1, entry.saw, {"event": "import"})
            if entry.fit and entry.fit != FitWishes():
                AT_THE_FIT.save(session, state.id, 1, entry.fit, {"event": "import"})
            if entry.finish and entry.finish.wishes != FinishWishes():
                AT_THE_FINISH.save(session, state.id, 1, entry.finish.wishes, {"event": "import"})
            if entry.log and entry.log != LogWishes():
                IN_THE_LOG.save(session, state.id, 1, entry.log, {"event": "import"})
            files = {}
            for file, content in zip(entry.files, contents, strict=True):
                files[file.id] = records.add_file(session, state.id, file.name, file.media_type, content, file.id).id
            records.add_imported(session, state.id, entry.records, files)
            made.append(state.id)
        return made[::-1]


def _with_photos(library: Mouldings, brought: dict[str, str]) -> Mouldings:
    """The mouldings with the photos as they are called here; one that did not come along is left out."""
    found = {
        id: moulding.model_copy(update={"photo": brought.get(moulding.photo or "")}) for id, moulding in library.mouldings.items()
    }
    return library.model_copy(update={"mouldings": found})


def _content(file: FileEntry) -> bytes:
    """A file's content. Invalid where it is no base64, of a media type that is not kept, or too large."""
    try:
        content = b64decode(file.content, validate=True)
    except (NotBase64, ValueError):
        raise from_core(SpecError("no_base64", ("files",), name=file.name), PLAIN) from None
    if file.media_type not in records.MEDIA_TYPES:
        raise from_core(SpecError("no_media_type", ("files",), name=file.name), PLAIN)
    if len(content) > records.LARGEST_FILE:
        raise from_core(SpecError("file_large", ("files",), name=file.name, most=records.LARGEST_FILE), PLAIN)
    return content

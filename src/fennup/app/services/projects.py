"""Projects: a name, a tape and a spec, changed by acts and solved afresh each time."""

from math import ceil
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError, ValidationInfo, field_validator

from fennup.app.schemas.problems import Offer
from fennup.app.services import documents
from fennup.app.services.upgrade import PROJECT
from fennup.app.services.validate import Invalid, from_core, validated
from fennup.app.wording.figures import Voice
from fennup.app.wording.labels import NEW_NAMES, Naming
from fennup.core.drawing.edit import Choose, Edit, Fit, Free, Give, Nudge, ProjectAct, Rescale, TypeIn
from fennup.core.drawing.view import Control
from fennup.core.editing import nudged, read_figure
from fennup.core.errors import CoreError, SpecError
from fennup.core.parts.gauge import is_angle
from fennup.core.parts.measure import Ruler
from fennup.core.project.edit import edit, of_thickness, rescale, with_piece
from fennup.core.project.forms import ONLY, is_single, newest_form
from fennup.core.project.place import assemble, settle
from fennup.core.project.spec import ProjectSpec
from fennup.core.project.starts import start_spec
from fennup.core.units.lengths import GRADUATIONS, Unit, tape
from fennup.core.workshop import TapeChoice, Workshop

LONGEST_NAME = 80
WIDEST_ALLOWANCE_MM = 50.0
USUAL_GRADUATION: dict[str, str] = {"mm": "1", "in": "1/16"}


class ProjectBody(BaseModel):
    """What is stored of a project. `variant_of`: the project that it was begun from as another way to do it."""

    model_config = ConfigDict(extra="forbid")

    name: Annotated[str, Field(min_length=1, max_length=LONGEST_NAME)]
    unit: Literal["mm", "in"] = "mm"
    graduation: str = "1"
    allowance_mm: Annotated[float, Field(gt=0, le=WIDEST_ALLOWANCE_MM, allow_inf_nan=False)] = 0.5
    spec: dict[str, Any]
    variant_of: Annotated[str, Field(max_length=40)] | None = None

    @field_validator("graduation")
    @classmethod
    def _on_a_tape(cls, graduation: str, info: ValidationInfo) -> str:
        """There must be a tape that is graduated so."""
        if graduation not in {str(step) for step in GRADUATIONS[info.data.get("unit", "mm")]}:
            raise ValueError("no such tape")
        return graduation

    def voice(self) -> Voice:
        """Words for this project's figures."""
        members = self.spec.get("members")
        named = members.items() if isinstance(members, dict) else ()
        names = tuple((str(id), str(m.get("name"))) for id, m in named if isinstance(m, dict))
        return Voice(tape(self.unit, self.graduation), Naming(names))

    def made_in(self, workshop: Workshop) -> Workshop:
        """The workshop as this project is made in it: to its own tape's graduation, with the gap that it lets pass."""
        own = {"tape": TapeChoice(unit=self.unit, graduation=self.graduation), "allowance_mm": self.allowance_mm}
        return workshop.model_copy(update=own)


PLAIN = Voice(tape("mm", "1"))
MOVING_LIMITS = ("top_width", "top_depth", "top_side")
MOST_LIMITS = 40  # how often a limit is tried that moves with what is typed


def valid_spec(document: Any, voice: Voice = PLAIN) -> ProjectSpec:
    """A project's spec in any of its forms as a model; Invalid with every field that is wrong, named as in what was sent."""
    if isinstance(document, dict) and "members" not in document and not is_single(document):
        raise from_core(SpecError("unknown_kind", ("kind",)), PLAIN)
    try:
        return validated(ProjectSpec, newest_form(document), voice)
    except Invalid as refused:
        raise (refused.without(f"members.{ONLY}.spec.") if is_single(document) else refused) from None


def after_acts(body: ProjectBody, acts: list[ProjectAct]) -> ProjectBody:
    """The project after some acts, each valid by itself; Invalid names the field of the first that is not."""
    for act in acts:
        try:
            body = _after_act(body, act)
        except Invalid as refused:
            raise _with_outcomes(refused, body) from None
    return body


def _after_act(body: ProjectBody, act: ProjectAct) -> ProjectBody:
    path = getattr(act, "path", "")
    if path.startswith("project."):
        return _about_project(body, act, path)  # type: ignore[arg-type]
    voice = body.voice()
    spec = valid_spec(body.spec, voice)
    try:
        changed = _changed(spec, act, voice)
        if _moves_its_limit(act):
            _assembled(changed)
    except CoreError as error:
        raise from_core(_with_limit_tried(error, spec, act, voice), voice) from None
    return body.model_copy(update={"spec": validated(ProjectSpec, changed, voice).model_dump(mode="json")})


def _moves_its_limit(act: ProjectAct, *measures: str) -> bool:
    """Whether what is typed is a size whose limit moves with it."""
    name = act.measure if isinstance(act, Give) else act.path if isinstance(act, TypeIn) else ""
    return bool(name) and name.removesuffix("_mm").endswith(measures or MOVING_LIMITS)


def _assembled(changed: dict[str, Any]) -> None:
    """SpecError where a spec cannot be put together; what is wrong with its fields, whoever validates it says."""
    try:
        assemble(settle(ProjectSpec.model_validate(changed)))
    except ValidationError:
        return


def _with_limit_tried(error: CoreError, spec: ProjectSpec, act: ProjectAct, voice: Voice) -> CoreError:
    """A refusal whose limit was tried: where other sizes move along with the one that is typed, its limit does too, until typing it is taken."""
    measure, told = str(error.data.get("measure", "")).rpartition("/")[2], error
    if not measure or "limit_mm" not in error.data or not _moves_its_limit(act, measure):
        return error
    for _ in range(MOST_LIMITS):
        text = f"{ceil(float(str(told.data['limit_mm'])) * 100) / 100!r} mm"
        try:
            _assembled(_changed(spec, act.model_copy(update={"text": text}), voice))
        except CoreError as again:
            if again.code != error.code:
                return error
            told = again
        else:
            return told
    return told


def _with_outcomes(refused: Invalid, body: ProjectBody) -> Invalid:
    """Each way out with what it would make of the size that it lets change; those that lead nowhere are left out."""

    def outcome(offer: Offer) -> list[Offer]:
        made, let_go = body, offer.acts[0]
        assert isinstance(let_go, Free)
        try:
            for act in offer.acts:
                made = _after_act(made, act)
            value = Ruler(assemble(settle(valid_spec(made.spec, voice)))).measure(let_go.measure)
        except (Invalid, CoreError):
            return []
        figure = "" if value is None else voice.say_angle(value) if is_angle(let_go.measure) else voice.say(value)
        return [offer.model_copy(update={"label": f"{offer.label} becomes {figure}" if figure else offer.label})]

    voice = body.voice()
    problems = [p.model_copy(update={"offers": [made for o in p.offers for made in outcome(o)]}) for p in refused.problems]
    return Invalid(problems)


def _changed(spec: ProjectSpec, act: ProjectAct, voice: Voice) -> dict[str, Any]:
    """The spec after an act, still to be validated."""
    if isinstance(act, Fit):
        return with_piece(spec, act, voice.tape)
    return rescale(spec, act, voice.tape) if isinstance(act, Rescale) else edit(spec, act, voice.tape)


def with_thickness(body: ProjectBody, from_mm: float, text: str) -> ProjectBody:
    """The project with every board of one thickness as thick as was typed. Invalid where that is no length, or where none is so thick."""
    path, voice = "thickness_mm", body.voice()
    spec = valid_spec(body.spec, voice)
    try:
        to_mm = float(read_figure(path, text, voice.tape, False))
        changed = of_thickness(spec.model_dump(mode="json"), from_mm, to_mm)
    except CoreError as error:
        raise from_core(error, voice) from None
    return body.model_copy(update={"spec": validated(ProjectSpec, changed, voice).model_dump(mode="json")})


def care_control(body: ProjectBody) -> Control:
    """The widest gap that the project lets pass, to be typed over."""
    acts = TypeIn(op="type", path="project.allowance_mm", text="")
    return Control("allowance", "care", value=body.allowance_mm, unit="gap", acts=acts)


def _allowed(body: ProjectBody, act: Edit, path: str) -> ProjectBody:
    """Another allowance; Invalid when it is no length or nothing."""
    tape = body.voice().tape
    try:
        if isinstance(act, TypeIn):
            value = float(read_figure(path, act.text, tape, act.inches_meant))
        else:
            value = float(nudged(path, body.allowance_mm, act.steps if isinstance(act, Nudge) else 0, tape))
    except CoreError as error:
        raise from_core(error, body.voice()) from None
    if not 0 < value <= WIDEST_ALLOWANCE_MM:
        raise from_core(SpecError("no_allowance", (path,), limit_mm=WIDEST_ALLOWANCE_MM), body.voice())
    return body.model_copy(update={"allowance_mm": value})


def _about_project(body: ProjectBody, act: Edit, path: str) -> ProjectBody:
    """A change of name, units, graduation or allowance."""
    if path == "project.allowance_mm":
        return _allowed(body, act, path)
    value = act.text if isinstance(act, TypeIn) else act.value if isinstance(act, Choose) else None
    field = path.removeprefix("project.")
    if field == "name" and isinstance(value, str):
        return body.model_copy(update={"name": checked_name(value, path)})
    if field == "unit" and isinstance(value, str) and value in ("mm", "in"):
        return body.model_copy(update={"unit": value, "graduation": USUAL_GRADUATION[value]})
    if field == "graduation" and isinstance(value, str) and value in {str(g) for g in GRADUATIONS[body.unit]}:
        return body.model_copy(update={"graduation": value})
    raise from_core(SpecError("no_unit" if field == "unit" else "no_such_field", (path,)), body.voice())


def checked_name(name: str, path: str = "name") -> str:
    """A name without space around it; Invalid when it is empty or too long."""
    name = " ".join(name.split())
    if not name:
        raise from_core(SpecError("name_empty", (path,)), PLAIN)
    if len(name) > LONGEST_NAME:
        raise from_core(SpecError("name_long", (path,), most=LONGEST_NAME), PLAIN)
    return name


def start_body(start: str, unit: Unit = "mm") -> ProjectBody:
    """A new project from a start."""
    try:
        spec = start_spec(start).model_dump(mode="json")
    except SpecError as error:
        raise from_core(error, PLAIN) from None
    return ProjectBody(name=NEW_NAMES[start], unit=unit, graduation=USUAL_GRADUATION[unit], spec=spec)


def variant_body(id: str, original: ProjectBody, names: set[str]) -> ProjectBody:
    """The same project again as a variant, under a name that no other has."""
    root = original.name.partition(", variant")[0][: LONGEST_NAME - 14]
    name = next(n for k in range(1, 10_000) if (n := f"{root}, variant{f' {k}' if k > 1 else ''}") not in names)
    return original.model_copy(update={"name": name, "variant_of": original.variant_of or id})


def project_of(state: documents.State) -> ProjectBody:
    """What a document holds of a project. Unreadable where that is not what this version writes."""
    return project_in(state.body, state.id)


def project_in(stored: dict[str, Any] | None, id: str) -> ProjectBody:
    """The same of what was stored."""
    try:
        body = ProjectBody.model_validate(stored)
    except ValidationError:
        raise documents.Unreadable(id, PROJECT) from None
    if not isinstance(body.spec.get("members"), dict):
        raise documents.Unreadable(id, PROJECT)
    return body

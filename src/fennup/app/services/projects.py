"""Projects: a name, a tape and a spec, changed by acts and solved afresh each time."""

from functools import lru_cache
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, ValidationError

from fennup.app.services import documents
from fennup.app.services.validate import from_core, validated
from fennup.app.wording.figures import Voice
from fennup.app.wording.labels import NEW_NAMES, WHOLE
from fennup.core.drawing.edit import Choose, Edit, Fit, Nudge, ProjectAct, Rescale, TypeIn
from fennup.core.drawing.view import Control, Option
from fennup.core.errors import CoreError, SpecError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.kinds.editing import nudged, read_figure
from fennup.core.kinds.registry import Kind
from fennup.core.kinds.singles import SINGLE_STARTS, SINGLES
from fennup.core.kinds.together.edit import begun, with_another, with_piece
from fennup.core.kinds.together.spec import TogetherSpec
from fennup.core.saw.machine import Machine
from fennup.core.solve import CARE, Care, Solution, solve
from fennup.core.units.lengths import GRADUATIONS, Unit, tape

TYPE = "project"
TOGETHER = "together"
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

    def voice(self) -> Voice:
        """Words for this project's figures."""
        return Voice(tape(self.unit, self.graduation))

    def care(self) -> Care:
        """How exactly this project is made: to its tape's graduation, with the gap that it lets pass."""
        return Care(self.voice().tape.graduation_mm, self.allowance_mm)


PLAIN = Voice(tape("mm", "1"))


def kind_of(spec: Any) -> Kind:
    """The kind that a spec is of; Invalid names the field."""
    name = spec.get("kind") if isinstance(spec, dict) else None
    if not isinstance(name, str) or name not in KINDS:
        raise from_core(SpecError("unknown_kind", ("kind",)), PLAIN)
    return KINDS[name]


def solved(body: ProjectBody, machine: Machine) -> Solution:
    """The project's solution on a saw; Invalid when its spec has none."""
    return solved_spec(body.spec, machine, body.voice(), body.care())


def solved_spec(spec: Any, machine: Machine, voice: Voice, care: Care = CARE) -> Solution:
    """Validate a spec of any kind and solve it."""
    model = validated(kind_of(spec).spec, spec, voice)
    try:
        return _worked_out(spec["kind"], model.model_dump_json(), machine, care)
    except CoreError as error:
        raise from_core(error, voice) from None


@lru_cache(maxsize=16)
def _worked_out(kind: str, text: str, machine: Machine, care: Care) -> Solution:
    """A solution, kept by content: after a save the first screen, a second window and the cut list ask for the same."""
    return solve(KINDS[kind].spec.model_validate_json(text), machine, care)


def acted(body: ProjectBody, acts: list[ProjectAct]) -> ProjectBody:
    """The project after some acts, each valid by itself; Invalid names the field of the first that is not."""
    for act in acts:
        if isinstance(act, Fit):
            body = _fitted(as_together(body), act)
            continue
        if isinstance(act, Rescale):
            body = _rescaled(body, act)
            continue
        path = getattr(act, "path", "")
        if path.startswith("project."):
            body = _about_project(body, act, path)
            continue
        voice = body.voice()
        if path == "together":
            body = _with_another(as_together(body), act)
            continue
        kind = kind_of(body.spec)
        spec = validated(kind.spec, body.spec, voice)
        try:
            changed = kind.edit(spec, act, voice.tape)
        except CoreError as error:
            raise from_core(error, voice) from None
        body = body.model_copy(update={"spec": validated(kind.spec, changed, voice).model_dump(mode="json")})
    return body


def as_together(body: ProjectBody) -> ProjectBody:
    """A project of several assemblies as it is, one of a single one as the first of several. Invalid when it cannot be."""
    if body.spec.get("kind") == TOGETHER:
        return body
    spec = validated(kind_of(body.spec).spec, body.spec, body.voice()).model_dump(mode="json")
    first = "".join(c for c in WHOLE[spec["kind"]].removeprefix("The ").capitalize() if c.isalnum() or c == " ")
    try:
        return body.model_copy(update={"spec": begun(spec, first)})
    except CoreError as error:
        raise from_core(error, body.voice()) from None


def _with_another(body: ProjectBody, act: Edit) -> ProjectBody:
    """One more assembly, begun from a start."""
    voice = body.voice()
    try:
        changed = with_another(body.spec, str(act.value if isinstance(act, Choose) else ""))
    except CoreError as error:
        raise from_core(error, voice) from None
    return body.model_copy(update={"spec": validated(TogetherSpec, changed, voice).model_dump(mode="json")})


def _fitted(body: ProjectBody, act: Fit) -> ProjectBody:
    """One more piece between two touched faces."""
    voice = body.voice()
    try:
        changed = with_piece(validated(TogetherSpec, body.spec, voice), act, voice.tape)
    except CoreError as error:
        raise from_core(error, voice) from None
    return body.model_copy(update={"spec": validated(TogetherSpec, changed, voice).model_dump(mode="json")})


def _rescaled(body: ProjectBody, act: Rescale) -> ProjectBody:
    """The whole at another size; Invalid names the size that is in the way."""
    voice, kind = body.voice(), kind_of(body.spec)
    try:
        if kind.rescale is None:
            raise SpecError("no_such_field", (act.measure,))
        changed = kind.rescale(validated(kind.spec, body.spec, voice), act, voice.tape)
    except CoreError as error:
        raise from_core(error, voice) from None
    return body.model_copy(update={"spec": validated(kind.spec, changed, voice).model_dump(mode="json")})


def together_control(body: ProjectBody) -> Control | None:
    """One more assembly beside a single one; None where there are several already, or it cannot be."""
    if body.spec.get("kind") not in SINGLES:
        return None
    adding = (Option(f"add:{code}", (Choose(op="choose", path="together", value=code),), False) for code in SINGLE_STARTS)
    return Control("add_assembly", "assemblies", (Option("alone", (), True), *adding), style="list")


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
    """A new project from one of the kinds' starts."""
    for kind in KINDS.values():
        if start in kind.starts:
            spec = kind.spec.model_validate(kind.starts[start]).model_dump(mode="json")
            return ProjectBody(name=NEW_NAMES[start], unit=unit, graduation=USUAL_GRADUATION[unit], spec=spec)
    raise from_core(SpecError("no_such_start", ("start",)), PLAIN)


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
        raise documents.Unreadable(id) from None
    if body.spec.get("kind") not in KINDS:
        raise documents.Unreadable(id)
    return body

"""Several assemblies as one: each settled after those whose sizes it follows, lifted onto what it stands on."""

from dataclasses import replace
from functools import lru_cache
from typing import Any

from pydantic import ValidationError

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly, Claim, Joint, Mating, Ring
from fennup.core.drawing.edit import Give
from fennup.core.errors import CutError, SpecError
from fennup.core.kinds.fields import Pinned, pin
from fennup.core.kinds.singles import SINGLES
from fennup.core.kinds.sizing import pins_in
from fennup.core.kinds.together.bearing import bearing_findings
from fennup.core.kinds.together.pieces import add_pieces
from fennup.core.kinds.together.spec import Link, Member, TogetherSpec
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid, solid_of
from fennup.core.units.lengths import tape

MM = tape("mm", "1")
SAID_ONCE = ("stand_load", "brace_load", "roof_load")


def told(error: SpecError, spec: TogetherSpec, name: str) -> SpecError:
    """One assembly's refusal, its fields and measures named within the whole."""
    i = next(i for i, member in enumerate(spec.members) if member.name == name)
    data = dict(error.data)
    if isinstance(data.get("measure"), str):
        data["measure"] = f"{name}/{data['measure']}"
    others = data.get("others")
    if isinstance(others, tuple):
        data["others"] = tuple((f"{name}/{measure}", value, field) for measure, value, field in others)
    return SpecError(error.code, tuple(f"members.{i}.spec.{field}" for field in error.fields), **data)


def settle(spec: TogetherSpec) -> TogetherSpec:
    """Every assembly with its sizes where its pins and its links put them. SpecError names the assembly's field."""
    settled: dict[str, Any] = {}
    for name in spec.order():
        own = spec.member(name).spec
        for k, link in enumerate(spec.links):
            if link.of == name:
                try:
                    source = built(settled[link.after])
                except SpecError as error:
                    raise told(error, spec, link.after) from error
                own = _following(own, link, k, source)
        try:
            settled[name] = SINGLES[own.kind].settle(own)
        except SpecError as error:
            raise told(error, spec, name) from error
    members = [member.model_copy(update={"spec": settled[member.name]}) for member in spec.members]
    return spec.model_copy(update={"members": members})


def _following(own: Any, link: Link, k: int, source: Assembly) -> Any:
    """The spec with the linked size given as the other assembly measures it. SpecError `cannot_measure`."""
    value = Ruler(source).measure(link.source)
    if value is None:
        raise SpecError("cannot_measure", (f"links.{k}.source",))
    if not isinstance(own, Pinned):
        give = Give(op="give", measure=link.measure, text=f"{value + link.plus_mm!r} mm")
        return _limited(type(own), SINGLES[own.kind].edit(own, give, MM), link, k, value)
    made = pin(link.measure, value + link.plus_mm).model_dump(mode="json")
    pins = pins_in(own)
    place = next((i for i, p in enumerate(pins) if p["measure"] == link.measure), len(pins))
    document = own.model_dump(mode="json") | {"pins": [*pins[:place], made, *pins[place + 1 :]]}
    return _limited(type(own), document, link, k, value)


def _limited(model: Any, document: dict[str, Any], link: Link, k: int, value: float) -> Any:
    """The linked assembly's spec. SpecError `measure_impossible` where the link makes a figure go out of its limits."""
    try:
        return model.model_validate(document)
    except ValidationError:
        size = f"{link.of}/{link.measure}"
        raise SpecError("measure_impossible", (f"links.{k}.plus_mm",), measure=size, value=value + link.plus_mm) from None


def built(spec: Any) -> Assembly:
    """One settled assembly, by content: links, heights and drawings ask for it again and again."""
    return _built(spec.kind, spec.model_dump_json())


@lru_cache(maxsize=64)
def _built(kind: str, text: str) -> Assembly:
    return SINGLES[kind].assemble(SINGLES[kind].spec.model_validate_json(text))


def solids_of(spec: Any) -> dict[str, Solid]:
    """One settled assembly's solids, by content."""
    return _solids(spec.kind, spec.model_dump_json())


@lru_cache(maxsize=64)
def _solids(kind: str, text: str) -> dict[str, Solid]:
    return {board.id: solid_of(board) for board in _built(kind, text).boards}


@lru_cache(maxsize=64)
def _span(kind: str, text: str) -> tuple[float, float]:
    """The levels of the lowest and of the highest wood."""
    levels = [p[2] for solid in _solids(kind, text).values() for piece in solid.world for p in piece.points]
    return min(levels), max(levels)


def heights(spec: TogetherSpec) -> dict[str, float]:
    """How high every assembly stands: on the ground at its own 0, on another one with its lowest wood."""
    found: dict[str, float] = {}
    spans = {member.name: _span(member.spec.kind, member.spec.model_dump_json()) for member in spec.members if spec.members[1:]}
    for member in spec.members:
        under = found[member.on] + spans[member.on][1] - spans[member.name][0] if member.on is not None else 0.0
        found[member.name] = under + member.up_mm
    return found


def assemble(spec: TogetherSpec) -> Assembly:
    """All of them as one assembly: boards and joints are called by their assembly's name and their own."""
    wholes = {}
    for member in spec.members:
        try:
            wholes[member.name] = built(member.spec)
        except CutError:
            raise SpecError("no_shape", (member.name,)) from None
        except SpecError as error:
            raise told(error, spec, member.name) from error
    at = heights(spec)
    solids = {member.name: solids_of(member.spec) for member in spec.members}
    findings = bearing_findings(spec, solids, at) if len(spec.members) > 1 else []
    for name, whole in wholes.items():
        for finding in whole.findings:
            if finding.code == "legs_loose" and spec.pieces:
                continue
            if finding.code in SAID_ONCE and any(finding.code == other.code for other in findings):
                continue
            findings.append(replace(finding, parts=tuple(f"{name}/{part}" for part in finding.parts)))
    boards = [_lifted(board, name, at[name]) for name, whole in wholes.items() for board in whole.boards]
    added = add_pieces(spec.pieces, boards)
    return Assembly(
        boards=(*boards, *added.boards),
        joints=(*(_joint(joint, name) for name, whole in wholes.items() for joint in whole.joints), *added.joints),
        outlines=(),
        claims=tuple(_claim(claim, spec, member) for member in spec.members for claim in wholes[member.name].claims),
        rings=tuple(
            Ring(tuple(f"{name}/{id}" for id in ring.boards), ring.closed)
            for name, whole in wholes.items()
            for ring in whole.rings
        ),
        findings=tuple(findings),
        inside=wholes,
    )


def _lifted(board: Board, name: str, by: float) -> Board:
    x, y, z = board.frame.origin
    return replace(board, id=f"{name}/{board.id}", frame=replace(board.frame, origin=(x, y, z + by)))


def _joint(joint: Joint, name: str) -> Joint:
    def named(mating: Mating) -> Mating:
        return Mating(f"{name}/{mating.board}", mating.facet, tuple(f"{name}/{id}" for id in mating.beside))

    ends = tuple((f"{name}/{id}", end) for id, end in joint.ends)
    return replace(joint, id=f"{name}/{joint.id}", a=named(joint.a), b=named(joint.b), ends=ends)


def _claim(claim: Claim, spec: TogetherSpec, member: Member) -> Claim:
    i = spec.members.index(member)
    return replace(claim, measure=f"{member.name}/{claim.measure}", field=f"members.{i}.spec.{claim.field}")

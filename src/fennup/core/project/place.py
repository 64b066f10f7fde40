"""From a project's spec to one assembly: sizes settled in the order of the links, assemblies set one on another, pieces added."""

from contextlib import suppress
from dataclasses import dataclass, field, replace
from functools import lru_cache
from typing import Any

from pydantic import ValidationError

from fennup.core.assembly.model import Assembly, Claim, Finding, Joint, Mating, Ring, SubAssembly
from fennup.core.drawing.edit import Give
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.vec import dot
from fennup.core.kinds.catalogue import KINDS
from fennup.core.kinds.fields import pin
from fennup.core.kinds.registry import Kind
from fennup.core.kinds.sizing import pins_in
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid, as_board, solids_of_all
from fennup.core.project.bearing import bearing_findings
from fennup.core.project.pieces import add_pieces
from fennup.core.project.spec import Link, ProjectSpec
from fennup.core.project.stance import UP, Stance, Under, face_under, points_of, stance_of
from fennup.core.units.lengths import tape

MM = tape("mm", "1")
MOST_KEPT = 128


@dataclass(frozen=True)
class OneMember:
    """A member's settled spec, told from another by what is in it: links, heights and drawings ask for its assembly again and
    again, and a change leaves most of several as they were."""

    text: str
    spec: Any = field(compare=False)

    @property
    def kind(self) -> Kind:
        """What kind it is of."""
        return KINDS[self.spec.kind]


def one_member(spec: Any) -> OneMember:
    """A member's settled spec, to ask for what follows from it."""
    return OneMember(spec.model_dump_json(), spec)


@lru_cache(maxsize=MOST_KEPT)
def assembly_of(one: OneMember) -> Assembly:
    """One member's own assembly, its boards called as its kind calls them."""
    return one.kind.assemble(one.spec)


@lru_cache(maxsize=MOST_KEPT)
def solids_of(one: OneMember) -> dict[str, Solid]:
    """One member's own solids."""
    return solids_of_all(assembly_of(one).boards)


def refused_within(error: SpecError, id: str) -> SpecError:
    """One member's refusal, its fields and measures named within the project."""
    data = dict(error.data)
    if isinstance(data.get("measure"), str):
        data["measure"] = f"{id}/{data['measure']}"
    others = data.get("others")
    if isinstance(others, tuple):
        data["others"] = tuple((f"{id}/{measure}", value, f"members.{id}.spec.{field}") for measure, value, field in others)
    return type(error)(error.code, tuple(f"members.{id}.spec.{field}" for field in error.fields), **data)


def settle(spec: ProjectSpec) -> ProjectSpec:
    """Every member with its sizes where its pins and its links put them. SpecError names the member's field."""
    settled: dict[str, Any] = {}
    for id in spec.order():
        own = spec.members[id].spec
        for k, link in enumerate(spec.links):
            if link.of == id:
                try:
                    source = assembly_of(one_member(settled[link.after]))
                except SpecError as error:
                    raise refused_within(error, link.after) from error
                own = _following(own, link, k, source)
        try:
            settled[id] = KINDS[own.kind].settle(own)
        except SpecError as error:
            raise refused_within(error, id) from error
    members = {id: member.model_copy(update={"spec": settled[id]}) for id, member in spec.members.items()}
    return spec.model_copy(update={"members": members})


def free_sizes(spec: ProjectSpec) -> tuple[str, ...]:
    """The sizes of a settled project's members that nothing settles."""
    return tuple(
        f"{id}/{name}" for id, member in spec.members.items() for name in KINDS[member.spec.kind].free_sizes(member.spec)
    )


def _following(own: Any, link: Link, k: int, source: Assembly) -> Any:
    """The spec with the linked size given as the other member measures it. SpecError `cannot_measure`."""
    value = Ruler(source).measure(link.source)
    if value is None:
        raise SpecError("cannot_measure", (f"links.{k}.source",))
    said = {given.measure: given.suggested for given in own.given_pins()}
    if link.measure not in said and any(said.values()):
        # The kind says itself which suggestion gives way to a size that is given.
        give = Give(op="give", measure=link.measure, text=f"{value + link.plus_mm!r} mm")
        return _limited(type(own), KINDS[own.kind].edit(own, give, MM), link, k, value)
    made = pin(link.measure, value + link.plus_mm).model_dump(mode="json")
    pins = pins_in(own)
    place = next((i for i, p in enumerate(pins) if p["measure"] == link.measure), len(pins))
    document = own.model_dump(mode="json") | {"pins": [*pins[:place], made, *pins[place + 1 :]]}
    return _limited(type(own), document, link, k, value)


def _limited(model: Any, document: dict[str, Any], link: Link, k: int, value: float) -> Any:
    """The linked member's spec. SpecError `measure_impossible` where the link makes a figure go out of its limits."""
    try:
        return model.model_validate(document)
    except ValidationError:
        size = f"{link.of}/{link.measure}"
        raise SpecError("measure_impossible", (f"links.{k}.plus_mm",), measure=size, value=value + link.plus_mm) from None


def stances(spec: ProjectSpec) -> dict[str, Stance]:
    """How every member of a settled project stands: on the ground at its own 0, on another one with its lowest wood, on the side and
    turned as is said. SpecError `no_such_rest`, `not_a_rest`."""
    found: dict[str, Stance] = {}
    for id, member in spec.members.items():
        plain = member.on is None and member.down is None and not member.turned_deg
        if plain:
            found[id] = Stance(shift=(member.right_mm, member.back_mm, member.up_mm))
            continue
        own, under = solids_of(one_member(member.spec)), None
        if member.on is not None:
            bearer = solids_of(one_member(spec.members[member.on].spec))
            if member.upon is not None:
                under = face_under(bearer, found[member.on], member.upon, f"members.{id}.upon")
            else:
                stance = found[member.on]
                under = Under(Plane(UP, max(dot(stance.place(p), UP) for p in points_of(bearer))))
        found[id] = stance_of(member, own, under, f"members.{id}")
    return found


def assemble(spec: ProjectSpec) -> Assembly:
    """A settled project as one assembly: boards, joints and sizes are called by their member's id and their own key, `m1/AB`."""
    members, solids = {}, {}
    for id, member in spec.members.items():
        one = one_member(member.spec)
        try:
            members[id] = assembly_of(one)
            if len(spec.members) > 1 or member.down is not None:
                solids[id] = solids_of(one)
        except CutError:
            raise SpecError("no_shape", (f"members.{id}.spec",)) from None
        except SpecError as error:
            raise refused_within(error, id) from error
    at = stances(spec)
    boards = [at[id].board(board, f"{id}/{board.id}") for id, own in members.items() for board in own.boards]
    added = add_pieces(spec.pieces, boards)
    return Assembly(
        boards=tuple(added.drilled(board) for board in (*boards, *added.boards)),
        joints=(*(_joint(joint, id) for id, own in members.items() for joint in own.joints), *added.joints),
        outlines=(),
        claims=tuple(_claim(claim, id) for id, own in members.items() for claim in own.claims),
        rings=tuple(
            Ring(tuple(f"{id}/{board}" for board in ring.boards), ring.closed)
            for id, own in members.items()
            for ring in own.rings
        ),
        findings=(*_findings(spec, members, bearing_findings(spec, _standing(solids, at)) if solids else []), *added.findings),
        inside=members,
        subassemblies=tuple(
            SubAssembly(part.name, tuple(f"{id}/{board}" for board in part.boards))
            for id, own in members.items()
            for part in own.subassemblies
        ),
    )


def solids_in(spec: ProjectSpec, assembly: Assembly) -> dict[str, Solid]:
    """The solids of a settled project's members, as they stand in its assembly; without its pieces."""
    found: dict[str, Solid] = {}
    for id, member in spec.members.items():
        with suppress(CutError):  # whoever cuts that board next says which
            own = solids_of(one_member(member.spec))
            found |= {key: as_board(solid, assembly.board(key)) for board, solid in own.items() if (key := f"{id}/{board}")}
    return found


def _standing(solids: dict[str, dict[str, Solid]], at: dict[str, Stance]) -> dict[str, list[Solid]]:
    """Every member's solids where it stands."""
    return {
        id: [as_board(solid, at[id].board(solid.board, solid.board.id)) for solid in own.values()] for id, own in solids.items()
    }


def _findings(spec: ProjectSpec, members: dict[str, Assembly], found: list[Finding]) -> list[Finding]:
    """What the kinds say of their own, each general caution once, named within the project."""
    for id, own in members.items():
        for finding in own.findings:
            if finding.code == "legs_loose" and spec.pieces:
                continue
            if finding.severity == "standing" and any(finding.code == other.code for other in found):
                continue
            parts, fields = (f"{id}/{part}" for part in finding.parts), (f"members.{id}.spec.{f}" for f in finding.fields)
            found.append(replace(finding, parts=tuple(parts), fields=tuple(fields)))
    return found


def _joint(joint: Joint, id: str) -> Joint:
    def named(mating: Mating) -> Mating:
        return Mating(f"{id}/{mating.board}", mating.facet, tuple(f"{id}/{board}" for board in mating.beside))

    ends = tuple((f"{id}/{board}", end) for board, end in joint.ends)
    return replace(joint, id=f"{id}/{joint.id}", a=named(joint.a), b=named(joint.b), ends=ends)


def _claim(claim: Claim, id: str) -> Claim:
    return replace(claim, measure=f"{id}/{claim.measure}", field=f"members.{id}.spec.{claim.field}")

"""What somebody should know before cutting: collected here from every stage, worded elsewhere."""

from collections.abc import Iterator

from fennup.core.assembly.model import Assembly, Claim, Finding
from fennup.core.parts.alike import PartGroup
from fennup.core.parts.solid import Solid
from fennup.core.saw.settings import Setting
from fennup.core.saw.ways import SHORTEST_SAFE_MM
from fennup.core.stock.lip import lip_of
from fennup.core.stock.ploughed import Groove, Ploughed, Rabbet, Tongue
from fennup.core.stock.section import Section
from fennup.core.tolerances import NOTHING
from fennup.core.verify.closing import Closing
from fennup.core.verify.joints import JointCheck

CLAIM_KEPT = 1e-6
THINNEST_LIP_MM = 3.0
MEANT = {
    "": "rabbets_miss",
    "square_edges": "square_edges_miss",
    "own_rims": "rims_apart",
    "past_plate": "seat_past_plate",
    "raked": "raked_miss",
}


def findings_of(
    assembly: Assembly,
    solids: dict[str, Solid],
    parts: tuple[PartGroup, ...],
    joints: tuple[JointCheck, ...],
    claims: list[tuple[Claim, float | None]],
    settings: tuple[Setting, ...],
    closing: Closing,
    allowance_mm: float,
) -> tuple[Finding, ...]:
    """All findings, the gravest first, otherwise in the order of the work."""
    found = [*assembly.findings]
    for joint, check in zip(assembly.joints, joints, strict=False):
        if check.closes:
            continue
        if joint.kind == "butt" and check.reaches_past:
            found.append(Finding("reaches_past", "error", (joint.a.board, joint.b.board), value=check.bare_mm))
        else:
            value = max(check.gap_mm, check.overlap_mm, check.bare_mm)
            found.append(Finding("joint_open", "error", (check.joint,), value=value))
    found += _bare_by_design(assembly, joints)
    for claim, measured in claims:
        if measured is not None and abs(measured - claim.asked) > CLAIM_KEPT * max(1.0, claim.asked):
            code = "claim_missed" if claim.unit == "mm" else "angle_missed"
            found.append(Finding(code, "error", (), (claim.field,), measured, claim.asked))
    found += _out_of_reach(settings)
    panels = {board.id for board in assembly.boards if board.panel}
    for part in parts:
        low, high = solids[part.id].extent_x()
        if high - low < SHORTEST_SAFE_MM and part.id not in panels:
            found.append(Finding("short_part", "warning", (part.id,), value=high - low, limit=SHORTEST_SAFE_MM))
    found += _thin_lips(assembly)
    if closing.state == "opens" and closing.widest_mm > allowance_mm:
        found.append(_opens_wide(closing, allowance_mm))
    order = {"error": 0, "warning": 1, "note": 2, "standing": 3}
    return tuple(sorted(found, key=lambda f: order[f.severity]))


def _opens_wide(closing: Closing, allowance_mm: float) -> Finding:
    """More than the project lets pass, and at which joint."""
    last = closing.adding_up
    joint = last.joint if last and max(last.opening_mm, last.step_mm) == closing.widest_mm else None
    joint = joint or (closing.by_itself.joint if closing.by_itself else "")
    return Finding("opens_wide", "warning", (joint,), (), closing.widest_mm, allowance_mm)


def _bare_by_design(assembly: Assembly, joints: tuple[JointCheck, ...]) -> list[Finding]:
    """Joints that only the design leaves bare, together where it is for one reason and by the same width."""
    widths: dict[tuple[str, float], list[str]] = {}
    for joint, check in zip(assembly.joints, joints, strict=False):
        if check.closes and check.by_design and check.bare_mm > 0:
            code = MEANT[joint.bare_for]
            part = joint.a.board if joint.bare_for == "past_plate" else check.joint
            widths.setdefault((code, round(check.bare_mm, 6)), []).append(part)
    return [Finding(code, "note", tuple(names), value=width) for (code, width), names in widths.items()]


def _thin_lips(assembly: Assembly) -> list[Finding]:
    """What is left of a board beside and under what is ploughed along it, where that is little: boards with as much together."""
    lips: dict[tuple[str, float], list[str]] = {}
    for board in assembly.boards:
        here = {(code, round(lip, 9)) for cut in board.section.ploughed for code, lip in _left(cut, board.section)}
        for code, lip in sorted(here):
            if lip < THINNEST_LIP_MM:
                lips.setdefault((code, lip), []).append(board.id)
    return [Finding(code, "warning", tuple(ids), (), lip, THINNEST_LIP_MM) for (code, lip), ids in lips.items()]


def _left(cut: Ploughed, section: Section) -> Iterator[tuple[str, float]]:
    """The thin walls that something ploughed leaves, with what to say of them."""
    wide, thick = section.width_mm, section.thickness_mm
    if isinstance(cut, Rabbet):
        lip = lip_of(section) if cut is section.rabbet else None
        yield from (
            ("thin_lip", wide - cut.width_mm),
            ("thin_lip", min(thick - cut.depth_mm, lip.least_mm) if lip else thick - cut.depth_mm),
        )
    elif isinstance(cut, Groove):
        long, deep = (wide, thick) if cut.side in ("face", "back") else (thick, wide)
        walls = (cut.from_mm, long - cut.from_mm - cut.width_mm, deep - cut.depth_mm)
        yield from (("thin_left", wall) for wall in walls if wall > NOTHING)
    elif isinstance(cut, Tongue):
        yield "thin_left", cut.thickness_mm


def _out_of_reach(settings: tuple[Setting, ...]) -> list[Finding]:
    """Settings that the saw cannot be turned or tilted to, and boards that it does not take, with what is in the way."""
    found = []
    for setting in settings:
        for miss in setting.misses:
            parts = tuple(dict.fromkeys(use.part for use in setting.uses if miss in use.way.misses))
            found.append(Finding(miss.code, "warning", parts, (), miss.needs, miss.has))
    return found

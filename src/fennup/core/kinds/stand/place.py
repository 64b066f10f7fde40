"""A stand as boards, cut planes, joints, gauges and claims. It places; it computes no setting and no length."""

from collections.abc import Sequence
from itertools import combinations, pairwise

from fennup.core.assembly.board import Board
from fennup.core.assembly.model import Assembly, Finding, Gauge, Joint, Mating, Spot
from fennup.core.errors import CutError, SpecError
from fennup.core.geometry.plane import Plane
from fennup.core.geometry.polyhedron import shared_volume
from fennup.core.geometry.vec import Vec, unit
from fennup.core.kinds.fields import LONGEST_MM
from fennup.core.kinds.inner import Added
from fennup.core.kinds.stand.between import add_beam, add_braces, add_rails, add_ring, add_top, feet_of, top_plate
from fennup.core.kinds.stand.sides import IN_FRONT, UP, Flank, flanks_of, foot_of, head_of, leg_at, seam
from fennup.core.kinds.stand.spec import Four, Pairs, Round, StandSpec
from fennup.core.parts.solid import solid_of

X: Vec = (1.0, 0.0, 0.0)
Y: Vec = (0.0, 1.0, 0.0)
DOWN: Vec = (0.0, 0.0, -1.0)
OUT: Vec = (0.0, -1.0, 0.0)
SHARED_MM3 = 1e-3
FOUND_MM = 1e-7  # how exactly the size is found at which two legs touch


def assemble(spec: StandSpec) -> Assembly:
    """Boards and joints of a stand. SpecError when none answers to the spec."""
    flanks, legs = flanks_of(spec), _legs(spec)
    _check_apart(spec, legs)
    added = Added()
    plan = spec.plan
    if isinstance(plan, Pairs):
        _join_pairs(spec, plan, legs, added)
    for k, row in enumerate(spec.rails):
        add_rails(spec, row, k, flanks, legs, added)
    for k, hoop in enumerate(spec.rings):
        add_ring(spec, hoop, k, flanks, legs, added)
    if spec.braces:
        add_braces(spec, spec.braces, flanks, legs, added)
    if spec.top:
        add_top(spec, spec.top, flanks, legs, added)
    return Assembly(
        boards=(*legs, *added.boards),
        joints=tuple(added.joints),
        outlines=(),
        claims=spec.claims(),
        rings=tuple(added.rings),
        findings=_findings(spec),
        gauges=(*gauges_of(spec, legs), *_set_by(spec, flanks, legs)),
    )


def _set_by(spec: StandSpec, flanks: Sequence[Flank], legs: Sequence[Board]) -> list[Gauge]:
    """Sizes of rails and rings that say how high they are."""
    foot = Spot(spec.legs[0], foot_of(legs[0]))
    made = []
    for k, row in enumerate(spec.rails):
        edge = Spot(f"rail {spec.chosen(row.sides)[0]}{k + 1}", "middle", "upper", "face")
        made.append(Gauge(f"upper_edge:{k + 1}", foot, edge, "along", UP, sets=f"rails.{k}.height_mm"))
    for low, high in pairwise(sorted(range(len(spec.rails)), key=lambda k: spec.rails[k].height_mm)):
        sides = set(spec.chosen(spec.rails[low].sides)) & set(spec.chosen(spec.rails[high].sides))
        if sides and spec.rails[low].outside == spec.rails[high].outside:
            under, over = (f"rail {min(sides)}{k + 1}" for k in (low, high))
            between = (Spot(under, "middle", "upper", "face"), Spot(over, "middle", "lower", "face"))
            made.append(Gauge(f"spacer:{low + 1}-{high + 1}", *between, sets=f"rails.{high}.height_mm"))
    for k, hoop in enumerate(spec.rings):
        sets = f"rings.{k}.height_mm" if hoop.moves == "ring" else ""
        for flank in flanks[: 2 if spec.sides == 4 else 1]:
            board = f"ring {flank.letter}{k + 1}"
            ends = (Spot(board, "left", "lower", "face"), Spot(board, "right", "lower", "face"))
            made.append(Gauge(f"ring_outside:{flank.letter}{k + 1}", *ends, sets=sets))
    return made


def shell(spec: StandSpec) -> Assembly:
    """The legs, and the plate on them: enough to take every size on."""
    legs = _legs(spec)
    flanks = flanks_of(spec)
    plate = (top_plate(spec, spec.top, flanks, legs),) if spec.top else ()
    asked = {pin.measure.partition(":")[2] for pin in spec.pins or () if pin.measure.startswith("ring_outside:")}
    held = Added()
    for k, hoop in enumerate(spec.rings):
        if any(which[1:] == str(k + 1) for which in asked):
            add_ring(spec, hoop, k, flanks, legs, held)
    sizes = [
        gauge
        for gauge in _set_by(spec, flanks, legs)
        if gauge.name.partition(":")[2] in asked and gauge.a.board.startswith("ring")
    ]
    return Assembly((*legs, *plate, *held.boards), (), (), (), (), (), (*gauges_of(spec, legs), *sizes))


def _legs(spec: StandSpec) -> list[Board]:
    """The legs, foot and head cut: level, or plumb where a pair meets."""
    flanks = flanks_of(spec)
    legs = feet_of([leg_at(spec, flanks, i) for i in range(spec.sides)])
    made = []
    for leg in legs:
        head = Plane(UP, spec.height_mm)
        if isinstance(spec.plan, Pairs):
            half = spec.plan.beam.thickness_mm / 2 if spec.plan.beam else 0.0
            head = Plane(Y if leg.id in IN_FRONT else OUT, -half)
        made.append(leg.with_cut(head_of(leg), head))
    return made


def _check_apart(spec: StandSpec, legs: list[Board]) -> None:
    """SpecError `legs_cross` where two legs would stand in one another."""
    try:
        solids = [solid_of(leg).world[0] for leg in legs]
    except CutError:
        raise SpecError("legs_nothing", ("height_mm",)) from None
    for (i, a), (j, b) in combinations(enumerate(solids), 2):
        if shared_volume(a, b) > SHARED_MM3:
            if isinstance(spec.plan, Round):
                name = "top_side"
            else:
                # AB and BC stand one behind the other, AB and DA side by side.
                behind = {i, j} in ({0, 1}, {2, 3}) and isinstance(spec.plan, Four)
                name = "top_depth" if behind else "top_width"
            field = spec.field_of(name, f"plan.{name}_mm")
            limit = _touch_mm(spec, i, j, name)
            raise SpecError("legs_cross", (field,), part=legs[i].name, other=legs[j].name, limit_mm=limit, measure=name)


def _touch_mm(spec: StandSpec, i: int, j: int, name: str) -> float:
    """The size at the top at which two legs just touch, all else as it is: by halving."""

    def apart(size: float) -> bool:
        wider = spec.model_copy(update={"plan": spec.plan.model_copy(update={f"{name}_mm": size})})
        a, b = (solid_of(leg).world[0] for leg in (_legs(wider)[k] for k in (i, j)))
        return shared_volume(a, b) <= SHARED_MM3

    low: float = getattr(spec.plan, f"{name}_mm")
    high = low + 2 * (spec.leg.width_mm + spec.leg.thickness_mm)
    while not apart(high) and high < LONGEST_MM:
        high *= 2
    while high - low > FOUND_MM:
        middle = (low + high) / 2
        low, high = (low, middle) if apart(middle) else (middle, high)
    return high


def _join_pairs(spec: StandSpec, plan: Pairs, legs: list[Board], added: Added) -> None:
    """Head against head, or both against the beam."""
    if plan.beam:
        add_beam(spec, plan.beam, plan.top_width_mm / 2, legs, added)
        return
    for a, b in ((legs[0], legs[1]), (legs[3], legs[2])):
        ends = ((a.id, head_of(a)), (b.id, head_of(b)))
        heads = [Mating(id, f"{end}:0") for id, end in ends]
        added.joints.append(Joint(f"{a.id}/{b.id}", "miter", heads[0], heads[1], ends))


def gauges_of(spec: StandSpec, boards: Sequence[Board]) -> tuple[Gauge, ...]:
    """Height, top, feet and splay, taken on the legs' outer lines."""
    middle = isinstance(spec.plan, Round) and spec.roll == "even"
    legs = {leg.id: leg for leg in boards}

    def at(id: str, where: str) -> Spot:
        end = head_of(legs[id]) if where == "head" else foot_of(legs[id])
        return Spot(id, end, "middle" if middle else "lower", "face")

    first = spec.legs[0]
    last = spec.legs[-1]
    height = Gauge("height", at(last, "foot"), at(last, "head"), "along", UP)
    length = Gauge("leg_length", at(first, "foot"), at(first, "head"))
    lean = Gauge("true_lean", at(first, "head"), at(first, "foot"), "lean", DOWN)
    if isinstance(spec.plan, Round):
        second = spec.legs[1]
        sides = (Gauge(f"{name}_side", at(first, where), at(second, where)) for name, where in _PLACES)
        here, after, *_ = flanks_of(spec)
        foot, head = seam(here, after, spec.height_mm)
        level = unit((head[0] + foot[0], head[1] + foot[1], 0.0))
        lean = Gauge("true_lean", at(first, "head"), at(first, "foot"), "angle", DOWN, level)
        return (height, *sides, lean, length)
    made = [height]
    for name, where in _PLACES:
        made.append(Gauge(f"{name}_width", at("DA", where), at("AB", where), "along", X))
        if isinstance(spec.plan, Four) or name == "foot":
            made.append(Gauge(f"{name}_depth", at("AB", where), at("BC", where), "along", Y))
    if spec.top:
        made.append(Gauge("plate_width", Spot("top", "left"), Spot("top", "right"), "along", X))
        made.append(Gauge("plate_depth", Spot("top", "middle", "lower"), Spot("top", "middle", "upper"), "along", Y))
    made.append(Gauge("foot_diagonal", at("DA", "foot"), at("BC", "foot")))
    made.append(Gauge("other_foot_diagonal", at("CD", "foot"), at("AB", "foot")))
    for name, low, high in (("front", "DA", "AB"), ("side", "AB", "BC")):
        made.append(Gauge(f"crosswise_{name}", at(low, "foot"), at(high, "head")))
    made += _feet(legs)
    if spec.measured_at_mm is not None:
        asked = f"level:{spec.measured_at_mm!r}"
        for name, ids, way in (("width", ("DA", "AB"), X), ("depth", ("AB", "BC"), Y)):
            a, b = (Spot(id, asked, "lower", "face") for id in ids)
            made.append(Gauge(f"{name}_there", a, b, "along", way))
    for name, out in (("front", X), ("side", OUT)):
        made.append(Gauge(f"{name}_splay", at("AB", "head"), at("AB", "foot"), "angle", DOWN, out))
        made.append(Gauge(f"{name}_offset", at("AB", "head"), at("AB", "foot"), "along", out))
    return (*made, lean, length)


def _feet(legs: dict[str, Board]) -> list[Gauge]:
    """From middle to middle of the feet: across, front to back, and crosswise."""
    middle = {id: Spot(id, foot_of(leg)) for id, leg in legs.items()}
    return [
        Gauge("feet_across", middle["DA"], middle["AB"], "along", X),
        Gauge("feet_deep", middle["AB"], middle["BC"], "along", Y),
        Gauge("feet_crosswise", middle["DA"], middle["BC"]),
    ]


_PLACES = (("top", "head"), ("foot", "foot"))


def _findings(spec: StandSpec) -> tuple[Finding, ...]:
    """What only the kind knows: that nothing holds the legs yet, and who judges what it carries."""
    held = spec.rails or spec.rings or spec.braces or spec.top or isinstance(spec.plan, Pairs)
    loose = () if held else (Finding("legs_loose", "warning", (), ("rails",)),)
    return (*loose, Finding("stand_load", "standing"))

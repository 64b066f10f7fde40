"""What there is to decide about a brace, in the order in which one decides it."""

from fennup.core.drawing.view import Control
from fennup.core.kinds.asking import Answers, choice, figure, one_of, with_or_without
from fennup.core.kinds.brace.spec import Between, BraceSpec, Knee, Prop, Treads

BY = {
    "knee": ("lower", "centre", "upper"),
    "prop": ("lower", "centre", "upper"),
    "between": ("lower", "centre", "upper", "corners", "pocket"),
}


def controls_of(spec: BraceSpec) -> tuple[Control, ...]:
    """How it is measured, its board, the members, and what goes with it."""
    place = spec.place
    ways = BY[place.form]
    if isinstance(place, Between) and place.crossing:
        ways = ways[:4]
    knee = "knee_" if isinstance(place, Knee) else ""
    controls = [
        one_of(
            "measured_on", "outline", "by", {f"{knee if by in ('lower', 'upper') else ''}by_{by}": by for by in ways}, spec.by
        ),
        figure("width", "board", spec.width_mm, "width_mm"),
        figure("thickness", "board", spec.thickness_mm, "thickness_mm"),
        figure("member", "there", spec.member_mm, "member_mm"),
    ]
    if isinstance(place, Between):
        usual = {"start_mm": place.rise_mm, "rise_mm": -place.rise_mm, "width_mm": spec.width_mm}
        ask = with_or_without("second_brace", "outline", "place.crossing", ("one_brace", "two_braces"), usual, place.crossing)
        if spec.by != "pocket":
            controls.append(ask)
        if place.crossing:
            controls.append(figure("second_width", "board", place.crossing.width_mm, "place.crossing.width_mm"))
    if isinstance(place, Prop):
        controls.append(figure("ground_tilt", "there", place.ground_deg, "place.ground_deg", "deg"))
        controls.append(figure("wall_tilt", "there", place.wall_deg, "place.wall_deg", "deg"))
        steps = {"count": 5, "thickness_mm": spec.thickness_mm, "clear_mm": 12 * spec.thickness_mm}
        controls.append(with_or_without("treads", "outline", "place.treads", ("no_treads", "with_treads"), steps, place.treads))
        if place.treads:
            controls += _rises(place)
            controls.append(figure("tread_clear", "outline", place.treads.clear_mm, "place.treads.clear_mm"))
            tall = place.wall_height_mm / (place.treads.count + 1) / 3
            now = place.treads.box_mm
            controls.append(with_or_without("boxes", "outline", "place.treads.box_mm", ("bare_treads", "with_boxes"), tall, now))
            if now is not None:
                controls.append(figure("box_height", "outline", now, "place.treads.box_mm"))
            controls.append(figure("tread_thickness", "board", place.treads.thickness_mm, "place.treads.thickness_mm"))
            controls += _own_depth(spec, place.treads)
        sill = {"out_mm": spec.width_mm / 3, "under_mm": place.wall_height_mm}
        controls.append(with_or_without("sill", "there", "place.sill", ("no_sill", "under_a_sill"), sill, place.sill))
        if place.sill:
            controls.append(figure("sill_out", "there", place.sill.out_mm, "place.sill.out_mm"))
            controls.append(figure("sill_under", "there", place.sill.under_mm, "place.sill.under_mm"))
    return tuple(controls)


def _own_depth(spec: BraceSpec, treads: Treads) -> list[Control]:
    """Treads flush with the uprights, or of a depth and slopes of their own; cleats where the uprights end."""
    path = "place.treads"
    ways = ("treads_flush", "treads_deeper")
    made = [with_or_without("tread_depth", "outline", f"{path}.deep_mm", ways, 1.5 * spec.width_mm, treads.deep_mm)]
    if treads.deep_mm is not None:
        made.append(figure("tread_deep", "outline", treads.deep_mm, f"{path}.deep_mm"))
        made.append(figure("tread_proud", "outline", treads.proud_mm, f"{path}.proud_mm"))
        made.append(figure("tread_front", "outline", treads.front_deg, f"{path}.front_deg", "deg"))
        made.append(figure("tread_back", "outline", treads.back_deg, f"{path}.back_deg", "deg"))
    cleats = treads.cleats
    usual = {"width_mm": spec.width_mm / 2, "thickness_mm": treads.thickness_mm}
    made.append(with_or_without("cleats", "between", f"{path}.cleats", ("no_cleats", "with_cleats"), usual, cleats))
    if cleats:
        made.append(figure("cleat_width", "between", cleats.width_mm, f"{path}.cleats.width_mm"))
        made.append(figure("cleat_thickness", "between", cleats.thickness_mm, f"{path}.cleats.thickness_mm"))
        places: dict[str, object] = {f"cleats_{at}": at for at in ("ground", "wall", "both")}
        made.append(one_of("cleats_at", "between", f"{path}.cleats.at", places, cleats.at))
    return made


def _rises(place: Prop) -> list[Control]:
    """How many treads, at even rises; or each at a height of its own."""
    treads = place.treads
    assert treads is not None
    even = [place.wall_height_mm * (i + 1) / (treads.count + 1) for i in range(treads.count)]
    tops = list(treads.tops_mm)
    answers: Answers = {"even_rises": ([], not tops), "own_heights": (tops or even, bool(tops))}
    made = [choice("tread_rises", "outline", "place.treads.tops_mm", answers)]
    if not tops:
        return [*made, figure("tread_count", "outline", float(treads.count), "place.treads.count", "count")]
    made += [figure("tread_top", "outline", top, f"place.treads.tops_mm.{k}", about=str(k + 1)) for k, top in enumerate(tops)]
    more: Answers = {"one_tread_more": ([*tops, tops[-1] + (tops[-1] - tops[-2] if len(tops) > 1 else tops[-1])], False)}
    if len(tops) > 1:
        more["one_tread_less"] = (tops[:-1], False)
    return [*made, choice("more_treads", "outline", "place.treads.tops_mm", more)]

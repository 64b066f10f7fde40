"""Drawings and controls with their words."""

from collections.abc import Mapping

from fennup.app.schemas.sheet import ControlOut, DimensionOut, GripOut, OptionOut, ViewOut
from fennup.app.wording.figures import Voice
from fennup.app.wording.grips import grip_name
from fennup.app.wording.labels import GROUPS, VIEWS, VIEWS_SHORT, Naming, label, own_label
from fennup.core.drawing.view import Control, Dimension, View
from fennup.core.parts.measures import measure_of

NUMBERED = (
    "corner",
    "wall_corner",
    "wall_corner_deg",
    "rises",
    "tread_top",
    "shelf_height",
    "shelf_thickness",
    "shelf_from",
    "strip_rail_height",
    "knot",
    "knot_from",
    "knot_to",
    "found_length",
    "found_count",
    "found_away",
)


def _label(c: Control, naming: Naming) -> str:
    """What a control is called; which one of several it is for."""
    if c.code == "linked":
        size, source = c.about.split()
        words = own_label(size, naming)
        whose = naming.called(measure_of(source).member)
        return f"{words[:1].upper()}{words[1:]}: as {whose} is, {own_label(source, naming)}"
    if c.code.startswith("follows"):
        return f"{label(c.code)}: {own_label(c.about, naming)}"
    if c.code == "named_size":
        return c.about
    if c.code == "named_away":
        return f"{label(c.code)} {c.about}"
    if c.code in NUMBERED:
        return f"{label(c.code)} {c.about}"
    return f"{label(c.code, naming)}, {c.about}" if c.about and c.group != "part" else label(c.code, naming)


def view_out(view: View, voice: Voice, naming: Naming | None = None) -> ViewOut:
    """A drawing with its figures worded."""
    naming = naming or voice.naming
    return ViewOut(
        id=view.id,
        title=VIEWS.get(view.id, view.id),
        short=VIEWS_SHORT.get(view.id, ""),
        shapes=list(view.shapes),
        marks=list(view.marks),
        dimensions=[_dimension(d, voice, naming) for d in view.dimensions],
        grips=[GripOut(id=g.id, name=grip_name(g.id, naming), at=g.at, along=g.along) for g in view.grips],
    )


def named(view: ViewOut, names: Mapping[str, str]) -> ViewOut:
    """A drawing whose figures are called by something, without words at them."""
    return view.model_copy(update={"dimensions": [d.model_copy(update={"name": names.get(d.id, "")}) for d in view.dimensions]})


def _dimension(d: Dimension, voice: Voice, naming: Naming) -> DimensionOut:
    figure = voice.with_sum(voice.of(d.value, d.unit, d.standing), d.sum)
    called = label(d.label, naming) if d.label else ""
    return DimensionOut(
        id=d.id,
        label=f"{called} = {figure.sum}" if figure.sum else called,
        figure=figure,
        a=d.a,
        b=d.b,
        unit=d.unit,
        standing=d.standing,
        away=d.away,
        lane=d.lane,
        about=d.about,
        at=d.at,
        acts=d.acts,
        can_free=d.can_free,
    )


def control_out(c: Control, voice: Voice) -> ControlOut:
    """Something to decide, worded."""
    naming = voice.naming
    owner, _, group = c.group.rpartition("/")
    return ControlOut(
        id=":".join(name for name in (c.group if "/" in c.group else "", c.code, c.about) if name),
        label=_label(c, naming),
        group=group,
        group_label=GROUPS[group],
        whose=naming.whose(owner) if owner else "",
        about=c.about,
        options=[
            OptionOut(
                code=o.code,
                label=label(o.code, naming),
                acts=list(o.acts),
                chosen=o.chosen,
                picture=view_out(o.picture, voice) if o.picture else None,
            )
            for o in c.options
        ],
        figure=voice.with_sum(voice.of(c.value, c.unit, c.standing), c.sum) if c.value is not None and c.unit else None,
        unit=c.unit,
        acts=c.acts,
        style=c.style,
        standing=c.standing,
    )

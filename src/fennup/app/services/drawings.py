"""Drawings and controls with their words."""

from fennup.app.schemas.sheet import ControlOut, DimensionOut, OptionOut, ViewOut
from fennup.app.wording.figures import Voice
from fennup.app.wording.labels import GROUPS, VIEWS, VIEWS_SHORT, Counts, label
from fennup.core.drawing.view import Control, Dimension, View


def _label(c: Control) -> str:
    """What a control is called; which one of several it is for."""
    if c.code.startswith("follows"):
        return f"{label(c.code)}: {label(c.about.partition('/')[2])}"
    if c.code in NUMBERED:
        return f"{label(c.code)} {c.about}"
    return f"{label(c.code)}, {c.about}" if c.about and c.group != "part" else label(c.code)


NUMBERED = ("corner", "shelf_height", "shelf_thickness")


def view_out(view: View, voice: Voice, sides: Counts = 4) -> ViewOut:
    """A drawing with its figures worded."""
    return ViewOut(
        id=view.id,
        title=VIEWS.get(view.id, view.id),
        short=VIEWS_SHORT.get(view.id, ""),
        shapes=list(view.shapes),
        marks=list(view.marks),
        dimensions=[_dimension(d, voice, sides) for d in view.dimensions],
        grips=list(view.grips),
    )


def _dimension(d: Dimension, voice: Voice, sides: Counts) -> DimensionOut:
    return DimensionOut(
        id=d.id,
        label=label(d.label, sides),
        figure=voice.of(d.value, d.unit),
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
    return ControlOut(
        id=":".join(name for name in (c.group if "/" in c.group else "", c.code, c.about) if name),
        label=_label(c),
        group=c.group,
        group_label=GROUPS[c.group.rpartition("/")[2]],
        whose=c.group.rpartition("/")[0],
        about=c.about,
        options=[
            OptionOut(
                code=o.code,
                label=label(o.code),
                acts=list(o.acts),
                chosen=o.chosen,
                picture=view_out(o.picture, voice) if o.picture else None,
            )
            for o in c.options
        ],
        figure=voice.of(c.value, c.unit) if c.value is not None and c.unit else None,
        unit=c.unit,
        acts=c.acts,
        style=c.style,
    )

"""What the rings on a drawing are called, for whoever cannot see them."""

from fennup.app.wording.labels import LABELS, Naming, label

STANDS = {"across": {"B": "right side", "D": "left side"}, "along": {"A": "front side", "C": "back side"}}


def grip_name(id: str, naming: Naming) -> str:
    """A ring's name by its id: `front/m1/corner:2`, `piece:front:p4:a`, `t1/swing_left_deg`."""
    if id in LABELS:
        return LABELS[id]
    _, _, own = id.partition("/")
    whose, slash, own = own.partition("/")
    if slash:
        owner = naming.whose(whose)
        return (f"{owner}: " if owner else "") + _own(own, f"{whose}/")
    return _own(id.rpartition("/")[2], "") if id.rpartition("/")[2] not in LABELS else LABELS[id.rpartition("/")[2]]


def _own(id: str, prefix: str) -> str:
    if id.startswith("defects."):
        return f"Knot {int(id.rpartition('.')[2]) + 1}"
    what, _, which = id.partition(":")
    if what == "pin":
        measure = which.partition(":")[2] if which.partition(":")[0] in ("front", "side", "above") else which
        return label(measure)
    if what == "piece":
        return f"{'Start' if id.endswith(':a') else 'End'} of the piece"
    if what == "corner":
        return f"Corner {int(which) + 1}" if which.isdecimal() else f"Corner {which}"
    if what == "size":
        kind, _, place = which.partition(":")
        return f"Size, {'corner' if kind == 'corner' else 'side'} {int(place) + 1 if place.isdecimal() else place}"
    if what == "width":
        return "Rail width"
    return STANDS.get(what, {}).get(which, id.replace("_", " ")).capitalize()

"""Controls whose names come from somebody's own tables: a choice among them, a figure with any unit."""

from collections.abc import Iterable, Sequence

from fennup.app.schemas.sheet import ControlOut, OptionOut, Standing
from fennup.app.wording.figures import Figure
from fennup.core.drawing.edit import Choose, Edit, TypeIn


def choosing(path: str, value: object) -> list[Edit]:
    """The act that chooses something."""
    return [Choose(op="choose", path=path, value=value)]


def picked(
    path: str, label: str, options: Iterable[tuple[str, str, object]], chosen: object, *, few: bool = False, about: str = ""
) -> ControlOut:
    """One of several: (code, what it is called, the value that it puts there); `few`: side by side."""
    made = [OptionOut(code=c, label=t, acts=choosing(path, v), chosen=v == chosen, picture=None) for c, t, v in options]
    return _control(path, label, about, made, "pick" if few else "list", None, None, "given")


def figure_in(path: str, label: str, figure: Figure, *, given: bool = True, about: str = "") -> ControlOut:
    """A figure to be typed."""
    acts = TypeIn(op="type", path=path, text="")
    return _control(path, label, about, [], "pick", figure, acts, "given" if given else "suggested")


def _control(
    id: str,
    label: str,
    about: str,
    options: Sequence[OptionOut],
    style: str,
    figure: Figure | None,
    acts: Edit | None,
    standing: Standing,
) -> ControlOut:
    return ControlOut(
        id=id, label=label, group="finish", group_label="Finish", whose="", about=about, options=list(options), figure=figure,
        unit="plain" if figure else None, acts=acts, style=style, standing=standing,
    )  # fmt: skip

"""A moulding of the workshop as a drawing on which it is edited: cut across, its opening edge at the left, its show side up; and what else there is to decide."""

from fennup.core.drawing.board_views import section_shape
from fennup.core.drawing.edit import Choose
from fennup.core.drawing.view import RIGHT, UP, Control, Option, View
from fennup.core.kinds.asking import figure
from fennup.core.kinds.catalogue import KINDS
from fennup.core.kinds.ploughing import Beside, ploughed_controls, ploughed_dimensions, side_marks
from fennup.core.mouldings.frames import FRAME
from fennup.core.mouldings.library import MOST_LENGTHS, TURNS, Content, Moulding

MOULDING = "moulding"
SIZES = ("width_mm", "height_mm", "play_mm", "glass_mm", "spacer_mm", "art_mm", "back_mm")
SIDES = "rail"  # its sides are called as a frame's


def moulding_view(id: str, moulding: Moulding) -> View:
    """Every figure of it in its place."""
    section, at = moulding.section, f"mouldings.{id}"
    y, z = section.width_mm / 2, section.thickness_mm / 2
    beside = Beside((-y, -z), (y, z))
    figures = [
        *ploughed_dimensions(section, moulding.ploughed, f"{at}.ploughed", beside),
        beside.dimension("width", "moulding_wide", (-y, y), UP, 2 * y, f"{at}.width_mm"),
        beside.dimension("thickness", "moulding_thick", (-z, z), RIGHT, 2 * z, f"{at}.thickness_mm"),
    ]
    marks = side_marks(section, KINDS[FRAME].words.roles["frame"])
    return View("moulding", (section_shape(section, id),), marks, tuple(figures))


def moulding_controls(id: str, moulding: Moulding) -> tuple[Control, ...]:
    """What is cut along it, how it lies, and which lengths of it there are."""
    at = f"mouldings.{id}"
    turns = tuple(Option(f"turn_{how}", (Choose(op="choose", path=f"{at}.turn", value=how),), False) for how in TURNS)
    made = [
        figure("moulding_wide", MOULDING, moulding.width_mm, f"{at}.width_mm"),
        figure("moulding_thick", MOULDING, moulding.thickness_mm, f"{at}.thickness_mm"),
        *ploughed_controls(moulding.section, moulding.ploughed, f"{at}.ploughed", SIDES, MOULDING, more_code="plough_it"),
        Control("moulding_turned", MOULDING, turns, style="menu"),
    ]
    for k, found in enumerate(moulding.lengths):
        own, number = f"{at}.lengths.{k}", str(k + 1) if len(moulding.lengths) > 1 else ""
        made.append(figure("found_length", "lengths", found.mm, f"{own}.mm", about=number))
        made.append(figure("found_count", "lengths", float(found.count), f"{own}.count", "count", number))
        gone = Option("take_it_away", (Choose(op="choose", path=own, value=None),), False)
        made.append(Control("found_away", "lengths", (gone,), about=number, style="sentence"))
    if len(moulding.lengths) < MOST_LENGTHS:
        more = Option("one_more_length", (Choose(op="choose", path=f"{at}.lengths.new", value=True),), False)
        made.append(Control("one_more_length", "lengths", (more,)))
    return tuple(made)


def content_controls(id: str, content: Content) -> tuple[Control, ...]:
    """How large something is that is to be framed."""
    at = f"contents.{id}"
    return tuple(figure(f"content_{name[:-3]}", "contents", getattr(content, name), f"{at}.{name}") for name in SIZES)

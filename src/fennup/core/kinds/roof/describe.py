"""What a roof shows of itself: from the front, from the side, from above, and a hip cut square across."""

from math import acos, degrees

from fennup.core.drawing.board_views import pictorial, sliced
from fennup.core.drawing.view import Description, Mark, SizeRow, View
from fennup.core.geometry.plane import plane_through
from fennup.core.geometry.vec import dot
from fennup.core.kinds.blanks import blank_view
from fennup.core.kinds.gauged import ABOVE, DOWN, FRONT, LEFT, PAPERS, RIGHT, SIDE, UP, Shown, read_only, rows, view
from fennup.core.kinds.roof.controls import controls_of
from fennup.core.kinds.roof.hip import backing_deg, jack_in_theory, planes_of
from fennup.core.kinds.roof.sizing import SIZING
from fennup.core.kinds.roof.spec import Hip, Pyramid, RoofSpec
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid

UPWARDS_LEFT = (-0.6, 0.8)
ON: dict[str, dict[str, tuple[Shown, ...]]] = {
    "gable": {
        "front": (
            ("left_run", DOWN, 2.2), ("right_run", DOWN, 2.2), ("span", DOWN, 3.4), ("left_pitch", UP, 0.0), ("right_pitch", UP, 0.0),
            ("left_top_edge", None, 1.2), ("right_rise", RIGHT, 2.0),
        ),
    },
    "pyramid": {
        "front": (("height", RIGHT, 1.4),),
        "side": (("height", RIGHT, 1.4), ("pitch", UP, 0.0), ("slant", UPWARDS_LEFT, 1.2)),
        "above": (("eaves_flats", LEFT, 1.4), ("eaves_side", DOWN, 1.0)),
    },
    "hip": {
        "front": (("eaves_width", DOWN, 1.0), ("rise", RIGHT, 1.4), ("side_pitch", UP, 0.0)),
        "side": (("eaves_depth", DOWN, 1.0), ("ridge_length", UP, 1.0), ("rise", RIGHT, 1.4), ("front_pitch", UP, 0.0)),
        "above": (("eaves_width", DOWN, 1.0), ("eaves_depth", RIGHT, 1.4), ("eaves_side", DOWN, 1.0)),
    },
    "lean_to": {
        "front": (("body_width", DOWN, 1.0), ("front_height", LEFT, 1.4)),
        "side": (("body_depth", DOWN, 1.0), ("front_height", LEFT, 1.4), ("back_height", RIGHT, 1.4), ("pitch", UP, 0.0)),
    },
}  # fmt: skip


def describe(spec: RoofSpec, ruler: Ruler, solids: dict[str, Solid]) -> Description:
    """Views, controls and sizes of a solved roof."""
    given = spec.standings()
    shown = ON[spec.shape.form]
    # A gable is known by its front, what goes round by what is seen from above, a lean-to by its side.
    order = {"gable": PAPERS, "pyramid": (SIDE, ABOVE, FRONT), "hip": (ABOVE, FRONT, SIDE), "lean_to": (SIDE, FRONT, ABOVE)}
    views = [view(paper, ruler, solids, given, shown.get(paper.id, ())) for paper in order[spec.shape.form]]
    if isinstance(spec.shape, Hip):
        views.append(_backing(spec, ruler, solids))
    views += [blank_view(blank) for blank in ruler.assembly.blanks]
    free = SIZING.free(spec)
    facts = (f"roof_{spec.shape.form}", *((f"free:{free}",) if free else ()))
    sizes = (*rows(ruler, _names(spec, ruler), given), *_following(spec, ruler))
    return Description(facts, pictorial(ruler.assembly, solids), tuple(views), lambda: controls_of(spec), sizes)


def _names(spec: RoofSpec, ruler: Ruler) -> list[str]:
    """All sizes; of a pyramid with an odd number of sides the circles too."""
    names = list(ruler.assembly.by_name)
    odd = isinstance(spec.shape, Pyramid) and spec.sides % 2
    return [*(f"eaves_{kind}" for kind in ("flats", "corners") if odd), *names]


def _following(spec: RoofSpec, ruler: Ruler) -> list[SizeRow]:
    """Angles between planes, and a hip's backing."""
    shape, assembly = spec.shape, ruler.assembly
    if isinstance(shape, Pyramid):
        a, b = (assembly.board(letter).frame.z for letter in "AB")
        return [read_only("dihedral_angle", 180.0 - degrees(acos(dot(a, b))))]
    if not isinstance(shape, Hip):
        return []
    hip = assembly.board("hip AB")
    right, left = backing_deg(hip)
    made = [read_only("backing_left_angle", left), read_only("backing_right_angle", right)]
    jacks = [board for board in assembly.boards if board.id == "jack A1r"]
    return made + [read_only("jack_in_theory", jack_in_theory(jack, hip, planes_of(shape)[0])) for jack in jacks]


def _backing(spec: RoofSpec, ruler: Ruler, solids: dict[str, Solid]) -> View:
    """The first hip cut square across, as one sees it climbing up."""
    hip = ruler.assembly.board("hip AB")
    frame = hip.frame
    cut = sliced({hip.id: solids[hip.id]}, plane_through(frame.origin, frame.x), frame.z, frame.y)
    marks = []
    for letter, plane, sense in (("B", hip.upper_rip, 1.0), ("A", hip.backing, -1.0)):
        if plane:
            z = sense * hip.section.thickness_mm * 0.9
            y = (hip.section.width_mm - hip.section.thickness_mm) / 2
            at = frame.to_world((0.0, y, z))
            marks.append(Mark("letter", (dot(at, frame.z), dot(at, frame.y)), letter))
    return View("backing", cut, tuple(marks))

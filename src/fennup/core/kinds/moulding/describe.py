"""What a moulding shows of itself: along the walls from above, and the first run cut across, between wall and ceiling."""

from fennup.core.drawing.board_views import pictorial, sliced
from fennup.core.drawing.edit import Choose
from fennup.core.drawing.view import Control, Description, Mark, Option, Shape, View
from fennup.core.geometry.plane import plane_through
from fennup.core.geometry.vec import dot
from fennup.core.kinds.asking import figure, one_of
from fennup.core.kinds.gauged import ABOVE, DOWN, LEFT, Paper, Shown, dimensions, rows, view
from fennup.core.kinds.moulding.place import Placed, placed_runs
from fennup.core.kinds.moulding.raked import base_run
from fennup.core.kinds.moulding.sizing import SIZING
from fennup.core.kinds.moulding.spec import MOST_RUNS, MouldingSpec
from fennup.core.kinds.ploughing import ploughed_controls
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid

BEYOND = 1.25  # how far the lines of wall and ceiling are drawn, in widths of the moulding


def describe(spec: MouldingSpec, ruler: Ruler, solids: dict[str, Solid]) -> Description:
    """Views, controls and sizes of a solved moulding."""
    given, placed = spec.standings(), placed_runs(spec)
    shown: list[Shown] = [(f"at_wall:{run.board.id}", (-run.out[0], -run.out[1]), 1.2) for run in placed]
    marks = tuple(Mark("letter", ABOVE.flat(run.board.frame.origin), run.board.id, run.board.id) for run in placed)
    views = (view(ABOVE, ruler, solids, given, shown, marks), _across(spec, ruler, solids, placed[base_run(spec)]))
    free = SIZING.free(spec)
    facts = ("moulding_closed" if spec.closes else "moulding_open", f"runs:{spec.sides}", *((f"free:{free}",) if free else ()))
    names = list(ruler.assembly.by_name)
    return Description(facts, pictorial(ruler.assembly, solids), views, lambda: controls_of(spec), rows(ruler, names, given))


def _across(spec: MouldingSpec, ruler: Ruler, solids: dict[str, Solid], first: Placed) -> View:
    """The first level run cut square across, the wall at the left, what is above at the top."""
    frame = first.board.frame
    paper = Paper("section", first.out, first.up_wall)
    id = first.board.id
    cut = sliced({id: solids[id]}, plane_through(frame.origin, frame.x), paper.right, paper.up)
    x, y = paper.flat(first.start)
    top = y + dot(frame.y, first.up_wall) * spec.width_mm
    reach = BEYOND * spec.width_mm
    thick = spec.width_mm / 8
    lines = (
        Shape("found", ((x - thick, top + thick), (x, top + thick), (x, top - reach), (x - thick, top - reach)), True),
        Shape("found", ((x, top), (x + reach, top), (x + reach, top + thick), (x, top + thick)), True),
    )
    shown: list[Shown] = [
        ("down_the_wall", LEFT, 1.4),
        ("out_from_it", (0.0, 1.0), 1.0),
        ("moulding_width", None, 1.0),
        ("spring_angle", DOWN, 0.0),
    ]
    return View("section", (*lines, *cut), (), dimensions(paper, ruler, spec.standings(), shown))


def controls_of(spec: MouldingSpec) -> tuple[Control, ...]:
    """The runs and their corners, then the moulding itself."""
    controls = []
    if len(spec.runs) < MOST_RUNS and not spec.closes:
        options = tuple(
            Option(f"past_{side}", (Choose(op="choose", path="runs.more", value=side),), False) for side in ("inside", "outside")
        )
        controls.append(Control("more_runs", "outline", options, style="menu"))
    if len(spec.runs) > 1 and not spec.closes:
        gone = Option("take_it_away", (Choose(op="choose", path="runs.less", value=None),), False)
        controls.append(Control("last_run", "outline", (gone,), style="sentence"))
    for i, (name, corner) in enumerate(zip(spec.corner_names, spec.corners, strict=True)):
        sides: dict[str, object] = {"corner_inside": "inside", "corner_outside": "outside"}
        if not spec.closes:
            controls.append(one_of("wall_corner", "outline", f"corners.{i}.side", sides, corner.side, name))
        controls.append(figure("wall_corner_deg", "outline", corner.deg, f"corners.{i}.deg", "deg", name))
    for i, (letter, run) in enumerate(zip(spec.letters, spec.runs, strict=True)):
        controls.append(figure("rises", "outline", run.rise_deg, f"runs.{i}.rise_deg", "deg", letter))
    if any(run.rise_deg for run in spec.runs) and not all(run.rise_deg for run in spec.runs):
        profiles: dict[str, object] = {"raked_same": "same", "raked_own": "own"}
        controls.append(one_of("raked_profile", "board", "raked", profiles, spec.raked))
    controls.append(figure("width", "board", spec.width_mm, "width_mm"))
    controls.append(figure("thickness", "board", spec.thickness_mm, "thickness_mm"))
    comes: dict[str, object] = {"moulding_bought": True, "moulding_own": False}
    controls.append(one_of("moulding_comes", "board", "bought", comes, spec.bought))
    return (*controls, *ploughed_controls(spec.section, spec.ploughed, "ploughed", "run"))

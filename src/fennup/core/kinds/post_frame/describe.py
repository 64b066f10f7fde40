"""What a frame of posts shows of itself: from the front, from the side, from above."""

from collections.abc import Iterator
from itertools import pairwise

from fennup.core.drawing.board_views import pictorial
from fennup.core.drawing.view import Description, Mark
from fennup.core.kinds.gauged import ABOVE, DOWN, FRONT, LEFT, RIGHT, SIDE, UP, Paper, Shown, rows, view
from fennup.core.kinds.post_frame.controls import controls_of
from fennup.core.kinds.post_frame.sizing import SIZING
from fennup.core.kinds.post_frame.spec import PostFrameSpec
from fennup.core.kinds.post_frame.things import ALONG, Over, Way
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid
from fennup.core.tolerances import SAME

PAST_KNEE = 1.9  # lanes, to stand beyond the brace
LANE = 1.6  # from one dimension line to the next one beside it
UPRIGHT_LANE = 2.2  # the same where their words stand beside each other


def describe(spec: PostFrameSpec, ruler: Ruler, solids: dict[str, Solid]) -> Description:
    """Views, controls and sizes of a solved frame."""
    given = spec.standings()
    front, side = spec.lines("x")[0], _rightmost(spec)
    views = [
        view(FRONT, ruler, solids, given, [*_row(spec, front, "x")], _letters(FRONT, front, solids)),
        view(SIDE, ruler, solids, given, [*_row(spec, side, "y")], _letters(SIDE, side, solids)),
        view(ABOVE, ruler, solids, given, [*_plan(spec, front, side)], _letters(ABOVE, tuple(spec.posts), solids)),
    ]
    free = SIZING.free(spec)
    facts = ("post_frame", f"posts:{len(spec.posts)}", *((f"free:{free}",) if free else ()))
    names = list(ruler.assembly.by_name)
    return Description(
        facts,
        pictorial(ruler.assembly, solids),
        tuple(views),
        lambda: controls_of(spec, tuple(solids)),
        rows(ruler, names, given),
    )


def _rightmost(spec: PostFrameSpec) -> tuple[str, ...]:
    """The posts of that column of several which stands farthest to the right, else of the last one."""
    columns = spec.lines("y")
    most = max(len(ids) for ids in columns)
    return max((ids for ids in columns if len(ids) == most), key=lambda ids: spec.place(ids[0])[0])


def _row(spec: PostFrameSpec, ids: tuple[str, ...], way: Way) -> Iterator[Shown]:
    """What is given of posts side by side and of what joins them, where it stands."""
    for a, b in pairwise(ids):
        yield f"{ALONG[way]}_clear:{a}{b}", DOWN, 1.0
    if len(ids) > 1:
        yield f"{ALONG[way]}_overall:{ids[0]}{ids[-1]}", DOWN, 1.0 + LANE
    yield f"post_height:{ids[0]}", LEFT, 1.4
    if len(ids) > 1:
        yield f"post_height:{ids[-1]}", RIGHT, 1.4
    for id in ids:
        yield f"post_lean:{id}", UP, 0.0
        yield f"top_pitch:{id}", UP, 0.0
    lane, seen = 1.4 + UPRIGHT_LANE, set()
    for number, rail in spec.rails.items():
        lies = (rail.a, rail.b, rail.height_mm, rail.rise_deg)
        if not {rail.a, rail.b} <= set(ids) or lies in seen:
            continue
        seen.add(lies)
        if rail.rise_deg:
            yield f"rail_pitch:{number}", UP, 0.0
        yield f"rail_upper:{number}", None, 1.0
        if isinstance(rail.joint, Over):
            yield f"rail_start:{number}", DOWN, 0.8
            continue
        first = rail.a == ids[0]
        yield f"lower_height:{number}", LEFT if first else RIGHT, lane if first else 0.8
        lane += UPRIGHT_LANE if first else 0.0
    for number, brace in spec.braces.items():
        if {brace.a, brace.b} <= set(ids):
            yield f"brace_low:{number}", LEFT, lane + 0.6
            yield f"brace_high:{number}", RIGHT, 1.4 + LANE
    for number, knee in spec.knees.items():
        corner = knee.corners[-1]
        if corner.post in ids and {spec.rails[corner.rail].a, spec.rails[corner.rail].b} <= set(ids):
            yield f"knee_post:{number}", RIGHT if corner.post == ids[0] else LEFT, PAST_KNEE
            yield f"knee_rail:{number}", DOWN, 1.0 + 2 * LANE


def _plan(spec: PostFrameSpec, front: tuple[str, ...], side: tuple[str, ...]) -> Iterator[Shown]:
    for a, b in pairwise(front):
        yield f"across_clear:{a}{b}", DOWN, 1.0
    for a, b in pairwise(side):
        yield f"deep_clear:{a}{b}", RIGHT, 1.0


def _letters(paper: Paper, ids: tuple[str, ...], solids: dict[str, Solid]) -> tuple[Mark, ...]:
    """Posts' letters: from above on their heads, else half way up."""
    made = []
    for id in ids:
        points = [p for piece in solids[id].world for p in piece.points]
        high = max(p[2] for p in points)
        if paper is ABOVE:
            points = [p for p in points if p[2] > high - SAME]
        middle = tuple((min(p[k] for p in points) + max(p[k] for p in points)) / 2 for k in range(3))
        made.append(Mark("letter", paper.flat(middle), id, id))  # type: ignore[arg-type]
    return tuple(made)

"""What there is to decide about a frame of posts: of the whole what is there, of every board on its own card how it is."""

from collections.abc import Iterator, Sequence
from dataclasses import replace
from itertools import pairwise

from fennup.core.drawing.edit import Choose, Give
from fennup.core.drawing.view import Control, Option
from fennup.core.kinds.asking import Answers, choice, figure, one_of, with_or_without
from fennup.core.kinds.inner_controls import spaced_controls
from fennup.core.kinds.post_frame.adding import corners_of
from fennup.core.kinds.post_frame.joined import knee_id
from fennup.core.kinds.post_frame.spec import PostFrameSpec
from fennup.core.kinds.post_frame.things import (
    MOST_POSTS,
    WAYS,
    Between,
    Bracing,
    Foot,
    Knee,
    Lapped,
    Over,
    Post,
    Rail,
    Reach,
    Slats,
)

Sawn = Post | Rail | Foot | Knee | Bracing | Slats
SIDES = {"x": ("front", "back"), "y": ("left", "right")}


def controls_of(spec: PostFrameSpec, boards: Sequence[str]) -> tuple[Control, ...]:
    """The posts first, then what joins them, then what they stand on; and every board's own."""
    return (*_posts(spec), *_rails(spec), *_braces(spec), *_ground(spec), *_own(spec, boards))


def _add(what: str) -> Choose:
    return Choose(op="choose", path="add", value=what)


def _away(id: str) -> Choose:
    return Choose(op="choose", path="away", value=id)


def _more(code: str, group: str, options: list[tuple[str, Choose]]) -> Control:
    """A menu of what can be added."""
    return Control(code, group, tuple(Option(name, (act,), False) for name, act in options), style="menu")


def _posts(spec: PostFrameSpec) -> Iterator[Control]:
    options = []
    if len(spec.posts) + len(spec.rows) <= MOST_POSTS:
        options.append(("posts_right", _add("column")))
    if len(spec.posts) + len(spec.columns) <= MOST_POSTS:
        options.append(("posts_behind", _add("row")))
    if options:
        yield _more("more_posts", "posts", options)
    if len(spec.posts) > 1:
        ways: dict[str, object] = {"sides_each": None, "sides_x": "x", "sides_y": "y"}
        yield one_of("sides_together", "posts", "alike", ways, spec.alike)


def _pairs(spec: PostFrameSpec) -> Iterator[tuple[str, str, str]]:
    """Posts that stand side by side, and the way from one to the other."""
    for way in WAYS:
        for ids in spec.lines(way):
            yield from ((way, a, b) for a, b in pairwise(ids))


def _rails(spec: PostFrameSpec) -> Iterator[Control]:
    options = [(f"rail_on:{a}{b}", _add(f"rail:{a}{b}")) for _, a, b in _pairs(spec)]
    for way, a, b in _pairs(spec):
        options += [(f"lap_{side}_on:{a}{b}", _add(f"lap:{a}{b}:{side}")) for side in SIDES[way]]
    topped = spec.topped()
    rows = [ids for way in WAYS for ids in spec.lines(way) if len(ids) > 1 and not topped.keys() & set(ids)]
    options += [(f"beam_on:{ids[0]}{ids[-1]}", _add(f"beam:{ids[0]}{ids[-1]}")) for ids in rows]
    if options:
        yield _more("more_rails", "rails", options)
    slats = [(f"slats_on:{a}{b}", _add(f"slats:{a}:{b}")) for a, b in _parallel(spec)]
    if slats:
        yield _more("more_slats", "rails", slats)


def _parallel(spec: PostFrameSpec) -> Iterator[tuple[str, str]]:
    """Rails side by side that look alike from their posts: next to each other, at one height and rise."""

    def kind(n: str) -> tuple[object, ...]:
        rail = spec.rails[n]
        (ax, ay), (bx, by) = spec.place(rail.a), spec.place(rail.b)
        way = "x" if abs(bx - ax) >= abs(by - ay) else "y"
        return way, rail.joint.form, round(rail.height_mm, 3), round(rail.rise_deg, 3), round(rail.width_mm, 3)

    laid, numbers = {tuple(slats.on) for slats in spec.slats.values()}, list(spec.rails)
    for i, a in enumerate(numbers):
        for b in numbers[i + 1 :]:
            if kind(a) == kind(b) and (a, b) not in laid and int(a) < 10 and int(b) < 10:
                yield a, b


def _braces(spec: PostFrameSpec) -> Iterator[Control]:
    braced = {(corner.post, corner.rail) for knee in spec.knees.values() for corner in knee.corners}
    if any(corner not in braced for corner in corners_of(spec)):
        yield _more("more_knees", "braces", [("knees_everywhere", _add("knees"))])
    taken = {(brace.a, brace.b) for brace in spec.braces.values()}
    options = []
    for _, a, b in _pairs(spec):
        if (a, b) not in taken:
            options += [(f"brace_on:{a}{b}", _add(f"brace:{a}{b}")), (f"cross_on:{a}{b}", _add(f"cross:{a}{b}"))]
    if options:
        yield _more("more_braces", "braces", options)


def _ground(spec: PostFrameSpec) -> Iterator[Control]:
    forms = {"bare_ground": None, "feet_each": "each", "feet_along_x": "x", "feet_along_y": "y"}
    now = _feet_now(spec)
    options = []
    for code, which in forms.items():
        act = Choose(op="choose", path="feet", value={}) if which is None else _add(f"feet:{which}")
        options.append(Option(code, (act,), which == now))
    yield Control("stand_on", "ground", tuple(options))
    yield figure("falls_right", "ground", spec.ground.right_deg, "ground.right_deg", "deg")
    yield figure("falls_back", "ground", spec.ground.back_deg, "ground.back_deg", "deg")


def _feet_now(spec: PostFrameSpec) -> str | None:
    if not spec.feet:
        return None
    under = [tuple(foot.under) for foot in spec.feet.values()]
    if all(len(ids) == 1 for ids in under):
        return "each"
    return "x" if under[0] in spec.lines("x") else "y"


def _own(spec: PostFrameSpec, boards: Sequence[str]) -> Iterator[Control]:
    """On every board's card; of what follows its like on the other side nothing."""
    second = spec.second_side()
    for id, post in spec.posts.items():
        if id not in second["posts"]:
            yield from _post(spec, id, post)
    for number, rail in spec.rails.items():
        if number not in second["rails"]:
            yield from _rail(spec, number, rail)
    for number, foot in spec.feet.items():
        if number in second["feet"]:
            continue
        path, id = f"feet.{number}", f"foot {number}"
        yield from _section(path, id, foot, ("level_width", "upright_thickness"))
        if len(foot.under) == 1:
            yield one_of("foot_runs", "part", f"{path}.way", {"runs_x": "x", "runs_y": "y"}, foot.way, id)
        yield from _reach(f"foot_{{}}:{number}", foot, path, id)
        yield _gone(id)
    for number, knee in spec.knees.items():
        ids = [knee_id(number, corner) for corner in knee.corners]
        for id in ids:
            yield from _section(f"knees.{number}", id, knee, ("its_width", "its_thickness"))
            yield _gone(id)
    for number, brace in spec.braces.items():
        if number in second["braces"]:
            continue
        for id in (f"brace {number}", f"brace {number} over")[: 2 if brace.crossing else 1]:
            yield from _section(f"braces.{number}", id, brace, ("its_width", "its_thickness"))
            lines: dict[str, object] = {f"brace_by_{line}": line for line in ("lower", "middle", "upper")}
            yield one_of("brace_by", "part", f"braces.{number}.line", lines, brace.line, id)
            yield one_of(
                "crossed", "part", f"braces.{number}.crossing", {"one_alone": False, "two_crossing": True}, brace.crossing, id
            )
            yield _gone(f"brace {number}", id)
    for number, slats in spec.slats.items():
        path = f"slats.{number}"
        for id in (id for id in boards if id.startswith(f"slat {number}.")):
            yield from spaced_controls(slats, path, id, "part", ("slat_count", "bars_spacing"), slats.width_mm)
            yield from _section(path, id, slats, ("its_width", "its_thickness"))
            yield figure("slats_over", "part", slats.over_mm, f"{path}.over_mm", about=id)
            yield _gone(id)


def _section(path: str, id: str, one: Sawn, names: tuple[str, str]) -> Iterator[Control]:
    """A board's two sizes across, worded by how it lies."""
    yield figure(names[0], "part", one.width_mm, f"{path}.width_mm", about=id)
    yield figure(names[1], "part", one.thickness_mm, f"{path}.thickness_mm", about=id)


def _gone(id: str, about: str = "") -> Control:
    return Control("away", "part", (Option("take_away", (_away(id),), False),), about=about or id)


def _turned(code: str, value: float, path: str, measure: str, id: str) -> Control:
    """An angle of a board: a size of its own as soon as it is not nothing."""
    asked = figure(code, "part", value, path, "deg", id)
    return replace(asked, acts=Give(op="give", measure=measure)) if value else asked


def _post(spec: PostFrameSpec, id: str, post: Post) -> Iterator[Control]:
    path = f"posts.{id}"
    yield from _section(path, id, post, ("across_width", "deep_thickness"))
    for axis, places in (("column", ("left", "middle", "right")), ("row", ("front", "middle", "back"))):
        lines: dict[str, object] = {f"line_{place}": place for place in places}
        yield one_of(f"on_{axis}", "part", f"{path}.on_{axis}", lines, getattr(post, f"on_{axis}"), id)
    if not any(id in foot.under for foot in spec.feet.values()):
        yield figure("foot_step", "part", post.step_mm, f"{path}.step_mm", about=id)
    yield _turned("leans_by", post.lean_deg, f"{path}.lean_deg", f"post_lean:{id}", id)
    if post.lean_deg:
        yield one_of("leans", "part", f"{path}.leans", {"to_right": "x", "to_back": "y"}, post.leans, id)
    if spec.own_head(id):
        yield _turned("top_slopes", post.top_deg, f"{path}.top_deg", f"top_pitch:{id}", id)
        if post.top_deg:
            yield one_of("top_way", "part", f"{path}.top_way", {"to_right": "x", "to_back": "y"}, post.top_way, id)
    rails = [n for n, rail in spec.rails.items() if id in spec.along(rail.a, rail.b) and not isinstance(rail.joint, Over)]
    if rails and id not in spec.topped() and id not in spec.met():
        flush = {f"flush_with:{n}": (n, n == post.flush_with) for n in rails}
        yield choice("top_cut", "part", f"{path}.flush_with", {"top_alone": (None, post.flush_with is None), **flush}, id, "list")
    beside = dict.fromkeys(other for _, a, b in _pairs(spec) for other in ((b,) if a == id else (a,) if b == id else ()))
    if beside and id not in spec.topped():
        met = spec.met().get(id)
        others = {f"meets:{other}": (other, other == met) for other in beside}
        yield choice("head", "part", f"{path}.meets", {"head_free": (None, met is None), **others}, id, "list")
    if len(spec.posts) > 1:
        yield _gone(id)


def _rail(spec: PostFrameSpec, number: str, rail: Rail) -> Iterator[Control]:
    path, id, joint = f"rails.{number}", f"rail {number}", rail.joint
    yield from _section(path, id, rail, ("upright_width", "level_thickness"))
    yield _how_joined(spec, number, rail)
    if isinstance(joint, Between):
        yield with_or_without(
            "rail_depth", "part", f"{path}.joint.set_in_mm", ("in_the_middle", "set_in_by"), 0.0, joint.set_in_mm, id
        )
        if joint.set_in_mm is not None:
            yield figure("set_in_mm", "part", joint.set_in_mm, f"{path}.joint.set_in_mm", about=id)
        yield figure("housed", "part", joint.housed_mm, f"{path}.joint.housed_mm", about=id)
    else:
        yield from _reach(f"rail_{{}}:{number}", joint, f"{path}.joint", id)
    if isinstance(joint, Lapped):
        yield figure("let_in", "part", joint.let_in_mm, f"{path}.joint.let_in_mm", about=id)
        yield figure("notched", "part", joint.notch_mm, f"{path}.joint.notch_mm", about=id)
    if isinstance(joint, Over):
        yield figure("beam_aside", "part", joint.aside_mm, f"{path}.joint.aside_mm", about=id)
    yield _gone(id)


def _how_joined(spec: PostFrameSpec, number: str, rail: Rail) -> Control:
    """Between its posts, on one of their faces, or over them."""
    own, joint = rail.model_dump(mode="json"), rail.joint
    (ax, ay), (bx, by) = spec.place(rail.a), spec.place(rail.b)
    sides = SIDES["x" if abs(bx - ax) >= abs(by - ay) else "y"]
    reach = {"over_a_mm": joint.over_a_mm, "over_b_mm": joint.over_b_mm, "ends": joint.ends} if isinstance(joint, Reach) else {}
    if isinstance(joint, Over):
        own["height_mm"] = max(rail.height_mm - 1.5 * rail.width_mm, 0.0)
    answers: Answers = {"joined_between": ({**own, "joint": {"form": "between"}}, isinstance(joint, Between))}
    for side in sides:
        laid = {**own, "joint": {"form": "lapped", "side": side, **reach}}
        answers[f"joined_{side}"] = (laid, isinstance(joint, Lapped) and joint.side == side)
    top = own["height_mm"] if isinstance(joint, Over) else spec.posts[rail.a].height_mm
    beam = {**own, "height_mm": top, "rise_deg": 0.0, "joint": {"form": "over", **reach}}
    answers["joined_over"] = (beam, isinstance(joint, Over))
    return choice("joined", "part", f"rails.{number}", answers, f"rail {number}", "list")


def _reach(measure: str, reach: Reach, path: str, id: str) -> Iterator[Control]:
    """How far it goes past its posts, and its ends."""
    names = {f"end_cut_{how}": how for how in ("square", "plumb", "flush", "angle")}
    yield choice("end_cuts", "part", f"{path}.ends", {code: (how, how == reach.ends) for code, how in names.items()}, id, "list")
    own: Answers = {"end_like": (None, reach.ends_b is None), **{code: (how, how == reach.ends_b) for code, how in names.items()}}
    yield choice("last_end_cut", "part", f"{path}.ends_b", own, id, "list")
    if "angle" in (reach.ends, reach.ends_b):
        yield figure("end_angle", "part", reach.end_deg, f"{path}.end_deg", "deg", id)
    yield replace(
        figure("over_start", "part", reach.over_a_mm, f"{path}.over_a_mm", about=id),
        acts=Give(op="give", measure=measure.format("start")),
    )
    both = ("over_alike", "over_each")
    yield with_or_without("over_ends", "part", f"{path}.over_b_mm", both, reach.over_a_mm, reach.over_b_mm, id)
    if reach.over_b_mm is not None:
        end = Give(op="give", measure=measure.format("end"))
        yield replace(figure("over_end", "part", reach.over_b_mm, f"{path}.over_b_mm", about=id), acts=end)

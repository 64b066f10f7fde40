"""Everything of all the assemblies: their views in one, their controls and sizes under their own names."""

from dataclasses import replace
from functools import lru_cache
from math import hypot

from fennup.core.assembly.model import Assembly
from fennup.core.drawing.board_views import pictorial, seen_from
from fennup.core.drawing.edit import Choose, Edit, Free, Give, Nudge, TypeIn
from fennup.core.drawing.view import Control, Description, Dimension, Grip, Option, SizeRow, View
from fennup.core.geometry.vec import Point2
from fennup.core.kinds.asking import figure, one_of
from fennup.core.kinds.gauged import PAPERS, Sheet
from fennup.core.kinds.singles import SINGLE_STARTS, SINGLES
from fennup.core.kinds.together.faces import seat_on
from fennup.core.kinds.together.pieces import starts_at
from fennup.core.kinds.together.place import built, heights, solids_of
from fennup.core.kinds.together.spec import MOST_MEMBERS, Member, TogetherSpec
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid

SIZES_TO_FOLLOW = 14


def describe(spec: TogetherSpec, ruler: Ruler, solids: dict[str, Solid]) -> Description:
    """Views, controls and sizes of all."""
    at = heights(spec)
    own = [_own(member) for member in spec.members]
    linked = {f"{link.of}/{link.measure}" for link in spec.links}
    alone = len(spec.members) == 1
    shown = own[0].views if alone and SINGLES[spec.members[0].spec.kind].stands else tuple(View(paper.id) for paper in PAPERS)
    views = tuple(_view(view, spec, own, ruler, solids, at, linked) for view in shown)
    sizes = tuple(_size(row, i, spec.members[i], linked) for i, d in enumerate(own) for row in d.sizes)
    facts = own[0].facts if alone else (f"together:{len(spec.members)}",)
    if spec.pieces:
        facts = (*facts, f"pieces:{len(spec.pieces)}")
    picture = pictorial(ruler.assembly, solids)
    return Description(facts, picture, views, lambda: _controls(spec, own, ruler.assembly), sizes)


def _controls(spec: TogetherSpec, own: list[Description], boards: Assembly) -> tuple[Control, ...]:
    """How each one stands and what it follows, what is decided about it alone, and of the whole its pieces."""
    alone, controls = len(spec.members) == 1, []
    for i, (member, description) in enumerate(zip(spec.members, own, strict=True)):
        controls += _stands(spec, i, member) if not alone else []
        controls += [c for row in description.sizes for c in _follows(spec, i, member, row, own)]
        controls += [_control(c, i, member, alone) for c in description.controls]
    return (*controls, *_pieces(spec, boards), _more(spec))


def _view(
    view: View,
    spec: TogetherSpec,
    own: list[Description],
    ruler: Ruler,
    solids: dict[str, Solid],
    at: dict[str, float],
    linked: set[str],
) -> View:
    """A view of all with each one's given sizes; of a single one its own view with all its sizes, and its pieces in it."""
    alone = len(spec.members) == 1
    paper = next((paper for paper in PAPERS if paper.id == view.id), None)
    found: list[Dimension] = []
    rings = _rings(spec, ruler, paper) if paper else []
    for i, (member, description) in enumerate(zip(spec.members, own, strict=True)):
        lift = paper.flat((0.0, 0.0, at[member.name])) if paper else (0.0, 0.0)
        theirs = next((v for v in description.views if v.id == view.id), View(view.id))
        seen = [d for d in theirs.dimensions if alone or d.standing == "given"]
        found += [_placed(d, i, member, lift, linked, alone) for d in seen]
        rings += [_grip(grip, view.id, member, lift) for grip in theirs.grips if not _of_linked(grip, member, linked)]
    if paper is None:
        return replace(view, dimensions=tuple(found), grips=tuple(rings))
    drawn_on = tuple(shape for shape in view.shapes if shape.role not in ("wood", "found"))
    shapes = (*seen_from(ruler.assembly, solids, paper.right, paper.up), *drawn_on)
    marks = tuple(replace(mark, part=f"{spec.members[0].name}/{mark.part}" if mark.part else None) for mark in view.marks)
    return View(view.id, shapes, marks, tuple(found), tuple(rings))


def _rings(spec: TogetherSpec, ruler: Ruler, paper: Sheet) -> list[Grip]:
    """A ring at both ends of every piece, to be dragged along its board."""
    made: list[Grip] = []
    for k, piece in enumerate(spec.pieces):
        for end, seat in (("a", piece.a), ("b", piece.b)):
            found = seat_on(paper, ruler.assembly.board(seat.board), seat)
            # A piece seen end on has one ring for both ends.
            if found and not any(hypot(g.at[0] - found[0][0], g.at[1] - found[0][1]) < 1.0 for g in made):
                (x, y), long = found[1], hypot(*found[1])
                made.append(Grip(f"piece:{paper.id}:{k}:{end}", found[0], (x / long, y / long)))
    return made


def _grip(grip: Grip, view: str, member: Member, lift: Point2) -> Grip:
    """A ring of one assembly where that stands: called by the view, whose it is and its own name."""
    return replace(grip, id=f"{view}/{member.name}/{grip.id}", at=(grip.at[0] + lift[0], grip.at[1] + lift[1]))


def _of_linked(grip: Grip, member: Member, linked: set[str]) -> bool:
    """Whether a ring moves a size that follows another's."""
    return f"{member.name}/{grip.id.rpartition(':')[2]}" in linked


def _own(member: Member) -> Description:
    """One assembly's own description, as if it were alone; what lies with its face up is seen from above, not from the front."""
    return _described(member.spec.kind, member.spec.model_dump_json())


@lru_cache(maxsize=64)
def _described(name: str, text: str) -> Description:
    """By content: a change leaves most of several assemblies as they were."""
    kind = SINGLES[name]
    spec = kind.spec.model_validate_json(text)
    told = kind.describe(spec, Ruler(built(spec)), solids_of(spec))
    if kind.stands:
        return told
    return replace(told, views=tuple(replace(view, id="above") if view.id == "front" else view for view in told.views))


def renamed(act: Edit, i: int, name: str) -> Edit:
    """An act on one assembly as an act on the whole."""
    if isinstance(act, Give | Free):
        return act.model_copy(update={"measure": f"{name}/{act.measure}"})
    if isinstance(act, TypeIn | Choose | Nudge):
        return act.model_copy(update={"path": f"members.{i}.spec.{act.path}"})
    return act


def _placed(d: Dimension, i: int, member: Member, lift: Point2, linked: set[str], alone: bool) -> Dimension:
    """A dimension where its assembly stands, said to be its where there are several; one that follows another's is not typed
    over."""
    name = f"{member.name}/{d.id}"

    def up(p: Point2) -> Point2:
        return (p[0] + lift[0], p[1] + lift[1])

    moved: dict[str, Point2] = {"about": up(d.about)} if d.about else {"a": up(d.a), "b": up(d.b)}
    if d.at:
        moved["at"] = up(d.at)
    follows = name in linked
    acts = None if follows or d.acts is None else renamed(d.acts, i, member.name)
    standing = "derived" if follows else d.standing
    label = d.label if alone else f"{member.name}/{d.label}"
    free = d.can_free and alone
    return replace(d, id=name, label=label, acts=acts, standing=standing, can_free=free, **moved)  # type: ignore[arg-type]


def _size(row: SizeRow, i: int, member: Member, linked: set[str]) -> SizeRow:
    name = f"{member.name}/{row.measure}"
    follows = name in linked
    acts = renamed(row.acts, i, member.name) if row.acts and not follows else None
    return replace(
        row, measure=name, acts=acts, standing="derived" if follows else row.standing, can_free=row.can_free and not follows
    )


def _control(control: Control, i: int, member: Member, alone: bool) -> Control:
    """A control of one assembly, under its name where there are several."""

    def within(acts: tuple[Edit, ...]) -> tuple[Edit, ...]:
        return tuple(renamed(act, i, member.name) for act in acts)

    part = control.group == "part"
    return replace(
        control,
        group=control.group if part or alone else f"{member.name}/{control.group}",
        options=tuple(replace(o, acts=within(o.acts)) for o in control.options),
        acts=renamed(control.acts, i, member.name) if control.acts else None,
        about=f"{member.name}/{control.about}" if part else control.about,
    )


def _stands(spec: TogetherSpec, i: int, member: Member) -> list[Control]:
    """What it stands on, and how much higher."""
    group = f"{member.name}/place"
    below = [None, *(other.name for other in spec.members[:i])]
    on = Control(
        "stands_on",
        group,
        tuple(
            Option(
                f"on:{name}" if name else "on_ground",
                (Choose(op="choose", path=f"members.{i}.on", value=name),),
                name == member.on,
            )
            for name in below
        ),
    )
    higher = figure("stands_higher", group, member.up_mm, f"members.{i}.up_mm")
    return [on, higher] if i else [higher]


def _follows(spec: TogetherSpec, i: int, member: Member, row: SizeRow, own: list[Description]) -> list[Control]:
    """For every given length: its own figure, or what another assembly measures, and more."""
    k, link = next(
        ((k, link) for k, link in enumerate(spec.links) if (link.of, link.measure) == (member.name, row.measure)), (None, None)
    )
    others = [other for other in spec.members if other.name != member.name]
    if (row.standing != "given" and link is None) or row.unit != "mm" or not others:
        return []
    group, path = f"{member.name}/place", f"follow:{member.name}/{row.measure}"
    options = [Option("own_figure", (Choose(op="choose", path=path, value=None),), link is None)]
    for other, description in zip(spec.members, own, strict=True):
        if other.name == member.name or member.name in spec.followed_by(other.name):
            continue
        lengths = [size.measure for size in description.sizes if size.unit == "mm"]
        for measure in lengths[:SIZES_TO_FOLLOW]:
            source = f"{other.name}/{measure}"
            chosen = link is not None and (link.after, link.source) == (other.name, measure)
            options.append(Option(source, (Choose(op="choose", path=path, value=source),), chosen))
    made = [Control("follows", group, tuple(options), about=f"{member.name}/{row.measure}", style="list")]
    if link is not None:
        made.append(figure("follows_plus", group, link.plus_mm, f"links.{k}.plus_mm", about=f"{member.name}/{row.measure}"))
    return made


def _pieces(spec: TogetherSpec, boards: Assembly) -> list[Control]:
    """On every fitted piece's card: where it ends, its section, how it lies."""
    made = []
    for k, piece in enumerate(spec.pieces):
        path, name = f"pieces.{k}", piece.name
        for end, seat in (("a", piece.a), ("b", piece.b)):
            board = boards.board(seat.board)
            start = "left" if starts_at(board) == "left" else "low"
            place = f"{path}.{end}"
            whose = seat.board.partition("/")[0] if "/" in seat.board and len(spec.members) > 1 else ""
            code = f"piece_{end}:{start}:{whose}:{board.name}"
            made.append(figure(code, "part", seat.along_mm, f"{place}.along_mm", about=name))
            if board.panel:
                made.append(figure("piece_aside", "part", seat.aside_mm, f"{place}.aside_mm", about=name))
        answers: dict[str, object] = {"on_its_edge": False, "lying_flat": True}
        away = Choose(op="choose", path="pieces", value=name)
        made += [
            figure("piece_width", "part", piece.width_mm, f"{path}.width_mm", about=name),
            figure("piece_thickness", "part", piece.thickness_mm, f"{path}.thickness_mm", about=name),
            one_of("piece_lies", "part", f"{path}.lies_flat", answers, piece.lies_flat, name),
            Control("piece_away", "part", (Option("take_it_away", (away,), False),), about=name),
        ]
    return made


def _more(spec: TogetherSpec) -> Control:
    """One more assembly on top, or one less."""
    codes = SINGLE_STARTS if len(spec.members) < MOST_MEMBERS else []
    options = [Option("all_there", (), True)]
    options += [Option(f"add:{code}", (Choose(op="choose", path="members", value=code),), False) for code in codes]
    if len(spec.members) > 1:
        options.append(Option("one_assembly_less", (Choose(op="choose", path="members", value=None),), False))
    return Control("assemblies", "assemblies", tuple(options), style="list")

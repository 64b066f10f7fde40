"""A project for the screen: the views of all its assemblies in one, their controls and sizes under their ids."""

from dataclasses import dataclass, replace
from functools import lru_cache
from math import hypot
from typing import TypeVar

from fennup.core.assembly.model import Assembly
from fennup.core.drawing.board_views import pictorial, seen_from
from fennup.core.drawing.edit import Choose, Edit, Free, Give, Nudge, TypeIn
from fennup.core.drawing.view import BY_ITSELF, Control, Description, Dimension, Grip, Option, Shape, SizeRow, View
from fennup.core.kinds.asking import Answers, choice, figure, one_of
from fennup.core.kinds.catalogue import KINDS
from fennup.core.kinds.gauged import PAPERS, Paper
from fennup.core.parts.measure import Ruler
from fennup.core.parts.measures import measure_of
from fennup.core.parts.solid import Solid
from fennup.core.project.edit import STARTS
from fennup.core.project.faces import seat_on
from fennup.core.project.lying import lying_on
from fennup.core.project.pieces import starts_at
from fennup.core.project.place import OneMember, assembly_of, one_member, solids_of, stances
from fennup.core.project.spec import MOST_MEMBERS, Facet, Piece, Pipe, ProjectSpec
from fennup.core.project.stance import AS_MADE, Stance, rests
from fennup.core.project.sums import key_of, shown

Said = TypeVar("Said", Dimension, Control, SizeRow)
SIZES_TO_FOLLOW = 14
MOST_SIDES = 20
LEVEL_ENOUGH = 0.2  # how much a side must look up for something to be laid on it
SHIFTS = {"moved_right": "right", "moved_back": "back", "stands_higher": "up"}


def stands(spec: ProjectSpec) -> bool:
    """Whether z is up: always where there are several; a single one may lie with its face towards the reader, if it is not stood on a side."""
    return len(spec.members) > 1 or all(KINDS[m.spec.kind].stands or m.down is not None for m in spec.members.values())


def describe(spec: ProjectSpec, assembly: Assembly, solids: dict[str, Solid]) -> Description:
    """Views, controls and sizes of a settled project."""
    whole = _Whole(spec, assembly, solids, {id: _described(one_member(m.spec)) for id, m in spec.members.items()}, stances(spec))
    sizes = tuple(whole.summed(whole.size(row, id)) for id, d in whole.own.items() for row in d.sizes)
    only = next(iter(whole.own.values())) if len(spec.members) == 1 else None
    facts = only.facts if only else (f"together:{len(spec.members)}",)
    if spec.pieces:
        facts = (*facts, f"pieces:{len(spec.pieces)}")
    picture = only.picture if only and not spec.pieces else pictorial(assembly, solids)
    return Description(facts, picture, whole.views(), whole.controls, sizes)


@lru_cache(maxsize=128)
def _described(one: OneMember) -> Description:
    """One member's own description, as if nothing else were there."""
    return one.kind.describe(one.spec, Ruler(assembly_of(one)), solids_of(one))


def act_within(act: Edit, id: str) -> Edit:
    """An act on one member as an act on the project."""
    if isinstance(act, Give | Free):
        return act.model_copy(update={"measure": f"{id}/{act.measure}"})
    if isinstance(act, TypeIn | Choose | Nudge):
        return act.model_copy(update={"path": f"members.{id}.spec.{act.path}"})
    return act


def _of(shape: Shape, id: str) -> Shape:
    return Shape(shape.role, shape.points, shape.closed, f"{id}/{shape.part}", shape.grain, shape.tone) if shape.part else shape


@dataclass(frozen=True)
class _Whole:
    """A project with what its members say of themselves, and how they stand."""

    spec: ProjectSpec
    assembly: Assembly
    solids: dict[str, Solid]
    own: dict[str, Description]
    at: dict[str, Stance]

    def follows(self, id: str, measure: str) -> bool:
        """Whether a member's size is another one's."""
        return any((link.of, link.measure) == (id, measure) for link in self.spec.links)

    def views(self) -> tuple[View, ...]:
        """A single member's own views with all its sizes; of several the same three, with each one's given sizes."""
        if not stands(self.spec):
            return tuple(self._own_view(view, id) for id, d in self.own.items() for view in d.views)
        only = next(iter(self.own))
        alone = len(self.own) == 1 and self.at[only].axes == AS_MADE
        lying = all(not KINDS[member.spec.kind].stands for member in self.spec.members.values())
        papers = PAPERS[::-1] if lying else PAPERS  # what lies flat is seen from above first
        shown = self.own[only].views if alone else [View(paper.id) for paper in papers]
        return tuple(self._view(view) for view in shown)

    def _own_view(self, view: View, id: str) -> View:
        """A member's own view, its boards and sizes called as in the project."""
        return replace(
            view,
            shapes=tuple(_of(shape, id) for shape in view.shapes),
            marks=tuple(replace(mark, part=f"{id}/{mark.part}") if mark.part else mark for mark in view.marks),
            dimensions=tuple(self._dimension(d, id) for d in view.dimensions),
            grips=tuple(_grip(grip, view.id, id) for grip in view.grips if not self._held(grip, id)),
        )

    def _view(self, view: View) -> View:
        """Everything seen on a paper, with the members' sizes and rings and the pieces' rings; what is no paper stays as it is."""
        paper = next((paper for paper in PAPERS if paper.id == view.id), None)
        if paper is None:
            return self._own_view(view, next(iter(self.own)))
        alone = len(self.own) == 1
        dimensions: list[Dimension] = []
        rings = self._piece_rings(paper)
        for id, description in self.own.items():
            lies = lying_on(KINDS[self.spec.members[id].spec.kind], self.at[id], paper)
            theirs = next((v for v in description.views if lies and v.id == lies.view), None)
            if lies is None or theirs is None:
                continue
            shown = [lies.dimension(d) for d in theirs.dimensions if alone or d.standing in BY_ITSELF]
            dimensions += [self._dimension(d, id) for d in shown]
            rings += [_grip(lies.grip(grip), view.id, id) for grip in theirs.grips if not self._held(grip, id)]
            if alone and not view.shapes:
                view = replace(view, marks=tuple(lies.mark(mark) for mark in theirs.marks))
        only = next(iter(self.own))
        if alone and not self.spec.pieces and self.at[only] == Stance():
            shapes = tuple(_of(shape, only) for shape in view.shapes)
        else:
            drawn_on = tuple(_of(shape, only) for shape in view.shapes if shape.role not in ("wood", "found"))
            shapes = (*seen_from(self.assembly, self.solids, paper.right, paper.up), *drawn_on)
        marks = tuple(replace(mark, part=f"{only}/{mark.part}") if mark.part else mark for mark in view.marks)
        return View(view.id, shapes, marks, tuple(dimensions), tuple(rings))

    def _held(self, grip: Grip, id: str) -> bool:
        """Whether a ring moves a size that follows another's."""
        moved = {measure_of(link.measure).quantity for link in self.spec.links if link.of == id}
        return self.follows(id, grip.id.rpartition(":")[2]) or not moved.isdisjoint(grip.moves)

    def _piece_rings(self, paper: Paper) -> list[Grip]:
        """A ring at both ends of every piece, to be dragged along its board."""
        made: list[Grip] = []
        for id, piece in self.spec.pieces.items():
            ends = (("a", piece.a), ("b", piece.b))
            for end, seat in ends[:1] if piece.pipe else ends:  # where a pipe ends follows from where it begins
                found = seat_on(paper, self.assembly.board(seat.board), seat)
                # A piece seen end on has one ring for both ends.
                if found and not any(hypot(g.at[0] - found[0][0], g.at[1] - found[0][1]) < 1.0 for g in made):
                    (x, y), long = found[1], hypot(*found[1])
                    made.append(Grip(f"piece:{paper.id}:{id}:{end}", found[0], (x / long, y / long)))
        return made

    def _dimension(self, d: Dimension, id: str) -> Dimension:
        """A dimension of a member in the project; one that follows another's is not typed over."""
        follows = self.follows(id, d.id)
        named = replace(
            d,
            id=f"{id}/{d.id}",
            label=f"{id}/{d.label}",
            acts=None if follows or d.acts is None else act_within(d.acts, id),
            standing="derived" if follows else d.standing,
            can_free=d.can_free and not follows,
        )
        return self.summed(named)

    def size(self, row: SizeRow, id: str) -> SizeRow:
        """A member's size in the list of all."""
        follows = self.follows(id, row.measure)
        return replace(
            row,
            measure=f"{id}/{row.measure}",
            acts=act_within(row.acts, id) if row.acts and not follows else None,
            standing="derived" if follows else row.standing,
            can_free=row.can_free and not follows,
        )

    def controls(self) -> tuple[Control, ...]:
        """How each one stands and what it follows, what is decided about it alone, and of the whole its pieces."""
        made: list[Control] = []
        for id, description in self.own.items():
            made += self._stands(id) if len(self.own) > 1 else []
            made += self._linked(id)
            made += [c for row in description.sizes for c in self._follows(id, row)]
            made += [_control(c, id) for c in description.controls]
            made += self._lies(id) if len(self.own) == 1 else []  # last: most frames lie as they are made
        made += self._pieces()
        return (*(self.summed(c) for c in made), *self._named(), self._more())

    def summed(self, of: Said) -> Said:
        """A figure with the sum that it was said as, if it was."""
        said = self.spec.sums.get(key_of(of.acts)) if of.acts else None
        return replace(of, sum=shown(said, self.spec.named)) if said else of

    def _named(self) -> list[Control]:
        """Sizes with a name, each to be typed over or taken away, and a line for one more."""
        made = []
        for id, size in self.spec.named.items():
            made.append(figure("named_size", "named", size.mm, f"named.{id}.mm", about=size.name))
            made.append(
                Control(
                    "named_away",
                    "named",
                    (Option("take_it_away", (Choose(op="choose", path="named", value=id),), False),),
                    about=size.name,
                    style="sentence",
                )
            )
        return [*made, Control("name_a_size", "named", acts=TypeIn(op="type", path="named", text=""), style="text")]

    def _stands(self, id: str) -> list[Control]:
        """What a member stands on, on which of its sides, how it is turned and moved."""
        group, path, member, ids = f"{id}/place", f"members.{id}", self.spec.members[id], list(self.spec.members)
        ground = [Choose(op="choose", path=f"{path}.{what}", value=None) for what in ("upon", "on")]
        options = [Option("on_ground", tuple(ground), member.on is None)]
        for below in ids[: ids.index(id)]:
            acts = (ground[0], Choose(op="choose", path=f"{path}.on", value=below))
            options.append(Option(f"on:{below}", acts, below == member.on))
        made = [Control("stands_on", group, tuple(options))] if len(options) > 1 else []
        if member.on is not None:
            under = solids_of(one_member(self.spec.members[member.on].spec))
            made += self._side("laid_upon", f"{path}.upon", "highest_wood", member.upon, under, self.at[member.on])
        made += self._side("lies", f"{path}.down", "as_made", member.down, solids_of(one_member(member.spec)))
        made.append(figure("turned_round", group, member.turned_deg, f"{path}.turned_deg", "deg"))
        for name, value in (("moved_right", member.right_mm), ("moved_back", member.back_mm), ("stands_higher", member.up_mm)):
            made.append(figure(name, group, value, f"{path}.{SHIFTS[name]}_mm"))
        return [replace(control, group=group) for control in made]

    def _lies(self, id: str) -> list[Control]:
        """On which of its sides the only member stands, where it is one that lies with its face to the reader."""
        member = self.spec.members[id]
        if KINDS[member.spec.kind].stands:
            return []
        made = self._side("lies", f"members.{id}.down", "as_made", member.down, solids_of(one_member(member.spec)))
        return [replace(control, group=f"{id}/place") for control in made]

    def _side(
        self, code: str, path: str, none: str, now: Facet | None, solids: dict[str, Solid], up: Stance | None = None
    ) -> list[Control]:
        """Every side on which an assembly can stand; with a stance, those of its sides that look up there."""
        chosen = now.model_dump() if now else None
        options = [Option(none, (Choose(op="choose", path=path, value=None),), now is None)]
        for facet, normal, ids in rests(solids):
            if up is not None and up.way(normal)[2] < LEVEL_ENOUGH:
                continue
            names = [solids[board].board.name for board in ids]
            which = f"{facet.facet.partition(':')[0]}:{names[0] if len(names) == 1 else f'{names[0]} and {len(names) - 1} more'}"
            value = facet.model_dump()
            options.append(Option(f"rests:{which}", (Choose(op="choose", path=path, value=value),), value == chosen))
        return [Control(code, "place", tuple(options[:MOST_SIDES]), style="list")] if len(options) > 1 else []

    def _linked(self, id: str) -> list[Control]:
        """Every size that follows another's, to be let go, and how much larger it is."""
        made, group = [], f"{id}/place"
        for k, link in enumerate(self.spec.links):
            if link.of != id:
                continue
            size, source = f"{id}/{link.measure}", f"{link.after}/{link.source}"
            go = Option("let_go", (Choose(op="choose", path=f"follow:{size}", value=None),), False)
            made.append(Control("linked", group, (go,), about=f"{size} {source}", style="sentence"))
            made.append(figure("follows_plus", group, link.plus_mm, f"links.{k}.plus_mm", about=size))
        return made

    def _follows(self, id: str, row: SizeRow) -> list[Control]:
        """For every given length: its own figure, or what another member measures."""
        link = next((link for link in self.spec.links if (link.of, link.measure) == (id, row.measure)), None)
        if (row.standing not in BY_ITSELF and link is None) or row.unit != "mm" or len(self.own) < 2:
            return []
        group, path, about = f"{id}/following", f"follow:{id}/{row.measure}", f"{id}/{row.measure}"
        options = [Option("own_figure", (Choose(op="choose", path=path, value=None),), link is None)]
        for other, description in self.own.items():
            if other == id or id in self.spec.followed_by(other):
                continue
            lengths = [size.measure for size in description.sizes if size.unit == "mm"]
            for measure in lengths[:SIZES_TO_FOLLOW]:
                source = f"{other}/{measure}"
                chosen = link is not None and (link.after, link.source) == (other, measure)
                options.append(Option(source, (Choose(op="choose", path=path, value=source),), chosen))
        return [Control("follows", group, tuple(options), about=about, style="list")]

    def _pieces(self) -> list[Control]:
        """On every fitted piece's card: where it ends, its section, how it lies."""
        made = []
        row = [(key, id) for id, piece in self.spec.pieces.items() for key in piece.keys(id)]
        for id, own in row:
            piece = self.spec.pieces[own]
            if piece.pipe:
                made += _pipe(own, piece, piece.pipe) if id == own else []
                continue
            path = f"pieces.{own}"
            for end, seat in (("a", piece.a), ("b", piece.b)):
                board = self.assembly.board(seat.board)
                start = "left" if starts_at(board) == "left" else "low"
                place = f"{path}.{end}"
                code = f"piece_{end}:{start}:{seat.board}:{board.name}"
                made.append(figure(code, "part", seat.along_mm, f"{place}.along_mm", about=id))
                if board.panel:
                    made.append(figure("piece_aside", "part", seat.aside_mm, f"{place}.aside_mm", about=id))
            answers: dict[str, object] = {"on_its_edge": False, "lying_flat": True}
            usual = {"diameter_mm": piece.thickness_mm, "into_mm": piece.thickness_mm / 3}
            kinds: Answers = {"a_board": (None, piece.pipe is None), "a_pipe": (usual, piece.pipe is not None)}
            made.append(choice("piece_is", "part", f"{path}.pipe", kinds, id))
            away = Choose(op="choose", path="pieces", value=own)
            made += [
                figure("piece_width", "part", piece.width_mm, f"{path}.width_mm", about=id),
                figure("piece_thickness", "part", piece.thickness_mm, f"{path}.thickness_mm", about=id),
                figure("piece_count", "part", float(piece.count), f"{path}.count", "count", id),
                *(
                    [figure("piece_step", "part", piece.step_mm, f"{path}.step_mm", about=id)]
                    if piece.step_mm is not None
                    else []
                ),
                one_of("piece_lies", "part", f"{path}.lies_flat", answers, piece.lies_flat, id),
                Control("piece_away", "part", (Option("take_it_away", (away,), False),), about=id),
            ]
        return made

    def _more(self) -> Control:
        """One more assembly on top, or one less."""
        several = len(self.own) > 1
        codes = STARTS if len(self.own) < MOST_MEMBERS else ()
        options = [Option(f"add:{code}", (Choose(op="choose", path="members", value=code),), False) for code in codes]
        if several:
            options.append(Option("one_assembly_less", (Choose(op="choose", path="members", value=None),), False))
        return Control("assemblies" if several else "add_assembly", "assemblies", tuple(options), style="menu")


def _pipe(id: str, piece: Piece, pipe: Pipe) -> list[Control]:
    """What there is to decide about a pipe: it has no card, for it is no wood."""
    path, about = f"pieces.{id}", piece.name
    board = Option("a_board", (Choose(op="choose", path=f"{path}.pipe", value=None),), False)
    away = Option("take_it_away", (Choose(op="choose", path="pieces", value=id),), False)
    return [
        figure("pipe_diameter", "pipes", pipe.diameter_mm, f"{path}.pipe.diameter_mm", about=about),
        figure("pipe_into", "pipes", pipe.into_mm, f"{path}.pipe.into_mm", about=about),
        figure("pipe_along", "pipes", piece.a.along_mm, f"{path}.a.along_mm", about=about),
        figure("pipe_aside", "pipes", piece.a.aside_mm, f"{path}.a.aside_mm", about=about),
        figure("pipe_count", "pipes", float(piece.count), f"{path}.count", "count", about),
        *([figure("pipe_step", "pipes", piece.step_mm, f"{path}.step_mm", about=about)] if piece.step_mm is not None else []),
        Control("pipe_is", "pipes", (board, away), about=about),
    ]


def _grip(grip: Grip, view: str, id: str) -> Grip:
    """A ring of one member: called by the view, whose it is and its own name."""
    return replace(grip, id=f"{view}/{id}/{grip.id}")


def _control(control: Control, id: str) -> Control:
    """A control of one member, under its id."""

    def within(acts: tuple[Edit, ...]) -> tuple[Edit, ...]:
        return tuple(act_within(act, id) for act in acts)

    part = control.group == "part"
    return replace(
        control,
        group=control.group if part else f"{id}/{control.group}",
        options=tuple(replace(o, acts=within(o.acts)) for o in control.options),
        acts=act_within(control.acts, id) if control.acts else None,
        about=f"{id}/{control.about}" if part else control.about,
    )

"""In which order it goes together: worked out by taking it apart, every part along a way that is really free."""

from collections.abc import Iterable, Sequence
from dataclasses import dataclass
from functools import cached_property
from itertools import combinations

from fennup.core.assembly.board import Board
from fennup.core.design import Design
from fennup.core.fit.meeting import Meeting
from fennup.core.fit.paths import Room
from fennup.core.fit.web import Web
from fennup.core.geometry.vec import Vec, add, dot, norm, scale, unit
from fennup.core.tolerances import SAME
from fennup.core.verify.near import bounds, overlap

AXES: tuple[Vec, ...] = ((0.0, 0.0, 1.0), (0.0, 0.0, -1.0), (1.0, 0.0, 0.0), (-1.0, 0.0, 0.0), (0.0, 1.0, 0.0), (0.0, -1.0, 0.0))
ABOVE: Vec = (0.0, 0.0, 1.0)
UPWARDS = 0.5  # the cosine from which on a face looks up
FEW = 4  # sides from which on a ring is made of two halves


@dataclass(frozen=True)
class Joining:
    """A step: `moved` comes to what is together already, drawn in against `way` (none: it must be sprung or tilted in), closing these joints. `closes`: it makes a ring
    whole; `halves`: two that were put together apart."""

    moved: tuple[str, ...]
    onto: tuple[str, ...]
    way: Vec | None
    joints: tuple[str, ...]
    closes: bool = False
    halves: bool = False
    loose: bool = False

    @property
    def key(self) -> str:
        """By which it is called: what is moved."""
        return "+".join(self.moved)


class Blocked(Exception):
    """An order in which a part cannot come to its place: which one, and what is in its way."""

    def __init__(self, key: str, by: tuple[str, ...]) -> None:
        super().__init__(key)
        self.key = key
        self.by = by


class Assembling:
    """Finds and checks the order in which an assembly is put together."""

    def __init__(self, design: Design, web: Web) -> None:
        self.design = design
        self.web = web
        self.place = {board.id: k for k, board in enumerate(design.assembly.boards)}

    @cached_property
    def room(self) -> Room:
        """Its wood."""
        return Room(self.design.solids)

    @cached_property
    def near(self) -> dict[str, set[str]]:
        """Which boards each one is joined to, or lies in."""
        found: dict[str, set[str]] = {id: set() for id in self.place}
        for m in self.web.meetings.all.values():
            found[m.a.id].add(m.b.id)
            found[m.b.id].add(m.a.id)
        # What lies in a groove with its play is joined to nothing, and hangs with what is round it all the same.
        boxes = {id: bounds(solid.boxes) for id, solid in self.design.solids.items()}
        for id in [id for id, others in found.items() if not others and self.design.boards[id].role != "leg"]:
            for other, box in boxes.items():
                if other != id and overlap(boxes[id], box):
                    found[id].add(other)
                    found[other].add(id)
        return found

    def between(self, moved: Iterable[str], onto: Iterable[str]) -> list[Meeting]:
        """The joints that two lots of boards have with each other."""
        one, other = set(moved), set(onto)
        return [
            m
            for m in self.web.meetings.all.values()
            if (m.a.id in one and m.b.id in other) or (m.b.id in one and m.a.id in other)
        ]

    def ways(self, moved: Sequence[str], onto: Sequence[str]) -> list[Vec]:
        """Directions in which some boards may come away: square to the joints, between those, along the axes and along themselves."""
        outs: list[Vec] = []
        one = set(moved)
        for m in self.between(moved, onto):
            outs.append(scale(m.normal, -1.0) if m.a.id in one else m.normal)
        total: Vec = (0.0, 0.0, 0.0)
        for out in outs:
            total = add(total, out)
        board = self.design.boards[moved[0]]
        found = [
            total,
            *outs,
            *AXES,
            board.frame.z,
            scale(board.frame.z, -1.0),
            board.frame.y,
            scale(board.frame.y, -1.0),
            board.frame.x,
            scale(board.frame.x, -1.0),
        ]
        kept: list[Vec] = []
        for way in found:
            if norm(way) > SAME and all(dot(unit(way), out) > -SAME for out in outs):
                made = unit(way)
                if all(dot(made, other) < 1 - SAME for other in kept):
                    kept.append(made)
        return kept

    def free_way(self, moved: Sequence[str], onto: Sequence[str]) -> Vec | None:
        """A direction in which they really come away from the others; None where there is none."""
        return next((way for way in self.ways(moved, onto) if self.room.is_free(moved, onto, way)), None)

    @cached_property
    def order(self) -> tuple[Joining, ...]:
        """All steps, first to last: one assembly after the other, each set on what it stands on."""
        steps: list[Joining] = []
        there: list[str] = [board.id for board in self.design.assembly.boards if board.found]
        for own in self._components():
            steps += self._built(own, there)
            there += own
        return tuple(steps)

    def _components(self) -> list[list[str]]:
        """What hangs together by joints, in the order in which it is built up; what is there already binds nothing."""
        left = [board.id for board in self.design.assembly.boards if not board.found]
        found = []
        while left:
            own, waiting = {left[0]}, [left[0]]
            while waiting:
                reached = self.near[waiting.pop()] & set(left) - own
                own |= reached
                waiting += reached
            found.append([id for id in left if id in own])
            left = [id for id in left if id not in own]
        return found

    def _built(self, own: list[str], there: list[str]) -> list[Joining]:
        """The steps by which some boards come together and stand with what is there already."""
        ground = [id for id in there if self.design.boards[id].found]
        before = ground if any(self.near[id] & set(ground) for id in own) else []
        others = [id for id in there if id not in before]
        made = self._together(own, before)
        if not before and others:
            made.append(self._step(own, others))
        return made

    def _step(
        self, moved: Sequence[str], onto: Sequence[str], *, closes: bool = False, halves: bool = False, way: Vec | None = None
    ) -> Joining:
        way = way or self.free_way(moved, onto)
        return Joining(
            tuple(moved), tuple(onto), way, tuple(m.joint.id for m in self.between(moved, onto)), closes, halves, way is None
        )

    def _together(self, own: list[str], before: list[str]) -> list[Joining]:
        if not own or (len(own) == 1 and not before):
            return []
        rings = self._rings(set(own))
        in_ring = {id for ring in rings for id in ring}
        apart = self._side_first(own, before)
        if apart:
            return apart
        # What is loose comes last: the latest of the boards that can come away and leave the rest hanging together.
        for id in sorted(own, key=lambda i: -self.place[i]):
            rest = [other for other in own if other != id]
            if id in in_ring or self.design.boards[id].role == "leg" or not self._hangs(rest, before):
                continue
            way = self.free_way([id], [*before, *rest])
            if way is not None:
                return [*self._together(rest, before), self._step([id], [*before, *rest], way=way)]
        for moved, rest, closes in self._splits(own, rings):
            way = self.free_way(moved, [*before, *rest])
            if way is not None and (self._hangs(rest, before) and self._hangs(moved, [])):
                first = self._together(rest, before)
                second = self._together(moved, [])
                return [*first, *second, self._step(moved, [*before, *rest], closes=closes, halves=len(moved) > 1, way=way)]
        return self._one_by_one(own, before, in_ring)

    def _side_first(self, own: list[str], before: list[str]) -> list[Joining]:
        """What belongs together is put together by itself and joined as one: the last such part of them, after what lies over several of
        them has come away upwards. Nothing where there is none, or where it cannot come away."""
        several = [side.boards for side in self.design.assembly.subassemblies if set(side.boards) < set(own)]
        belongs = {id for boards in several for id in boards}
        for id in sorted(own, key=lambda i: -self.place[i]) if len(several) > 1 else ():
            rest = [other for other in own if other != id]
            if (
                id not in belongs
                and self._hangs(rest, before)
                and self.room.is_free([id], [*before, *rest], ABOVE)
                and self._lies_on(id, rest)
            ):
                return [*self._together(rest, before), self._step([id], [*before, *rest], way=ABOVE)]
        for boards in reversed(several):
            rest = [other for other in own if other not in boards]
            way = self.free_way(boards, [*before, *rest]) if self._hangs(rest, before) and self._hangs(boards, []) else None
            if way is not None:
                return [
                    *self._together(rest, before),
                    *self._together(list(boards), []),
                    self._step(boards, [*before, *rest], way=way),
                ]
        return []

    def _lies_on(self, id: str, others: Sequence[str]) -> bool:
        """Whether a board lies on all of some others that it is joined to."""
        normals = [m.normal if m.b.id == id else scale(m.normal, -1.0) for m in self.between([id], others)]
        return bool(normals) and all(normal[2] > UPWARDS for normal in normals)

    def _one_by_one(self, own: list[str], before: list[str], in_ring: set[str]) -> list[Joining]:
        """The last board that comes away at all, whatever that leaves; where none does, the last one is sprung in."""
        for id in sorted(own, key=lambda i: -self.place[i]):
            rest = [other for other in own if other != id]
            way = self.free_way([id], [*before, *rest]) if rest or before else None
            if way is not None:
                return [*self._together(rest, before), self._step([id], [*before, *rest], closes=id in in_ring, way=way)]
        last = max(own, key=lambda i: self.place[i])
        rest = [other for other in own if other != last]
        return [*self._together(rest, before), self._step([last], [*before, *rest])] if rest or before else []

    def _rings(self, own: set[str]) -> list[list[str]]:
        """The closed rings that lie wholly within some boards."""
        found = []
        for loop in self.web.rings:
            ids = [m.joint.ends[0][0] for m in loop.joints]
            if set(ids) <= own:
                found.append(ids)
        return found

    def _splits(self, own: list[str], rings: list[list[str]]) -> Iterable[tuple[list[str], list[str], bool]]:
        """Ways to part some boards in two: a ring in halves, or one of its sides alone; two legs and what is only between them."""
        for ring in sorted(rings, key=self._high, reverse=True):  # what lies low comes first
            n = len(ring)
            if n >= FEW:
                for start in range(n):
                    half = [ring[(start + k) % n] for k in range(n // 2, n)]
                    yield from self._parted(own, half, ring)
            for id in reversed(ring):
                yield from self._parted(own, [id], ring)
        legs = [id for id in own if self.design.boards[id].role == "leg"]
        for pair in combinations(reversed(legs), 2):
            if len(legs) > 2:
                moved = [
                    *pair,
                    *(
                        id
                        for id in own
                        if id not in pair
                        and self.near[id]
                        and self.near[id] <= set(pair) | {i for i in own if self.near[i] <= set(pair)}
                    ),
                ]
                yield moved, [id for id in own if id not in moved], False

    def _high(self, boards: Sequence[str]) -> float:
        """How high some boards lie, in the middle."""
        heights = [p[2] for id in boards for box in self.design.solids[id].boxes for p in box]
        return round(sum(heights) / len(heights), 3)

    def _parted(self, own: list[str], half: list[str], ring: list[str]) -> Iterable[tuple[list[str], list[str], bool]]:
        only = [id for id in own if id not in ring and self.near[id] and self.near[id] <= set(half)]
        moved = [*half, *only]
        yield moved, [id for id in own if id not in moved], True

    def _hangs(self, boards: Sequence[str], before: Sequence[str]) -> bool:
        """Whether some boards, with what is there, hang together."""
        left = set(boards)
        if not left:
            return True
        waiting = [*before] or [next(iter(boards))]
        left -= set(waiting)
        while waiting:
            reached = self.near[waiting.pop()] & left
            left -= reached
            waiting += reached
        return not left

    def checked(self, wished: Sequence[str]) -> tuple[Joining, ...]:
        """The steps in another order, each with the way in which it comes then. Blocked where one cannot come to its place any more, or has nothing to come to."""
        by_key = {step.key: step for step in self.order}
        keys = [key for key in wished if key in by_key]
        keys += [step.key for step in self.order if step.key not in keys]
        needs = {key: [k for k in by_key if k != key and set(by_key[k].moved) < set(by_key[key].moved)] for key in keys}
        made: list[Joining] = []
        for place, key in enumerate(keys):
            late = [k for k in needs[key] if k in keys[place + 1 :]]
            if late:
                raise Blocked(key, by_key[late[0]].moved)
            made.append(self._as_it_comes(by_key[key], keys[:place], by_key))
        return tuple(made)

    def _as_it_comes(self, step: Joining, before: Sequence[str], by_key: dict[str, Joining]) -> Joining:
        """A step with all that is together with what it comes onto by then."""
        onto = set(step.onto)
        inside = {id for id in step.moved}
        for key in before:
            earlier = by_key[key]
            own = set(earlier.moved)
            if not own & inside and (own | set(earlier.onto)) & onto:
                onto |= own
        later = {
            id
            for key, other in by_key.items()
            if key not in before and key != step.key and not set(other.moved) < inside
            for id in other.moved
            if not set(other.moved) >= inside
        }
        onto -= later - self._starts(by_key)
        kept = tuple(sorted(onto, key=lambda id: self.place[id]))
        way = self.free_way(step.moved, kept)
        if way is None and not step.loose:
            raise Blocked(step.key, tuple(id for id in kept if id not in step.onto) or kept)
        return Joining(
            step.moved,
            kept,
            way,
            tuple(m.joint.id for m in self.between(step.moved, kept)),
            step.closes,
            step.halves,
            way is None,
        )

    def _starts(self, by_key: dict[str, Joining]) -> set[str]:
        """The boards that never come: to which the others come."""
        alone = {id for step in by_key.values() if len(step.moved) == 1 for id in step.moved}
        return {id for id in self.place if id not in alone}

    def board(self, id: str) -> Board:
        """A board by key."""
        return self.design.boards[id]

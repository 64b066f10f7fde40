"""Every kind of joint of a design with what holds it: which fastener, how long, where each one goes, and what speaks against it."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass, replace
from functools import cached_property
from math import ceil

from fennup.core.assembly.model import Joint
from fennup.core.design import Design
from fennup.core.errors import SpecError
from fennup.core.fasten.choice import USUAL_CHOICE, Fastening
from fennup.core.fasten.joints import KindOfJoint, kinds_of_joint
from fennup.core.fasten.length import Lengths, bite_mm, lengths_for, lengths_for_all
from fennup.core.fasten.meeting import Driven, over_head
from fennup.core.fasten.pattern import Line, has_room, places_along, row_of
from fennup.core.fasten.slots import Slot
from fennup.core.fasten.table import BEHIND, HOWS, STRAIGHT, Bolt, Dowel, Fasteners, How, Screw, Straight
from fennup.core.fasten.through import Stack, stacks_of
from fennup.core.tolerances import NOTHING

BRACKET_MM = 2.0  # how thick an angle of metal is
SCREWED_MM = 70.0  # what one screws straight through; thicker boards are bolted
SLIM_MM = 22.0  # wood thinner than this takes the thinnest screws
STOUT_MM = 40.0  # and wood at least so thick stout ones
USUAL_TIMES = 2.5  # of what it goes through: how long a screw usually is
TRIED = 12
PER_BEHIND = {"block": 4, "bracket": 4, "backing": 4}


@dataclass(frozen=True)
class Fastened:
    """A kind of joint, and what holds it. Lengths in mm; nothing is asked for that the choice says already."""

    design: Design
    kind: KindOfJoint
    fasteners: Fasteners
    choice: Fastening = USUAL_CHOICE

    @cached_property
    def hows(self) -> tuple[How, ...]:
        """What can hold it: nothing goes straight through where no board is thin enough."""
        return tuple(how for how in HOWS if how not in STRAIGHT or self.kind.stacks)

    @cached_property
    def how(self) -> How:
        """As it is chosen, else as is usual: screws through a board that one can screw through, bolts through thick ones, biscuits in miters of wood
        that takes their slots; where none of that goes, glue where boards are let into each other or laid on each other, else brackets."""
        if self.choice.how in self.hows:
            return self.choice.how
        joint = self.kind.joints[0]
        if joint.kind in ("miter", "edge"):
            return "biscuit" if Slot(self.design, self.kind, self.fasteners, self.choice, "biscuit").fitting else "glue"
        usual: How = "screw" if self.square and self.square.through_mm <= SCREWED_MM else "bolt"
        if self.square and self._fits(self.square, self._size(usual, self.square), usual):
            return usual
        if joint.kind in ("lap", "face"):
            return "glue"
        return "dowel" if self.square and self._fits(self.square, self._size("dowel", self.square), "dowel") else "bracket"

    @cached_property
    def square(self) -> Stack | None:
        """Straight through, square to where they meet, from the side that is chosen."""
        stacks = self.kind.stacks
        return stacks[-1 if self.choice.other_side and len(stacks) > 1 else 0] if stacks else None

    @cached_property
    def stack(self) -> Stack | None:
        """The real way of its fasteners, leaning as it is chosen."""
        if self.square is None or not (self.choice.lean_deg and self.how in STRAIGHT):
            return self.square
        line = Line(self.design, self.kind.joints[0], self.square.near, self.choice.wish)
        return line.at(0.0)

    @cached_property
    def straight(self) -> Straight | None:
        """Which size goes in: as it is chosen, else by how thick the wood is and which of them comes in a length that does."""
        if self.how not in (*STRAIGHT, *BEHIND) or self._about is None:
            return None
        chosen = self.fasteners.of(self.how).get(self.choice.size or "")
        return chosen or self._size(self.how, self._about)

    def _size(self, how: How, stack: Stack) -> Straight:
        """The usual size for how thick the wood is, else the next one that has room and comes in a length that does."""
        by_thickness = sorted(self.fasteners.of(how).values(), key=lambda one: one.shank_mm)
        thin = min(stack.through_mm, stack.into_mm)
        usual = by_thickness[0 if thin < SLIM_MM else min(1, len(by_thickness) - 1) if thin < STOUT_MM else -1]
        return next((one for one in (usual, *reversed(by_thickness)) if self._fits(stack, one, how)), usual)

    def _fits(self, stack: Stack, one: Straight, how: How) -> bool:
        """Whether a size has room there and comes in a length that does."""
        rules = self.fasteners.rules_of(how)

        def does(place: Stack) -> bool:
            return bool(lengths_for(place, one, rules, self.sunk_mm).fitting_mm)

        if not stack.near:
            return does(stack)
        line = Line(self.design, self.kind.joints[0], stack.near, self.choice.wish)
        tried = (line.at(line.low + (line.high - line.low) * k / TRIED) for k in range(1, TRIED))
        return any(place and does(place) and has_room(self.design, place, one.shank_mm, rules) for place in tried)

    @cached_property
    def thick_mm(self) -> float:
        """How thick what is put behind is: as chosen, of metal, else as the thinner board."""
        if self.choice.thick_mm:
            return self.choice.thick_mm
        if self.how == "bracket":
            return BRACKET_MM
        joint = self.kind.joints[0]
        return min(self.design.boards[m.board].section.thickness_mm for m in (joint.a, joint.b))

    @cached_property
    def places(self) -> tuple[Stack, ...]:
        """Where every one of them goes, in all joints; where there is no row, the one that a size is picked by."""
        placed = tuple(stack for row in self.rows for stack in row)
        return placed or ((self._about,) if self._about else ())

    @cached_property
    def through(self) -> Stack | None:
        """What one fastener goes through, of all that there are that which has least wood before it: both boards, or what is put behind and the thinner
        of them."""
        return min(self.places, key=lambda stack: stack.through_mm + stack.into_mm, default=None)

    @cached_property
    def _about(self) -> Stack | None:
        """The same in the middle of the joint, by which a size is picked."""
        if self.how not in BEHIND:
            return self.stack or self.square
        joint = self.kind.joints[0]
        board = min((self.design.boards[m.board] for m in (joint.a, joint.b)), key=lambda b: b.section.thickness_mm)
        return Stack(joint.id, "", board.id, (0.0, 0.0, 0.0), board.frame.z, self.thick_mm, board.section.thickness_mm, 90.0)

    @cached_property
    def cover(self) -> str | None:
        """The board that lies over the head of one of them, which then must be sunk."""
        if self.how not in STRAIGHT or self.stack is None or isinstance(self.straight, Dowel):
            return None
        return over_head(self.design, Driven(self.stack, next(iter(self.fasteners.screws.values())), 1.0))

    @cached_property
    def covers(self) -> dict[str, tuple[int, int]]:
        """Boards that lie over heads, strips on a rail above all: over how many, and of how many in that joint's row."""
        found: dict[str, tuple[int, int]] = {}
        if isinstance(self.straight, Dowel):
            return found
        for row in self.rows:
            for stack in row:
                board = over_head(self.design, Driven(stack, next(iter(self.fasteners.screws.values())), 1.0))
                if board:
                    found[board] = (found.get(board, (0, 0))[0] + 1, len(row))
        return found

    @property
    def sunk_mm(self) -> float:
        """How far heads are sunk."""
        return self.choice.sunk_mm

    @cached_property
    def lengths(self) -> Lengths | None:
        """How long it may be and should be, at every place where one goes."""
        if self.straight is None or not self.places:
            return None
        return lengths_for_all(self.places, self.straight, self.fasteners.rules_of(self.how), self.sunk_mm)

    @cached_property
    def length_mm(self) -> float | None:
        """As chosen; else, of those of the shop that are safe and useful, the one that comes nearest to what is usual: some two and a half times what it
        goes through; of bolts the shortest, of dowels the longest; none where none does."""
        if self.choice.length_mm is not None and self.straight is not None:
            return self.choice.length_mm
        if self.lengths is None or self.through is None or not self.lengths.fitting_mm:
            return None
        if isinstance(self.straight, Bolt | Dowel):
            return self.lengths.fitting_mm[0 if isinstance(self.straight, Bolt) else -1]
        usual = USUAL_TIMES * self.through.through_mm
        return min(self.lengths.fitting_mm, key=lambda length: abs(length - usual))

    def begins_mm(self, stack: Stack) -> float:
        """How far along its way it begins: its head is sunk so far; a dowel lies half in each board."""
        half_in = isinstance(self.straight, Dowel) and self.length_mm is not None
        return stack.through_mm - (self.length_mm or 0.0) / 2 if half_in else self.sunk_mm

    @property
    def bite_mm(self) -> float | None:
        """How far it reaches into the far part, where that is least; half of a dowel."""
        if self.length_mm is None or not self.places:
            return None
        if isinstance(self.straight, Dowel):
            return self.length_mm / 2
        return min(bite_mm(stack, self.length_mm, self.sunk_mm) for stack in self.places)

    @property
    def left_mm(self) -> float | None:
        """The wood that is left over its tip, where that is least; less than 0 where it comes out."""
        if self.length_mm is None or not self.places or isinstance(self.straight, Bolt):
            return None
        if isinstance(self.straight, Dowel):
            return min(stack.into_mm for stack in self.places) - self.length_mm / 2
        return min(stack.into_mm - bite_mm(stack, self.length_mm, self.sunk_mm) for stack in self.places)

    @cached_property
    def rows(self) -> tuple[tuple[Stack, ...], ...]:
        """Where they go, joint by joint; of the others where they are in the first. Each where there is wood for some length, all in one joint where there is
        for the same one; where no place is such, wherever there is room: what speaks against it is told."""
        if self.how not in STRAIGHT or self.straight is None or self.square is None:
            return ()
        rules, straight = self.fasteners.rules_of(self.how), self.straight
        rows = self._laid(lambda place: bool(self._fitting(place)))
        if not any(rows):
            return rows if self.choice.length_mm is None else self._laid(lambda place: True)
        if all(not row or lengths_for_all(row, straight, rules, self.sunk_mm).fitting_mm for row in rows):
            return rows
        each = [self._laid(lambda place, long=long: long in self._fitting(place)) for long in straight.lengths_mm]  # type: ignore[misc]
        return max(each, key=lambda made: sum(map(len, made)))

    def _laid(self, does: Callable[[Stack], bool]) -> tuple[tuple[Stack, ...], ...]:
        """The rows of all joints, at places that do."""
        assert self.straight and self.square
        shank, rules, wish = self.straight.shank_mm, self.fasteners.rules_of(self.how), self.choice.wish
        far = {stack.near: k for k, stack in enumerate(self.kind.stacks)}[self.square.near]
        rows: list[tuple[Stack, ...]] = []
        known: list[float] = []
        for joint in self.kind.joints:
            stacks = self.kind.stacks if not rows else tuple(stacks_of(self.design, joint))
            if far >= len(stacks):
                rows.append(())
                continue
            row = row_of(self.design, joint, stacks[far].near, shank, rules, wish, known, does)
            known = known or places_along(self.design, joint, stacks[far].near, row, wish)
            rows.append(tuple(row))
        return tuple(rows)

    def _fitting(self, place: Stack) -> tuple[float, ...]:
        """The lengths for which there is wood at a place."""
        assert self.straight
        return lengths_for(place, self.straight, self.fasteners.rules_of(self.how), self.sunk_mm).fitting_mm

    @cached_property
    def split(self) -> tuple[KindOfJoint, ...]:
        """Its kind; where one length does not serve all its joints, those that one serves together."""
        if not self.rows or self.straight is None or self.choice.length_mm is not None:
            return (self.kind,)
        groups: list[tuple[list[Joint], set[float]]] = []
        for joint, row in zip(self.kind.joints, self.rows, strict=True):
            serves = set.intersection(*({*self._fitting(place)} for place in row)) if row else set()
            home = next((g for g in groups if g[1] & serves or not serves), None)
            if home:
                home[0].append(joint)
                home[1].intersection_update(serves or home[1])
            else:
                groups.append(([joint], serves))
        if len(groups) == 1:
            return (self.kind,)
        return tuple(replace(self.kind, joints=tuple(js), stacks=tuple(stacks_of(self.design, js[0]))) for js, _ in groups)

    @property
    def glued(self) -> bool:
        """Whether it is glued: as chosen; bolts and brackets are there to be taken apart."""
        return self.choice.glued and self.how not in ("bolt", "bracket")

    @property
    def count(self) -> int:
        """How many it takes, all joints together."""
        if self.how in STRAIGHT:
            return sum(len(row) for row in self.rows)
        if self.how == "biscuit":
            return self.slot.count * len(self.kind.joints)
        return len(self.kind.joints) if self.how != "glue" else 0

    @property
    def screws_behind(self) -> int:
        """How many screws hold what is put behind, all joints together."""
        return PER_BEHIND[self.how] * len(self.kind.joints) if self.how in BEHIND else 0

    @cached_property
    def slot(self) -> Slot:
        """Its slots, where biscuits or a spline hold it."""
        return Slot(self.design, self.kind, self.fasteners, self.choice, self.how)

    @property
    def holes(self) -> tuple[float, float] | None:
        """The drills, mm, in soft and in hard wood, of what is to be drilled for besides a screw's clearance."""
        one = self.straight
        return (one.pilot_soft_mm, one.pilot_hard_mm) if isinstance(one, Screw) else None


def fastened(
    design: Design, fasteners: Fasteners, choices: Mapping[str, Fastening], known: Sequence[Fastened] = ()
) -> list[Fastened]:
    """Every kind of joint with what holds it. `known`: what was worked out before; of the same design and fasteners, chosen alike, it is taken over."""
    if not known or known[0].design is not design or known[0].fasteners != fasteners:
        known = [Fastened(design, kind, fasteners) for kind in kinds_of_joint(design)]
    found = []
    for one in known:
        choice = next((choices[j.id] for j in one.kind.joints if j.id in choices), USUAL_CHOICE)
        now = one if one.choice == choice else Fastened(design, one.kind, fasteners, choice)
        found += [now] if len(now.split) == 1 else [Fastened(design, kind, fasteners, choice) for kind in now.split]
    return found


def check_choice(fasteners: Fasteners, key: str, choice: Fastening) -> None:
    """SpecError `no_such_size` where the shop has no such size."""
    sizes = fasteners.biscuits if choice.how == "biscuit" else fasteners.of(choice.how or "screw")
    if choice.size and choice.size not in sizes and choice.size not in fasteners.biscuits:
        raise SpecError("no_such_size", (f"joints/{key}/size",), name=choice.size)


def all_driven(found: Sequence[Fastened]) -> list[tuple[str, Driven]]:
    """Every straight fastener of the whole, with its joint's id."""
    driven = []
    for one in found:
        if one.straight is None or one.length_mm is None:
            continue
        for joint, row in zip(one.kind.joints, one.rows, strict=False):
            driven += [(joint.id, Driven(stack, one.straight, one.length_mm, one.begins_mm(stack))) for stack in row]
    return driven


def pieces_needed(found: Sequence[Fastened], spare_part: float) -> dict[tuple[str, str, float], int]:
    """What to buy: how, size and length to a number, with spares."""
    counts: dict[tuple[str, str, float], int] = {}
    for one in found:
        if one.straight is not None and one.length_mm is not None:
            how = "screw" if one.how in BEHIND else one.how
            key = (how, one.straight.name, one.length_mm)
            counts[key] = counts.get(key, 0) + (one.screws_behind if one.how in BEHIND else one.count)
        if biscuit := one.slot.biscuit:
            key = ("biscuit", biscuit.name, biscuit.long_mm)
            counts[key] = counts.get(key, 0) + one.count
        if one.how in BEHIND:
            key = (one.how, "", one.thick_mm)
            counts[key] = counts.get(key, 0) + one.count
    return {key: ceil(count * (1 + spare_part) - NOTHING) for key, count in counts.items() if count}

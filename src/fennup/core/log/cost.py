"""What a thing costs: the used share of every board, what is bought in small, hours; and what it brings."""

from collections.abc import Sequence
from dataclasses import dataclass

MM3_PER_M3 = 1e9


@dataclass(frozen=True)
class BoardUsed:
    """A board of the plan: `price` of the whole, None where it has none; `used`: its share that is not kept, 0 to 1; the wood in it, cubic mm."""

    name: str
    bought: bool
    price: float | None
    used: float
    volume_mm3: float

    def cost(self, wood_m3: float | None) -> float | None:
        """What of it is used costs: by its own price, else by that of a cubic metre; None where neither is known."""
        if self.bought and self.price is not None:
            return self.price * self.used
        return None if wood_m3 is None else self.volume_mm3 / MM3_PER_M3 * self.used * wood_m3


@dataclass(frozen=True)
class Bought:
    """Something bought in small: so much of it, and what one of it costs, if that is known."""

    name: str
    much: float
    unit: str
    price: float | None

    @property
    def cost(self) -> float | None:
        """Together."""
        return None if self.price is None else self.much * self.price


@dataclass(frozen=True)
class Cost:
    """All of it, in one currency. `unknown`: what has no price yet, by name; `hours`: of work, made or planned; `other`: whatever else it costs."""

    boards: float
    small: float
    other: float
    hours: float
    unknown: tuple[str, ...]

    @property
    def materials(self) -> float:
        """Everything but hours."""
        return self.boards + self.small + self.other

    def per_hour(self, price: float) -> float | None:
        """What an hour earns at a price; None without hours."""
        return (price - self.materials) / self.hours if self.hours > 0 else None

    def price_for(self, rate_h: float) -> float:
        """The price at which an hour earns so much."""
        return self.materials + rate_h * self.hours

    def share_of_hours(self, rate_h: float) -> float:
        """How much of that price is hours, 0 to 1."""
        price = self.price_for(rate_h)
        return rate_h * self.hours / price if price > 0 else 0.0


def cost_of(boards: Sequence[BoardUsed], small: Sequence[Bought], wood_m3: float | None, other: float, hours: float) -> Cost:
    """What it comes to."""
    priced = [(board.name, board.cost(wood_m3)) for board in boards] + [(one.name, one.cost) for one in small]
    unknown = tuple(dict.fromkeys(name for name, cost in priced if cost is None))
    for_boards = sum(board.cost(wood_m3) or 0.0 for board in boards)
    return Cost(for_boards, sum(one.cost or 0.0 for one in small), other, hours, unknown)


def used_share(
    length_mm: float, width_mm: float, kept: Sequence[tuple[float, float]], own_mm: float = 1.0, every_mm: float = 1.0
) -> float:
    """The share of a board that a project uses up: all but the offcuts that go back to the rack, each (length, width); of what several projects are cut
    from, by how long its own pieces are of all."""
    return (1.0 - sum(long * wide for long, wide in kept) / (length_mm * width_mm)) * own_mm / every_mm

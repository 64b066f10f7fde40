"""Whether a gauge's zero is true: laid on the saw's table, then turned end for end, it reads as much the other way."""

from dataclasses import dataclass

TRUE_DEG = 0.1  # finer than any joint shows, and about what such a gauge tells


@dataclass(frozen=True)
class Zero:
    """By how much every reading is too large, and how far the table itself is off level, degrees."""

    error_deg: float
    table_deg: float

    @property
    def is_true(self) -> bool:
        """Whether it can be left so."""
        return abs(self.error_deg) <= TRUE_DEG


def zero_from(first_deg: float, turned_deg: float) -> Zero:
    """Two readings on the same place, the gauge turned end for end between them: what does not change its sign is the gauge's own."""
    return Zero((first_deg + turned_deg) / 2, (first_deg - turned_deg) / 2)

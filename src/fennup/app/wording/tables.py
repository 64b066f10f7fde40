"""The kinds' tables of words and those that serve all, as one: checked when the application starts."""

from collections.abc import Iterable
from typing import TypeVar

from fennup.core.kinds.catalogue import KINDS
from fennup.core.kinds.registry import Kind

Value = TypeVar("Value")


def merged(what: str, *tables: dict[str, Value]) -> dict[str, Value]:
    """Several tables as one. ValueError names a code that has words in two of them."""
    found: dict[str, Value] = {}
    for table in tables:
        twice = sorted(found.keys() & table.keys())
        if twice:
            raise ValueError(f"{what}: {', '.join(twice)} has words twice")
        found |= table
    return found


def check_words(kinds: Iterable[Kind]) -> None:
    """ValueError where a kind begins something that has no name, or names what it does not begin."""
    for kind in kinds:
        unlike = sorted(kind.starts.keys() ^ kind.words.starts.keys())
        if unlike:
            raise ValueError(f"{kind.name}: the starts and their words are unlike: {', '.join(unlike)}")
        for text in (kind.words.whole, kind.words.family, kind.words.part):
            if not text:
                raise ValueError(f"{kind.name} has no word for itself, its family or its parts")


check_words(KINDS.values())

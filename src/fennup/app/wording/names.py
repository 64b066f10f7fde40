"""Names of several boards together: what they have in common is said once. A name is a word, a place, and where that is:
`Wall A (front), course 2`."""

import re
from dataclasses import dataclass
from itertools import pairwise

_NAME = re.compile(r"(.+?) ([A-Z0-9]\w{0,3})(?: \(([^)]+)\))?(?:, course (\d+))?")
_PLACE = re.compile(r"([A-X]*)([0-9]*)")
_PLURALS = {"Shelf": "Shelves", "Foot": "Feet"}


@dataclass(frozen=True)
class Name:
    """A board's name in its pieces; one without a place is all `word`."""

    word: str
    place: str = ""
    where: str = ""
    course: str = ""


def pieces_of(name: str) -> Name:
    """A board's name taken apart."""
    found = _NAME.fullmatch(name)
    return Name(*(piece or "" for piece in found.groups())) if found else Name(name)


def plural(word: str) -> str:
    """Of a board's word."""
    return _PLURALS.get(word, f"{word}s")


def together(names: list[str]) -> str:
    """Walls A to D; Walls A and C (front and back); Walls A and B, course 1; Backs 1 to 4 and fronts 1 to 4; Left side and lid."""
    if len(names) == 1:
        return names[0]
    found = [pieces_of(name) for name in names]
    if not all(name.place for name in found):
        first, *rest = dict.fromkeys(names)
        return listed([first, *map(_lowered, rest)])
    by_word: dict[str, list[Name]] = {}
    for name in found:
        by_word.setdefault(name.word, []).append(name)
    first, *rest = [_several(word, of) for word, of in by_word.items()]
    courses = list(dict.fromkeys(name.course for name in found if name.course))
    tail = f", course{'s' if len(courses) > 1 else ''} {_run(courses)}" if courses else ""
    return listed([first, *map(_lowered, rest)]) + tail


def _several(word: str, names: list[Name]) -> str:
    places = list(dict.fromkeys(name.place for name in names))
    wheres = list(dict.fromkeys(name.where for name in names if name.where))
    where = f" ({listed(wheres)})" if wheres and len(places) < 3 else ""
    return f"{plural(word) if len(places) > 1 else word} {_run(places)}{where}"


def listed(texts: list[str]) -> str:
    """A, B and C."""
    return " and ".join([", ".join(texts[:-1]), texts[-1]] if len(texts) > 1 else texts)


def in_sentence(name: str) -> str:
    """A board's name inside a sentence: `rail A`, `the top`, `wall A (front)`."""
    return _lowered(name) if pieces_of(name).place else f"the {_lowered(name)}"


def meeting(a: str, b: str) -> str:
    """Two boards that meet, inside a sentence: `walls A and B`, `walls A and B, course 1`, `the left rafter and the ridge`."""
    one, other = pieces_of(a), pieces_of(b)
    if one.place and one.word == other.word and one.course == other.course:
        return f"{_lowered(plural(one.word))} {one.place} and {other.place}" + (f", course {one.course}" if one.course else "")
    return f"{in_sentence(a)} and {in_sentence(b)}"


def _lowered(text: str) -> str:
    return text[:1].lower() + text[1:]


def _run(places: list[str]) -> str:
    """A; A and B; A to F; A, C and E where some between them are another part."""
    if len(places) > 2 and all(_is_next(a, b) for a, b in pairwise(places)):
        return f"{places[0]} to {places[-1]}"
    return listed(places)


def _is_next(a: str, b: str) -> bool:
    """Whether one place comes right after another: 1 and 2, A and B, A1 and B1, A1 and A2."""
    one, other = _PLACE.fullmatch(a), _PLACE.fullmatch(b)
    if not one or not other:
        return False
    letters, numbers = (one[1], other[1]), (int(one[2] or 0), int(other[2] or 0))
    if letters[0] == letters[1]:
        return numbers[1] == numbers[0] + 1
    return numbers[0] == numbers[1] and len(letters[0]) == len(letters[1]) == 1 and ord(letters[1]) == ord(letters[0]) + 1


# A panel's edges, by where they look; one that looks aslant is a slope of an upright panel, an edge of a leaning one.
_ROUND = ("right", "back right", "back", "back left", "left", "front left", "front", "front right")
_EDGES = {"up": "top", "down": "bottom", **{way: f"{way} edge" for way in _ROUND}}
_UPRIGHT = {"aslant up": "slope", "aslant down": "slope underneath"}
_LEANING = {"aslant up": "upper edge", "aslant down": "lower edge"}
ACROSS = {
    **{way: "left to right" for way in _ROUND},
    "front": "front to back",
    "back": "front to back",
    "up": "top to bottom",
    "down": "top to bottom",
    "aslant up": "up the slope",
    "aslant down": "up the slope",
}


def edges_together(ways: list[str], upright: bool) -> str:
    """Bottom; Front and back edges; 2 slopes: the edges of a panel, by where they look."""
    counts: dict[str, int] = {}
    for way in ways:
        name = {**_EDGES, **(_UPRIGHT if upright else _LEANING)}[way]
        counts[name] = counts.get(name, 0) + 1
    if len(counts) > 1 and all(name.endswith(" edge") and n == 1 for name, n in counts.items()):
        return f"{listed([name.removesuffix(' edge') for name in counts])} edges".capitalize()
    return listed([name if n == 1 else f"{n} {plural(name)}" for name, n in counts.items()]).capitalize()

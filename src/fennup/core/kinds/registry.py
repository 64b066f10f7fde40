"""The kinds that there are. Each offers the same few things, so that nothing else needs to know one from another."""

from collections.abc import Callable
from dataclasses import dataclass, field
from typing import Any

from pydantic import BaseModel

from fennup.core.assembly.model import Assembly
from fennup.core.drawing.edit import Edit, Rescale
from fennup.core.drawing.view import Description
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid
from fennup.core.stock.section import Section
from fennup.core.units.lengths import Tape


@dataclass(frozen=True)
class Called:
    """What a sort of board is called in a sentence (nothing: as its name says), and its sides and edges."""

    piece: str
    face: str
    back: str
    upper: str
    lower: str


@dataclass(frozen=True)
class Words:
    """What a kind's things are called, by the codes that it gives out. Sentences hold figures as `{mm:length}`; see
    `wording/sentences`.

    `whole`, `family` and `part`: the thing, its like, and most of its parts; `starts`: a start's name and its first project's;
    `lines` that sizes lie on; `measures`: sizes of a side, which stands as `{side}` or follows; `roles` of boards.
    """

    whole: str
    family: str
    part: str
    starts: dict[str, tuple[str, str]]
    facts: dict[str, str]
    roles: dict[str, Called]
    labels: dict[str, str]
    findings: dict[str, str]
    refusals: dict[str, str]
    lines: dict[str, str] = field(default_factory=dict)
    measures: dict[str, str] = field(default_factory=dict)


@dataclass(frozen=True)
class Around:
    """A level of an assembly that another one meets: how many sides go round there, and the sizes that say how wide it is: width
    and depth, or one across flats."""

    sides: int
    measures: tuple[str, ...]


def _no_top(spec: Any) -> Around | None:
    return None


def _no_section(spec: Any) -> Section | None:
    return None


def _set_on_nothing(spec: Any, sides: int, across: tuple[float, ...]) -> tuple[Any, tuple[str, ...]] | None:
    return None


@dataclass(frozen=True)
class Kind:
    """A family of assemblies: its name, its title, what one is called in a project, the spec's model, and what it does: place boards, take an act, show itself.

    `settle` puts a spec's sizes where what was given puts them; `free_sizes` are those that it leaves open. `starts` are specs to begin a new project with, by code; `stands` where z is
    up rather than towards the reader. `rescale` brings the whole to another size; `has_levels`: whether anything stands at a height in it.
    `top`: what goes round where another assembly stands on this one; `set_on`: a spec of its own brought to as many sides and as
    wide as what it is to stand on, with the sizes that say so, one for each given; nothing where it cannot.
    `profile`: how its boards look cut across, where they may be of a moulding; then choosing `moulding` makes them of another one (`ploughing.Profile`).
    """

    name: str
    title: str
    called: str
    spec: type[BaseModel]
    settle: Callable[[Any], Any]
    free_sizes: Callable[[Any], tuple[str, ...]]
    assemble: Callable[[Any], Assembly]
    edit: Callable[[Any, Edit, Tape], dict[str, Any]]
    describe: Callable[[Any, Ruler, dict[str, Solid]], Description]
    starts: dict[str, dict[str, Any]]
    stands: bool
    rescale: Callable[[Any, Rescale, Tape], dict[str, Any]]
    has_levels: Callable[[Any], bool]
    words: Words
    top: Callable[[Any], Around | None] = _no_top
    set_on: Callable[[Any, int, tuple[float, ...]], tuple[Any, tuple[str, ...]] | None] = _set_on_nothing
    profile: Callable[[Any], Section | None] = _no_section

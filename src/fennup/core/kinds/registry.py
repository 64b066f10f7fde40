"""The kinds that there are. Each offers the same few things, so that nothing else needs to know one from another."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from pydantic import BaseModel

from fennup.core.assembly.model import Assembly
from fennup.core.drawing.edit import Edit, Rescale
from fennup.core.drawing.view import Description
from fennup.core.parts.measure import Ruler
from fennup.core.parts.solid import Solid
from fennup.core.units.lengths import Tape


@dataclass(frozen=True)
class Kind:
    """A family of assemblies: its name, its title, what one is called in a project, the spec's model, and what it does: place boards, take an act, show itself.

    `settle` puts a spec's sizes where what was given puts them. `starts` are specs to begin a new project with, by code; `stands` where z is
    up rather than towards the reader. `rescale` brings the whole to another size; `has_levels`: whether anything stands at a height in it.
    """

    name: str
    title: str
    called: str
    spec: type[BaseModel]
    settle: Callable[[Any], Any]
    assemble: Callable[[Any], Assembly]
    edit: Callable[[Any, Edit, Tape], dict[str, Any]]
    describe: Callable[[Any, Ruler, dict[str, Solid]], Description]
    starts: dict[str, dict[str, Any]]
    stands: bool
    rescale: Callable[[Any, Rescale, Tape], dict[str, Any]]
    has_levels: Callable[[Any], bool]

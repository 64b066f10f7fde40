"""The kinds that there are. Each offers the same few things, so that nothing else needs to know one from another."""

from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from pydantic import BaseModel

from fennup.core.assembly.model import Assembly


@dataclass(frozen=True)
class Kind:
    """A family of assemblies: its name, the spec's model, and the function that places its boards."""

    name: str
    title: str
    spec: type[BaseModel]
    assemble: Callable[[Any], Assembly]

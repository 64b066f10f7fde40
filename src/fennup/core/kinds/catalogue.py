"""Every kind by name: a new kind is entered here and nowhere else."""

from fennup.core.kinds.registry import Kind
from fennup.core.kinds.singles import SINGLES
from fennup.core.kinds.together import TOGETHER

KINDS: dict[str, Kind] = {kind.name: kind for kind in (*SINGLES.values(), TOGETHER)}

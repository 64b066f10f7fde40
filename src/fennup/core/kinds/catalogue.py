"""Every kind by name: a new kind is entered here and nowhere else."""

from fennup.core.kinds.flat_frame import FLAT_FRAME
from fennup.core.kinds.registry import Kind
from fennup.core.kinds.singles import SINGLES
from fennup.core.kinds.together import TOGETHER

KINDS: dict[str, Kind] = {kind.name: kind for kind in (FLAT_FRAME, *SINGLES.values(), TOGETHER)}

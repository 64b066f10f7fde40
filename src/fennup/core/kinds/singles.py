"""The kinds that can stand together with others; a flat frame lies, its face up."""

from fennup.core.kinds.box import BOX
from fennup.core.kinds.brace import BRACE
from fennup.core.kinds.flat_frame import FLAT_FRAME
from fennup.core.kinds.registry import Kind
from fennup.core.kinds.roof import ROOF
from fennup.core.kinds.stand import STAND

SINGLES: dict[str, Kind] = {kind.name: kind for kind in (FLAT_FRAME, BOX, STAND, BRACE, ROOF)}
SINGLE_STARTS = tuple(code for kind in SINGLES.values() for code in kind.starts)

"""Every kind by name: a new kind is entered here and nowhere else."""

from fennup.core.kinds.box import BOX
from fennup.core.kinds.brace import BRACE
from fennup.core.kinds.flat_frame import FLAT_FRAME
from fennup.core.kinds.moulding import MOULDING
from fennup.core.kinds.post_frame import POST_FRAME
from fennup.core.kinds.registry import Kind
from fennup.core.kinds.roof import ROOF
from fennup.core.kinds.stand import STAND

KINDS: dict[str, Kind] = {kind.name: kind for kind in (FLAT_FRAME, BOX, STAND, POST_FRAME, BRACE, ROOF, MOULDING)}

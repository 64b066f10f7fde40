"""Boxes and cases: walls round a plan, upright or leaning, and what is let into them or laid on them."""

from fennup.core.kinds.box.describe import describe
from fennup.core.kinds.box.edit import edit
from fennup.core.kinds.box.place import assemble
from fennup.core.kinds.box.sizes import SIZING
from fennup.core.kinds.box.spec import BoxSpec
from fennup.core.kinds.box.starts import STARTS
from fennup.core.kinds.registry import Kind
from fennup.core.kinds.rescaling import has_levels, rescaling

SIDE_WORDS = {"face": "outside", "back": "inside", "upper": "top edge", "lower": "bottom edge"}
BOX = Kind(
    "box",
    "Box or case",
    BoxSpec,
    SIZING.settle,
    assemble,
    edit,
    describe,
    SIDE_WORDS,
    STARTS,
    True,
    rescaling(SIZING),
    has_levels(SIZING),
)

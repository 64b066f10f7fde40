"""Small roofs: gables, lean-tos, pyramids, hips with jacks."""

from fennup.core.kinds.registry import Kind
from fennup.core.kinds.rescaling import has_levels, rescaling
from fennup.core.kinds.roof.describe import describe
from fennup.core.kinds.roof.edit import edit
from fennup.core.kinds.roof.place import assemble
from fennup.core.kinds.roof.sizing import SIZING
from fennup.core.kinds.roof.spec import RoofSpec
from fennup.core.kinds.roof.starts import STARTS

SIDE_WORDS = {"face": "weather side", "back": "underside", "upper": "upper edge", "lower": "eaves"}
ROOF = Kind(
    "roof",
    "Small roof",
    RoofSpec,
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

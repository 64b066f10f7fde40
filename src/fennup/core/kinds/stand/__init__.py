"""Stands on splayed legs: stools, trestles, towers, obelisks."""

from fennup.core.kinds.registry import Kind
from fennup.core.kinds.rescaling import has_levels, rescaling
from fennup.core.kinds.stand.describe import describe
from fennup.core.kinds.stand.edit import edit
from fennup.core.kinds.stand.place import assemble
from fennup.core.kinds.stand.sizing import SIZING
from fennup.core.kinds.stand.spec import StandSpec
from fennup.core.kinds.stand.starts import STARTS

SIDE_WORDS = {"face": "outside", "back": "inside", "upper": "top edge", "lower": "bottom edge"}
STAND = Kind(
    "stand",
    "Stand on splayed legs",
    StandSpec,
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

"""Braces, crossing braces, props and ladders between members that are there already."""

from fennup.core.kinds.brace.describe import describe
from fennup.core.kinds.brace.edit import edit
from fennup.core.kinds.brace.place import assemble
from fennup.core.kinds.brace.sizing import SIZING
from fennup.core.kinds.brace.spec import BraceSpec
from fennup.core.kinds.brace.starts import STARTS
from fennup.core.kinds.registry import Kind
from fennup.core.kinds.rescaling import has_levels, rescaling

SIDE_WORDS = {"face": "face", "back": "back", "upper": "upper edge", "lower": "lower edge"}
BRACE = Kind(
    "brace",
    "Brace or prop",
    BraceSpec,
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

"""Sprung mouldings along the walls of a room or round a box."""

from fennup.core.kinds.moulding.describe import describe
from fennup.core.kinds.moulding.edit import edit
from fennup.core.kinds.moulding.sizing import SIZING
from fennup.core.kinds.moulding.starts import STARTS
from fennup.core.kinds.moulding.words import WORDS
from fennup.core.kinds.rescaling import sized

MOULDING = sized(
    "moulding", "Sprung mouldings", "Moulding", SIZING, edit, describe, STARTS, WORDS, profile=lambda spec: spec.section
)

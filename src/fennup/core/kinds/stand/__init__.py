"""Stands on splayed legs: stools, trestles, towers, obelisks."""

from fennup.core.kinds.rescaling import sized
from fennup.core.kinds.stand.describe import describe
from fennup.core.kinds.stand.edit import edit
from fennup.core.kinds.stand.sizing import SIZING
from fennup.core.kinds.stand.starts import STARTS

SIDE_WORDS = {"face": "outside", "back": "inside", "upper": "top edge", "lower": "bottom edge"}
STAND = sized("stand", "Stand on splayed legs", SIZING, edit, describe, SIDE_WORDS, STARTS)

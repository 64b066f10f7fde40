"""Small roofs: gables, lean-tos, pyramids, hips with jacks."""

from fennup.core.kinds.rescaling import sized
from fennup.core.kinds.roof.describe import describe
from fennup.core.kinds.roof.edit import edit
from fennup.core.kinds.roof.sizing import SIZING
from fennup.core.kinds.roof.starts import STARTS

SIDE_WORDS = {"face": "weather side", "back": "underside", "upper": "upper edge", "lower": "eaves"}
ROOF = sized("roof", "Small roof", SIZING, edit, describe, SIDE_WORDS, STARTS)

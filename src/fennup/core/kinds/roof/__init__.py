"""Small roofs: gables, lean-tos, pyramids, hips with jacks."""

from fennup.core.kinds.rescaling import sized
from fennup.core.kinds.roof.describe import describe
from fennup.core.kinds.roof.edit import edit
from fennup.core.kinds.roof.sizing import SIZING
from fennup.core.kinds.roof.starts import STARTS
from fennup.core.kinds.roof.together import set_on
from fennup.core.kinds.roof.words import WORDS

ROOF = sized("roof", "Small roof", "Roof", SIZING, edit, describe, STARTS, WORDS, set_on=set_on)

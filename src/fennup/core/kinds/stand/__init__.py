"""Stands on splayed legs: stools, trestles, towers, obelisks."""

from fennup.core.kinds.rescaling import sized
from fennup.core.kinds.stand.describe import describe
from fennup.core.kinds.stand.edit import edit
from fennup.core.kinds.stand.sizing import SIZING
from fennup.core.kinds.stand.starts import STARTS
from fennup.core.kinds.stand.together import top
from fennup.core.kinds.stand.words import WORDS

STAND = sized("stand", "Stand on splayed legs", "Stand", SIZING, edit, describe, STARTS, WORDS, top=top)

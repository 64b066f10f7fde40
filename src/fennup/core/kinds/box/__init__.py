"""Boxes and cases: walls round a plan, upright or leaning, and what is let into them or laid on them."""

from fennup.core.kinds.box.describe import describe
from fennup.core.kinds.box.edit import edit
from fennup.core.kinds.box.sizes import SIZING
from fennup.core.kinds.box.starts import STARTS
from fennup.core.kinds.box.together import set_on, top
from fennup.core.kinds.box.words import WORDS
from fennup.core.kinds.rescaling import sized

BOX = sized("box", "Box or case", "Box", SIZING, edit, describe, STARTS, WORDS, top=top, set_on=set_on)

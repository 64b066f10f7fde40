"""Braces, crossing braces, props and ladders between members that are there already."""

from fennup.core.kinds.brace.describe import describe
from fennup.core.kinds.brace.edit import edit
from fennup.core.kinds.brace.sizing import SIZING
from fennup.core.kinds.brace.starts import STARTS
from fennup.core.kinds.brace.words import WORDS
from fennup.core.kinds.rescaling import sized

BRACE = sized("brace", "Brace or prop", "Brace", SIZING, edit, describe, STARTS, WORDS)

"""Braces, crossing braces, props and ladders between members that are there already."""

from fennup.core.kinds.brace.describe import describe
from fennup.core.kinds.brace.edit import edit
from fennup.core.kinds.brace.sizing import SIZING
from fennup.core.kinds.brace.starts import STARTS
from fennup.core.kinds.rescaling import sized

SIDE_WORDS = {"face": "face", "back": "back", "upper": "upper edge", "lower": "lower edge"}
BRACE = sized("brace", "Brace or prop", SIZING, edit, describe, SIDE_WORDS, STARTS)

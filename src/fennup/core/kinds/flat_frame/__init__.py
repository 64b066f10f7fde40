"""Flat frames: rails round an opening, mitered or butted, any convex outline, whole or with sides left out."""

from fennup.core.kinds.flat_frame.describe import describe
from fennup.core.kinds.flat_frame.edit import edit
from fennup.core.kinds.flat_frame.sizes import SIZING, settle
from fennup.core.kinds.flat_frame.starts import STARTS
from fennup.core.kinds.flat_frame.together import set_on, top
from fennup.core.kinds.flat_frame.words import WORDS
from fennup.core.kinds.rescaling import sized

FLAT_FRAME = sized(
    "flat_frame",
    "Flat frame",
    "Frame",
    SIZING,
    edit,
    describe,
    STARTS,
    WORDS,
    settle=settle,
    stands=False,
    top=top,
    set_on=set_on,
    profile=lambda spec: spec.glued(spec.narrowest)[0] if spec.as_one else spec.section_of(spec.narrowest),
)

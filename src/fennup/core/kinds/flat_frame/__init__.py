"""Flat frames: rails round an opening, mitered or butted, any convex outline, whole or with sides left out."""

from fennup.core.kinds.flat_frame.describe import describe
from fennup.core.kinds.flat_frame.edit import edit
from fennup.core.kinds.flat_frame.place import assemble
from fennup.core.kinds.flat_frame.spec import FlatFrameSpec
from fennup.core.kinds.flat_frame.starts import STARTS
from fennup.core.kinds.registry import Kind

FLAT_FRAME = Kind("flat_frame", "Flat frame", "Frame", FlatFrameSpec, lambda spec: spec, assemble, edit, describe, STARTS, False)

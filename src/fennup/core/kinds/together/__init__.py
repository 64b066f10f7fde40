"""Several assemblies in one project: a bin on a stand with a hood."""

from fennup.core.kinds.registry import Kind
from fennup.core.kinds.together.describe import describe
from fennup.core.kinds.together.edit import edit, has_levels, rescale
from fennup.core.kinds.together.place import assemble, settle
from fennup.core.kinds.together.spec import TogetherSpec
from fennup.core.kinds.together.starts import STARTS

TOGETHER = Kind(
    "together",
    "Several assemblies",
    TogetherSpec,
    settle,
    assemble,
    edit,
    describe,
    STARTS,
    True,
    rescale,
    has_levels,
)

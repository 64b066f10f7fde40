"""Frames of posts: rails between them and on their faces, beams over them, braces, sills and slats."""

from fennup.core.kinds.post_frame.describe import describe
from fennup.core.kinds.post_frame.edit import edit
from fennup.core.kinds.post_frame.sizing import SIZING
from fennup.core.kinds.post_frame.starts import STARTS
from fennup.core.kinds.post_frame.words import WORDS
from fennup.core.kinds.rescaling import sized

POST_FRAME = sized("post_frame", "Frame of posts and beams", "Post frame", SIZING, edit, describe, STARTS, WORDS)

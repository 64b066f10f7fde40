"""Mouldings, what is to be framed, and the frames that come out, in words."""

from typing import Literal

from fennup.app.wording.figures import Voice
from fennup.core.mouldings.frames import Frame
from fennup.core.mouldings.library import Content, Moulding

NO_RABBET = "No rabbet at its opening edge: it can be laid on, or cut, but nothing lies in it. Turn it, or cut one."
TOO_MANY = "The first {mouldings} mouldings and the first {contents} things to be framed have room here."
LIES_FACE_DOWN = "The weight of what it holds, lying on its face, against what wood bears across its grain (EN 338, softwood, for good). A knock or a fall is not in it."
AS_GLASS = "by its glass and its boards"


def moulding_title(id: str, moulding: Moulding) -> str:
    """What it is called."""
    return moulding.name or f"Moulding {id[1:]}"


def content_title(id: str, content: Content) -> str:
    """What it is called."""
    return content.name or f"Picture {id[1:]}"


def found_text(moulding: Moulding, voice: Voice) -> str:
    """How much of it there is."""
    if not moulding.lengths:
        return "no lengths"
    count = sum(found.count for found in moulding.lengths)
    return f"{count} length{'s' if count > 1 else ''}, {voice.run(moulding.found_mm)} in all"


def cell_text(frame: Frame, voice: Voice) -> tuple[str, Literal["right", "near", "wrong"]]:
    """(what is to be said of a frame first, its tone)."""
    if frame.refused:
        return ("no rabbet" if frame.refused.code == "no_rabbet_in_it" else "cannot be made", "wrong")
    if frame.bearing and not frame.bearing.strong:
        return "its lip is too weak", "wrong"
    if frame.stands_out_mm > 0:
        return f"stands out {voice.say(frame.stands_out_mm)} behind", "near"
    if not frame.lengths and frame.missing:
        return "no length there", "near"
    if frame.missing:
        return f"{pieces_text(frame.missing)} without a length", "near"
    count = len(frame.lengths)
    return f"out of {count} of your lengths" if count > 1 else "out of one of your lengths", "right"


def pieces_text(count: int) -> str:
    """1 piece, 4 pieces."""
    return f"{count} piece{'' if count == 1 else 's'}"

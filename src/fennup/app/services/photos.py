"""Photos: what a phone sends, scaled down, turned upright, and without what it says of where it was taken."""

from base64 import b64decode
from binascii import Error as NotBase64
from io import BytesIO
from uuid import UUID, uuid5

from PIL import Image, ImageOps, UnidentifiedImageError
from sqlalchemy.orm import Session

from fennup.app.models.tables import File, Record
from fennup.app.services.fitting import add_own
from fennup.app.services.projects import PLAIN
from fennup.app.services.records import add_file
from fennup.app.services.validate import from_core
from fennup.core.errors import SpecError
from fennup.core.records.entry import PhotoBody

LONGEST_PX = 1600
MOST_PX = 80_000_000  # more is no phone's photo
QUALITY = 85
READ = ("JPEG", "PNG", "WEBP")


def scaled(content: bytes) -> bytes:
    """A photo as JPEG of at most 1600 pixels on its longer side, upright, its pixels alone: no place, no time, no camera. SpecError `no_photo`,
    `photo_large`."""
    try:
        with Image.open(BytesIO(content), formats=READ) as opened:
            if opened.width * opened.height > MOST_PX:
                raise SpecError("photo_large", ("content",), most=MOST_PX // 1_000_000)
            upright = ImageOps.exif_transpose(opened)
            upright.thumbnail((LONGEST_PX, LONGEST_PX))
            plain = Image.new("RGB", upright.size, "white")
            plain.paste(upright, mask=upright.getchannel("A") if "A" in upright.getbands() else None)
    except Image.DecompressionBombError:
        raise SpecError("photo_large", ("content",), most=MOST_PX // 1_000_000) from None
    except (UnidentifiedImageError, OSError, ValueError, SyntaxError):
        raise SpecError("no_photo", ("content",)) from None
    out = BytesIO()
    plain.save(out, "JPEG", quality=QUALITY)
    return out.getvalue()


def photo_in(base64: str) -> bytes:
    """A photo out of base64, scaled. Invalid names `content`."""
    try:
        return scaled(b64decode(base64, validate=True))
    except (NotBase64, ValueError):
        raise from_core(SpecError("no_photo", ("content",)), PLAIN) from None
    except SpecError as error:
        raise from_core(error, PLAIN) from None


def add_photo(session: Session, project: str, id: str, name: str, base64: str, text: str, device: str) -> None:
    """Keep a photo, and that it was taken; the same one sent again is kept once. Invalid."""
    if session.get(Record, id) is not None:
        return
    content = photo_in(base64)
    called = f"{name.rpartition('.')[0] or name}.jpg"
    file = add_file(session, project, called, "image/jpeg", content, str(uuid5(UUID(id), "photo")))
    body = PhotoBody(file=file.id, text=text).model_dump(mode="json")
    add_own(session, project, id, "log", "photo", body, device)


def photo(session: Session, project: str, file: str) -> File | None:
    """A project's photo; None where it has none of that id."""
    found = session.get(File, file)
    return found if found and found.project_id == project and found.media_type.startswith("image/") else None

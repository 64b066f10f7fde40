"""What a file says of when it was made: files of one content are one file, whenever they are made."""

from datetime import datetime
from zipfile import ZIP_DEFLATED, ZipFile, ZipInfo

MADE = datetime(2026, 1, 1)


def add_to(pack: ZipFile, name: str, text: str) -> None:
    """A text into a ZIP, as made on that day."""
    entry = ZipInfo(name, (MADE.year, MADE.month, MADE.day, 0, 0, 0))
    entry.compress_type = ZIP_DEFLATED
    pack.writestr(entry, text)

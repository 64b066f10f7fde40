"""The database file in trouble: what it is, what is safe, what to do."""

from pathlib import Path

SAFE = "What was saved before is safe."
WORDS = {
    "no_folder": "The folder {file} is not there or cannot be written to. Nothing was changed. Make it writable, or name another file.",
    "no_access": "The database {file} cannot be opened. Nothing was changed. Is it yours, and may you read and write it?",
    "only_readable": "The database {file} may only be read. Nothing was changed. Make it writable, or name another file.",
    "is_folder": "{file} is a folder, and a database file is wanted there. Nothing was changed. Name another file.",
    "no_database": "{file} is no database. Nothing was changed. Move it away to begin anew, or put a backup in its place.",
    "foreign": "{file} is a database, but none of Fennup's, or only a part of one. Nothing was changed. Name another file, or put a backup in its place.",
    "newer": "{file} was written by a newer version of Fennup. Nothing was changed. Start that version.",
    "damaged": "The database {file} is damaged. Nothing was changed. Put a backup in its place, or move it away to begin anew.",
    "full": f"The disk is full, or the database cannot be written: this is not saved. {SAFE} Make room; it is sent again by itself.",
    "read_only": f"The database {{file}} may only be read: this is not saved. {SAFE} Make it writable; it is sent again by itself.",
    "busy": f"Another program keeps the database locked: this is not saved yet. {SAFE} It is sent again by itself.",
    "gone": "The database {file} is no longer there, or another file is in its place: nothing is saved any more. Leave this page open, put the file back, and start Fennup again.",
}  # fmt: skip


def trouble_text(code: str, file: Path) -> str:
    """Two or three sentences for somebody who did not write this program."""
    return WORDS[code].format(file=file)


# What is stored, by its type.
STORED = {
    "rack": "of the rack", "prices": "of the price list", "tables": "of the workshop's tables", "mouldings": "of the mouldings",
    "boards": "of what is wished of this project's boards", "saw": "of what is wished of this project at the saw",
    "fit": "of this project's dry fit", "finish": "of this project's finish", "log": "of what is wished in this project's log",
}  # fmt: skip


def unreadable_text(type: str) -> str:
    """That a stored document cannot be read, and that it stays."""
    if type not in STORED:
        return "What is stored of this project cannot be read. The other projects are not touched."
    return f"What is stored {STORED[type]} cannot be read. It stays stored as it is, and nothing is saved over it; a backup copy may still have it whole."

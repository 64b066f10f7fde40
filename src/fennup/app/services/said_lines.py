"""Lines that say what something is and how much, as somebody types, pastes or exports them: `name: figure`, or a table; and what of known names each means."""

import csv
import io
import re
from collections.abc import Mapping, Set

FIGURE = re.compile(
    r"^(?P<name>.*?)[\s:=;,]*(?P<value>[-+]?\d[\d\s.,/′'″\"-]*\s*(?:mm|cm|m|in|inch|inches|ft|feet|deg|degrees|°|″|\")?)\s*$"
)
WORDS = re.compile(r"[a-z]{3,}")
LETTERS = re.compile(r"\b[A-Z]{1,2}(?=\d?\b)")
TELLING = {"miter", "bevel", "many", "thick", "slope", "diagonal"}  # words that both have, or neither
TOLD_BY_LETTER = 0.25
LIKE = 0.3  # of their words that a line and a name have in common, at least
SAME_WORDS = {
    "width": "wide", "depth": "deep", "height": "high", "length": "long", "across": "", "the": "", "of": "", "to": "", "at": "", "a": "", "and": "", "angle": "", "over": "overall",
    "bevels": "bevel", "miters": "miter", "mitre": "miter", "tilt": "bevel", "thickness": "thick", "flat": "flats", "sides": "side", "walls": "wall", "rails": "rail",
    "longest": "long", "quantity": "many", "count": "many", "pieces": "many", "number": "many", "lean": "slope", "splay": "splay", "outer": "outside", "inner": "inside", "legs": "leg",
}  # fmt: skip


def _tokens(name: str) -> set[str]:
    found = {SAME_WORDS.get(word, word) for word in WORDS.findall(name.lower())}
    return found - {""}


def pairs_in(text: str) -> list[tuple[str, str]]:
    """(what, figure) of every line; of a table one for every cell with a figure, called by its row and its column."""
    lines = [line for line in text.splitlines() if line.strip()]
    table = _table(lines)
    if table:
        return table
    found = []
    for line in lines:
        match = FIGURE.match(line.strip())
        found.append(
            (match["name"].strip(" :=;,\t"), match["value"].strip()) if match and match["name"].strip() else (line.strip(), "")
        )
    return found


def _table(lines: list[str]) -> list[tuple[str, str]]:
    """A table with a heading row, whatever parts its columns; nothing where it is none."""
    if len(lines) < 2:
        return []
    separator = next(
        (
            s
            for s in ("\t", ";", ",", "|")
            if lines[0].count(s) >= 1 and all(line.count(s) == lines[0].count(s) for line in lines)
        ),
        None,
    )
    if separator is None or any(ch.isdigit() for ch in lines[0]):
        return []
    rows = list(csv.reader(io.StringIO("\n".join(lines)), delimiter=separator))
    heading = [cell.strip() for cell in rows[0]]
    return [
        (f"{row[0].strip()}: {head}", cell.strip())
        for row in rows[1:]
        for head, cell in zip(heading[1:], row[1:], strict=False)
        if any(ch.isdigit() for ch in cell)
    ]


def _other_corners(said: set[str], its: set[str]) -> bool:
    """Whether both name corners (`AB`), and not the same ones."""
    one, other = ({letters for letters in of if len(letters) > 1} for of in (said, its))
    return not (one <= other or other <= one)


def best_called(name: str, labels: Mapping[str, str], taken: Set[str]) -> str:
    """Which of some labels is most like a name, by its key, of those not taken yet; none where nothing is."""
    said, letters = _tokens(name), set(LETTERS.findall(name))
    best, most = "", LIKE
    for key, label in labels.items():
        own, its = _tokens(label), set(LETTERS.findall(label))
        if key in taken or said & TELLING != own & TELLING or _other_corners(letters, its):
            continue
        common = len(said & own) / max(1, len(said | own)) + (TOLD_BY_LETTER if letters & its else 0.0)
        if common > most:
            best, most = key, common
    return best

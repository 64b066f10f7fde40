"""Every form that a project's spec has had, brought to the newest."""

import re
from typing import Any

from fennup.core.kinds.catalogue import KINDS

Document = dict[str, Any]
ONLY = "m1"
ONLY_OF_ITS_ROW = re.compile(r"(rail|ring) [A-X]")


def is_single(document: Any) -> bool:
    """Whether it is one kind's own spec, without the project around it."""
    return isinstance(document, dict) and document.get("kind") in KINDS


def newest_form(document: Any) -> Any:
    """A project's spec as it is written today: a kind's own spec becomes a project of that one, assemblies that were told apart
    by their names get ids. What is in none of these forms comes back as it is; whoever validates it says what is wrong."""
    if is_single(document):
        return {"members": {ONLY: {"name": KINDS[document["kind"]].called, "spec": document}}, "numbered": 1}
    if isinstance(document, dict) and document.get("kind") == "together" and isinstance(document.get("members"), list):
        return _from_names(document)
    return document


def _from_names(document: Document) -> Document:
    """The first form of several assemblies: lists, each entry called by its name."""
    members, pieces = _list_of(document, "members"), _list_of(document, "pieces")
    ids = {member.get("name"): f"m{i + 1}" for i, member in enumerate(members)}
    piece_ids = {piece.get("name"): f"p{len(members) + i + 1}" for i, piece in enumerate(pieces)}

    specs = {member.get("name"): member.get("spec") for member in members}

    def board(old: Any) -> Any:
        whose, slash, own = str(old).rpartition("/")
        return f"{ids.get(whose, whose)}/{_numbered(specs.get(whose), own)}" if slash else piece_ids.get(own, own)

    def seat(old: Any) -> Any:
        return old | {"board": board(old.get("board"))} if isinstance(old, dict) else old

    made: Document = {"members": {}, "links": [], "pieces": {}, "numbered": len(members) + len(pieces)}
    for i, member in enumerate(members):
        made["members"][f"m{i + 1}"] = member | ({"on": ids.get(member["on"], member["on"])} if member.get("on") else {})
    for link in _list_of(document, "links"):
        made["links"].append(link | {end: ids.get(link.get(end), link.get(end)) for end in ("of", "after")})
    for i, piece in enumerate(pieces):
        made["pieces"][f"p{len(members) + i + 1}"] = piece | {end: seat(piece.get(end)) for end in ("a", "b")}
    return made


def _numbered(spec: Any, board: str) -> str:
    """The key of a board that had no number while it was the only one of its row."""
    kind = spec.get("kind") if isinstance(spec, dict) else None
    shape = spec.get("shape") if isinstance(spec, dict) else None
    row = kind == "stand" and ONLY_OF_ITS_ROW.fullmatch(board)
    pair = kind == "roof" and isinstance(shape, dict) and shape.get("form") == "gable" and board in ("left", "right")
    return f"{board}1" if row or pair else board


def _list_of(document: Document, name: str) -> list[Document]:
    return [entry for entry in document.get(name) or [] if isinstance(entry, dict)]

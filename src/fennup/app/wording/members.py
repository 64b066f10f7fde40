"""What a board's sides and ends are called, by what it does in the assembly."""

from fennup.core.assembly.board import Board, End
from fennup.core.kinds.catalogue import KINDS
from fennup.core.solve import Solution

# Pieces let in between the boards that go round: as they lie with their face towards the reader.
LOOSE_SIDES = {"face": "face", "back": "back", "upper": "far edge", "lower": "near edge"}
OUT_AND_UP = {"face": "outside", "back": "inside", "upper": "top edge", "lower": "bottom edge"}
SIDES = {
    "leg": {"face": "outer face", "back": "inner face", "upper": "inner edge", "lower": "outer edge"},
    "rail": OUT_AND_UP,
    "ring": OUT_AND_UP,
    "brace": {"face": "face", "back": "back", "upper": "upper edge", "lower": "lower edge"},
}
SIDES["prop"] = SIDES["brace"]
SIDES["tread"] = {"face": "top", "back": "underside", "upper": "front edge", "lower": "rear edge"}
SIDES["top"] = {"face": "top", "back": "underside", "upper": "far edge", "lower": "near edge"}
SIDES["rafter"] = {"face": "face", "back": "back", "upper": "top edge", "lower": "lower edge"}
SIDES["wall"] = OUT_AND_UP
SIDES["panel"] = {"face": "weather side", "back": "underside", "upper": "point", "lower": "eaves"}
SIDES["side"] = OUT_AND_UP
SIDES["lid"] = {"face": "weather side", "back": "underside", "upper": "back edge", "lower": "front edge"}
SIDES["piece"] = SIDES["brace"]
PIECE = {
    "leg": "leg",
    "rail": "rail",
    "ring": "ring piece",
    "brace": "brace",
    "prop": "upright",
    "rafter": "rafter",
    "panel": "panel",
}
# Members that run up: their ends have names of their own.
FOOT_AND_HEAD = ("leg", "prop", "rafter")


def sides_of(solution: Solution, id: str) -> dict[str, str]:
    """The words for a board's face, back, upper and lower edge."""
    board = solution.assembly.board(id)
    if board.role in SIDES:
        return SIDES[board.role]
    goes_round = any(id in ring.boards for ring in solution.assembly.rings)
    return KINDS[solution.spec.kind].side_words if goes_round else LOOSE_SIDES


def end_word(board: Board, end: End) -> str:
    """`left end`; of a leg `foot` or `head`."""
    if board.role in FOOT_AND_HEAD:
        return "head" if (end == "right") == (board.frame.x[2] > 0) else "foot"
    return f"{end} end"

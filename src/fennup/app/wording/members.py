"""What boards, their sides and ends and the joints between them are called, by what they do in the assembly."""

from typing import Any

from fennup.app.wording.labels import naming_of
from fennup.app.wording.names import in_sentence, meeting
from fennup.app.wording.tables import merged
from fennup.core.assembly.board import Board, End
from fennup.core.kinds.catalogue import KINDS
from fennup.core.kinds.registry import Called
from fennup.core.solve import Solution

# Pieces let in between the boards that go round: as they lie with their face towards the reader.
LOOSE_SIDES = {"face": "face", "back": "back", "upper": "far edge", "lower": "near edge"}
EDGES = ("face", "back", "upper edge", "lower edge")
# What the boards of a role are called, and their sides: those that several kinds have, and each kind's own.
ROLES = merged(
    "roles",
    {
        "wall": Called("wall", "outside", "inside", "top edge", "bottom edge"),
        "brace": Called("brace", *EDGES),
        "piece": Called("", *EDGES),
        "pipe": Called("", *EDGES),
    },
    *(kind.words.roles for kind in KINDS.values()),
)
# Members that run up: their ends have names of their own.
FOOT_AND_HEAD = ("leg", "post", "prop", "rafter")


def sides_of(solution: Solution, id: str) -> dict[str, str]:
    """The words for a board's face, back, upper and lower edge."""
    called = ROLES.get(solution.design.boards[id].role)
    return {side: getattr(called, side) for side in LOOSE_SIDES} if called else LOOSE_SIDES


def whose(solution: Solution, key: str) -> str:
    """The name of the assembly that a board or a joint belongs to, where there are several."""
    id, slash, _ = key.partition("/")
    return naming_of(solution.spec).whose(id) if slash else ""


def own_spec(solution: Solution, board: str) -> Any:
    """The spec of the assembly that a board belongs to; None of a fitted piece."""
    member = solution.spec.members.get(board.partition("/")[0])
    return member.spec if member else None


def end_word(board: Board, end: End) -> str:
    """`left end`; of a leg `foot` or `head`."""
    if board.role in FOOT_AND_HEAD:
        return "head" if (end == "right") == (board.frame.x[2] > 0) else "foot"
    return f"{end} end"


def board_words(solution: Solution, id: str) -> str:
    """A board inside a sentence, and whose it is where there are several assemblies."""
    owner = whose(solution, id)
    return in_sentence(solution.design.assembly.board(id).name) + (f" of {owner}" if owner else "")


def joint_words(solution: Solution, id: str) -> str:
    """A joint inside a sentence, by what meets there."""
    joint = next(joint for joint in solution.design.assembly.joints if joint.id == id)
    if len(joint.ends) == 1:
        ((board, end),) = joint.ends
        return f"the joint at the {end_word(solution.design.assembly.board(board), end)} of {board_words(solution, board)}"
    if len(joint.ends) == 2:
        names = [solution.design.assembly.board(board).name for board, _ in joint.ends]
        owner = whose(solution, id)
        return f"the joint of {meeting(*names)}" + (f" of {owner}" if owner else "")
    return f"the joint of {board_words(solution, joint.a.board)} and {board_words(solution, joint.b.board)}"


def called(solution: Solution, id: str) -> str:
    """A board, a joint, an assembly, or a side or corner of one, inside a sentence."""
    if id in solution.design.solids:
        return board_words(solution, id)
    if any(joint.id == id for joint in solution.design.assembly.joints):
        return joint_words(solution, id)
    member, slash, own = id.partition("/")
    return own if slash else naming_of(solution.spec).called(member)

"""The rack: the boards and offcuts that there are, drawn and edited on the drawing; and what the yard sells, as its list says."""

from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, model_validator

from fennup.core.boards.stock import Flaw, Source
from fennup.core.drawing.edit import Choose, Drag, Edit, Free, Give, TypeIn
from fennup.core.editing import edit_field, get_at, put_at
from fennup.core.errors import SpecError
from fennup.core.units.lengths import Tape

LONGEST_MM = 20_000.0
MOST_BOARDS, MOST_DEFECTS, MOST_ITEMS = 200, 12, 400
DRAG_STEP_MM = 1.0
GRADES = ("clear", "sound", "rough")
Grade = Literal["clear", "sound", "rough"]
Along = Annotated[float, Field(ge=0, le=LONGEST_MM, allow_inf_nan=False, description="mm")]
Size = Annotated[float, Field(ge=1, le=LONGEST_MM, allow_inf_nan=False, description="mm")]
RackId = Annotated[str, Field(pattern=r"^r[1-9][0-9]{0,4}$", description="which board; it never changes")]
Text = Annotated[str, Field(max_length=60)]


class Strict(BaseModel):
    """Unknown keys are refused."""

    model_config = ConfigDict(extra="forbid", frozen=True)


class Defect(Strict):
    """A knot, a split, a nail hole: from where to where along the board, mm. Nothing is cut from its whole width there, unless
    `low_mm` and `high_mm` say from where to where across it goes."""

    from_mm: Along
    to_mm: Along
    low_mm: Along | None = None
    high_mm: Along | None = None


class Stock(Strict):
    """What boards of the rack and of the yard share: actual sizes, grade, kind of wood, whether it is treated, board or sheet.
    `any_way`: it has no grain that matters, as glazing and plastics, so that parts may lie a quarter round in it."""

    name: Text = ""
    length_mm: Size
    width_mm: Size
    thickness_mm: Size
    grade: Grade = "sound"
    wood: Text = ""
    treated: bool = False
    sheet: bool = False
    any_way: bool = False


class RackBoard(Stock):
    """Boards on the rack that are alike, or one board. A trim has the kerf of its cut in it. `nails` and `old_paint` are what to look
    out for on wood that was used before."""

    count: Annotated[int, Field(ge=1, le=99)] = 1
    trim_left_mm: Along = 0.0
    trim_right_mm: Along = 0.0
    defects: Annotated[list[Defect], Field(max_length=MOST_DEFECTS)] = []
    reclaimed: bool = False
    nails: bool = False
    old_paint: bool = False

    def check(self, within: str = "") -> None:
        """SpecError `trim_too_long` or `defect_outside`, naming the field within what holds the board."""
        if self.trim_left_mm + self.trim_right_mm >= self.length_mm:
            side = "trim_left_mm" if self.trim_left_mm >= self.trim_right_mm else "trim_right_mm"
            raise SpecError("trim_too_long", (f"{within}{side}",), length_mm=self.length_mm)
        for k, defect in enumerate(self.defects):
            low, high = defect.low_mm or 0.0, self.width_mm if defect.high_mm is None else defect.high_mm
            if not (defect.from_mm < defect.to_mm <= self.length_mm and low < high <= self.width_mm):
                field = "from_mm" if defect.from_mm >= defect.to_mm else "to_mm" if defect.to_mm > self.length_mm else "high_mm"
                sizes = {"length_mm": self.length_mm, "width_mm": self.width_mm}
                raise SpecError("defect_outside", (f"{within}defects.{k}.{field}",), **sizes)

    def source(self, id: str) -> Source:
        """As the planner takes it."""
        flaws = tuple(
            Flaw(d.from_mm, d.to_mm, d.low_mm or 0.0, self.width_mm if d.high_mm is None else d.high_mm) for d in self.defects
        )
        return Source(
            id, self.name or id, self.length_mm, self.width_mm, self.thickness_mm, self.count, 0.0, False, GRADES.index(self.grade),
            self.sheet, (self.trim_left_mm, self.trim_right_mm), flaws, self.any_way,
        )  # fmt: skip


class Rack(Strict):
    """Boards by ids that never change. `keep_mm`: offcuts as long as that go back to the rack. `numbered`: how many boards there have
    been."""

    boards: Annotated[dict[RackId, RackBoard], Field(max_length=MOST_BOARDS)] = {}
    keep_mm: Along = 300.0
    numbered: Annotated[int, Field(ge=0, le=99_999)] = 0

    @model_validator(mode="after")
    def _boards_can_be(self) -> "Rack":
        """SpecError of the first board that cannot be."""
        for id, board in self.boards.items():
            board.check(f"boards.{id}.")
        return self

    def next_number(self) -> int:
        """The number of the next board: higher than any that there has been."""
        return 1 + max([self.numbered, *(int(id[1:]) for id in self.boards)])


class YardItem(Stock):
    """One line of a price list: what the yard calls it, and what it really measures. `stock`: how many there are; None: enough."""

    code: Annotated[str, Field(min_length=1, max_length=40, pattern=r"^[A-Za-z0-9][A-Za-z0-9 ._/-]*$")]
    price: Annotated[float, Field(ge=0, le=100_000, allow_inf_nan=False, description="for one, in the list's currency")]
    stock: Annotated[int, Field(ge=0, le=100_000)] | None = None

    def source(self) -> Source:
        """As the planner takes it."""
        return Source(
            f"y:{self.code}", self.name or self.code, self.length_mm, self.width_mm, self.thickness_mm, self.stock, self.price, True,
            GRADES.index(self.grade), self.sheet, any_way=self.any_way,
        )  # fmt: skip


class PriceList(Strict):
    """What a yard sells. `as_of`: when the list was read, ISO 8601 with its zone; empty where none has been."""

    yard: Text = ""
    currency: Annotated[str, Field(max_length=8)] = ""
    as_of: Annotated[str, Field(max_length=40)] = ""
    items: Annotated[list[YardItem], Field(max_length=MOST_ITEMS)] = []

    @model_validator(mode="after")
    def _codes_once(self) -> "PriceList":
        """SpecError `code_twice`."""
        before: set[str] = set()
        for k, item in enumerate(self.items):
            if item.code in before:
                raise SpecError("code_twice", (f"items.{k}.code",), name=item.code)
            before.add(item.code)
        return self


NEW_BOARD = {"length_mm": 2400.0, "width_mm": 95.0, "thickness_mm": 20.0}
NEW_SHEET = {"length_mm": 1220.0, "width_mm": 610.0, "thickness_mm": 12.0, "sheet": True}
NEW_DEFECT_MM = 40.0


def with_boards(rack: Rack, boards: list[RackBoard]) -> Rack:
    """The rack with more boards. SpecError `too_many_on_rack`."""
    first = rack.next_number()
    if len(rack.boards) + len(boards) > MOST_BOARDS:
        raise SpecError("too_many_on_rack", ("boards",), most=MOST_BOARDS)
    more = {f"r{first + k}": board for k, board in enumerate(boards)}
    return Rack(boards={**rack.boards, **more}, keep_mm=rack.keep_mm, numbered=first + len(boards) - 1)


def edit_rack(rack: Rack, act: Edit, on: Tape) -> dict[str, Any]:
    """The rack after one act, as a document still to be validated. Choosing `boards.new` adds a board: a usual one, `sheet` a sheet, another one's id one like that, sizes one of that size;
    `boards.r3` nothing takes that one away, `boards.r3.defects.new` marks a knot. SpecError or UnitError names the field."""
    document = rack.model_dump(mode="json")
    if isinstance(act, Give | Free):
        raise SpecError("no_such_field", (act.measure,))
    if isinstance(act, Drag):
        return _dragged(rack, document, act)
    if isinstance(act, Choose) and act.path == "boards.new":
        return _with_new(rack, document, act.value)
    if isinstance(act, Choose) and act.path.endswith(".defects.new"):
        at = act.path.removesuffix(".new")
        board = rack.boards[get_board(rack, act.path)]
        middle = board.length_mm / 2 if not isinstance(act.value, int | float) else float(act.value)
        start = max(0.0, min(middle - NEW_DEFECT_MM / 2, board.length_mm - NEW_DEFECT_MM))
        made = {"from_mm": start, "to_mm": min(board.length_mm, start + NEW_DEFECT_MM)}
        return put_at(document, at, [*get_at(document, at), made])
    if isinstance(act, Choose) and act.value is None and ".defects." in act.path:
        at, _, number = act.path.rpartition(".")
        rest = [d for k, d in enumerate(get_at(document, at)) if str(k) != number]
        return put_at(document, at, rest)
    if isinstance(act, TypeIn) and act.path.rpartition(".")[2] in ("name", "wood"):
        get_at(document, act.path)
        return put_at(document, act.path, act.text.strip())
    made = edit_field(document, act, on)
    at, _, field = act.path.rpartition(".")
    return _moved_whole(document, made, at, field) if ".defects." in at and field in ("from_mm", "to_mm") else made


def _moved_whole(before: dict[str, Any], made: dict[str, Any], at: str, field: str) -> dict[str, Any]:
    """A knot one end of which was put past the other one moves as a whole."""
    was, now = get_at(before, at), get_at(made, at)
    if now["from_mm"] < now["to_mm"]:
        return made
    long = was["to_mm"] - was["from_mm"]
    other, place = ("to_mm", now["from_mm"] + long) if field == "from_mm" else ("from_mm", now["to_mm"] - long)
    return put_at(made, f"{at}.{other}", place)


def get_board(rack: Rack, path: str) -> str:
    """Which board a path is about. SpecError `no_such_field`."""
    id = path.split(".")[1] if path.count(".") else ""
    if id not in rack.boards:
        raise SpecError("no_such_field", (path,))
    return id


def _with_new(rack: Rack, document: dict[str, Any], like: object) -> dict[str, Any]:
    """A new board, or one like another."""
    if len(rack.boards) >= MOST_BOARDS:
        raise SpecError("too_many_on_rack", ("boards.new",), most=MOST_BOARDS)
    number = rack.next_number()
    if isinstance(like, str) and like in rack.boards:
        made = document["boards"][like] | {"defects": [], "trim_left_mm": 0.0, "trim_right_mm": 0.0}
    else:
        made = dict(NEW_SHEET if like == "sheet" else NEW_BOARD)
        made |= like if isinstance(like, dict) else {}
    return {**document, "boards": {**document["boards"], f"r{number}": made}, "numbered": number}


def _dragged(rack: Rack, document: dict[str, Any], act: Drag) -> dict[str, Any]:
    """A ring let go: `r3/trim_left_mm`, `r3/trim_right_mm`, `r3/defects.0.from_mm`, to the nearest mm; `r3/defects.0` the whole."""
    id, _, field = act.grip.partition("/")
    if id not in rack.boards:
        raise SpecError("no_such_grip", (act.grip,))
    board = rack.boards[id]
    x = round(max(0.0, min(board.length_mm, act.x_mm)) / DRAG_STEP_MM) * DRAG_STEP_MM
    if field == "trim_right_mm":
        return put_at(document, f"boards.{id}.{field}", board.length_mm - x)
    if field == "trim_left_mm":
        return put_at(document, f"boards.{id}.{field}", x)
    if field.count(".") == 1:  # the whole of a knot, by its middle
        number = field.partition(".")[2]
        if not number.isdecimal() or int(number) >= len(board.defects):
            raise SpecError("no_such_grip", (act.grip,))
        defect = board.defects[int(number)]
        half = (defect.to_mm - defect.from_mm) / 2
        x = max(half, min(board.length_mm - half, x))
        moved = put_at(document, f"boards.{id}.{field}.from_mm", x - half)
        return put_at(moved, f"boards.{id}.{field}.to_mm", x + half)
    raise SpecError("no_such_grip", (act.grip,))

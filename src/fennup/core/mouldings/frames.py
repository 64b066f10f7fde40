"""Which frames come out of the mouldings that there are, for the things that are to be framed: each content in each moulding, made and cut in thought."""

from collections.abc import Iterator
from dataclasses import dataclass
from functools import lru_cache
from typing import Any

from fennup.core.boards.planned import Cuttings, Order, plan_boards, task_of
from fennup.core.boards.rack import PriceList, Rack
from fennup.core.boards.shortage import shortages
from fennup.core.boards.stock import Source
from fennup.core.boards.wishes import Wishes
from fennup.core.drawing.edit import Choose
from fennup.core.errors import SpecError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.kinds.fields import LONGEST_MM
from fennup.core.kinds.ploughing import Profile
from fennup.core.mouldings.library import SHOWN_CONTENTS, SHOWN_MOULDINGS, Content, Moulding, Mouldings, lengths_of
from fennup.core.project.spec import ProjectSpec, project_of
from fennup.core.solve import designed
from fennup.core.stock.lip import Lip, lip_of
from fennup.core.units.lengths import tape
from fennup.core.verify.findings import THINNEST_LIP_MM

GRAVITY = 9.81  # N for a kg
FRAME = "flat_frame"
MM = tape("mm", "1")
ANY_BOARD = {"board": {"width_mm": 45.0, "thickness_mm": 20.0}, "rabbet": {"width_mm": 8.0, "depth_mm": 10.0}}


@dataclass(frozen=True)
class Bearing:
    """What the lip covers, mm, and bears: N on each mm of its length against what lies on it when the frame lies on its face. `least_mm`: how thick it is near its root."""

    lip: Lip
    cover_mm: float
    bears_n_mm: float
    load_n_mm: float
    least_mm: float

    @property
    def times(self) -> float:
        """How many times what lies on it it bears; under 1 it does not."""
        return self.bears_n_mm / self.load_n_mm

    @property
    def strong(self) -> bool:
        """Whether it bears what lies on it, and is not so thin that it splits in the hand."""
        return self.times >= 1.0 and self.least_mm >= THINNEST_LIP_MM


@dataclass(frozen=True)
class FromLength:
    """What comes out of one found length: how long it is, how many pieces, and what is left over in one."""

    mm: float
    pieces: int
    left_mm: float


@dataclass(frozen=True)
class Frame:
    """One content in one moulding. `outside_mm`: width and height of the frame; `parts`: how many of each length, long points. `needs_mm` of moulding in one length, the saw's cuts in it. `lengths`: what comes
    out of the lengths that there are, `missing`: pieces for which there is none left. `stands_out_mm`: what lies in the rabbet is so much thicker than
    the rabbet is deep; under 0 there is room. `refused`: why there is no such frame."""

    content: str
    moulding: str
    refused: SpecError | None = None
    outside_mm: tuple[float, float] = (0.0, 0.0)
    parts: tuple[tuple[int, float], ...] = ()
    needs_mm: float = 0.0
    lengths: tuple[FromLength, ...] = ()
    missing: int = 0
    bearing: Bearing | None = None
    stands_out_mm: float = 0.0

    @property
    def enough(self) -> bool:
        """Whether it comes out of the lengths that there are."""
        return self.refused is None and not self.missing

    @property
    def good(self) -> bool:
        """Whether it can be made: there is enough, its lip is strong enough, nothing stands out at the back."""
        return self.enough and self.bearing is not None and self.bearing.strong and self.stands_out_mm <= 0


def frames_of(library: Mouldings, kerf_mm: float) -> Iterator[Frame]:
    """Every content in every moulding, row by row; the first so many of both."""
    for content_id, content in list(library.contents.items())[:SHOWN_CONTENTS]:
        for moulding_id, moulding in list(library.mouldings.items())[:SHOWN_MOULDINGS]:
            yield frame_of(content_id, content, moulding_id, moulding, kerf_mm)


def project_with(content: Content, moulding: Moulding) -> ProjectSpec:
    """A project that frames something in a moulding that comes as it is: all that it needs is in it. SpecError `no_rabbet_in_it`."""
    if moulding.section.rabbet is None:
        raise SpecError("no_rabbet_in_it", ("ploughed",))
    size = {"by": "holds", "object_width_mm": content.width_mm, "object_depth_mm": content.height_mm, "play_mm": content.play_mm}
    frame = KINDS[FRAME].spec.model_validate({"kind": FRAME, "shape": {"form": "rectangle", "size": size}, **ANY_BOARD})
    made = KINDS[FRAME].edit(frame, Choose(op="choose", path="moulding", value=profile_of(moulding)), MM)
    return project_of(KINDS[FRAME].spec.model_validate(made), KINDS[FRAME].called)


def profile_of(moulding: Moulding) -> dict[str, Any]:
    """What of a moulding goes into a project that is made of it."""
    return moulding.model_dump(mode="json", include=set(Profile.model_fields))


@lru_cache(maxsize=512)
def frame_of(content_id: str, content: Content, moulding_id: str, moulding: Moulding, kerf_mm: float) -> Frame:
    """One of them."""
    try:
        _, design = designed(project_with(content, moulding))
    except SpecError as refused:
        return Frame(content_id, moulding_id, refused)
    cuttings = (Cuttings(design.facts),)
    spans = {id: solid.extent_x() for id, solid in design.solids.items()}
    longs = [round(high - low, 6) for low, high in spans.values()]
    found = plan_boards(_order(cuttings, tuple(lengths_of("m", moulding)), kerf_mm))
    lengths = [
        FromLength(board.source.length_mm, len(board.pieces), max((o.to_mm - o.from_mm for o in board.offcuts), default=0.0))
        for board in found.layout.boards
    ]
    outside = [design.ruler.measure(f"m1/outside_{name}") or 0.0 for name in ("width", "depth")]
    return Frame(
        content_id, moulding_id, None, (outside[0], outside[1]), tuple((longs.count(mm), mm) for mm in dict.fromkeys(longs)),
        _needs(cuttings, moulding, kerf_mm), tuple(lengths), len(found.layout.unplaced) + sum(len(p.keys) for p in found.homeless),
        _bearing(content, moulding), content.thick_mm - moulding.section.rabbet.depth_mm,  # type: ignore[union-attr]
    )  # fmt: skip


@lru_cache(maxsize=64)
def short_by_mm(content: Content, moulding: Moulding, kerf_mm: float) -> float | None:
    """By how much one of the lengths that there are is too short for all of a frame to come out of them; None where nothing is missing, or there is no length at all. SpecError where there
    is no such frame."""
    if not moulding.lengths:
        return None
    _, design = designed(project_with(content, moulding))
    order = _order((Cuttings(design.facts),), tuple(lengths_of("m", moulding)), kerf_mm)
    return min((short.mm for short in shortages(order, plan_boards(order))), default=None)


def _order(cuttings: tuple[Cuttings, ...], sources: tuple[Source, ...], kerf_mm: float) -> Order:
    return Order(cuttings, Rack(), PriceList(), Wishes(use_yard=False), kerf_mm, sources)


def _needs(cuttings: tuple[Cuttings, ...], moulding: Moulding, kerf_mm: float) -> float:
    """How long one length must be for all of it, in the best order: measured on one that is long enough for anything."""
    section = moulding.section
    endless = Source("m:all", moulding.name, LONGEST_MM, section.width_mm, section.thickness_mm, profile=section)
    task, _, _ = task_of(_order(cuttings, (endless,), kerf_mm))
    return task.used(task.kinds[0], tuple(place for place in task.firsts for _ in range(task.wanted[place].count)))


def _bearing(content: Content, moulding: Moulding) -> Bearing | None:
    """What the lip bears, and what lies on it: the content's own weight, when the frame lies on its face."""
    lip = lip_of(moulding.section)
    if lip is None:
        return None
    load = content.weighs_kg * GRAVITY / (2 * (content.width_mm + content.height_mm))
    cover = lip.reach_mm - content.play_mm / 2
    return Bearing(lip, cover, lip.bears_n_mm(cover), load, lip.least_mm)

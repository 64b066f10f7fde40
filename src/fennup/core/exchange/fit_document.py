"""The dry fit as a document: what `./fennup fit` prints. docs/formats.md describes it."""

from fennup.core.exchange.cuts_forms import Form
from fennup.core.fit.fitting import Fit
from fennup.core.fit.forecast import Opening
from fennup.core.fit.meeting import Offs
from fennup.core.fit.passage import Passing
from fennup.core.fit.verdicts import near_of
from fennup.core.verify.joints import CLOSED_MM


class OpeningForm(Form):
    """What a joint will stand open, mm. `loop`: it is the last joint of a ring whose others are pushed tight; `boards`: between which, or of which ring. `along_sigma_mm`: one sigma
    of its signed opening along the joint's line, from scatter alone."""

    joint: str
    loop: bool
    boards: list[str]
    expect_mm: float
    nine_in_ten_mm: float
    constant_mm: float
    scatter_mm: float
    along_sigma_mm: float
    chance: float


class ShareForm(Form):
    """Which part of the worst opening's scatter comes from one kind of error, and what the constant part of it makes, mm."""

    cause: str
    scatter: float
    constant_mm: float


class ScatterForm(Form):
    """One sigma, mm or degrees, and what is out on one side always; from `usual` figures, `typed` ones or `measured` ones, of which there are `count`."""

    sigma: float
    always: float
    source: str
    count: int


class ForecastForm(Form):
    """`chance`: that every joint stays within the allowance; `worst`: the joint that opens most in nine of ten; `needs_angle_deg`, `needs_length_mm`: one sigma with which nine in
    ten would stay under `wished_mm`, none where the constant part alone is more."""

    allowance_mm: float
    length: ScatterForm
    angle: ScatterForm
    thickness: ScatterForm
    joints: list[OpeningForm]
    rings: list[OpeningForm]
    chance: float
    worst: str | None
    shares: list[ShareForm]
    wished_mm: float | None
    needs_angle_deg: float | None
    needs_length_mm: float | None


class ExpectedForm(Form):
    """Something to read: its key, what it should be, how far off still does not matter, between which places; what was read, where it was."""

    key: str
    kind: str
    unit: str
    expected: float
    near: float
    boards: list[str]
    a: list[float]
    b: list[float]
    read: float | None


class MoveForm(Form):
    """`held` stays, `moved` goes by so many mm along `way`, in the assembly's axes."""

    held: str
    moved: list[str]
    by_mm: float
    way: list[float]


class TrimForm(Form):
    """What comes off legs (mm upright, mm along the leg) or goes under one, and how much the top then slopes."""

    off: list[tuple[str, float, float]]
    under: list[tuple[str, float]]
    slope_deg: float


class ToldForm(Form):
    """What readings mean."""

    keys: list[str]
    way: str
    verdict: str
    off: float
    figures: dict[str, float]
    moves: list[MoveForm]
    trims: list[TrimForm]
    slip: str | None


class ChangeForm(Form):
    """A part still to be cut that is to be cut otherwise: length over all and angles (miter and bevel by end), old and new."""

    board: str
    old_mm: float
    new_mm: float
    angles: list[tuple[str, float, float]]
    scribed: bool


class WayForm(Form):
    """A way out of a part that is not as it should be. `changes`: mm and degrees by error."""

    kind: str
    pieces: list[str]
    changes: dict[str, float]
    cuts: int
    wood_mm: float
    gap_mm: float
    joint: str


class CauseForm(Form):
    """What is likely behind a gap: by how much these are off, and which part of it that explains."""

    offs: list[str]
    by: float
    share: float


class GapForm(Form):
    """A gap that was read, and what to do about it."""

    key: str
    joint: str
    mm: float
    side: str
    cure: str
    turn_deg: float
    causes: list[CauseForm]


class JoiningForm(Form):
    """A step of putting it together: what is moved, against which direction it comes (none: it must be sprung in), to what, and which joints that closes."""

    key: str
    moved: list[str]
    onto: list[str]
    way: list[float] | None
    joints: list[str]
    closes: bool


class PassingForm(Form):
    """Whether it goes through something: leaning from the least to the most, with which of its directions up and ahead; else what is lacking."""

    opening: str
    goes: bool
    up: list[float] | None
    ahead: list[float] | None
    least_deg: float | None
    most_deg: float | None
    short_mm: float
    short_of: str


class FitDocument(Form):
    """All of it. `made`: what is known to be otherwise than planned, mm and degrees by error; `closes`: whether it does, as made; `open_mm`: by how much it is out; `changes`: what is
    still to cut and how it then is; `ways`: by part that is not as it should be; `order`; `passage`, and the pieces that it comes apart in; `strays`: readings of what is not
    there."""

    forecast: ForecastForm
    expected: list[ExpectedForm]
    verdicts: list[ToldForm]
    made: dict[str, float]
    closes: bool
    open_mm: float
    changes: list[ChangeForm]
    ways: dict[str, list[WayForm]]
    gaps: list[GapForm]
    order: list[JoiningForm]
    passage: list[PassingForm]
    split: list[list[str]]
    strays: list[str]


def fit_document(fit: Fit) -> FitDocument:
    """The dry fit as figures."""
    split = fit.split
    return FitDocument(
        forecast=_forecast(fit),
        expected=[
            ExpectedForm(key=e.key, kind=e.kind, unit=e.unit, expected=e.value, near=near_of(e, fit.graduation_mm), boards=list(e.boards),
                         a=list(e.a), b=list(e.b), read=fit.values.get(e.key))
            for e in fit.sheet.readings
        ],
        verdicts=[
            ToldForm(
                keys=list(t.keys), way=t.way, verdict=t.verdict, off=t.off, figures=dict(t.figures),
                moves=[MoveForm(held=m.held, moved=list(m.moved), by_mm=m.by_mm, way=list(m.way)) for m in t.moves],
                trims=[TrimForm(off=list(x.off), under=list(x.under), slope_deg=x.slope_deg) for x in t.trims], slip=t.slip,
            )
            for t in fit.told
        ],
        made=_by_key(fit.offs),
        closes=fit.open_mm <= CLOSED_MM,
        open_mm=fit.open_mm,
        changes=[
            ChangeForm(board=c.board, old_mm=c.old_mm, new_mm=c.new_mm, angles=list(c.angles), scribed=c.scribed) for c in fit.changes
        ],
        ways={
            board: [
                WayForm(kind=w.kind, pieces=list(w.pieces), changes=_by_key(w.changes), cuts=w.cuts, wood_mm=w.wood_mm, gap_mm=w.gap_mm,
                        joint=w.joint)
                for w in fit.ways(board)
            ]
            for board in fit.bad
        },
        gaps=[
            GapForm(key=key, joint=c.read.joint, mm=c.read.mm, side=c.read.side, cure=c.cure, turn_deg=c.turn_deg,
                    causes=[CauseForm(offs=[off.key for off in x.offs], by=x.by, share=x.share) for x in c.causes])
            for key, c in fit.cured.items()
        ],
        order=[
            JoiningForm(key=s.key, moved=list(s.moved), onto=list(s.onto), way=list(s.way) if s.way else None, joints=list(s.joints), closes=s.closes)
            for s in fit.order[0]
        ],
        passage=[_passing(told) for told in fit.passing],
        split=[list(piece) for piece in split.pieces] if split else [],
        strays=[entry.key for entry in fit.standing.strays],
    )  # fmt: skip


def _by_key(offs: Offs) -> dict[str, float]:
    return {off.key: by for off, by in offs.items()}


def _forecast(fit: Fit) -> ForecastForm:
    f, w = fit.forecast, fit.working
    length, angle, thick = (
        ScatterForm(sigma=s.sigma, always=s.always, source=s.source, count=s.count) for s in (w.length, w.angle, w.thick)
    )
    return ForecastForm(
        allowance_mm=f.allowance_mm,
        length=length,
        angle=angle,
        thickness=thick,
        joints=[_opening(o) for o in f.joints],
        rings=[_opening(o) for o in f.rings],
        chance=f.chance,
        worst=f.worst.joint if f.worst else None,
        shares=[ShareForm(cause=s.cause, scatter=s.scatter, constant_mm=s.constant_mm) for s in f.shares],
        wished_mm=f.needs.wished_mm if f.needs else None,
        needs_angle_deg=f.needs.angle_deg if f.needs else None,
        needs_length_mm=f.needs.length_mm if f.needs else None,
    )


def _opening(o: Opening) -> OpeningForm:
    return OpeningForm(
        joint=o.joint,
        loop=o.loop,
        boards=list(o.boards),
        expect_mm=o.expect_mm,
        nine_in_ten_mm=o.nine_mm,
        constant_mm=o.constant_mm,
        scatter_mm=o.scatter_mm,
        along_sigma_mm=o.along_sigma_mm,
        chance=o.chance,
    )


def _passing(told: Passing) -> PassingForm:
    way = told.way
    return PassingForm(
        opening=told.opening,
        goes=way is not None,
        up=list(way.up) if way else None,
        ahead=list(way.ahead) if way else None,
        least_deg=way.least_deg if way else None,
        most_deg=way.most_deg if way else None,
        short_mm=told.short_mm,
        short_of=told.short_of,
    )

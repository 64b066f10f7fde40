"""Two projects, or one before and after its last change, side by side: what differs, and one drawn over the other."""

from fennup.app.schemas.compare import ComparedOut, ComparisonOut, DifferenceOut, PairOut
from fennup.app.schemas.sheet import PartOut, SettingOut, SheetOut, ViewOut
from fennup.app.services.part_cards import part_cards
from fennup.app.services.projects import ProjectBody
from fennup.app.services.saw_settings import settings_of
from fennup.app.services.sheet import sheet_of
from fennup.app.wording.figures import Voice, spoken
from fennup.core.drawing.board_views import hull
from fennup.core.drawing.view import Shape
from fennup.core.geometry.vec import Point2
from fennup.core.solve import Solution

MM3_IN_LITRE = 1e6
NONE = "–"


def compared(a: tuple[str, ProjectBody, Solution], b: tuple[str, ProjectBody, Solution]) -> ComparisonOut:
    """Both with their drawings, and every difference, in the order of the work. Figures are in the first one's units."""
    voice = a[1].voice()
    sheets = [sheet_of(solution, voice) for _, _, solution in (a, b)]
    one, other = a[2], b[2]
    rows = [
        *_sizes(sheets[0], sheets[1]),
        *_wood(one, other, voice),
        *_parts(part_cards(one, voice).parts, part_cards(other, voice).parts),
        *_settings(settings_of(one, voice), settings_of(other, voice)),
    ]
    return ComparisonOut(
        sides=[
            ComparedOut(id=id, name=body.name, facts=sheet.facts, closing=sheet.closing)
            for (id, body, _), sheet in zip((a, b), sheets, strict=True)
        ],
        views=_views(sheets[0], sheets[1]),
        differences=rows,
    )


def _row(group: str, label: str, a: str, b: str) -> list[DifferenceOut]:
    """A difference; nothing where both read the same."""
    return [] if a == b else [DifferenceOut(group=group, label=label[:1].upper() + label[1:], a=a, b=b)]


def _sizes(a: SheetOut, b: SheetOut) -> list[DifferenceOut]:
    """Every size that one of them has."""
    first, second = ({size.id: size for size in sheet.sizes} for sheet in (a, b))
    rows = []
    for id in dict.fromkeys([*first, *second]):
        texts = [spoken(sizes[id].figure) if id in sizes else NONE for sizes in (first, second)]
        rows += _row("Sizes", (first.get(id) or second[id]).label, *texts)
    return rows


def _wood(a: Solution, b: Solution, voice: Voice) -> list[DifferenceOut]:
    """Pieces, their lengths together, and the wood in them."""

    def cut(solution: Solution) -> list[str]:
        return [board.id for board in solution.design.assembly.boards if not board.found]

    def long(solution: Solution) -> float:
        spans = [solution.design.solids[id].extent_x() for id in cut(solution) if not solution.design.assembly.board(id).panel]
        return sum(high - low for low, high in spans)

    def litres(solution: Solution) -> str:
        return f"{sum(solution.design.solids[id].volume() for id in cut(solution)) / MM3_IN_LITRE:.2f} litres"

    rows = _row("Wood", "pieces", str(len(cut(a))), str(len(cut(b))))
    rows += _row("Wood", "boards, end to end", spoken(voice.length(long(a))), spoken(voice.length(long(b))))
    return rows + _row("Wood", "wood in it", litres(a), litres(b))


def _parts(a: list[PartOut], b: list[PartOut]) -> list[DifferenceOut]:
    """Each part's number, section, length and ends."""
    first, second = ({part.id: part for part in parts} for parts in (a, b))
    rows = []
    for id in dict.fromkeys([*first, *second]):
        rows_of = [_rows_of(parts[id]) if id in parts else {} for parts in (first, second)]
        name = (first.get(id) or second[id]).name
        for key in dict.fromkeys([*rows_of[0], *rows_of[1]]):
            rows += _row("Parts", f"{name}: {key}", rows_of[0].get(key, NONE), rows_of[1].get(key, NONE))
    return rows


def _rows_of(part: PartOut) -> dict[str, str]:
    """What a part is cut by."""
    rung = next(rung for rung in part.ladder if rung.here)
    rows = {"pieces": str(len(part.boards)), "section": part.section_text, rung.label.lower(): spoken(rung.figure)}
    return rows | {end.name: "; then ".join(f"{spoken(cut.miter)}, {cut.bevel}" for cut in end.cuts) for end in part.ends}


def _settings(a: list[SettingOut], b: list[SettingOut]) -> list[DifferenceOut]:
    """How often the saw is set, and to what."""
    texts = [[f"{spoken(s.shown)} {s.direction}, {s.tilt}" for s in own] for own in (a, b)]
    rows = _row("Saw", "settings", str(len(texts[0])), str(len(texts[1])))
    lines = ["; ".join(x for x in own if x not in other) or NONE for own, other in (texts, texts[::-1])]
    return rows + _row("Saw", "set only here", *lines)


def _views(a: SheetOut, b: SheetOut) -> list[PairOut]:
    """The views that both have; in `over` the second one's outlines stand dashed over the first."""
    theirs = {view.id: _bare(view) for view in b.views}
    pairs = []
    for view in a.views:
        if view.short and view.id in theirs:
            own, other = _bare(view), theirs[view.id]
            over = own.model_copy(update={"shapes": [*own.shapes, *_outlines(other)]})
            pairs.append(PairOut(id=view.id, title=view.title, short=view.short, over=over, alone=[own, other]))
    return pairs


def _bare(view: ViewOut) -> ViewOut:
    """A view without sizes, marks and rings."""
    return view.model_copy(update={"marks": [], "dimensions": [], "grips": []})


def _outlines(view: ViewOut) -> list[Shape]:
    """Every part's outline on a view."""
    points: dict[str, list[Point2]] = {}
    for shape in view.shapes:
        if shape.role == "wood" and shape.part:
            points.setdefault(shape.part, []).extend(shape.points)
    return [Shape("ghost", hull(own), True) for own in points.values()]

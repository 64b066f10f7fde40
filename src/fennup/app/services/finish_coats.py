"""Coats and glue in words, and the whole to be painted side by side."""

from collections import Counter
from dataclasses import dataclass

from fennup.app.schemas.finish import CoatsOut, PaintedOut, PaintOut, WhyOut
from fennup.app.schemas.fit import LineOut
from fennup.app.schemas.sheet import ControlOut
from fennup.app.services.controls import figure_in, picked
from fennup.app.services.drawings import view_out
from fennup.app.wording import finish as told
from fennup.app.wording.fit import FitWords
from fennup.app.wording.members import end_word, sides_of
from fennup.core.drawing.board_views import from_a_side, seen_from, sides_seen
from fennup.core.drawing.view import Shape, View
from fennup.core.finish.faces import Face
from fennup.core.finish.planned import Finish
from fennup.core.finish.tables import EXPOSURES, Plastic
from fennup.core.finish.wishes import FACE_USES, NO_COAT
from fennup.core.fit.ways import FILLED_MM
from fennup.core.parts.alike import PartGroup

MOST_PARTS = 30
WHENS = (
    ("after", "after it is together", "after"),
    ("masked", "before, the glue's places masked", "masked"),
    ("before", "before, all over", "before"),
)


@dataclass(frozen=True)
class CoatsSheet:
    """The part about glue and coats."""

    finish: Finish
    words: FitWords

    def out(self) -> CoatsOut:
        """All of it."""
        return CoatsOut(
            controls=self._controls(),
            brushes=[(use, told.USE_NAMES[use]) for use in FACE_USES],
            rows=self._rows(),
            bare=self._bare(),
            smooth=self._smooth(),
            parts=[control for part in self.finish.design.parts[:MOST_PARTS] for control in self._part(part)],
            care=self._care(),
        )

    def _controls(self) -> list[ControlOut]:
        finish, wishes = self.finish, self.finish.wishes
        recipes = [(NO_COAT, "nothing: it stays bare", NO_COAT), *((name, name, name) for name in finish.tables.recipes)]
        found = [picked("recipe", "Coated with", recipes, finish.recipe.name if finish.recipe else NO_COAT)]
        if finish.recipe:
            coats = self.words.voice.count(finish.coats)
            found.append(figure_in("coats", "Coats", coats, given=wishes.coats is not None))
            found.append(picked("coat_when", "Coated", WHENS, wishes.coat_when))
            places = [("indoors", "indoors", "indoors"), ("outdoors", "outdoors", "outdoors")]
            found.append(picked("coat_where", "Where you coat it", places, wishes.coat_where, few=True))
        found.append(picked("glue", "Glued with", [(name, name, name) for name in finish.tables.glues], finish.glue.name))
        return found

    def _rows(self) -> list[WhyOut]:
        finish, plain = self.finish, self.words.voice.plain
        counts = Counter(face.use for face in finish.faces if not face.covered)
        painted = ", ".join(f"{counts[use]} {told.USE_NAMES[use]}" for use in FACE_USES if counts[use])
        area = WhyOut(
            title="To be coated", figure=f"{plain(finish.coated_m2).whole} m²", note=painted,
            lines=["Every side of every finished part, less what lies on another part, and less what is not to be coated."],
        )  # fmt: skip
        found = [area]
        if finish.recipe:
            recipe = finish.recipe
            hidden = f" and {plain(finish.hidden_m2).whole} m² once," if finish.hidden_m2 else ""
            litres = [
                f"{plain(finish.coated_m2).whole} m² × {finish.coats}{hidden} ÷ {plain(recipe.m2_l).whole} m² a litre.",
                f"Recipe {recipe.name}: {recipe.source}.",
            ]
            found.append(
                WhyOut(
                    title=f"{recipe.name[:1].upper()}{recipe.name[1:]}",
                    figure=f"{plain(finish.litres).whole} l",
                    note=f"{finish.coats} coats",
                    lines=litres,
                )
            )
            sanded = f"Sanded between with {recipe.grit}. " if recipe.grit else ""
            found.append(
                WhyOut(
                    title="Between coats", figure=told.hours(recipe.between_h), note=f"{told.hours(recipe.use_h)} after the last until it is used",
                    lines=[f"{sanded}Not below {recipe.least_c:g} °C, and not in damp or dust.", f"Coat again in some {recipe.years:g} years.", f"Recipe {recipe.name}: {recipe.source}."],
                )
            )  # fmt: skip
            wide = FILLED_MM[recipe.fills] * (0.5 if finish.outdoors else 1.0)
            say = self.words.voice.small
            found.append(
                WhyOut(
                    title="Gaps that filler hides", figure=f"up to {say(wide)}", note=f"under {recipe.name}",
                    lines=["Filler first, sanded flat when dry, then the first coat. Under clear coats and oil it shows: fill with a sliver of the same wood.",
                           "Outdoors half of that: the wood moves. Wider gaps: the Fit place says what to cut again."],
                )
            )  # fmt: skip
        if finish.glued:
            glue = finish.glue
            lines = [
                f"{plain(finish.glued_m2, digits=3).whole} m² of joints, one side, × {glue.g_m2:g} g a square metre.",
                f"{glue.name}: {glue.source}.",
            ]
            found.append(
                WhyOut(
                    title=f"{glue.name[:1].upper()}{glue.name[1:]}",
                    figure=f"{finish.glue_g:.0f} g",
                    note=f"{told.how_many(sum(len(o.kind.joints) for o in finish.glued), 'joint')}",
                    lines=lines,
                )
            )
        return found

    def buys(self) -> list[LineOut]:
        """Glue and what it is coated with, to buy."""
        finish, found = self.finish, []
        if finish.recipe and finish.litres:
            name = f"{finish.recipe.name[:1].upper()}{finish.recipe.name[1:]}"
            found.append(
                LineOut(text=name, figure=f"{finish.litres:.2f} l", note=f"{finish.coats} coats on {finish.coated_m2:.2f} m²")
            )
        if finish.glued:
            name = f"{finish.glue.name[:1].upper()}{finish.glue.name[1:]}"
            found.append(
                LineOut(text=name, figure=f"{max(1.0, finish.glue_g):.0f} g", note=f"on {finish.glued_m2:.3f} m² of joints")
            )
        return found

    def _bare(self) -> list[LineOut]:
        """Sides that must stay bare for the glue, alike ones together."""
        found: dict[str, int] = {}
        for face in self.finish.faces:
            if face.glued_mm2 > 0:
                name = self.side(face)
                found[name] = found.get(name, 0) + 1
        return [LineOut(text=name, figure=str(count) if count > 1 else "") for name, count in found.items()]

    def side(self, face: Face) -> str:
        """A side of a part, by what it does: `Rails, left end`."""
        design = self.finish.design
        part = next(p for p in design.parts if face.board in p.boards)
        name = self.words.short(part.id) + (" and its like" if len(part.boards) > 1 else "")
        return f"{name[:1].upper()}{name[1:]}, {self._facet(part.id, face.facet)}"

    def _facet(self, board: str, facet: str) -> str:
        called = sides_of(self.words.solution, board)
        if facet in called:
            return called[facet]
        end, _, number = facet.partition(":")
        if end in ("left", "right"):
            return end_word(self.finish.design.boards[board], end)  # type: ignore[arg-type]
        return "notch" if end == "notch" else told.SIDE_NAMES.get(end, end) if not number else "cut"

    def _smooth(self) -> list[LineOut]:
        found: dict[str, float] = {}
        for face in self.finish.smooth_before:
            name = self.side(face)
            found[name] = min(found.get(name, face.close_mm or 0.0), face.close_mm or 0.0)
        say = self.words.voice.say
        return [
            LineOut(text=name, figure=say(round(mm)), note="of room before it")
            for name, mm in sorted(found.items(), key=lambda f: f[1])
        ]

    def _part(self, part: PartGroup) -> list[ControlOut]:
        finish = self.finish
        name = self.words.short(part.id) + (f", {len(part.boards)} of them" if len(part.boards) > 1 else "")
        name = name[:1].upper() + name[1:]
        of = [(n, n, n) for n in (*finish.tables.woods, *finish.tables.plastics)]
        return [
            picked(
                f"exposures/{part.id}", name, [(e, told.EXPOSURE_NAMES[e], e) for e in EXPOSURES], finish.exposure_of(part.id)
            ),
            picked(f"materials/{part.id}", f"{name}: of", of, finish.wood_of(part.id).name),
        ]

    def _care(self) -> list[str]:
        finish, recipe = self.finish, self.finish.recipe
        found = ["Sanding: dust mask, and a vacuum at the sander; sweep nothing up dry."]
        if any(isinstance(finish.wood_of(part.id), Plastic) for part in finish.design.parts):
            found.append(
                "Plastics are drilled slowly, backed up with wood, well off their edges; glass edges cut: gloves, and no drilling of toughened glass."
            )
        if recipe:
            found.append("Solvents and two-part products: open doors, gloves, no flame or spark; read the can.")
        if recipe and recipe.oily:
            found.append(
                "Rags with oil can set themselves on fire: spread them out to dry outdoors, or keep them under water in a closed tin."
            )
        if any(f.use == "contents" for f in finish.faces) and recipe and not recipe.food:
            found.append(
                "Where food or drinking water touches it: bare wood, or a finish that is sold for that. No treated wood there."
            )
        if finish.wishes.exposure == "child":
            found.append("For a child: a finish that is sold for toys, dried for as long as its can says.")
        found.append("An old coat on used wood may hold lead: no dry sanding, no burning off; have it tested.")
        return found

    # Painting.

    def painting(self, side: str) -> PaintOut:
        """The whole from one side with all that is seen of it."""
        design = self.finish.design
        right, up = from_a_side(design.solids, side)
        faces = {(f.board, f.facet): f for f in self.finish.faces}
        shapes = seen_from(design.assembly, design.solids, right, up, through_found=False)
        pieces: dict[tuple[str, str], list[Shape]] = {}
        for facet, shape in sides_seen(design.assembly, design.solids, right, up):
            key = (shape.part or "", facet)
            pieces[key] = [*pieces.pop(key, []), shape]  # where its nearest piece is, among all that are drawn
        painted = [self._painted(faces[key], shapes) for key, shapes in pieces.items() if key in faces]
        return PaintOut(view=view_out(View("painting", shapes), self.words.voice), faces=painted)

    def _painted(self, face: Face, pieces: list[Shape]) -> PaintedOut:
        """A side to be painted, in all its pieces."""
        use = "glued" if face.covered and face.glued_mm2 else face.use
        first, *more = (list(piece.points) for piece in pieces)
        middle = (sum(x for x, _ in first) / len(first), sum(y for _, y in first) / len(first))
        said = "glued over" if use == "glued" else told.USE_NAMES[face.use]
        label = f"{self.words.board(face.board)}, {self._facet(face.board, face.facet)}: {said}"
        return PaintedOut(
            board=face.board, side=face.facet, label=f"{label[:1].upper()}{label[1:]}", outline=first, more=more, at=middle, use=use, tone=pieces[0].tone,
        )  # fmt: skip

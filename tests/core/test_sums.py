"""Sizes with a name, and figures that are said as sums of them."""

import unittest
from typing import Any

from pydantic import ValidationError

from fennup.app.services.drawings import control_out
from fennup.app.services.projects import PLAIN
from fennup.core.drawing.edit import Choose, Edit, Give, Nudge, TypeIn
from fennup.core.errors import SpecError, UnitError
from fennup.core.project.describe import describe
from fennup.core.project.place import assemble, settle, solids_in
from fennup.core.project.spec import NamedSize, ProjectSpec, project_of
from fennup.core.project.sums import spoken_sum
from fennup.core.units.lengths import tape
from tests.core.frames import after, box, level, spec_of

MM = tape("mm", "1")
FLOOR = "members.m1.spec.floor.height_mm"


def typed(path: str, text: str) -> TypeIn:
    return TypeIn(op="type", path=path, text=text)


class Sums(unittest.TestCase):
    def setUp(self) -> None:
        own = spec_of(box(level(400.0, 300.0), 120.0, thickness_mm=15.0, floor={"height_mm": 5.0, "thickness_mm": 12.0}))
        self.spec = self.done(project_of(own, "Case"), typed("named", "foam = 3"), typed("named", "Wide gap = 20"))

    def done(self, spec: ProjectSpec, *acts: Edit) -> ProjectSpec:
        for act in acts:
            spec = settle(ProjectSpec.model_validate(after(spec, act, MM)))
        return spec

    def floor(self, spec: ProjectSpec) -> float:
        return float(spec.members["m1"].spec.floor.height_mm)

    def test_a_figure_follows_the_sizes_that_it_is_said_by(self) -> None:
        spec = self.done(self.spec, typed(FLOOR, "15 less foam"))
        self.assertEqual(self.floor(spec), 12.0)
        spec = self.done(spec, typed("named.s1.mm", "4.5"))
        self.assertEqual(self.floor(spec), 10.5)
        # A size of the drawing as well: 400 is twenty gaps.
        spec = self.done(spec, Give(op="give", measure="m1/outer_bottom_width", text="20 wide gap + 10"))
        self.assertAlmostEqual(spec.members["m1"].spec.plan.width_mm, 410.0, places=9)
        spec = self.done(spec, Nudge(op="nudge", path="named.s2.mm", steps=1))
        self.assertAlmostEqual(spec.members["m1"].spec.plan.width_mm, 430.0, places=6)
        self.assertEqual(self.floor(spec), 10.5)

    def test_another_figure_lets_the_sum_go(self) -> None:
        said = self.done(self.spec, typed(FLOOR, "15 - foam"))
        for act in (
            typed(FLOOR, "9"),
            Nudge(op="nudge", path=FLOOR, steps=1),
            Choose(op="choose", path="members.m1.spec.floor", value=None),
        ):
            self.assertEqual(self.done(said, act).sums, {})
        gone = self.done(said, Choose(op="choose", path="named", value="s1"))
        self.assertEqual((gone.sums, list(gone.named), self.floor(gone)), ({}, ["s2"], 12.0))

    def test_it_is_shown_with_its_sum(self) -> None:
        spec = self.done(self.spec, typed(FLOOR, "2 foam + 15 - Wide Gap"))
        made = assemble(spec)
        controls = {c.code: control_out(c, PLAIN) for c in describe(spec, made, solids_in(spec, made)).controls}
        figure = controls["floor_height"].figure
        assert figure
        self.assertEqual((figure.whole, figure.sum, figure.typed), ("1", "15 + 2 foam − Wide gap", "15 + 2 foam - Wide gap"))
        # What it says can be typed back as it stands.
        self.assertEqual(self.floor(self.done(spec, typed(FLOOR, figure.typed))), 1.0)

    def test_what_a_text_says(self) -> None:
        named = {
            "s3": NamedSize(name="rail", mm=9.0),
            "s1": NamedSize(name="foam", mm=3.0),
            "s2": NamedSize(name="rail 2", mm=40.0),
        }
        for text, plus, terms in (
            ("foam", 0.0, {"s1": 1}),
            ("-foam + 15", 15.0, {"s1": -1}),
            ("15-foam", 15.0, {"s1": -1}),
            ("2 x foam plus 1/2 in", 12.7, {"s1": 2}),
            ("14-3/8 in minus rail 2", 14.375 * 25.4, {"s2": -1}),
            ("3 rail 2 + foam", 0.0, {"s2": 3, "s1": 1}),
        ):
            said = spoken_sum(text, named, MM)
            assert said
            self.assertAlmostEqual(said.plus_mm, plus, places=9, msg=text)
            self.assertEqual(said.terms, terms, text)
        for text in ("15", "14-3/8", "3 1/2 in", "foa", "", "-", "12 mm", "foam - foam"):
            self.assertIsNone(spoken_sum(text, named, MM), text)

    def test_what_cannot_be_is_refused_at_its_field(self) -> None:
        for act, code in (
            (typed("named", "foam 3"), "named_how"),
            (typed("named", "3 = foam"), "named_how"),
            (typed("named", "FOAM = 3"), "named_twice"),
            (typed("named", "felt = thick"), "no_length"),
            (typed(FLOOR, "15 - foam - felt"), "no_length"),
            (typed(FLOOR, "foam - 99999"), "sum_too_large"),
        ):
            with self.assertRaises((SpecError, UnitError)) as caught:
                after(self.spec, act, MM)
            self.assertEqual((caught.exception.code, caught.exception.fields), (code, (act.path,)))
        with self.assertRaises(ValidationError):
            ProjectSpec.model_validate(after(self.spec, typed("named.s1.mm", "9999999"), MM))
        # A named size that makes a figure impossible is refused, and says which.
        said: Any = self.done(self.spec, typed(FLOOR, "wide gap + 60"))
        with self.assertRaises(SpecError) as refused:
            assemble(self.done(said, typed("named.s2.mm", "200")))
        self.assertEqual(refused.exception.code, "floor_above_rim")

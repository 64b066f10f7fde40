"""What goes on paper, measured in the files' own vectors; and the operator's picture."""

import re
import unittest
from io import StringIO
from itertools import pairwise
from math import asin, atan, cos, degrees, hypot, radians, sin, tan

import ezdxf

from fennup.core.drawing.view import View
from fennup.core.exchange.paper import (
    FOOT_MM,
    MARGIN_MM,
    OVERLAP_MM,
    POINTS_IN_MM,
    SHEETS,
    Label,
    Worded,
    template_dxf,
    template_svg,
    templates_pdf,
    tiles,
)
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.saw.tools import TableSaw
from fennup.core.steps.picture import Said, end_views
from fennup.core.steps.planned import steps_for
from fennup.core.steps.templates import Line, Template, corner_template, end_template, model_of, templates_of, wedge_template
from fennup.core.workshop import Workshop
from tests.core.frames import box, level, of_sides, rectangle
from tests.core.test_steps import PROJECTS_BY_NAME, planned, with_ways

NEAR_MM = 0.05
NUMBER = r"(-?[\d.]+)"
# A wall whose edges are square: its sections' corners are those of a plain board.
SQUARE = box(level(300.0, 300.0), 90.0, slope_deg=10.0, thickness_mm=20.0, edges="square")


def worded(template: Template) -> Worded:
    return Worded(template, "Wall A", "", {})


def runs(pdf: bytes) -> list[list[list[tuple[float, float]]]]:
    """Every path of every page of an uncompressed file as it stands there, in mm from the sheet's lower left corner."""
    pages = []
    for stream in re.findall(rb"stream\r?\n(.*?)endstream", pdf, re.S):
        found: list[list[tuple[float, float]]] = []
        for x, y, what in re.findall(rf"{NUMBER} {NUMBER} ([ml])\b", stream.decode("latin-1")):
            point = (float(x) / POINTS_IN_MM, float(y) / POINTS_IN_MM)
            found = [*found, [point]] if what == "m" else [*found[:-1], [*found[-1], point]]
        pages.append(found)
    return pages


class OnPaper(unittest.TestCase):
    def test_the_line_of_a_compound_cut_lies_where_geometry_says(self) -> None:
        facts = planned(SQUARE, Workshop()).design.facts[0]
        (page,) = runs(templates_pdf([worded(end_template(facts, "right"))], "a4"))
        # Four sides are wrapped: five corners, one after another up the sheet.
        trace = next(run for run in page if len(run) == 5)
        wide, thick, a = 90.0 / cos(radians(10.0)), 20.0, radians(10.0)
        # F20 for four walls that lean alike: the trace on the face and that on the edge.
        miter = atan(sin(a))
        bevel = asin(cos(a) * sin(radians(45.0)))
        edge = atan(tan(bevel) / cos(miter))
        for (x0, y0), (x1, y1), across, along in zip(
            trace,
            trace[1:],
            (thick, wide, thick, wide),
            (thick * tan(edge), wide * tan(miter), thick * tan(edge), wide * tan(miter)),
            strict=False,
        ):
            self.assertAlmostEqual(abs(y1 - y0), across, delta=NEAR_MM)
            self.assertAlmostEqual(abs(x1 - x0), along, delta=NEAR_MM)
        self.assertAlmostEqual(trace[0][0], trace[-1][0], delta=NEAR_MM)  # it closes round the board

    def test_the_bars_are_100_mm_and_4_in_on_both_papers(self) -> None:
        for size in SHEETS:
            page, *_ = runs(templates_pdf([worded(wedge_template("w", "A", 12.7244))], size))
            longs = [abs(b[0] - a[0]) for run in page if len(run) == 2 for a, b in [run] if abs(a[1] - b[1]) < 1e-6]
            for bar in (100.0, 101.6):
                self.assertTrue([long for long in longs if abs(long - bar) < NEAR_MM], (size, bar))

    def test_what_is_larger_than_a_sheet_lies_on_several_that_overlap(self) -> None:
        large = Template("large", "outline", "A", (Line("cut", ((0.0, 0.0), (400.0, 0.0), (400.0, 500.0), (0.0, 500.0)), True),))
        self.assertEqual(tiles(large, "a4"), (3, 3))
        pages = runs(templates_pdf([worded(large)], "a4"))
        self.assertEqual(len(pages), 9)
        wide, high = SHEETS["a4"][0] - 2 * MARGIN_MM - OVERLAP_MM, SHEETS["a4"][1] - 2 * MARGIN_MM - FOOT_MM - OVERLAP_MM
        for number, page in enumerate(pages):
            corner = next(run for run in page if len(run) == 4)[0]
            row, column = divmod(number, 3)
            self.assertAlmostEqual(corner[0], MARGIN_MM - column * wide, delta=NEAR_MM)
            self.assertAlmostEqual(corner[1], MARGIN_MM + FOOT_MM - row * high, delta=NEAR_MM)

    def test_svg_and_dxf_have_the_same_lines_in_millimetres(self) -> None:
        one = worded(wedge_template("w", "A", 12.7244))
        svg = template_svg(one)
        points = [tuple(float(v) for v in pair.split(",")) for pair in re.search(r'points="([^"]+)"', svg)[1].split()]  # type: ignore[index]
        self.assertAlmostEqual(points[1][0] - points[0][0], 300.0, places=3)
        self.assertAlmostEqual(points[1][1] - points[2][1], 300.0 * tan(radians(12.7244)), places=3)
        self.assertIn('width="324.0000mm"', svg)
        document = ezdxf.read(StringIO(template_dxf(one)))
        self.assertFalse(document.audit().has_errors)
        (line,) = document.modelspace().query("LWPOLYLINE")
        self.assertEqual((line.dxf.layer, line.closed), ("CUT", True))
        self.assertAlmostEqual(line.get_points("xy")[2][1], 300.0 * tan(radians(12.7244)), places=6)

    def test_a_box_folds_up_edge_to_edge(self) -> None:
        leaning = box(of_sides(5, 200.0), 120.0, slope_deg=12.0, thickness_mm=18.0)
        model = model_of(planned(leaning, Workshop()).design, 4.0)
        assert model
        bottoms = [line.points for line in model.lines[0:15:3]]
        tops = [line.points for line in model.lines[1:15:3]]
        side = {round(hypot(b[0] - a[0], b[1] - a[1]), 6) for a, b in bottoms}
        self.assertEqual(side, {round(200.0 * tan(radians(36.0)) / 4, 6)})  # 200 across flats
        # The outline grows by 2 h tan(slope) tan(180 / n) a side, up the slope h / cos.
        grown = (200.0 * tan(radians(36.0)) + 2 * 120.0 * tan(radians(12.0)) * tan(radians(36.0))) / 4
        self.assertTrue(all(abs(hypot(b[0] - a[0], b[1] - a[1]) - grown) < 1e-6 for a, b in tops))
        for (_, end), (start, _) in pairwise(bottoms):
            self.assertLess(hypot(end[0] - start[0], end[1] - start[1]), 1e-9)
        for (_, end), (start, _) in pairwise(tops):
            self.assertLess(hypot(end[0] - start[0], end[1] - start[1]), 1e-9)
        butted = box(level(300.0, 200.0), 100.0, joint="butt")
        self.assertIsNone(model_of(planned(butted, Workshop()).design, 4.0))

    def test_everything_that_needs_a_template_has_one(self) -> None:
        made = planned(PROJECTS_BY_NAME["Rope bin"], Workshop())
        found = [t.sort for t in templates_of(made.design, steps_for(made.design, made.plan).steps)]
        self.assertEqual(sorted(set(found)), ["corner", "end", "outline"])
        steep = rectangle("outside", 600.0, 400.0, 60.0, rails={"B": {"width_mm": 95.0}, "D": {"width_mm": 95.0}})
        saw = MiterSaw(swing_left_deg=52.0, tilt_left_deg=30.0, high_mm=40.0)
        made = planned(steep, Workshop(tools={"t1": saw}))
        wedges = [t for t in templates_of(made.design, steps_for(made.design, made.plan).steps) if t.sort == "wedge"]
        self.assertEqual(len(wedges), 1)
        angle = corner_template("c", "A", 91.73).lines[0].points
        self.assertAlmostEqual(degrees(atan(-angle[2][0] / angle[2][1])), 1.73, places=6)
        labels = [Label(str(k), ()) for k in range(13)]
        self.assertEqual(len(runs(templates_pdf([], "a4", labels))), 1)


class AsOneStands(unittest.TestCase):
    def views(self, way: str, key: str = "m1/A right:0") -> tuple[tuple[View, ...], float, float]:
        made = planned(box(level(400.0, 300.0), 90.0, slope_deg=12.0), Workshop(tools={"t1": MiterSaw(tilt_right_deg=45.0)}))
        plan = with_ways(made.design, made.plan, {key: way})
        steps = steps_for(made.design, plan)
        step = next(step for step in steps.steps if step.key == key)
        assert step.way
        return (
            end_views(steps.raws[step.part], step, "beyond", {"left": [], "right": []}, Said("keep")),
            step.way.swing_deg,
            step.way.tilt_deg,
        )

    def test_the_picture_has_the_swing_the_kept_side_and_the_long_point_of_every_pose(self) -> None:
        for way in ("t1:back:upper", "t1:back:lower", "t1:face:upper", "t1:face:lower"):
            (above, front), swing, tilt = self.views(way)
            (x0, y0), (x1, y1) = next(s for s in above.shapes if s.role == "blade").points
            self.assertAlmostEqual(degrees(atan((x1 - x0) / (y0 - y1))), swing)
            wood = next(s for s in above.shapes if s.role == "wood").points
            waste = next(s for s in above.shapes if s.role == "waste").points
            kept_left = sum(x for x, _ in wood) / len(wood) < sum(x for x, _ in waste) / len(waste)
            self.assertEqual(kept_left, way in ("t1:back:upper", "t1:face:lower"))
            tip = next(m for m in above.marks if m.role == "long_point").at
            reach = (max if kept_left else min)(x for x, _ in wood)
            self.assertAlmostEqual(tip[0], reach)
            # From the front the blade leans as it is tilted, + to the left, and the wood ends along it.
            foot, top = next(s for s in front.shapes if s.role == "blade").points
            self.assertAlmostEqual(degrees(atan((foot[0] - top[0]) / (top[1] - foot[1]))), tilt)

    def test_a_second_cut_of_an_end_has_its_picture_in_every_way(self) -> None:
        # What the first cut has taken away may be all that lay near the blade's corner.
        made = planned(PROJECTS_BY_NAME["Slip lantern hip"])
        plan = steps_for(made.design, made.plan)
        later = [step for step in plan.steps if step.work in ("first_end", "second_end") and step.index > 0]
        self.assertGreater(len(later), 10)
        for step in later:
            board, end = plan.raws[step.part].board, step.end
            assert end
            before = {"left": [], "right": [], end: list(board.ends(end)[: step.index])}
            for way in step.ways:
                fence = made.plan.tools[way.tool].fence_place
                above, *_ = end_views(plan.raws[step.part], step.but(way=way, stop=None), fence, before, Said("keep"))
                wood = [shape for shape in above.shapes if shape.role == "wood"]
                self.assertTrue(all(len(shape.points) > 2 for shape in wood), (step.key, way.id))
                self.assertTrue(wood)

    def test_at_a_gauge_fence_and_stop_distance_stand_nearest_to_the_operator(self) -> None:
        made = planned(SQUARE, Workshop(tools={"t1": TableSaw(tilt_right_deg=45.0)}))
        plan = steps_for(made.design, made.plan)
        step = next(step for step in plan.steps if step.work == "second_end")
        board = plan.raws[step.part].board
        before = {"left": [], "right": list(board.right)} if step.end == "left" else {"left": list(board.left), "right": []}
        above, *_ = end_views(plan.raws[step.part], step, "near", before, Said("keep"))
        self.assertEqual(above.dimensions[0].away, (0.0, -1.0))
        fence = max(y for shape in above.shapes if shape.role == "fence" for _, y in shape.points)
        wood = min(y for shape in above.shapes if shape.role == "wood" for _, y in shape.points)
        self.assertAlmostEqual(fence, wood)

    def test_a_board_that_is_propped_is_seen_from_the_right_as_it_leans(self) -> None:
        views, *_ = self.views("t1:lower:face:propped")
        self.assertEqual([view.id for view in views], ["operator", "saw_front_step", "saw_right_step"])
        wood = next(s for s in views[2].shapes if s.role == "wood").points
        low = sorted(wood, key=lambda p: p[1])[:2]
        self.assertAlmostEqual(low[0][1], 0.0)
        self.assertAlmostEqual(low[1][1], 0.0)  # its ripped edge lies flat on the table
        flat, *_ = self.views("t1:back:upper")
        self.assertEqual(len(flat), 2)

import unittest
from math import asin, atan, cos, degrees, radians, sin, tan

from hypothesis import given
from hypothesis import strategies as st

from fennup.core.assembly.board import Board
from fennup.core.errors import CutError
from fennup.core.geometry.frame import frame_from
from fennup.core.geometry.plane import Plane, joint_plane, meeting_point, plane_through
from fennup.core.geometry.polyhedron import clip, shared_volume
from fennup.core.geometry.vec import cross, distance, dot, unit
from fennup.core.parts.solid import arris_length, end_cut, solid_of
from fennup.core.saw.pose import FLAT, Pose, blade_angles, cut_normal, poses_for
from fennup.core.stock.ploughed import Rabbet
from fennup.core.stock.section import Section

AXES = frame_from((0.0, 0.0, 0.0), (1.0, 0.0, 0.0), (0.0, 0.0, 1.0))
tilts = st.floats(-50, 50)


def cut(miter: float, bevel: float, at: float, way: int = 1) -> Plane:
    """The plane with that miter and bevel, by the definitions turned round: nz = sin b, ny / |nx| = tan m."""
    nz = sin(radians(bevel))
    flat = (1 - nz * nz) ** 0.5
    return plane_through((at, 0.0, 0.0), (way * flat * cos(radians(miter)), flat * sin(radians(miter)), nz))


def board(left: Plane, right: Plane, rabbet: Rabbet | None = None) -> Board:
    return Board("A", "A", Section(60.0, 20.0, (rabbet,) if rabbet else ()), AXES, (left,), (right,))


class CutsOnABoard(unittest.TestCase):
    @given(tilts, tilts)
    def test_the_three_angles_of_a_cut_hold_together(self, miter: float, bevel: float) -> None:
        read = end_cut(cut(miter, bevel, 100.0))
        self.assertAlmostEqual(read.miter_deg, miter, places=9)
        self.assertAlmostEqual(read.bevel_deg, bevel, places=9)
        expected = degrees(atan(tan(radians(bevel)) / cos(radians(miter))))
        self.assertAlmostEqual(read.edge_trace_deg, expected, places=9)

    @given(tilts, tilts)
    def test_volume_is_the_mean_of_the_arrises_times_the_section(self, miter: float, bevel: float) -> None:
        # A prism cut by planes that do not meet inside: its volume is its length on the axis times the section, and
        # opposite arrises balance about the axis.
        piece = board(cut(0.0, 0.0, 0.0, -1), cut(miter, bevel, 200.0))
        self.assertAlmostEqual(solid_of(piece).volume() / (60 * 20 * 200), 1.0, places=9)
        mean = (arris_length(piece, "face_upper") + arris_length(piece, "back_lower")) / 2
        self.assertAlmostEqual(mean, 200.0, places=6)

    def test_a_positive_miter_shortens_the_upper_edge_and_a_positive_bevel_the_face(self) -> None:
        mitered = board(cut(0.0, 0.0, 0.0, -1), cut(30.0, 0.0, 200.0))
        self.assertAlmostEqual(arris_length(mitered, "face_lower") - arris_length(mitered, "face_upper"), 60 * tan(radians(30)))
        bevelled = board(cut(0.0, 0.0, 0.0, -1), cut(0.0, 20.0, 200.0))
        self.assertAlmostEqual(arris_length(bevelled, "back_upper") - arris_length(bevelled, "face_upper"), 20 * tan(radians(20)))

    def test_a_rabbet_takes_its_width_times_its_depth(self) -> None:
        piece = board(cut(0, 0, 0.0, -1), cut(0, 0, 100.0), Rabbet(width_mm=6.0, depth_mm=8.0))
        self.assertAlmostEqual(solid_of(piece).volume(), (60 * 20 - 6 * 8) * 100)

    def test_cuts_that_cross_leave_nothing_and_say_so(self) -> None:
        with self.assertRaises(CutError):
            solid_of(board(cut(0, 0, 200.0, -1), cut(0, 0, 100.0)))
        with self.assertRaises(CutError):
            solid_of(Board("A", "A", Section(60.0, 20.0), AXES, (), (cut(0, 0, 100.0),)))


class SolidsAndPlanes(unittest.TestCase):
    def test_the_middle_of_a_wedge_lies_at_a_third_from_its_thick_side(self) -> None:
        block = solid_of(board(cut(0, 0, 0.0, -1), cut(0, 0, 90.0))).local[0]
        wedge = clip(block, plane_through((0.0, 30.0, 0.0), unit((60.0, 90.0, 0.0))), "slope")
        half = 90.0 * 60.0 * 20.0 / 2
        for got, expected in zip(wedge.moment(), (half * 30.0, half * -10.0, 0.0), strict=True):
            self.assertAlmostEqual(got, expected, places=3)

    def test_clipping_a_box_by_a_diagonal_leaves_half_of_it(self) -> None:
        box = solid_of(board(cut(0, 0, 0.0, -1), cut(0, 0, 60.0))).local[0]
        half = clip(box, plane_through((30.0, 0.0, 0.0), (1.0, 1.0, 0.0)), "cut")
        self.assertAlmostEqual(half.volume(), box.volume() / 2)
        self.assertEqual(len(half.facets), 5)
        self.assertAlmostEqual(shared_volume(half, box), half.volume())
        other = clip(box, plane_through((30.0, 0.0, 0.0), (-1.0, -1.0, 0.0)), "cut")
        self.assertEqual(shared_volume(half, other), 0.0)

    @given(st.floats(20, 160), st.floats(30, 90), st.floats(30, 90), tilts, tilts)
    def test_a_joint_plane_holds_the_inner_and_the_outer_corner_in_any_position(
        self, turn: float, wide_a: float, wide_b: float, spin: float, lean: float
    ) -> None:
        frame = frame_from((7.0, -3.0, 11.0), (cos(radians(spin)), sin(radians(spin)), sin(radians(lean))), (0.2, 0.1, 1.0))

        def placed(normal: tuple[float, float, float], offset: float) -> Plane:
            return frame.plane_to_world(Plane(normal, offset))

        b_out = (sin(radians(turn)), -cos(radians(turn)), 0.0)
        outer_a, inner_a = placed((0.0, -1.0, 0.0), wide_a), placed((0.0, -1.0, 0.0), 0.0)
        outer_b, inner_b = placed(b_out, wide_b), placed(b_out, 0.0)
        plane = joint_plane(outer_a, outer_b, inner_a, inner_b)
        for level in (-5.0, 40.0):
            floor = placed((0.0, 0.0, 1.0), level)
            self.assertAlmostEqual(plane.beyond(meeting_point(outer_a, outer_b, floor)), 0.0, places=6)
            self.assertAlmostEqual(plane.beyond(meeting_point(inner_a, inner_b, floor)), 0.0, places=6)
        self.assertLess(plane.beyond(frame.to_world((-500.0, -wide_a / 2, 0.0))), 0.0)


class BoardsOnTheSaw(unittest.TestCase):
    RIPPED = Board(
        "A", "A", Section(60.0, 20.0), AXES, upper_rip=None, lower_rip=plane_through((0.0, -30.0, 0.0), (0.0, -1.0, 0.3))
    )

    @given(tilts, tilts, st.sampled_from(poses_for(RIPPED)), st.sampled_from([1, -1]))
    def test_swing_and_tilt_cut_the_plane_that_was_asked(self, miter: float, bevel: float, pose: Pose, way: int) -> None:
        # Rebuild the blade's plane from the setting alone and compare it with the cut carried into the saw's axes.
        asked = cut(miter, bevel, 0.0, way)
        blade = blade_angles(asked, pose)
        s, t = radians(blade.swing_deg), radians(blade.tilt_deg)
        near, up = (sin(s), -cos(s), 0.0), (0.0, 0.0, 1.0)
        side = unit(cross(near, up))
        top = tuple(up[k] * cos(t) + (side[k] if side[0] < 0 else -side[k]) * sin(t) for k in range(3))
        normal = unit(cross(near, (top[0], top[1], top[2])))
        x, y, z = pose.axes()
        carried = tuple(dot(asked.normal, axis) for axis in (x, y, z))
        self.assertAlmostEqual(abs(dot(normal, (carried[0], carried[1], carried[2]))), 1.0, places=9)
        self.assertEqual(blade.kept, "left" if carried[0] > 0 else "right")
        back = cut_normal(blade, pose)
        self.assertAlmostEqual(dot(back, asked.normal), 1.0, places=12)

    def test_on_edge_swing_and_tilt_change_places_with_the_edge_trace_and_the_widths_lean(self) -> None:
        # Standing on its edge the board's thickness lies along the table: swing = edge trace, tilt = asin(ny).
        asked = cut(-14.5, -43.0, 100.0)
        on_edge = next(p for p in poses_for(board(asked, asked)) if (p.down, p.fence) == ("lower", "face"))
        blade = blade_angles(asked, on_edge)
        self.assertAlmostEqual(abs(blade.swing_deg), abs(end_cut(asked).edge_trace_deg), places=9)
        self.assertAlmostEqual(abs(blade.tilt_deg), abs(degrees(asin(asked.normal[1]))), places=9)

    def test_face_up_upper_edge_to_the_fence_kept_left_reads_the_conventions_signs(self) -> None:
        blade = blade_angles(cut(22.5, 10.0, 0.0), FLAT[0])
        self.assertAlmostEqual(blade.swing_deg, 22.5)
        self.assertAlmostEqual(blade.tilt_deg, 10.0)
        self.assertEqual(blade.kept, "left")

    def test_points_go_to_the_assembly_and_back(self) -> None:
        frame = frame_from((1.0, 2.0, 3.0), (1.0, 1.0, 0.3), (0.0, 0.1, 1.0))
        self.assertAlmostEqual(distance(frame.to_local(frame.to_world((4.0, 5.0, 6.0))), (4.0, 5.0, 6.0)), 0.0)
        self.assertAlmostEqual(asin(dot(frame.x, frame.y)), 0.0)

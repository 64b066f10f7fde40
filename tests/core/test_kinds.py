"""What holds for every kind in the registry."""

import unittest
from dataclasses import replace
from math import cos, hypot, radians, sin
from typing import Any

from hypothesis import given, settings
from hypothesis import strategies as st

from fennup.core.errors import SpecError, UnitError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.units.lengths import tape
from fennup.core.verify.boolean import boolean_proof
from fennup.core.verify.closing import closing_of
from tests.core.frames import Solved, after, all_starts, box, irregular, rectangle, regular, shown, solved, spec_of

MM = tape("mm", "1")
sizes = st.floats(60, 1500)
thin = st.floats(3, 40)


@st.composite
def bars(draw: st.DrawFn) -> dict[str, Any]:
    spacing = st.sampled_from(["gaps", "flush", "half", "margins", "centres"])
    row = st.fixed_dictionaries(
        {"count": st.integers(1, 4), "width_mm": st.floats(5, 60), "way_deg": st.floats(-89, 90), "spacing": spacing}
    )
    return {"thickness_mm": draw(st.floats(3, 20)), "bars": draw(st.lists(row, max_size=2))}


@st.composite
def frames(draw: st.DrawFn) -> dict[str, Any]:
    width, inner = draw(st.floats(10, 120)), draw(st.none() | bars())
    if draw(st.booleans()):
        joint = draw(st.sampled_from(["miter", "butt"]))
        return regular(draw(st.integers(3, 24)), width, "outside_flats", mm=draw(sizes), joint=joint, inner=inner)
    return rectangle(draw(st.sampled_from(["opening", "outside"])), draw(sizes), draw(sizes), width, inner=inner)


@st.composite
def boxes(draw: st.DrawFn) -> dict[str, Any]:
    """Boxes with whatever may go with them; many are impossible."""
    slopes = st.floats(-50, 60)
    more: dict[str, Any] = {"thickness_mm": draw(thin), "edges": draw(st.sampled_from(["level", "square"]))}
    form = draw(st.sampled_from(["regular", "rectangle", "irregular"]))
    if form == "regular":
        plan: dict[str, Any] = {"form": form, "sides": draw(st.integers(3, 12)), "across_mm": draw(sizes)}
        more["slope_deg"] = draw(slopes)
    elif form == "rectangle":
        plan = {"form": form, "width_mm": draw(sizes), "depth_mm": draw(sizes)}
        more["slopes_deg"] = {side: draw(slopes) for side in "ABCD"}
        more["thicknesses_mm"] = {"B": draw(thin)}
    else:
        reach, turns = draw(sizes), sorted(draw(st.lists(st.floats(0, 359), min_size=3, max_size=7, unique=True)))
        plan = {"form": form, "corners": [(reach * cos(radians(t)), reach * sin(radians(t))) for t in turns]}
        more["slope_deg"] = draw(st.floats(-20, 30))
    height = draw(st.floats(20, 600))
    if draw(st.booleans()):
        more["floor"] = {"height_mm": draw(st.floats(0, 50)), "thickness_mm": draw(thin), "play_mm": draw(st.floats(0, 5))}
    if draw(st.booleans()):
        more["courses"] = {"count": draw(st.integers(2, 5)), "board_width_mm": draw(st.floats(40, 250))}
    if draw(st.booleans()):
        more["cap"] = {"thickness_mm": draw(thin), "over_in_mm": draw(st.floats(-5, 30)), "over_out_mm": draw(st.floats(-5, 30))}
    if draw(st.booleans()):
        more["cladding"] = {"width_mm": draw(st.floats(5, 60)), "thickness_mm": draw(st.floats(3, 20))}
    more["grain"] = draw(st.sampled_from(["round", "up"]))
    if draw(st.booleans()):
        more |= draw(fitted(height))
    more["inner"] = draw(st.none() | bars())
    more["joint"] = draw(st.sampled_from(["miter", "butt"]))
    return box(plan, height, **more)


@st.composite
def covers(draw: st.DrawFn) -> dict[str, Any]:
    """Lids of any thickness, over or short of their sides, hinged or not."""
    over = st.floats(-30, 60)
    sides = draw(st.dictionaries(st.sampled_from("ABCD"), over, max_size=3))
    hinge = {"hinge": draw(st.sampled_from("ABC")), "strip_mm": draw(st.floats(5, 90))} if draw(st.booleans()) else {}
    return {"thickness_mm": draw(thin), "over_mm": draw(over), "overs_mm": sides, **hinge}


@st.composite
def fitted(draw: st.DrawFn, height: float) -> dict[str, Any]:
    """What stands in a box's corners, lies under its rim or on it, and how its walls are parted."""
    small, few = st.floats(3, 60), draw(st.integers(1, 3))
    every: dict[str, st.SearchStrategy[Any]] = {
        "blocks": st.fixed_dictionaries({"along_mm": small, "thickness_mm": thin, "below_mm": small}),
        "insert": st.fixed_dictionaries({"reveal_mm": small, "thickness_mm": thin, "play_mm": st.floats(0, 5), "on": st.sampled_from(["ledger", "blocks"])}),
        "cover": covers(),
        "lining": st.fixed_dictionaries({"below_mm": small, "lap_mm": st.floats(0, 25), "drains": st.integers(0, 4)}),
        "staves": st.integers(1, 4),
        "rims": st.sampled_from(["level", "alike"]),
        "turned": st.fixed_dictionaries({"outer_mm": sizes}),
        "cladding": st.fixed_dictionaries(
            {"width_mm": small, "thickness_mm": thin, "rails_mm": st.lists(st.floats(0, height), max_size=2), "past_mm": small, "point_deg": st.floats(0, 60)}
        ),
        "shelves": st.lists(st.fixed_dictionaries({"height_mm": sizes, "thickness_mm": thin, "side": st.sampled_from("ABC")}), max_size=2),
        "holes": st.lists(
            st.fixed_dictionaries({"board": st.sampled_from(["A", "floor"]), "count": st.integers(1, 3), "diameter_mm": small, "up_mm": small, "deep_mm": st.none() | small, "ball_mm": st.none() | small}),
            max_size=1,
        ),
    }  # fmt: skip
    return {
        name: draw(every[name])
        for name in draw(st.lists(st.sampled_from(sorted(every)), min_size=few, max_size=few, unique=True))
    }


@st.composite
def stands(draw: st.DrawFn) -> dict[str, Any]:
    """Stands with whatever may go between their legs; many are impossible."""
    splay, sections = st.floats(-10, 35), st.floats(15, 80)
    form = draw(st.sampled_from(["four", "pairs", "round"]))
    plan: dict[str, Any] = {"form": form}
    if form == "round":
        plan |= {"legs": draw(st.integers(3, 6)), "top_side_mm": draw(sizes), "lean_deg": draw(splay)}
    else:
        plan |= {"top_width_mm": draw(sizes), "front_splay_deg": draw(splay), "side_splay_deg": draw(st.floats(2, 35))}
        plan |= {"top_depth_mm": draw(sizes)} if form == "four" else {}
    height, which = draw(st.floats(200, 1200)), st.sampled_from(["all", "AC", "BD"])
    low = st.floats(0, 500)
    rail = st.fixed_dictionaries({"height_mm": low, "width_mm": sections, "thickness_mm": thin, "sides": which})
    hoop = st.fixed_dictionaries(
        {"height_mm": low, "tall_mm": sections, "thickness_mm": thin, "edges": st.sampled_from(["level", "square"])}
    )
    more: dict[str, Any] = {"rails": draw(st.lists(rail, max_size=2)), "rings": draw(st.lists(hoop, max_size=2))}
    if draw(st.booleans()):
        more["braces"] = {"low_mm": draw(st.floats(20, 150)), "high_mm": draw(st.floats(150, 600)), "width_mm": draw(sections)}
        more["braces"] |= {"thickness_mm": draw(thin)}
    more["roll"] = draw(st.sampled_from(["in_plane", "even", "rhombic"]))
    leg = {"width_mm": draw(sections), "thickness_mm": draw(sections)}
    return {"kind": "stand", "plan": plan, "height_mm": height, "leg": leg, **more}


@st.composite
def braces(draw: st.DrawFn) -> dict[str, Any]:
    """Braces and props in any place."""
    form, rise = draw(st.sampled_from(["knee", "between", "prop"])), st.floats(-1500, 1500)
    place: dict[str, Any] = {"form": form}
    by = ["lower", "centre", "upper"]
    if form == "knee":
        place |= {"corner_deg": draw(st.floats(20, 160)), "post_leg_mm": draw(sizes), "beam_leg_mm": draw(sizes)}
    elif form == "prop":
        tilt = st.floats(-20, 20)
        place |= {"stand_off_mm": draw(sizes), "wall_height_mm": draw(sizes), "ground_deg": draw(tilt), "wall_deg": draw(tilt)}
        if draw(st.booleans()):
            place["treads"] = {"count": draw(st.integers(1, 8)), "thickness_mm": draw(thin), "clear_mm": draw(sizes)}
            place["treads"]["box_mm"] = draw(st.none() | sizes)
            own = {
                "deep_mm": draw(st.floats(60, 400)),
                "proud_mm": draw(st.floats(-50, 200)),
                "front_deg": draw(tilt),
                "back_deg": draw(tilt),
            }
            place["treads"] |= own if draw(st.booleans()) else {}
            cleats = {"width_mm": draw(thin), "thickness_mm": draw(thin), "at": draw(st.sampled_from(["ground", "wall", "both"]))}
            place["treads"]["cleats"] = cleats if draw(st.booleans()) else None
        if draw(st.booleans()):
            place["sill"] = {"out_mm": draw(thin), "under_mm": place["wall_height_mm"] + draw(st.floats(-40, 40))}
    else:
        by += ["corners", "pocket"]
        place |= {"clear_mm": draw(sizes), "rise_mm": draw(rise)}
        if draw(st.booleans()):
            place["crossing"] = {"start_mm": draw(rise), "rise_mm": draw(rise), "width_mm": draw(st.floats(10, 120))}
    board = {"width_mm": draw(st.floats(10, 120)), "thickness_mm": draw(thin), "member_mm": draw(st.floats(20, 120))}
    return {"kind": "brace", "place": place, "by": draw(st.sampled_from(by)), **board}


@st.composite
def roofs(draw: st.DrawFn) -> dict[str, Any]:
    """Roofs of every form."""
    form = draw(st.sampled_from(["gable", "pyramid", "hip", "lean_to"]))
    shape: dict[str, Any] = {"form": form}
    if form == "gable":
        slope = st.fixed_dictionaries({"run_mm": sizes, "pitch_deg": st.floats(5, 75)})
        shape |= {
            "left": draw(slope),
            "right": draw(st.none() | slope),
            "heel_mm": draw(st.floats(5, 60)),
            "pairs": draw(st.integers(1, 3)),
        }
        shape |= {"foot": draw(st.sampled_from(["birdsmouth", "seat"])), "overhang_mm": draw(st.floats(0, 300))}
        if draw(st.booleans()):
            shape["ridge"] = {"thickness_mm": draw(thin), "depth_mm": draw(st.floats(100, 400))}
    elif form == "pyramid":
        shape |= {"sides": draw(st.integers(3, 12)), "across_mm": draw(sizes), "height_mm": draw(sizes)}
        shape["eaves"] = draw(st.sampled_from(["level", "plumb", "square"]))
        shape["cone"] = draw(st.none() | st.fixed_dictionaries({"over_mm": st.floats(0, 40), "lap_mm": st.floats(0, 30)}))
    elif form == "hip":
        shape |= {
            "sides": draw(st.none() | st.integers(3, 8)),
            "width_mm": draw(sizes),
            "depth_mm": draw(sizes),
            "rise_mm": draw(sizes),
        }
        shape |= {
            "hip_thickness_mm": draw(thin),
            "hip_depth_mm": draw(st.floats(40, 250)),
            "spacing_mm": draw(st.floats(100, 600)),
            "foot": draw(st.sampled_from(["flush", "seat", "birdsmouth"])),
            "overhang_mm": draw(st.floats(0, 300)),
        }
        if shape["sides"] is None and draw(st.booleans()):
            shape["ridge"] = {"length_mm": draw(sizes), "thickness_mm": draw(thin), "depth_mm": draw(st.floats(40, 250))}
    else:
        shape |= {"width_mm": draw(sizes), "depth_mm": draw(sizes), "front_mm": draw(sizes), "back_mm": draw(sizes)}
        shape |= {"cover": draw(covers())} if draw(st.booleans()) else {"over_mm": draw(st.floats(0, 60))}
    return {"kind": "roof", "shape": shape, "depth_mm": draw(st.floats(40, 200)), "thickness_mm": draw(thin)}


@st.composite
def post_frames(draw: st.DrawFn) -> dict[str, Any]:
    """Two to six posts on lines, with rails of every sort, foot pieces, knees, braces and slats."""
    columns, rows = draw(st.integers(2, 3)), draw(st.integers(1, 2))
    sections = st.floats(15, 90)
    section, height = {"width_mm": draw(sections), "thickness_mm": draw(sections)}, draw(sizes)
    lean = {"lean_deg": draw(st.floats(-20, 20)), "leans": draw(st.sampled_from("xy"))} if draw(st.booleans()) else {}
    top = {"top_deg": draw(st.floats(-30, 30)), "top_way": draw(st.sampled_from("xy"))} if draw(st.booleans()) else {}
    posts = {
        "ABCDEF"[r * columns + c]: {"column": str(c + 1), "row": str(r + 1), "height_mm": height, **section, **lean, **top}
        for r in range(rows) for c in range(columns)
    }  # fmt: skip
    ends = st.sampled_from(["square", "plumb", "flush", "angle"])
    reach = st.fixed_dictionaries({"over_a_mm": st.floats(0, 200), "ends": ends, "end_deg": st.floats(-40, 40)})
    joint: dict[str, Any] = draw(
        st.fixed_dictionaries(
            {"form": st.just("between"), "set_in_mm": st.none() | st.floats(0, 20), "housed_mm": st.just(0.0) | st.floats(0, 30)}
        )
        | st.tuples(reach, st.sampled_from(["front", "back"]), st.floats(0, 15), st.floats(0, 15)).map(
            lambda t: {**t[0], "form": "lapped", "side": t[1], "let_in_mm": t[2], "notch_mm": t[3]}
        )
        | reach.map(lambda r: {**r, "form": "over"})
    )
    high = height if joint["form"] == "over" else draw(st.floats(0, 1)) * height
    rail = {
        "a": "A",
        "width_mm": draw(sections),
        "thickness_mm": draw(thin),
        "height_mm": high,
        "rise_deg": draw(st.floats(-25, 25)),
    }
    rails = {
        str(r + 1): rail | {"a": "AC"[r] if columns == 2 else "AD"[r], "b": "BD"[r] if columns == 2 else "BE"[r], "joint": joint}
        for r in range(rows)
    }
    more: dict[str, Any] = {}
    if draw(st.booleans()):
        foot = {"width_mm": draw(sections), "thickness_mm": draw(thin), **draw(reach)}
        more["feet"] = {"1": {"under": draw(st.sampled_from([["A"], ["A", "B"]])), "way": draw(st.sampled_from("xy")), **foot}}
    if draw(st.booleans()):
        legs = {"post_mm": draw(st.floats(50, 300)), "rail_mm": draw(st.floats(50, 300)), "width_mm": 40.0, "thickness_mm": 20.0}
        more["knees"] = {"1": {"corners": [{"post": "A", "rail": "1"}, {"post": "B", "rail": "1"}], **legs}}
    if draw(st.booleans()):
        rise = {"low_mm": draw(st.floats(0, 200)), "high_mm": draw(st.floats(0, 900)), "crossing": draw(st.booleans())}
        more["braces"] = {"1": {"a": "A", "b": "B", "width_mm": draw(sections), "thickness_mm": draw(thin), **rise}}
    if rows == 2 and draw(st.booleans()):
        more["slats"] = {
            "1": {"on": ["1", "2"], "count": draw(st.integers(1, 6)), "width_mm": 60.0, "thickness_mm": 18.0, "over_mm": 20.0}
        }
    lines = {
        "columns": {str(c + 1): c * draw(sizes) for c in range(columns)},
        "rows": {str(r + 1): r * draw(sizes) for r in range(rows)},
    }
    ground = {"right_deg": draw(st.floats(-5, 5)), "back_deg": draw(st.floats(-5, 5))} if draw(st.booleans()) else {}
    return {"kind": "post_frame", **lines, "posts": posts, "rails": rails, "ground": ground, **more}


@st.composite
def mouldings(draw: st.DrawFn) -> dict[str, Any]:
    """One to four runs past inside and outside corners, level or rising; or round a rectangular room."""
    angles = st.floats(30, 170)
    corner = st.fixed_dictionaries({"side": st.sampled_from(["inside", "outside"]), "deg": angles})
    own = {
        "width_mm": draw(st.floats(40, 200)),
        "thickness_mm": draw(st.floats(5, 25)),
        "spring_deg": draw(st.floats(20, 70)),
        "bought": draw(st.booleans()),
        "raked": draw(st.sampled_from(["same", "own"])),
    }
    if draw(st.booleans()):
        walls = [draw(st.floats(700, 4000)) for _ in range(2)] * 2
        return {"kind": "moulding", **own, "runs": [{"wall_mm": wall} for wall in walls], "corners": [{"side": "inside"}] * 4}
    rises = st.just(0.0) | st.floats(-25, 25)
    runs = [{"wall_mm": draw(st.floats(400, 3000)), "rise_deg": draw(rises)} for _ in range(draw(st.integers(1, 4)))]
    return {"kind": "moulding", **own, "runs": runs, "corners": [draw(corner) for _ in runs[1:]]}


@st.composite
def together(draw: st.DrawFn) -> dict[str, Any]:
    """A box or a stand with a roof on it, and perhaps a size that follows."""
    low, high = draw(stands() | boxes()), draw(roofs())
    members = [{"name": "Low", "spec": low}, {"name": "High", "spec": high, "on": "Low", "up_mm": draw(st.floats(0, 50))}]
    links = [{"of": "High", "measure": "height", "after": "Low", "source": "height"}]
    follows = high["shape"]["form"] == "pyramid" and draw(st.booleans())
    return {"kind": "together", "members": members, "links": links if follows else []}


SINGLE = {
    "flat_frame": frames(),
    "box": boxes(),
    "stand": stands(),
    "post_frame": post_frames(),
    "brace": braces(),
    "roof": roofs(),
    "moulding": mouldings(),
}
ANY = {**SINGLE, "together": together()}


class EveryKind(unittest.TestCase):
    def test_each_has_a_way_to_make_random_specs(self) -> None:
        self.assertEqual(set(SINGLE), set(KINDS))

    @settings(max_examples=250, deadline=None)
    @given(st.one_of(*ANY.values()))
    def test_a_random_spec_closes_in_both_proofs_or_is_refused_with_a_reason(self, document: dict[str, Any]) -> None:
        try:
            made = solved(document)
        except SpecError as error:
            self.assertTrue(error.code and error.fields)
            return
        proof = boolean_proof(made.assembly, made.solids)
        self.assertTrue(proof.confirms(made.closing, made.joints), (made.closing, proof))
        if made.closing.state in ("open_joint", "bare", "shared_wood"):
            # There are solids, and they do not close: that is said, with the joint or the parts.
            said = {part for finding in made.findings if finding.severity == "error" for part in finding.parts}
            open_at = {name for j in made.assembly.joints if j.id == made.closing.joint for name in (j.id, j.a.board)}
            self.assertTrue(said & open_at or made.closing.parts)
            return
        for check in made.claims:
            assert check.measured is not None
            self.assertAlmostEqual(check.measured, check.claim.asked, delta=1e-6 * max(1.0, abs(check.claim.asked)))

    @settings(max_examples=40, deadline=None)
    @given(st.one_of(*ANY.values()))
    def test_a_spec_to_json_and_back_is_the_same(self, document: dict[str, Any]) -> None:
        try:
            spec = spec_of(document)
        except SpecError:
            return
        self.assertEqual(type(spec).model_validate_json(spec.model_dump_json()), spec)

    def test_every_option_that_a_start_offers_can_be_taken_or_is_refused_with_a_field(self) -> None:
        taken = dict.fromkeys(all_starts(), 0)
        for name, starts in all_starts().items():
            for document in starts:
                made = solved(document)
                for control in shown(made).controls:
                    for option in control.options:
                        try:
                            spec = made.spec
                            for act in option.acts:
                                spec = spec_of(after(spec, act, MM))
                            again = solved(spec.model_dump(mode="json"))
                            # What stands elsewhere, or is begun beside others, may stand in them: that is said.
                            fine = ("exact", "opens", *(("shared_wood",) if name == "together" else ()))
                            self.assertIn(again.closing.state, fine, (control.code, option.code))
                            self.assertTrue(shown(again).views)
                            taken[name] += 1
                        except (SpecError, UnitError) as error:
                            self.assertTrue(error.fields)
        self.assertGreater(taken["flat_frame"], 150)
        self.assertGreater(taken["box"], 150)
        self.assertGreater(taken["stand"], 25)
        self.assertGreater(taken["post_frame"], 100)
        self.assertGreater(taken["brace"], 20)
        self.assertGreater(taken["roof"], 8)
        self.assertGreater(taken["together"], 25)

    def test_a_dimension_is_as_long_as_it_says_in_every_view(self) -> None:
        seen = 0
        for starts in all_starts().values():
            for document in starts:
                made = solved(document)
                for view in shown(made).views:
                    for d in view.dimensions:
                        if d.unit == "mm":
                            seen += 1
                            drawn = hypot(d.b[0] - d.a[0], d.b[1] - d.a[1])
                            self.assertAlmostEqual(drawn, d.value, places=6, msg=f"{view.id} {d.id}")
        self.assertGreater(seen, 60)


class TurnedAndMirrored(unittest.TestCase):
    CORNERS = ((-240.0, -150.0), (240.0, -150.0), (260.0, 40.0), (60.0, 190.0), (-250.0, 160.0))

    def settings_of(self, made: Solved, of: str = "") -> list[tuple[float, float]]:
        """Sizes of the settings, of all parts or of those whose name begins so."""
        own = [s for s in made.settings if any(use.part.startswith(of) for use in s.uses)]
        return sorted((round(abs(s.swing_deg), 6), round(abs(s.tilt_deg), 6)) for s in own)

    def plans(self, corners: list[tuple[float, float]]) -> list[dict[str, Any]]:
        return [irregular(corners, []), box({"form": "irregular", "corners": corners}, 160.0, slope_deg=11.0)]

    def test_neither_changes_a_setting(self) -> None:
        turn = complex(cos(0.7), sin(0.7))
        turned = [((complex(*c) * turn).real, (complex(*c) * turn).imag) for c in self.CORNERS]
        mirrored = [(-x, y) for x, y in reversed(self.CORNERS)]
        for plain, *others in zip(self.plans(list(self.CORNERS)), self.plans(turned), self.plans(mirrored), strict=True):
            want = self.settings_of(solved(plain))
            for other in others:
                for got, expected in zip(self.settings_of(solved(other)), want, strict=True):
                    self.assertAlmostEqual(got[0], expected[0], places=5)
                    self.assertAlmostEqual(got[1], expected[1], places=5)

    def test_nor_of_a_stand_a_brace_or_a_roof(self) -> None:
        def stand(width: float, depth: float, front: float, side: float) -> dict[str, Any]:
            size = {"top_width_mm": width, "top_depth_mm": depth, "front_splay_deg": front, "side_splay_deg": side}
            ring = {"height_mm": 60.0, "tall_mm": 50.0, "thickness_mm": 18.0}
            rest = {"leg": {"width_mm": 40.0, "thickness_mm": 40.0}, "roll": "rhombic", "rings": [ring]}
            return {"kind": "stand", "plan": {"form": "four", **size}, "height_mm": 500.0, **rest}

        def diagonal(rise: float) -> dict[str, Any]:
            place = {"form": "between", "clear_mm": 700.0, "rise_mm": rise}
            return {"kind": "brace", "place": place, "width_mm": 60.0, "thickness_mm": 30.0, "member_mm": 80.0}

        def gable(*slopes: tuple[float, float]) -> dict[str, Any]:
            left, right = ({"run_mm": run, "pitch_deg": pitch} for run, pitch in slopes)
            shape = {"form": "gable", "left": left, "right": right, "heel_mm": 25.0, "foot": "seat"}
            return {"kind": "roof", "shape": shape, "depth_mm": 90.0, "thickness_mm": 40.0}

        # After a quarter turn a stand's legs have their faces elsewhere, its rings are the same.
        for plain, other, of in (
            (stand(300.0, 400.0, 6.0, 12.0), stand(400.0, 300.0, 12.0, 6.0), "ring"),
            (diagonal(400.0), diagonal(-400.0), ""),
            (gable((900.0, 40.0), (700.0, 25.0)), gable((700.0, 25.0), (900.0, 40.0)), ""),
        ):
            want = self.settings_of(solved(plain), of)
            self.assertTrue(want)
            for got, expected in zip(self.settings_of(solved(other), of), want, strict=True):
                self.assertAlmostEqual(got[0], expected[0], places=5)
                self.assertAlmostEqual(got[1], expected[1], places=5)


class BoardsThatStandInOneAnother(unittest.TestCase):
    def test_both_proofs_see_it(self) -> None:
        made = solved(box({"form": "rectangle", "width_mm": 300.0, "depth_mm": 300.0}, 100.0))
        a = made.assembly.board("A")
        x, y, z = a.frame.origin
        moved = replace(a, frame=replace(a.frame, origin=(x, y + 5.0, z)))
        boards = tuple(moved if b.id == "A" else b for b in made.assembly.boards)
        assembly = replace(made.assembly, boards=boards)
        proof = boolean_proof(assembly, made.solids)
        self.assertFalse(proof.holds)
        # Of the front, moved in by 5, two prisms 100 high stand in its neighbours.
        self.assertEqual({pair[:2] for pair in proof.shared}, {("A", "B"), ("A", "D")})
        self.assertGreater(min(volume for *_, volume in proof.shared), 1.0)
        self.assertEqual(closing_of(made.assembly, (), [("A", "B", 1.0)], (), ()).state, "shared_wood")

"""The demo: a made-up rowing club refits its boathouse."""

from datetime import date
from typing import Any

from sqlalchemy.orm import Session

from fennup.app.services import documents, racks, upgrade
from fennup.app.services.demo_bench import fill_records
from fennup.app.services.demo_finish import fill_finish
from fennup.app.services.demo_fit import fill_fit
from fennup.app.services.demo_log import fill_log
from fennup.app.services.demo_mouldings import fill_mouldings, poster_frame
from fennup.app.services.demo_shapes import INCH, between, box, frame, level, round_of, stand
from fennup.app.services.projects import ProjectBody, valid_spec
from fennup.app.services.upgrade import PROJECT
from fennup.app.services.workshops import BUILT_IN, ONLY, current_workshop
from fennup.core.boards.rack import PriceList, Rack, RackBoard, with_boards
from fennup.core.boards.wishes import Wishes
from fennup.core.saw.miter_saw import MiterSaw
from fennup.core.saw.tool import ScaleError
from fennup.core.saw.tools import AnyTool, CircularSaw, ShootingBoard, TableSaw
from fennup.yard.list import price_list

PROJECTS: tuple[dict[str, Any], ...] = (
    {
        "name": "Sand bin on a stand",
        "spec": {
            "kind": "together",
            "members": [
                {
                    "name": "Stand",
                    "spec": stand(
                        {"form": "four", "top_width_mm": 420.0, "top_depth_mm": 420.0, "front_splay_deg": 6.0, "side_splay_deg": 6.0},
                        380.0, 45.0, rails=[{"height_mm": 110.0, "width_mm": 60.0, "thickness_mm": 20.0}],
                        top={"thickness_mm": 20.0, "over_mm": 15.0},
                    ),
                },
                {"name": "Bin", "on": "Stand", "spec": box(level(420.0, 420.0), 440.0, 18.0, slope_deg=6.0)},
                {
                    "name": "Hood", "on": "Bin",
                    "spec": {"kind": "roof", "thickness_mm": 16.0,
                             "shape": {"form": "pyramid", "sides": 4, "across_mm": 560.0, "height_mm": 180.0}},
                },
            ],
            "links": [
                {"of": "Bin", "measure": "outer_bottom_width", "after": "Stand", "source": "top_width"},
                {"of": "Bin", "measure": "outer_bottom_depth", "after": "Stand", "source": "top_depth"},
                {"of": "Hood", "measure": "eaves_flats", "after": "Bin", "source": "outer_top_width", "plus_mm": 50.0},
            ],
        },
    },
    {
        "name": "Slip steps handrail",
        "spec": {
            "kind": "together",
            "members": [
                {
                    "name": "Posts",
                    "spec": stand(
                        {"form": "four", "top_width_mm": 1250.0, "top_depth_mm": 940.0, "front_splay_deg": 0.0, "side_splay_deg": 0.0},
                        960.0, 70.0,
                    ),
                },
            ],
            "pieces": [
                between("Handrail 1", ("Posts/DA", "upper", 560.0), ("Posts/AB", "upper", 890.0), 70.0, 32.0),
                between("Handrail 2", ("Posts/CD", "upper", 560.0), ("Posts/BC", "upper", 890.0), 70.0, 32.0),
                between("Foot rail 1", ("Posts/DA", "upper", 120.0), ("Posts/AB", "upper", 450.0), 70.0, 32.0),
                between("Foot rail 2", ("Posts/CD", "upper", 120.0), ("Posts/BC", "upper", 450.0), 70.0, 32.0),
                between("Head bar", ("Posts/AB", "back", 800.0), ("Posts/BC", "back", 800.0), 70.0, 32.0),
            ],
        },
    },
    {
        "name": "Landing stage arch",
        "spec": {
            "kind": "post_frame", "columns": {"1": 0.0, "2": 1470.0}, "rows": {"1": 0.0},
            "posts": {id: {"column": column, "row": "1", "width_mm": 70.0, "thickness_mm": 70.0, "height_mm": 2050.0} for id, column in (("A", "1"), ("B", "2"))},
            "rails": {"1": {"a": "A", "b": "B", "width_mm": 130.0, "thickness_mm": 38.0, "height_mm": 2050.0,
                            "joint": {"form": "over", "over_a_mm": 160.0}}},
            "knees": {"1": {"corners": [{"post": "A", "rail": "1"}, {"post": "B", "rail": "1"}], "post_mm": 450.0, "rail_mm": 450.0,
                            "width_mm": 90.0, "thickness_mm": 38.0}},
            "feet": {n: {"under": [id], "way": "y", "width_mm": 70.0, "thickness_mm": 70.0, "over_a_mm": 280.0} for n, id in (("1", "A"), ("2", "B"))},
        },
    },
    {
        "name": "Chart desk stand",
        "spec": {
            "kind": "post_frame", "columns": {"1": 0.0, "2": 820.0}, "rows": {"1": 0.0, "2": 460.0},
            "posts": {id: {"column": column, "row": row, "width_mm": 45.0, "thickness_mm": 45.0, "height_mm": 760.0, "flush_with": rail}
                      for id, column, row, rail in (("A", "1", "1", "1"), ("B", "2", "1", "2"), ("C", "1", "2", "1"), ("D", "2", "2", "2"))},
            "rails": {
                **{n: {"a": a, "b": b, "width_mm": 70.0, "thickness_mm": 22.0, "height_mm": 690.0, "rise_deg": 14.0,
                       "joint": {"form": "lapped", "side": side, "ends": "plumb"}}
                   for n, a, b, side in (("1", "A", "C", "left"), ("2", "B", "D", "right"))},
                **{n: {"a": a, "b": b, "width_mm": 70.0, "thickness_mm": 22.0, "height_mm": 160.0, "joint": {"form": "between"}}
                   for n, a, b in (("3", "A", "B"), ("4", "C", "D"))},
            },
        },
    },
    {
        "name": "Fuel store gable",
        "unit": "in", "graduation": "1/16",
        "spec": {
            "kind": "roof", "thickness_mm": 1.5 * INCH, "depth_mm": 5.5 * INCH,
            "shape": {"form": "gable", "left": {"run_mm": 42 * INCH, "pitch_deg": 30.2564}, "heel_mm": 1.5 * INCH,
                      "overhang_mm": 8 * INCH, "ridge": {"thickness_mm": 1.5 * INCH, "depth_mm": 7.25 * INCH},
                      "pairs": 4, "spacing_mm": 16 * INCH, "plate_mm": 3.5 * INCH},
        },
    },
    {
        "name": "Slip lantern hip",
        "spec": {
            "kind": "roof", "thickness_mm": 38.0, "depth_mm": 90.0,
            "shape": {"form": "hip", "width_mm": 1300.0, "depth_mm": 1800.0, "rise_mm": 520.0, "hip_thickness_mm": 38.0,
                      "hip_depth_mm": 130.0, "spacing_mm": 260.0, "foot": "seat", "above_plate_mm": 75.0},
        },
    },
    {
        "name": "Winch shelter roof",
        "spec": {
            "kind": "roof", "thickness_mm": 38.0, "depth_mm": 90.0,
            "shape": {"form": "hip", "width_mm": 1200.0, "depth_mm": 2000.0, "rise_mm": 480.0, "hip_thickness_mm": 38.0,
                      "hip_depth_mm": 130.0, "spacing_mm": 300.0, "foot": "birdsmouth", "above_plate_mm": 70.0, "overhang_mm": 150.0,
                      "ridge": {"length_mm": 700.0, "thickness_mm": 38.0, "depth_mm": 130.0}},
        },
    },
    {
        "name": "Lifebuoy hood",
        "spec": {"kind": "roof", "thickness_mm": 12.7, "shape": {"form": "pyramid", "sides": 6, "across_mm": 762.0, "height_mm": 381.0}},
    },
    {
        "name": "Oar rack lean-to",
        "spec": {
            "kind": "roof", "thickness_mm": 20.0,
            "shape": {"form": "lean_to", "width_mm": 1100.0, "depth_mm": 380.0, "front_mm": 460.0, "back_mm": 640.0,
                      "cover": {"thickness_mm": 20.0, "over_mm": 40.0, "overs_mm": {"A": 60.0, "C": 0.0}, "hinge": "C", "gap_mm": 3.0}},
        },
    },
    {
        "name": "Oar loft ladder",
        "spec": {
            "kind": "brace", "width_mm": 95.0, "thickness_mm": 27.0, "member_mm": 90.0,
            "place": {"form": "prop", "stand_off_mm": 560.0, "wall_height_mm": 2150.0, "ground_deg": 2.0,
                      "treads": {"count": 7, "thickness_mm": 27.0, "clear_mm": 360.0}},
        },
    },
    {
        "name": "Fender and line ladder",
        "spec": {
            "kind": "brace", "width_mm": 125.0, "thickness_mm": 24.0, "member_mm": 90.0,
            "place": {"form": "prop", "stand_off_mm": 560.0, "wall_height_mm": 1780.0,
                      "treads": {"count": 4, "thickness_mm": 18.0, "clear_mm": 640.0, "box_mm": 110.0, "deep_mm": 170.0, "proud_mm": 35.0,
                                 "front_deg": 12.0, "cleats": {"width_mm": 70.0, "thickness_mm": 18.0}}},
        },
    },
    {
        "name": "Slip gate braces",
        "spec": {
            "kind": "brace", "width_mm": 60.0, "thickness_mm": 27.0, "member_mm": 70.0,
            "place": {"form": "between", "clear_mm": 640.0, "rise_mm": 820.0,
                      "crossing": {"start_mm": 700.0, "rise_mm": -570.0, "width_mm": 88.9}},
        },
    },
    {
        "name": "Sign bracket",
        "spec": {
            "kind": "brace", "width_mm": 75.0, "thickness_mm": 40.0, "member_mm": 90.0, "by": "lower",
            "place": {"form": "knee", "corner_deg": 100.0, "post_leg_mm": 520.0, "beam_leg_mm": 380.0},
        },
    },
    {
        "name": "Coxswain's stool",
        "unit": "in", "graduation": "1/16",
        "spec": stand(
            {"form": "round", "legs": 3, "top_side_mm": 8 * INCH, "lean_deg": 12.0}, 16 * INCH, 1.5 * INCH, roll="even",
            top={"thickness_mm": 0.75 * INCH, "over_mm": 1.0 * INCH},
        ),
    },
    {
        "name": "Flag tower",
        "spec": stand(
            {"form": "four", "top_width_mm": 180.0, "top_depth_mm": 180.0, "front_splay_deg": 5.0, "side_splay_deg": 5.0},
            1100.0, 40.0, roll="rhombic",
            rings=[{"height_mm": h, "tall_mm": 70.0, "thickness_mm": 20.0} for h in (80.0, 560.0, 980.0)],
        ),
    },
    {
        "name": "Boat trestle",
        "spec": stand(
            {"form": "four", "top_width_mm": 560.0, "top_depth_mm": 160.0, "front_splay_deg": 8.0, "side_splay_deg": 16.0},
            720.0, 45.0,
            pins=[
                {"measure": "height", "mm": 720.0}, {"measure": "top_width", "mm": 560.0}, {"measure": "top_depth", "mm": 160.0},
                {"measure": "front_splay", "deg": 8.0}, {"measure": "foot_depth", "mm": 580.0},
            ],
            rails=[{"height_mm": 150.0, "width_mm": 70.0, "thickness_mm": 22.0}],
            braces={"low_mm": 260.0, "high_mm": 660.0, "width_mm": 45.0, "thickness_mm": 22.0, "sides": "AC"},
            top={"thickness_mm": 22.0, "over_mm": 25.0},
        ),
    },
    {
        "name": "Slipway warning board",
        "spec": frame(round_of(3, by="outside_side", mm=640.0), 60.0, 20.0, joint="butt"),
    },
    {
        "name": "Gable window trim",
        "spec": frame(
            {
                "form": "irregular",
                "line": "opening",
                "corners": [[-310.0, -260.0], [310.0, -260.0], [310.0, 60.0], [0.0, 275.0], [-310.0, 60.0]],
                "pins": [
                    {"side": "A", "mm": 620.0}, {"corner": "EA", "deg": 90.0}, {"corner": "AB", "deg": 90.0},
                    {"side": "B", "mm": 320.0}, {"side": "E", "mm": 320.0}, {"corner": "CD", "deg": 110.0},
                ],
            },
            70.0, 20.0, rails={"A": {"width_mm": 95.0}},
        ),
    },
    {
        "name": "Oar hatch arch",
        "spec": frame(round_of(8, by="outside_side", mm=610.0), 94.0, 27.0, left_out=["A"], loose_ends="ground"),
    },
    {
        "name": "Trophy cabinet moulding",
        "spec": {
            "kind": "moulding", "width_mm": 90.0, "thickness_mm": 15.0, "spring_deg": 38.0,
            "ploughed": [
                {"form": "cove", "corner": "face_upper", "radius_mm": 6.0}, {"form": "round", "corner": "face_lower", "radius_mm": 4.0},
            ],
            "runs": [{"wall_mm": 340.0}, {"wall_mm": 920.0}, {"wall_mm": 340.0}],
            "corners": [{"side": "outside", "deg": 90.0}, {"side": "outside", "deg": 90.0}],
        },
    },
    {
        "name": "Crew photograph frame",
        "spec": frame(
            {"form": "rectangle", "size": {"by": "holds", "object_width_mm": 410.0, "object_depth_mm": 300.0, "play_mm": 3.0}},
            47.0, 20.0, rabbet={"width_mm": 9.0, "depth_mm": 12.0},
            stopped=[{"board": "C", "from_mm": 14.0, "width_mm": 8.0, "depth_mm": 6.0, "left_mm": 180.0, "right_mm": 180.0}],
            ploughed=(
                {"form": "cove", "corner": "face_upper", "radius_mm": 5.0}, {"form": "round", "corner": "face_lower", "radius_mm": 5.0},
                {"form": "groove", "side": "face", "far": True, "from_mm": 26.0, "width_mm": 4.0, "depth_mm": 3.0},
            ),
        ),
    },
    {"name": "Regatta poster frame", "spec": poster_frame()},
    {
        "name": "Race board frame",
        "spec": frame(
            {"form": "rectangle", "size": {"by": "holds", "object_width_mm": 620.0, "object_depth_mm": 430.0, "play_mm": 4.0}},
            60.0, 20.0,
            layers={
                "1": {
                    "side": "back", "width_mm": 44.0, "thickness_mm": 12.0, "keeps_to": "opening", "set_back_mm": 12.0, "corners": "round",
                },
                "2": {
                    "width_mm": 18.0, "thickness_mm": 12.0, "ploughed": [{"form": "round", "corner": "face_upper", "radius_mm": 6.0}],
                },
            },
            numbered=2,
        ),
    },
    {
        "name": "Launch log frame",
        "spec": frame(
            {"form": "rectangle", "size": {"by": "holds", "object_width_mm": 430.0, "object_depth_mm": 310.0, "play_mm": 3.0}},
            60.0, 20.0,
            layers={
                "1": {"side": "back", "width_mm": 50.0, "thickness_mm": 12.0, "keeps_to": "outside"},
                "2": {"width_mm": 20.0, "thickness_mm": 12.0, "ploughed": [{"form": "cove", "corner": "face_upper", "radius_mm": 7.0}]},
            },
            numbered=2, glued_up=True,
        ),
    },
    {
        "name": "Honours board frame",
        "spec": frame(
            {"form": "rectangle", "size": {"by": "holds", "object_width_mm": 900.0, "object_depth_mm": 560.0, "play_mm": 3.0}},
            60.0, 20.0, rails={"A": {"width_mm": 95.0}, "C": {"width_mm": 95.0}}, rabbet={"width_mm": 10.0, "depth_mm": 9.0},
        ),
    },
    {
        "name": "Pennant shelf ring",
        "unit": "in", "graduation": "1/32",
        "spec": frame(round_of(7, by="outside_corners", mm=21 * INCH), 2 * INCH, 0.75 * INCH),
    },
    {
        "name": "Boat-bay vent grille",
        "spec": frame(
            {"form": "rectangle", "size": {"by": "opening", "width_mm": 640.0, "depth_mm": 420.0}}, 60.0, 20.0,
            inner={"thickness_mm": 20.0, "bars": [{"count": 2, "width_mm": 30.0}, {"count": 4, "width_mm": 30.0, "way_deg": 90.0}]},
        ),
    },
    {
        "name": "Bailer tub",
        "unit": "in", "graduation": "1/16",
        "spec": box(
            {"form": "regular", "sides": 6, "across_mm": 14 * INCH}, 8 * INCH, 0.75 * INCH,
            pins=[
                {"measure": "outer_bottom_flats", "mm": 14 * INCH}, {"measure": "slope", "deg": 15.0},
                {"measure": "slant", "mm": 8 * INCH},
            ],
        ),
    },
    {
        "name": "Landing-stage trough",
        "spec": box(
            level(900.0, 240.0), 260.0, 20.0, slopes_deg={"AC": 15.0, "BD": 0.0},
            courses={"board_width_mm": 95.0}, floor={"height_mm": 0.0, "thickness_mm": 20.0, "play_mm": 4.0},
            lining={"below_mm": 15.0, "play_mm": 4.0, "drains": 5, "drain_mm": 14.0},
        ),
    },
    {
        "name": "Key case",
        "spec": box(
            {"form": "regular", "sides": 6, "across_mm": 420.0}, 120.0, 18.0,
            pins=[{"measure": "inner_bottom_flats", "mm": 400.0}, {"measure": "slope", "deg": 0.0}, {"measure": "height", "mm": 120.0}],
            back={"thickness_mm": 6.0, "depth_mm": 9.0, "play_mm": 1.0}, lid={"depth_mm": 32.0, "kerf_mm": 2.4},
            shelves=[{"height_mm": 120.0, "thickness_mm": 12.0}, {"height_mm": 250.0, "thickness_mm": 12.0}],
        ),
    },
    {
        "name": "Rope bin",
        "spec": box(
            level(300.0, 300.0), 420.0, 18.0,
            pins=[
                {"measure": "outer_bottom_width", "mm": 300.0}, {"measure": "outer_bottom_depth", "mm": 300.0},
                {"measure": "outer_top_width", "mm": 400.0}, {"measure": "height", "mm": 420.0},
            ],
            floor={"height_mm": 18.0, "thickness_mm": 12.0, "play_mm": 2.0},
            cap={"thickness_mm": 20.0, "over_in_mm": 6.0, "over_out_mm": 14.0},
        ),
    },
    {
        "name": "Tide clock surround",
        "unit": "in", "graduation": "1/16",
        "spec": frame(
            round_of(8, by="holds", object_mm=13.5 * INCH, play_mm=0.125 * INCH), 2.125 * INCH, 0.75 * INCH,
            rabbet={"width_mm": 0.25 * INCH, "depth_mm": 0.375 * INCH},
        ),
    },
)  # fmt: skip


def _on_rack(name: str, length: float, width: float, thickness: float, **more: Any) -> dict[str, Any]:
    return {"name": name, "length_mm": length, "width_mm": width, "thickness_mm": thickness, **more}


RACK = (
    _on_rack("Larch 1", 2440.0, 94.0, 27.0, wood="larch", grade="clear", trim_left_mm=30.0),
    _on_rack("Larch 2", 2440.0, 94.0, 27.0, wood="larch", defects=[{"from_mm": 1890.0, "to_mm": 1960.0}]),
    _on_rack("Larch 3", 2000.0, 95.0, 20.0, wood="larch", grade="clear"),
    _on_rack("Larch 4", 2400.0, 60.0, 20.0, wood="larch"),
    _on_rack("Offcut of the floor", 1180.0, 145.0, 20.0, wood="larch", defects=[{"from_mm": 640.0, "to_mm": 690.0, "low_mm": 40.0, "high_mm": 80.0}]),
    _on_rack("Spruce 1x4", 96 * INCH, 3.5 * INCH, 0.75 * INCH, wood="spruce"),
    _on_rack("Old thwart", 1310.0, 180.0, 22.0, wood="oak", grade="rough", reclaimed=True, nails=True, old_paint=True,
             trim_left_mm=45.0, trim_right_mm=60.0, defects=[{"from_mm": 400.0, "to_mm": 425.0}, {"from_mm": 870.0, "to_mm": 895.0}]),
    _on_rack("Square larch", 2400.0, 45.0, 45.0, wood="larch", count=2),
    _on_rack("Birch plywood", 1220.0, 610.0, 12.0, wood="plywood", sheet=True),
)  # fmt: skip
# What is wished of single plans: one is to be cut of what is there, and that is short by a little.
WISHES: dict[str, dict[str, Any]] = {
    "Honours board frame": {"use_yard": False, "may_rip": True},
    "Tide clock surround": {"goal": "fewest_boards"},
    "Boat trestle": {"goal": "cheapest"},
    "Slip lantern hip": {"goal": "cheapest", "treated": "treated"},
}
# The boathouse's tools, and what a test of its saw has found.
TOOLS: dict[str, AnyTool] = {
    "t1": MiterSaw(
        wide_mm=305.0, wide_swung_mm=215.0, high_mm=90.0, high_tilted_mm=45.0, fence_mm=80.0,
        detents_deg=(-45.0, -30.0, -22.5, -15.0, 0.0, 15.0, 22.5, 30.0, 45.0),
        errors=(ScaleError(movement="swing", at_deg=45.0, error_deg=-0.12, found=date(2026, 11, 14), by="corner"),),
    ),
    "t2": TableSaw(swing_left_deg=50.0, swing_right_deg=50.0),
    "t3": CircularSaw(),
    "t4": ShootingBoard(),
}  # fmt: skip
LIST_READ = "2026-11-19T16:40:00+00:00"


def fill_stores(session: Session) -> None:
    """The boathouse's rack, and the last price list of its yard."""
    if documents.ever_made(session, upgrade.RACK):
        return
    rack = with_boards(Rack(), [RackBoard.model_validate(entry) for entry in RACK])
    prices = PriceList.model_validate(price_list() | {"as_of": LIST_READ})
    for type, body in ((upgrade.RACK, rack), (upgrade.PRICES, prices)):
        documents.create(session, type, body.model_dump(mode="json"), {"event": "demo"}, racks.IDS[type])


def fill_workshop(session: Session) -> None:
    """The boathouse's tools; not where the workshop has been changed already."""
    if not documents.ever_made(session, upgrade.WORKSHOP):
        body = BUILT_IN.model_copy(update={"tools": TOOLS})
        documents.create(session, upgrade.WORKSHOP, body.model_dump(mode="json"), {"event": "demo"}, ONLY)


def fill(session: Session) -> None:
    """The demo's projects as examples, once: not again when they have been deleted."""
    fill_stores(session)
    fill_mouldings(session)
    if documents.ever_made(session, PROJECT):
        return
    fill_workshop(session)
    bench = current_workshop(session)
    for entry in PROJECTS:
        spec = valid_spec(entry["spec"]).model_dump(mode="json")
        body = ProjectBody(name=entry["name"], unit=entry.get("unit", "mm"), graduation=entry.get("graduation", "1"), spec=spec)
        made = documents.create(session, PROJECT, body.model_dump(mode="json"), {"event": "demo"}, example=True)
        fill_records(session, made.id, body, bench)
        fill_fit(session, made.id, body, bench)
        fill_finish(session, made.id, body.name, date.today())
        fill_log(session, made.id, body.name)
        if entry["name"] in WISHES:
            wishes = Wishes.model_validate(WISHES[entry["name"]]).model_dump(mode="json")
            documents.create(session, upgrade.BOARDS, wishes, {"event": "demo"}, racks.wishes_id(made.id), made.id)

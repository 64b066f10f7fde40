"""What a kind's things are called, by their codes: data for whoever words them; nothing here reads it."""

from fennup.core.kinds.registry import Called, Words

WORDS = Words(
    whole="The moulding",
    family="Mouldings that lean",
    part="run",
    starts={
        "room_moulding": ("Moulding round a room", "Room moulding"),
        "box_moulding": ("Moulding round a box", "Box moulding"),
        "rising_moulding": ("Moulding up a slope", "Rising moulding"),
    },
    facts={"moulding_closed": "mouldings that go round", "moulding_open": "mouldings along walls"},
    measures={"at_wall": "run {side}, at the wall", "at_edge": "run {side}, along its upper edge"},
    roles={"moulding": Called("run", "face", "back", "upper edge", "wall edge")},
    labels={
        "moulding_width": "across its face",
        "spring_angle": "spring, from the wall",
        "down_the_wall": "down the wall",
        "out_from_it": "out from the wall",
        "moulding_comes": "The moulding",
        "moulding_bought": "comes as it is",
        "moulding_own": "is made here",
        "more_runs": "One more run at the right end",
        "past_inside": "past an inside corner",
        "past_outside": "past an outside corner",
        "last_run": "Last run",
        "wall_corner": "Corner",
        "corner_inside": "inside",
        "corner_outside": "outside",
        "wall_corner_deg": "Angle between the walls at corner",
        "rises": "Rises to the right: run",
        "run_face": "face",
        "run_back": "back",
        "run_upper": "upper edge",
        "run_lower": "wall edge",
        "run_face_upper": "upper edge, face",
        "run_face_lower": "wall edge, face",
        "run_back_upper": "upper edge, back",
        "run_back_lower": "wall edge, back",
    },
    findings={
        "moulding_walls": "Walls are seldom square: measure each corner, and try two short pieces in it before you cut the long ones. Work from a firm stand, not from a ladder's top.",
        "raked_miss": "At {parts} a rising run and its neighbour do not meet in one profile: {value:gap} of a mating face stays bare. A level piece between them, cut plumb, makes the turn; or take a profile that was made for the slope.",
    },
    refusals={
        "runs_and_corners": "There are {count} corners for these runs: between every two of them there is one, {most} in all, or one more where they go round.",
        "moulding_too_thick": "So thick, {mm:length}, nothing is left of its back once both edges lie flat: less than {limit_mm:length} at this width and spring.",
        "runs_do_not_close": "The last run ends {mm:length} away from where the first one begins. Make it as long as the wall opposite, or take the last corner away.",
        "runs_in_line": "At {corner} the two runs are in one line: there is no corner to miter.",
    },
)

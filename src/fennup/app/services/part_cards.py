"""A part's card: its drawing, its ends, its long edges, its length ladder, in words."""

import re
from math import hypot

from fennup.app.schemas.sheet import EdgeOut, EndCutOut, EndOut, PartOut, RungOut
from fennup.app.services.drawings import view_out
from fennup.app.wording.figures import Voice
from fennup.app.wording.members import end_word, in_sentence, sides_of
from fennup.app.wording.why import edge_lines, given_lines, miter_lines
from fennup.core.assembly.board import ENDS, Board, End
from fennup.core.drawing.board_views import part_shapes
from fennup.core.drawing.view import View
from fennup.core.geometry.plane import Plane
from fennup.core.parts.alike import PartGroup
from fennup.core.parts.solid import (
    ARRISES,
    Arris,
    Solid,
    arris_length,
    arris_line,
    end_cut,
    extent_along,
    face_sides,
    rip_bevel_deg,
)
from fennup.core.saw.pose import blade_angles, poses_for
from fennup.core.solve import Solution

SQUARE_DEG = 1e-9
NUMBERED = re.compile(r"(.+) (\w{1,3})")
PLURALS = {"Shelf": "Shelves", "Foot": "Feet"}


def part_out(solution: Solution, part: PartGroup, voice: Voice) -> PartOut:
    """The card of one part."""
    words = sides_of(solution, part.id)
    board, solid = solution.assembly.board(part.id), solution.solids[part.id]
    shapes, marks = part_shapes(board, solid)
    count = len(part.boards)
    section = board.section
    size = f"{voice.say(section.thickness_mm)} thick"
    if not board.panel:
        before = f" before it is {'sawn' if board.stave else 'ripped'}" if board.rips else ""
        size = f"{voice.say(section.width_mm)} {'long' if board.stave else 'wide'}{before}, {size}"
    return PartOut(
        id=part.id,
        tag=part.id.rpartition("/")[2] if len(solution.assembly.inside) == 1 else part.id,
        name=part_name(solution, part),
        members=list(part.boards),
        count_text="one of it" if count == 1 else f"{count} alike",
        hand_text=_hand(solution, part),
        section_text=size,
        upper=words["upper"],
        view=view_out(View("part", shapes, marks), voice),
        ends=[] if board.panel else [_end(solution, board, end, voice, words) for end in ENDS],
        edges=[] if board.panel else _edges(board, voice, words),
        ladder=_outline(board, solid, voice) if board.panel else _ladder(solution, board, voice, words),
        ways=[] if board.panel else _ways(board, voice, words),
    )


def _hand(solution: Solution, part: PartGroup) -> str:
    """What it is the mirror image of, or would pass for when turned over."""
    mirrors = part.mirror_of or next((p.id for p in solution.parts if p.mirror_of == part.id), None)
    if mirrors:
        return f"Mirror image of {in_sentence(solution.assembly.board(mirrors).name)}: do not mix them up."
    over = part.turned_over_of or next((p.id for p in solution.parts if p.turned_over_of == part.id), None)
    if over:
        return f"As {in_sentence(solution.assembly.board(over).name)} turned over: mark the side that shows before you cut."
    return ""


def part_name(solution: Solution, part: PartGroup) -> str:
    """The part's name: what its boards are called, together, and then which courses they are."""
    names = [solution.assembly.board(id).name for id in part.boards]
    split = [name.partition(", course ") for name in names]
    bases, courses = (list(dict.fromkeys(part[k] for part in split)) for k in (0, 2))
    tail = ""
    if courses != [""]:
        tail = f", course{'s' if len(courses) > 1 else ''} {_run(courses)}"
    return f"{_together(bases)}{tail}"


def _together(names: list[str]) -> str:
    """Rails A to F; Front and back rails; Front, right side and back."""
    if len(names) == 1:
        return names[0]
    found = [NUMBERED.fullmatch(name) for name in names]
    if found[0] and all(m and m[1] == found[0][1] for m in found):
        word = found[0][1]
        return f"{PLURALS.get(word, f'{word}s')} {_run([m[2] for m in found if m])}"
    rails = all(name.endswith(" rail") for name in names)
    short = [name.removesuffix(" rail") for name in names] if rails else names
    listed = " and ".join([", ".join(short[:-1]), short[-1]])
    return f"{listed}{' rails' if rails else ''}".capitalize()


def _run(places: list[str]) -> str:
    """A; A and B; A to F."""
    return places[0] if len(places) == 1 else f"{places[0]} {'to' if len(places) > 2 else 'and'} {places[-1]}"


def _end(solution: Solution, board: Board, end: End, voice: Voice, words: dict[str, str]) -> EndOut:
    return EndOut(
        end=end,
        name=f"{end} long edge, taper" if board.stave else f"{end_word(board, end)}, miter",
        cuts=[_end_cut(board, cut, voice, words) for cut in board.ends(end)],
        why=miter_lines(solution, board, end, voice),
    )


def _end_cut(board: Board, cut: Plane, voice: Voice, words: dict[str, str]) -> EndCutOut:
    angles = end_cut(cut)
    longer = words["lower"] if angles.miter_deg > 0 else words["upper"]
    square = abs(angles.miter_deg) < SQUARE_DEG
    leans = "square across" if square else f"long point on the {longer}"
    if board.stave:
        leans = "no taper" if square else f"taper, wider at the {longer}"
    side = words["back"] if angles.bevel_deg > 0 else words["face"]
    upright = abs(angles.bevel_deg) < SQUARE_DEG
    bevel = "blade upright" if upright else f"blade tilted {voice.say_angle(abs(angles.bevel_deg))}, {side} longer"
    return EndCutOut(miter=voice.angle(abs(angles.miter_deg)), leans=leans, bevel=bevel)


def _edges(board: Board, voice: Voice, words: dict[str, str]) -> list[EdgeOut]:
    """What is worked along the whole board: how its long edges are ripped, and what is ploughed out of it."""
    made = []
    for side, plane in board.rips:
        bevel = rip_bevel_deg(plane)
        note = f"the {words['back'] if bevel > 0 else words['face']} stays wider there"
        if board.backing and side == "upper":
            note = f"backing: from the middle down towards the {words['face' if bevel > 0 else 'back']}"
        verb = "Saw" if board.stave else "Rip"
        made.append(EdgeOut(label=f"{verb} the {words[side]}", figure=voice.angle(abs(bevel)), note=note))
    rabbet, groove = board.section.rabbet, board.section.groove
    if rabbet:
        note = f"wide, {voice.say(rabbet.depth_mm)} deep from the {words['back']}"
        made.append(EdgeOut(label=f"Rabbet along the {words['upper']}", figure=voice.length(rabbet.width_mm), note=note))
    if groove:
        note = f"in from the {words['lower']}; {voice.say(groove.width_mm)} wide, {voice.say(groove.depth_mm)} deep"
        made.append(EdgeOut(label=f"Groove on the {words['back']}", figure=voice.length(groove.from_lower_mm), note=note))
    return made


def _ladder(solution: Solution, board: Board, voice: Voice, words: dict[str, str]) -> list[RungOut]:
    """Lengths along each line that somebody may mark, the one to measure first."""
    lengths = {arris: arris_length(board, arris) for arris in ARRISES}
    beveled = any(abs(lengths[f"face_{e}"] - lengths[f"back_{e}"]) > 1e-6 for e in ("upper", "lower"))  # type: ignore[index]
    shown: list[Arris] = list(ARRISES) if beveled else ["face_lower", "face_upper"]
    longest = max(lengths[a] for a in shown)
    here = next(a for a in ("face_lower", "face_upper", "back_lower", "back_upper") if lengths[a] >= longest - 1e-9)
    shown.sort(key=lambda a: (a != here, -lengths[a]))
    given = given_lines(solution, voice, board)
    why = [*edge_lines(board, voice, words), *given]
    square = all(abs(end_cut(c).miter_deg) < SQUARE_DEG for end in ENDS for c in board.ends(end)) and not beveled
    low, high = solution.solids[board.id].extent_x()
    overall = high - low
    rungs = []
    for arris in shown:
        face, _, edge = arris.partition("_")
        line = f"{words[edge]}, {words[face]}" if beveled else words[edge]
        tips = "" if square else ", tip to tip"
        if not square and not _mixed(board) and lengths[arris] >= overall - 1e-6:
            tips = ", long point to long point"
        elif not square and not _mixed(board) and not beveled:
            tips = ", short point to short point"
        rungs.append(
            RungOut(
                id=edge if not beveled else arris,
                label=f"{line[:1].upper()}{line[1:]}{tips}",
                note="measure and mark here" if arris == here else "to check by",
                figure=voice.length(lengths[arris]),
                here=arris == here,
                why=why if face == "face" else [*edge_lines(board, voice, words, edge), *given],
            )
        )
    if board.section.rabbet:
        rungs.insert(1, _rabbet(board, voice, words, why))
    rungs += _holes(board, voice, words, why)
    for number, notch in enumerate(board.notches):
        rung = _lap if abs(notch.planes[-1].normal[2]) > 0.5 else _birdsmouth
        rungs.append(rung(board, number, voice, words, why))
    if overall > longest + 1e-6:
        why_overall = [
            "The farthest tips of the two ends, along the board: the least board that this part can be cut from.",
            *why,
        ]
        rungs.append(
            RungOut(
                id="overall",
                label="Overall, tip to tip along the board",
                note="the least board it can be cut from",
                figure=voice.length(overall),
                here=False,
                why=why_overall,
            )
        )
    return rungs


def _holes(board: Board, voice: Voice, words: dict[str, str], why: list[str]) -> list[RungOut]:
    """Every row's centres as running figures from the left end, so that no rounding adds up."""
    low, z = arris_line(board, "face_lower")
    rows: dict[tuple[float, float], list[float]] = {}
    for hole in board.holes:
        at = hole.x_mm - extent_along(board, hole.y_mm, z)[0]
        rows.setdefault((round(hole.y_mm - low, 6), hole.diameter_mm), []).append(at)
    return [
        RungOut(
            id=f"holes{k}",
            label=f"Holes{f', row {k + 1}' if len(rows) > 1 else ''}, first centre from the {end_word(board, 'left')}",
            note=f"running: {', '.join(voice.say(at) for at in running)}; {voice.say(up)} up from the {words['lower']}, "
            f"{voice.say(diameter)} wide",
            figure=voice.length(running[0]),
            here=False,
            why=[f"Each centre is counted from the {end_word(board, 'left')} at its own height, on the face.", *why],
        )
        for k, ((up, diameter), running) in enumerate(rows.items())
    ]


def _lap(board: Board, number: int, voice: Voice, words: dict[str, str], why: list[str]) -> RungOut:
    """Where a half lap's two shoulders cross the lower edge, counted from the left end there, and how deep it goes."""
    notch = board.notches[number]
    y, z = arris_line(board, "face_lower")
    left, _ = extent_along(board, y, z)
    near, far = sorted((p.offset - p.normal[1] * y) / p.normal[0] - left for p in notch.planes[:-1])
    floor = notch.planes[-1]
    deep = board.section.thickness_mm / 2 + floor.offset
    side = words["face"] if floor.normal[2] < 0 else words["back"]
    first = end_word(board, "left")
    wall = notch.planes[0].normal
    off, aslant = abs(end_cut(notch.planes[0]).miter_deg), -wall[1] / wall[0] * board.section.width_mm
    shoulders = f"{voice.say(far - near)} wide along the board, {voice.say(deep)} deep from the {side}; shoulders square across"
    if off > SQUARE_DEG:
        way = "further from" if aslant > 0 else "nearer to"
        shoulders = shoulders.removesuffix("square across") + (
            f"{voice.say_angle(off)} from square: on the {words['upper']} {voice.say(abs(aslant))} {way} the {first}"
        )
    place = f"Both shoulders are where the other piece's long edges cross this one, measured along the {words['lower']}."
    return RungOut(
        id=f"lap{number}",
        label=f"Lap {number + 1}, first shoulder from the {first}",
        note=f"the second at {voice.say(far)}; {shoulders}",
        figure=voice.length(near),
        here=False,
        why=[place, *why],
    )


def _birdsmouth(board: Board, number: int, voice: Voice, words: dict[str, str], why: list[str]) -> RungOut:
    """Where the heel's plumb line crosses the top edge, counted from the head, and how long heel and seat are."""
    heel, seat = board.notches[number].planes
    half = board.section.width_mm / 2

    def on(plane: Plane, y: float) -> float:
        return (plane.offset - plane.normal[1] * y) / plane.normal[0]

    # Heel and seat meet where both planes have the same x.
    (hx, hy, _), (sx, sy, _) = heel.normal, seat.normal
    deep = (heel.offset * sx - seat.offset * hx) / (hy * sx - sy * hx)
    corner = (on(heel, deep), deep)
    lengths = [hypot(corner[0] - on(plane, -half), corner[1] + half) for plane in (heel, seat)]
    _, head = extent_along(board, half, 0.0)
    note = f"heel {voice.say(lengths[0])} plumb, seat {voice.say(lengths[1])} level, {voice.say(deep + half)} deep square to the edge"
    return RungOut(
        id=f"birdsmouth{number}",
        label=f"Birdsmouth, its heel from the head along the {words['upper']}",
        note=note,
        figure=voice.length(head - on(heel, half)),
        here=False,
        why=["The heel stands plumb over the wall's outer face, the seat lies level on the wall.", *why],
    )


def _rabbet(board: Board, voice: Voice, words: dict[str, str], why: list[str]) -> RungOut:
    assert board.section.rabbet is not None
    width = board.section.rabbet.width_mm
    low, high = extent_along(board, board.section.width_mm / 2 - width, -board.section.thickness_mm / 2)
    place = f"Along the wall of the rabbet, {voice.say(width)} in from the {words['upper']}, on the {words['back']}."
    return RungOut(
        id="rabbet",
        label="Rabbet line",
        note="what it holds lies against it",
        figure=voice.length(high - low),
        here=False,
        why=[place, *why],
    )


def _outline(board: Board, solid: Solid, voice: Voice) -> list[RungOut]:
    """A panel's sides round its upper face, alike ones together, and the sheet that it comes out of."""
    xs, ys = ([p[k] for piece in solid.local for p in piece.points] for k in (0, 1))
    alike: dict[tuple[float, float], int] = {}
    first: dict[tuple[float, float], tuple[float, float]] = {}
    for length, _, edge in face_sides(solid):
        bevel = rip_bevel_deg(edge.plane)
        key = (round(length, 6), round(bevel, 6))
        alike[key] = alike.get(key, 0) + 1
        first.setdefault(key, (length, bevel))
    rungs: list[RungOut] = []
    for key, count in alike.items():
        length, bevel = first[key]
        cut = "edge square" if abs(bevel) < SQUARE_DEG else f"edge at {voice.say_angle(abs(bevel))}, "
        if abs(bevel) >= SQUARE_DEG:
            cut += "the upper face smaller" if bevel > 0 else "the upper face larger"
        label = "Every side" if len(alike) == 1 else f"{count} side{'s' if count > 1 else ''}"
        why = ["Measured round the upper face of the finished panel.", "Its edges follow the inside of the walls, less the play."]
        rungs.append(RungOut(id=f"side{len(rungs)}", label=label, note=cut, figure=voice.length(length), here=not rungs, why=why))
    for name, reach in (("Overall, left to right", max(xs) - min(xs)), ("Overall, front to back", max(ys) - min(ys))):
        why = ["From edge to edge over both faces: the least sheet that the panel can be cut from."]
        rungs.append(
            RungOut(id=name, label=name, note="the least sheet it comes out of", figure=voice.length(reach), here=False, why=why)
        )
    return rungs


def _ways(board: Board, voice: Voice, words: dict[str, str]) -> list[str]:
    """The same end the other ways that the board can lie: on edge, and propped on a ripped edge; a stave on its sled."""
    cut = board.right[0]
    if board.stave:
        angles = end_cut(cut)
        return [
            f"On a taper sled set {voice.say_angle(abs(angles.miter_deg))} off the fence, the blade tilted "
            f"{voice.say_angle(abs(angles.bevel_deg))}: {words['face']} up. For the other long edge turn the stave end for end and set the same taper the other way. "
            "Clamp the stave to the sled, guard and hands clear of the tilted blade."
        ]
    if abs(end_cut(cut).bevel_deg) < SQUARE_DEG:
        return []
    told = []
    for pose in poses_for(board):
        if pose.stance == "flat" or pose.fence == "back":
            continue
        blade = blade_angles(cut, pose)
        tilt = "blade upright" if abs(blade.tilt_deg) < 1e-7 else f"tilt {voice.say_angle(abs(blade.tilt_deg))}"
        how = "Propped on its ripped" if pose.propped else "On its"
        told.append(f"{how} {words[pose.down]} instead: swing {voice.say_angle(abs(blade.swing_deg))}, {tilt}.")
    return list(dict.fromkeys(told))


def _mixed(board: Board) -> bool:
    """Whether the two ends lean the same way, so that neither edge has both long points."""
    leans = [end_cut(board.ends(end)[0]).miter_deg for end in ENDS]
    return leans[0] * leans[1] < 0

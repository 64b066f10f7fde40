"""A part's card: its drawing, its ends, its long edges, its length ladder: the core's facts, in words."""

from fennup.app.schemas.sheet import EdgeOut, EndCutOut, EndOut, PartList, PartOut, RungOut
from fennup.app.services.drawings import view_out
from fennup.app.services.ploughed_lines import ploughed_edges, ploughed_rungs
from fennup.app.wording.figures import Voice
from fennup.app.wording.labels import naming_of
from fennup.app.wording.members import end_word, sides_of, whose
from fennup.app.wording.names import ACROSS, edges_together, in_sentence, together
from fennup.app.wording.why import edge_lines, given_lines, miter_lines
from fennup.core.assembly.board import ENDS, Board, End
from fennup.core.drawing.board_views import part_shapes
from fennup.core.drawing.view import View
from fennup.core.parts.alike import PartGroup
from fennup.core.parts.facts import BirdsmouthFact, CutFact, HoleRow, LapFact, OutlineSide, PartFacts
from fennup.core.parts.needs import Need, needs_of
from fennup.core.parts.solid import ARRISES, Arris
from fennup.core.saw.pose import blade_angles, poses_for
from fennup.core.solve import Solution
from fennup.core.tolerances import NOTHING, SAME

SEEN_DEG = 1e-7
# What a plan of boards cuts besides the parts themselves, by what its keys have in them.
PLANNED_MORE = (" spare ", " strip ")
OF_ANOTHER = "a piece of another project"
# What a panel's edges follow, by what it is.
PANELS = {
    "": "Its edges follow the inside of what goes round it, less the play, or as deep as they are let in.",
    "top": "Its edges are as far from the legs as the top's size makes them.",
    "side": "It stands between front and back, and its upper edge follows the lid.",
    "lid": "It lies on front and back and reaches over all round by what you gave.",
}


def part_cards(solution: Solution, voice: Voice) -> PartList:
    """Every part's card, in the parts' order, and what they all need."""
    cards = [card_of(solution, facts, voice) for facts in solution.design.facts]
    needs = needs_of(solution.design.facts, solution.plan.workshop.kerf_mm)
    return PartList(parts=cards, needs=[_need(need, voice) for need in needs])


def _need(need: Need, voice: Voice) -> str:
    """What the parts take of one section."""
    thick = voice.say(need.thickness_mm)
    if need.width_mm is None:
        sizes: dict[str, int] = {}
        for long, wide in need.sheets:
            size = f"{voice.say(long)} by {voice.say(wide)}"
            sizes[size] = sizes.get(size, 0) + 1
        listed = ", ".join(f"{count} of {size}" if count > 1 else size for size, count in sizes.items())
        return f"Sheet {thick} thick: {listed}."
    pieces = f"{need.count} pieces" if need.count > 1 else "1 piece"
    return (
        f"Boards {voice.say(need.width_mm)} wide, {thick} thick: {pieces}, {voice.run(need.sum_mm)} in all with the blade's kerf, "
        f"the longest {voice.say(need.longest_mm)}."
    )


def card_of(solution: Solution, facts: PartFacts, voice: Voice) -> PartOut:
    """The card of one part."""
    words, board, part = sides_of(solution, facts.key), facts.board, facts.group
    shapes, marks = part_shapes(board, facts.solid)
    count = len(part.boards)
    section = board.section
    size = f"{voice.say(section.thickness_mm)} thick"
    if not board.panel:
        before = f" before it is {'sawn' if board.stave else 'ripped'}" if board.rips else ""
        size = f"{voice.say(section.width_mm)} {'long' if board.stave else 'wide'}{before}, {size}"
    return PartOut(
        id=part.id,
        tag=board_tag(solution, part.id),
        name=part_name(solution, part),
        boards=list(part.boards),
        tags=[board_tag(solution, id) for id in part.boards],
        count_text="one of it" if count == 1 else f"{count} alike",
        hand_text=_hand(solution, part),
        section_text=size,
        upper=words["upper"],
        view=view_out(View("part", shapes, marks), voice),
        ends=[] if board.panel else [_end(solution, facts, end, voice, words) for end in ENDS],
        edges=[] if board.panel else _edges(facts, voice, words),
        ladder=_outline(facts, voice) if board.panel else _ladder(solution, facts, voice, words),
        ways=[] if board.panel else _ways(facts, voice, words),
    )


def board_tag(solution: Solution, key: str) -> str:
    """What a board is called for short: its own key, with its assembly's name where there are several."""
    id, slash, own = key.partition("/")
    if not slash:
        return solution.design.boards[key].name
    owner = naming_of(solution.spec).whose(id)
    return f"{owner} {own}" if owner else own


def planned_tag(solution: Solution, key: str) -> str:
    """What a piece of a plan of boards is called for short: a board of this project, a spare of one, a strip of one, or a piece of another project."""
    if key in solution.design.boards:
        return board_tag(solution, key)
    for word in PLANNED_MORE:
        own, found, number = key.rpartition(word)
        if found:
            return f"{planned_tag(solution, own)},{word}{number}"
    return OF_ANOTHER


def _hand(solution: Solution, part: PartGroup) -> str:
    """What it is the mirror image of, or would pass for when turned over."""
    mirrors = part.mirror_of or next((p.id for p in solution.design.parts if p.mirror_of == part.id), None)
    if mirrors:
        return f"Mirror image of {in_sentence(solution.design.assembly.board(mirrors).name)}: do not mix them up."
    over = part.turned_over_of or next((p.id for p in solution.design.parts if p.turned_over_of == part.id), None)
    if over:
        return (
            f"As {in_sentence(solution.design.assembly.board(over).name)} turned over: mark the side that shows before you cut."
        )
    return ""


def part_name(solution: Solution, part: PartGroup) -> str:
    """The part's name: what its boards are called, together, which courses they are, and whose where there are several
    assemblies."""
    owner = whose(solution, part.id)
    name = together([solution.design.assembly.board(id).name for id in part.boards])
    return f"{owner}: {name}" if owner else name


def _end(solution: Solution, facts: PartFacts, end: End, voice: Voice, words: dict[str, str]) -> EndOut:
    board = facts.board
    return EndOut(
        end=end,
        name=f"{end} long edge, taper" if board.stave else f"{end_word(board, end)}, miter",
        cuts=[_end_cut(board, cut, voice, words) for cut in facts.ends[end]],
        why=miter_lines(solution, board, end, voice),
    )


def _end_cut(board: Board, cut: CutFact, voice: Voice, words: dict[str, str]) -> EndCutOut:
    longer = words["lower"] if cut.miter_deg > 0 else words["upper"]
    square = abs(cut.miter_deg) < NOTHING
    leans = "square across" if square else f"long point on the {longer}"
    if board.stave:
        leans = "no taper" if square else f"taper, wider at the {longer}"
    side = words["back"] if cut.bevel_deg > 0 else words["face"]
    upright = abs(cut.bevel_deg) < NOTHING
    bevel = "blade upright" if upright else f"blade tilted {voice.say_angle(abs(cut.bevel_deg))}, {side} longer"
    return EndCutOut(miter=voice.angle(abs(cut.miter_deg)), leans=leans, bevel=bevel)


def _edges(facts: PartFacts, voice: Voice, words: dict[str, str]) -> list[EdgeOut]:
    """What is worked along the whole board: how its long edges are ripped, and what is ploughed out of it."""
    made, board = [], facts.board
    for rip in facts.rips:
        note = f"the {words['back'] if rip.bevel_deg > 0 else words['face']} stays wider there"
        if board.backing and rip.edge == "upper":
            note = f"backing: from the middle down towards the {words['face' if rip.bevel_deg > 0 else 'back']}"
        verb = "Saw" if board.stave else "Rip"
        label = f"The {words[rip.edge]} comes beveled" if board.ready else f"{verb} the {words[rip.edge]}"
        made.append(EdgeOut(label=label, figure=voice.angle(abs(rip.bevel_deg)), note=note))
    if facts.rips and not board.backing:
        face, back = facts.ripped_mm
        label = f"{'Length' if board.stave else 'Width'} that stays, {words['face']}"
        made.append(EdgeOut(label=label, figure=voice.length(face), note=f"{words['back']} {voice.say(back)}"))
    made += [line for _, line in ploughed_edges(facts, voice, words)]
    return made


def _ladder(solution: Solution, facts: PartFacts, voice: Voice, words: dict[str, str]) -> list[RungOut]:
    """Lengths along each line that somebody may mark, the one to measure first."""
    board, lengths = facts.board, facts.arrises
    beveled = facts.beveled
    shown: list[Arris] = list(ARRISES) if beveled else ["face_lower", "face_upper"]
    longest = max(lengths[a] for a in shown)
    here = next(a for a in ("face_lower", "face_upper", "back_lower", "back_upper") if lengths[a] >= longest - NOTHING)
    shown.sort(key=lambda a: (a != here, -lengths[a]))
    given = given_lines(solution, voice, board)
    why = [*edge_lines(board, voice, words), *given]
    square = all(abs(cut.miter_deg) < NOTHING for cuts in facts.ends.values() for cut in cuts) and not beveled
    overall = facts.extent[0]
    rungs = []
    for arris in shown:
        face, _, edge = arris.partition("_")
        line = f"{words[edge]}, {words[face]}" if beveled else words[edge]
        tips = "" if square else ", tip to tip"
        if not square and not _mixed(facts) and lengths[arris] >= overall - SAME:
            tips = ", long point to long point"
        elif not square and not _mixed(facts) and not beveled:
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
    held, ploughed = ploughed_rungs(facts, [lengths[arris] for arris in shown], voice, words, why)
    rungs[1:1] = held
    rungs += ploughed
    rungs += [_holes(facts, row, k, voice, words, why) for k, row in enumerate(facts.holes)]
    rungs += [_lap(facts, lap, k, voice, words, why) for k, lap in enumerate(facts.laps)]
    rungs += [_birdsmouth(mouth, k, voice, words, why) for k, mouth in enumerate(facts.birdsmouths)]
    if overall > longest + SAME:
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


def _holes(facts: PartFacts, row: HoleRow, k: int, voice: Voice, words: dict[str, str], why: list[str]) -> RungOut:
    """A row's centres as running figures from the left end, so that no rounding adds up."""
    first = end_word(facts.board, "left")
    return RungOut(
        id=f"holes{k}",
        label=f"Holes{f', row {k + 1}' if len(facts.holes) > 1 else ''}, first centre from the {first}",
        note=f"running: {', '.join(voice.say(at) for at in row.along_mm)}; {voice.say(row.up_mm)} up from the {words['lower']}, "
        f"{voice.say(row.diameter_mm)} wide{f', {voice.say(row.deep_mm)} deep' if row.deep_mm else ', through'}, from the {words[row.side]}",
        figure=voice.length(row.along_mm[0]),
        here=False,
        why=[f"Each centre is counted from the {first} at its own height, on the {words[row.side]}.", *why],
    )


def _lap(facts: PartFacts, lap: LapFact, k: int, voice: Voice, words: dict[str, str], why: list[str]) -> RungOut:
    """Where a half lap's two shoulders cross the lower edge, counted from the left end there, and how deep it goes."""
    first, side = end_word(facts.board, "left"), words[lap.side]
    shoulders = (
        f"{voice.say(lap.far_mm - lap.near_mm)} wide along the board, {voice.say(lap.deep_mm)} deep from the {side}; shoulders "
    )
    if lap.off_square_deg > NOTHING:
        way = "further from" if lap.aslant_mm > 0 else "nearer to"
        shoulders += f"{voice.say_angle(lap.off_square_deg)} from square: on the {words['upper']} {voice.say(abs(lap.aslant_mm))} {way} the {first}"
    else:
        shoulders += "square across"
    place = f"Both shoulders are where the other piece's long edges cross this one, measured along the {words['lower']}."
    return RungOut(
        id=f"lap{k}",
        label=f"Lap {k + 1}, first shoulder from the {first}",
        note=f"the second at {voice.say(lap.far_mm)}; {shoulders}",
        figure=voice.length(lap.near_mm),
        here=False,
        why=[place, *why],
    )


def _birdsmouth(mouth: BirdsmouthFact, k: int, voice: Voice, words: dict[str, str], why: list[str]) -> RungOut:
    """Where the heel's plumb line crosses the top edge, counted from the head, and how long heel and seat are."""
    note = f"heel {voice.say(mouth.heel_mm)} plumb, seat {voice.say(mouth.seat_mm)} level, {voice.say(mouth.deep_mm)} deep square to the edge"
    return RungOut(
        id=f"birdsmouth{k}",
        label=f"Birdsmouth, its heel from the head along the {words['upper']}",
        note=note,
        figure=voice.length(mouth.from_right_mm),
        here=False,
        why=["The heel stands plumb over the wall's outer face, the seat lies level on the wall.", *why],
    )


def _outline(facts: PartFacts, voice: Voice) -> list[RungOut]:
    """A panel's edges round its upper face, alike ones together, and the sheet that it comes out of."""
    alike: dict[tuple[float, float], list[OutlineSide]] = {}
    for side in facts.outline:
        alike.setdefault((round(side.length_mm, 6), round(side.bevel_deg, 6)), []).append(side)
    upright = abs(facts.board.frame.z[2]) < NOTHING
    rungs: list[RungOut] = []
    for sides in alike.values():
        bevel = sides[0].bevel_deg
        cut = "edge square" if abs(bevel) < NOTHING else f"edge at {voice.say_angle(abs(bevel))}, "
        if abs(bevel) >= NOTHING:
            cut += "the upper face smaller" if bevel > 0 else "the upper face larger"
        label = edges_together([side.way for side in sides], upright) if len(alike) > 1 else "Every edge"
        why = ["Measured round the upper face of the finished panel.", PANELS.get(facts.board.role, PANELS[""])]
        figure = voice.length(sides[0].length_mm)
        rungs.append(RungOut(id=f"side{len(rungs)}", label=label, note=cut, figure=figure, here=not rungs, why=why))
    for way, reach in zip(facts.across, facts.extent, strict=True):
        why = ["From edge to edge over both faces: the least sheet that the panel can be cut from."]
        rungs.append(
            RungOut(
                id=f"overall {ACROSS[way]}",
                label=f"Overall, {ACROSS[way]}",
                note="the least sheet it comes out of",
                figure=voice.length(reach),
                here=False,
                why=why,
            )
        )
    return rungs


def _ways(facts: PartFacts, voice: Voice, words: dict[str, str]) -> list[str]:
    """The same end the other ways that the board can lie: on edge, and propped on a ripped edge; a stave on its sled."""
    board, cut = facts.board, facts.ends["right"][0]
    if board.stave:
        return [
            f"On a taper sled set {voice.say_angle(abs(cut.miter_deg))} off the fence, the blade tilted "
            f"{voice.say_angle(abs(cut.bevel_deg))}: {words['face']} up. For the other long edge turn the stave end for end and set the same taper the other way. "
            "Clamp the stave to the sled, guard and hands clear of the tilted blade."
        ]
    if abs(cut.bevel_deg) < NOTHING:
        return []
    found = []
    for pose in (pose for pose in poses_for(board) if not pose.before_rip):
        if pose.stance == "flat" or pose.fence == "back":
            continue
        blade = blade_angles(board.right[0], pose)
        tilt = "blade upright" if abs(blade.tilt_deg) < SEEN_DEG else f"tilt {voice.say_angle(abs(blade.tilt_deg))}"
        how = "Nested on its" if pose.propped and board.ready else "Propped on its ripped" if pose.propped else "On its"
        found.append(f"{how} {words[pose.down]} instead: swing {voice.say_angle(abs(blade.swing_deg))}, {tilt}.")
    return list(dict.fromkeys(found))


def _mixed(facts: PartFacts) -> bool:
    """Whether the two ends lean the same way, so that neither edge has both long points."""
    left, right = (facts.ends[end][0].miter_deg for end in ENDS)
    return left * right < 0

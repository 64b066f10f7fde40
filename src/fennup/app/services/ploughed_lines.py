"""What is ploughed along a part, in words: on its card, at its step, and as rungs of its ladder."""

from collections.abc import Iterable, Iterator

from fennup.app.schemas.sheet import EdgeOut, RungOut
from fennup.app.wording.figures import Voice
from fennup.app.wording.ploughed_labels import PLOUGHED_NAMES
from fennup.core.parts.facts import PartFacts, PloughFact, StoppedFact
from fennup.core.parts.solid import LongLine
from fennup.core.stock.ploughed import Chamfer, Groove, Milled, Rabbet, Tongue
from fennup.core.tolerances import SAME

Sides = dict[str, str]


def ploughed_edge(fact: PloughFact, voice: Voice, words: Sides) -> EdgeOut:
    """One thing ploughed: where, and its figures."""
    cut, name = fact.cut, PLOUGHED_NAMES[fact.cut.form]
    if isinstance(cut, Groove):
        first = ("upper" if cut.far else "lower") if cut.side in ("face", "back") else ("face" if cut.far else "back")
        note = f"in from the {words[first]}; {voice.say(cut.width_mm)} wide, {voice.say(cut.depth_mm)} deep"
        return EdgeOut(label=f"{name} on the {words[cut.side]}", figure=voice.length(cut.from_mm), note=note)
    if isinstance(cut, Tongue):
        note = f"long, {voice.say(cut.thickness_mm)} thick, {voice.say(cut.from_mm)} in from the {words['back']}"
        return EdgeOut(label=f"{name} on the {words[cut.edge]}", figure=voice.length(cut.long_mm), note=note)
    if isinstance(cut, Milled):
        (across, deep), (side, _, edge) = (max(figures) for figures in zip(*cut.path, strict=True)), cut.at.partition("_")
        place = f"along the {words[edge]}, on the {words[side]}" if edge else f"on the {words[side]}"
        return EdgeOut(label=f"{name} {place}", figure=voice.length(across), note=f"across, {voice.say(deep)} deep, as drawn")
    side, _, edge = cut.corner.partition("_")
    if isinstance(cut, Rabbet):
        note = f"wide, {voice.say(cut.depth_mm)} deep from the {words[side]}"
        return EdgeOut(label=f"{name} along the {words[edge]}", figure=voice.length(cut.width_mm), note=note)
    label = f"{name} along the {words[edge]}, on the {words[side]}"
    if isinstance(cut, Chamfer):
        note = f"of the {words[side]}, {voice.say(cut.depth_mm)} of the {words[edge]}"
        return EdgeOut(label=label, figure=voice.length(cut.width_mm), note=note)
    return EdgeOut(label=label, figure=voice.length(cut.radius_mm), note="radius")


def ploughed_rungs(
    facts: PartFacts, shown_mm: Iterable[float], voice: Voice, words: Sides, why: list[str]
) -> tuple[list[RungOut], list[RungOut]]:
    """The line of the rabbet that something lies in; and every other line that is ploughed and no rung has the length of yet."""
    first: list[RungOut] = []
    more: list[RungOut] = []
    seen = list(shown_mm)
    for fact in facts.ploughed:
        for line in fact.lines:
            holds = fact.cut is facts.board.section.rabbet and line.side == "back"
            if not holds and any(abs(line.length_mm - length) < SAME for length in seen):
                continue
            seen.append(line.length_mm)
            (first if holds else more).append(_rung(facts, fact, line, voice, words, why, holds=holds))
    return first, more


def _rung(
    facts: PartFacts, fact: PloughFact, line: LongLine, voice: Voice, words: Sides, why: list[str], *, holds: bool
) -> RungOut:
    name = PLOUGHED_NAMES[fact.cut.form]
    place = f"{_in_from(facts, line, voice, words)}, on the {words[line.side]}"
    if holds:
        said = [f"Along the wall of the rabbet, {place}.", *why]
        return RungOut(id="rabbet", label="Rabbet line", note="what it holds lies against it", figure=voice.length(line.length_mm), here=False, why=said)  # fmt: skip
    return RungOut(
        id=f"{fact.key.rpartition('/')[2].replace(' ', '_')}:{line.y_mm:.3f}:{line.z_mm:.3f}",
        label=f"{name} line, {place}",
        note="to check by",
        figure=voice.length(line.length_mm),
        here=False,
        why=[f"Along a line of the {name.lower()}, {place}.", *why],
    )


def _in_from(facts: PartFacts, line: LongLine, voice: Voice, words: Sides) -> str:
    """How far a line is in from the nearer edge of the side that it lies on."""
    wide = line.side in ("face", "back")
    at, half = (line.y_mm, facts.board.section.width_mm / 2) if wide else (line.z_mm, facts.board.section.thickness_mm / 2)
    high = at > 0
    edge = ("upper" if high else "lower") if wide else ("face" if high else "back")
    return f"{voice.say(half - abs(at))} in from the {words[edge]}"


def ploughed_edges(facts: PartFacts, voice: Voice, words: Sides) -> Iterator[tuple[str, EdgeOut]]:
    """All that is ploughed along a part, by its step's key; or of what it is glued up."""
    if facts.board.glued:
        yield f"{facts.key} glue_up", _glued(facts, voice)
    for fact in facts.ploughed if not facts.board.glued else ():
        yield fact.key, ploughed_edge(fact, voice, words)
    for stopped in facts.stopped:
        yield stopped.key, _stopped(stopped, voice, words)


def _glued(facts: PartFacts, voice: Voice) -> EdgeOut:
    """The pieces that a part is glued up of, each with what is ploughed along it first."""
    low, high = facts.solid.extent_x()
    pieces = []
    for one in facts.board.glued:
        along = ", ".join(PLOUGHED_NAMES[cut.form].lower() for cut in one.ploughed)
        pieces.append(f"{voice.say(one.width_mm)} × {voice.say(one.thickness_mm)}" + (f" with {along}" if along else ""))
    return EdgeOut(label="Glue up, at least so long", figure=voice.length(high - low), note=f"of {'; '.join(pieces)}")


def _stopped(fact: StoppedFact, voice: Voice, words: Sides) -> EdgeOut:
    """A groove that does not run through, by where it begins and ends."""
    begins = "the left end" if fact.from_left_mm is None else voice.say(fact.from_left_mm)
    ends = "the right end" if fact.to_left_mm is None else f"{voice.say(fact.to_left_mm)} from the left end"
    note = f"in from the {words['lower']}; {voice.say(fact.width_mm)} wide, {voice.say(fact.deep_mm)} deep, from {begins} to {ends}, and no farther"
    return EdgeOut(
        label=f"{PLOUGHED_NAMES['groove']} on the {words[fact.side]}, stopped", figure=voice.length(fact.from_lower_mm), note=note
    )

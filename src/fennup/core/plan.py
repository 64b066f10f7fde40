"""The second step: how a design is made with the tools there are, and how well it then closes."""

from collections.abc import Mapping
from dataclasses import dataclass

from fennup.core.assembly.model import Finding
from fennup.core.design import Design
from fennup.core.saw.settings import Setting, candidates, settings_for
from fennup.core.saw.tools import AnyTool
from fennup.core.saw.ways import each_cut, ways_for, ways_needed
from fennup.core.verify.closing import Closing, closing_of
from fennup.core.verify.findings import findings_of
from fennup.core.verify.made import Cutter, Ends, rounded_to
from fennup.core.verify.rings import AddsUp, adds_up
from fennup.core.verify.slid import Gap, gaps_of
from fennup.core.workshop import Workshop


@dataclass(frozen=True)
class Fitting:
    """How ends that are cut in some way meet: `gaps`, what every joint opens by itself, `rings`, what adds up round every
    ring, and the verdict."""

    gaps: tuple[Gap, ...]
    rings: tuple[AddsUp, ...]
    closing: Closing


@dataclass(frozen=True)
class Plan:
    """The settings, of how many that come into question, which cuts no saw makes across (by key: rips, tapers, outlines, notches), and how well it closes so."""

    workshop: Workshop
    settings: tuple[Setting, ...]
    otherwise: tuple[str, ...]
    fitting: Fitting
    findings: tuple[Finding, ...]
    candidates: int

    @property
    def tools(self) -> Mapping[str, AnyTool]:
        """The tools that are there today."""
        return self.workshop.tools_here

    @property
    def closing(self) -> Closing:
        """The verdict, with the saw as it can be set."""
        return self.fitting.closing


def fitting_of(design: Design, cutter: Cutter, graduation_mm: float | None) -> Fitting:
    """How the ends meet when each is cut as `cutter` says: today as the saw's scale can be set, for a record as it was measured."""
    ends = Ends(design.assembly, design.solids, cutter, design.parts)
    gaps, rings = gaps_of(ends), adds_up(ends, graduation_mm)
    return Fitting(gaps, rings, closing_of(design.assembly, design.joints, list(design.shared), gaps, rings))


def plan_with(design: Design, workshop: Workshop) -> Plan:
    """The plan for a design with a workshop's tools."""
    tools = workshop.tools_here
    chosen = workshop.wishes.ways
    ways = {
        key: (ways_for if key in chosen else ways_needed)(board, cut, _long(design, board.id), tools)
        for key, board, cut in each_cut(design.parts, design.boards)
    }
    settings = settings_for(design.parts, ways, tools, chosen)
    cutter = rounded_to(design.boards, design.parts, settings, tools)
    fitting = fitting_of(design, cutter, workshop.graduation_mm)
    claims = [(check.claim, check.measured) for check in design.claims]
    findings = findings_of(
        design.assembly, design.solids, design.parts, design.joints, claims, settings, fitting.closing, workshop.allowance_mm
    )
    return Plan(workshop, settings, _otherwise(design), fitting, findings, candidates(ways, tools, chosen))


def _long(design: Design, id: str) -> float:
    low, high = design.solids[id].extent_x()
    return high - low


def _otherwise(design: Design) -> tuple[str, ...]:
    """The cuts that a miter saw does not make."""
    made: list[str] = []
    for facts in design.facts:
        if facts.board.rips and not facts.board.ready:
            made += [rip.key for rip in facts.rips]
        if facts.board.stave or facts.board.panel:
            made += [cut.key for cuts in facts.ends.values() for cut in cuts]
        made += [lap.key for lap in facts.laps] + [mouth.key for mouth in facts.birdsmouths]
    return tuple(made)

"""From a solution to what its drawing shows: chooses and words, decides nothing."""

from collections.abc import Sequence

from fennup.app.schemas.sheet import LookedSheet, PartBrief, SheetOut, SizeOut
from fennup.app.services.drawings import control_out, view_out
from fennup.app.services.part_cards import board_tag, card_of, part_name
from fennup.app.wording.figures import Voice
from fennup.app.wording.labels import PART, WHOLE, Naming, facts_text, label, naming_of, own_label
from fennup.app.wording.verdicts import FindingLine, closing_line, finding_line, finding_text, simple_lines
from fennup.core.drawing.view import Control, SizeRow
from fennup.core.parts.measures import measure_of
from fennup.core.project.describe import describe, stands
from fennup.core.project.edit import has_levels
from fennup.core.solve import Solution
from fennup.core.verify.boolean import BooleanProof


def sheet_of(
    solution: Solution, voice: Voice, proof: BooleanProof | None = None, more: Sequence[Control] = (), *, waiting: bool = False
) -> SheetOut:
    """The sheet of one project; `more` are controls that are not the spec's; `waiting`: the second proof is still being made."""
    described = describe(solution.spec, solution.design.assembly, solution.design.solids)
    naming = naming_of(solution.spec)
    kinds = [member.spec.kind for member in solution.spec.members.values()]
    only = kinds[0] if len(kinds) == 1 else "together"
    return SheetOut(
        whole=WHOLE[only],
        part_word=PART[only],
        takes_pieces=stands(solution.spec),
        has_levels=has_levels(solution.spec),
        facts=facts_text(described.facts),
        views=[view_out(v, voice, naming) for v in described.views],
        controls=[control_out(c, voice) for c in (*described.controls, *more)],
        sizes=[_size(row, voice, naming) for row in described.sizes],
        parts=[
            PartBrief(
                id=p.id,
                name=part_name(solution, p),
                boards=list(p.boards),
                tags=[board_tag(solution, board) for board in p.boards],
                names=[solution.design.assembly.board(board).name for board in p.boards],
            )
            for p in solution.design.parts
        ],
        closing=closing_line(solution, proof, voice, "waiting" if waiting else "none"),
        findings=_findings(solution, voice),
        cautions=[finding_text(f, solution, voice) for f in solution.plan.findings if f.severity == "standing"],
        simple=simple_lines(solution, voice),
    )


def looked_sheet(solution: Solution, voice: Voice, card: str | None) -> LookedSheet:
    """What a change that is only looked at shows; without the second proof."""
    described = describe(solution.spec, solution.design.assembly, solution.design.solids)
    naming = naming_of(solution.spec)
    asked = next((facts for facts in solution.design.facts if card in facts.group.boards), None)
    return LookedSheet(
        facts=facts_text(described.facts),
        views=[view_out(v, voice, naming) for v in described.views],
        sizes=[_size(row, voice, naming) for row in described.sizes],
        closing=closing_line(solution, None, voice),
        findings=_findings(solution, voice),
        card=card_of(solution, asked, voice) if asked else None,
    )


def _findings(solution: Solution, voice: Voice) -> list[FindingLine]:
    """What there is to know of this very thing."""
    return [finding_line(f, solution, voice) for f in solution.plan.findings if f.severity != "standing"]


def _size(row: SizeRow, voice: Voice, naming: Naming) -> SizeOut:
    return SizeOut(
        id=row.measure,
        label=label(row.measure, naming),
        whose=naming.whose(measure_of(row.measure).member),
        own=own_label(row.measure, naming),
        figure=voice.with_sum(voice.of(row.value, row.unit, row.standing), row.sum),
        standing=row.standing,
        acts=row.acts,
        can_free=row.can_free,
    )

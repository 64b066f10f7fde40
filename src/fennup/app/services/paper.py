"""What goes on paper, in words: templates of a project, its labels, its steps as pages, a model to fold up."""

from collections.abc import Sequence
from io import BytesIO
from zipfile import ZipFile

from fennup.app.services import documents
from fennup.app.services.part_cards import board_tag, card_of, part_name
from fennup.app.services.steps_sheet import SawSheet
from fennup.app.wording.figures import on_paper
from fennup.app.wording.members import board_words, end_word, joint_words, sides_of
from fennup.core.assembly.board import End
from fennup.core.errors import SpecError
from fennup.core.exchange.fixed import add_to
from fennup.core.exchange.paper import Label, Size, Worded, template_dxf, template_svg, templates_pdf
from fennup.core.exchange.sheets import Block, sheet_pages
from fennup.core.exchange.tables import Table
from fennup.core.steps.templates import Template, end_template, model_of, outline_template, templates_of


def all_templates(sheet: SawSheet) -> list[Worded]:
    """Every template of a project, with its words."""
    return [_worded(sheet, template) for template in templates_of(sheet.solution.design, sheet.plan.steps)]


def template_for(sheet: SawSheet, key: str) -> Worded:
    """The template of a step's end or outline. NotFound."""
    step = sheet.by_key.get(key)
    if step is None or not step.end:
        raise documents.NotFound(key)
    facts = sheet.facts[step.part]
    flat = facts.board.panel or facts.board.stave
    return _worded(sheet, outline_template(facts) if flat else end_template(facts, step.end))


def _worded(sheet: SawSheet, template: Template) -> Worded:
    solution, voice = sheet.solution, sheet.voice
    facts = sheet.facts.get(template.part)
    blank = template.sort == "blank"
    name = part_name(solution, facts.group) if facts else template.part if blank else board_words(solution, template.part)
    notes = {"part": name, "wedge": "wedge", "corner": "corner"}
    title, caption = name, ""
    if template.sort == "end" and facts:
        end: End = "left" if template.key.endswith("left") else "right"
        names = sides_of(solution, template.part)
        notes |= {f"side:{side}": names[side] for side in ("face", "back", "upper", "lower")}
        title = f"{name}: {end_word(facts.board, end)}"
        caption = "Cut out, fold at the dashed lines, wrap it round the board, its long edge along the board's corner."
    elif template.sort == "wedge":
        title, caption = f"Wedge for {name}", "Between fence and board."
    elif template.sort == "corner":
        joint = template.key.removeprefix("corner ")
        title, caption = (
            f"Angle at {joint_words(solution, joint)}",
            "Between the faces: set a gauge by it, or hold it into the corner.",
        )
    elif template.sort == "model":
        notes |= {note.code: board_words(solution, note.code.removeprefix("board:")) for note in template.notes}
        title, caption = f"{template.key}", "Cut out, fold at the dashed lines, glue the tab inside."
    elif blank:
        caption = "Sheet, laid flat: cut along the full lines, fold at the dashed ones. Its edges are sharp: break them, and wear gloves."
    elif facts:
        caption = f"{card_of(solution, facts, voice).section_text}; dashed where the back is larger."
    return Worded(template, title, caption, notes)


def pack_pdf(sheet: SawSheet, name: str, size: Size, blocks: Sequence[Block] = (), tables: Sequence[Table] = ()) -> bytes:
    """The whole cut plan: drawings, tables, the steps, every template, a label for every piece."""
    pages = [(f"{name}: {table.title.lower()}", _rows(table)) for table in tables if table.rows]
    pages.append((f"{name}: the steps", _lines(sheet)))
    return templates_pdf(
        all_templates(sheet), size, _labels(sheet), pages, lambda canvas: sheet_pages(canvas, blocks, name, size)
    )


def _rows(table: Table) -> list[str]:
    """A table as text, a paragraph a row: only what is filled in."""
    lines = []
    for row in table.rows:
        cells = [
            f"{h}: {f'{c:.2f}'.rstrip('0').rstrip('.') if isinstance(c, float) else c}"
            for h, c in zip(table.headings, row, strict=True)
            if c != ""
        ]
        lines.append("[  ] " + "; ".join(cells))
    return lines


def _lines(sheet: SawSheet) -> list[str]:
    """The steps as text, a paragraph each."""
    paper = sheet.paper()
    lines = [paper.simulated, ""]
    for number, step in enumerate(paper.steps, 1):
        lines.append(f"[  ] {number}. {step.title}. {step.detail}")
        sets = "; ".join(f"{s.label} {on_paper(s.figure) if s.figure else ''} {s.text}" for s in step.sets)
        lines += [
            f"      {text}" for text in (step.tool, sets, step.lies, step.mark, step.dial, step.boards, *step.misses) if text
        ]
    return lines


def _labels(sheet: SawSheet) -> list[Label]:
    found = []
    for facts in sheet.facts.values():
        card = card_of(sheet.solution, facts, sheet.voice)
        rung = next((r for r in card.ladder if r.here), None)
        length = f"{rung.label} {on_paper(rung.figure)}" if rung else ""
        for piece in facts.group.boards:
            lines = (board_words(sheet.solution, piece), card.section_text, length, "this side up: face mark here  ( )")
            found.append(Label(board_tag(sheet.solution, piece), lines))
    return found


def pack_zip(sheet: SawSheet) -> bytes:
    """Every template as SVG and as DXF."""
    out = BytesIO()
    with ZipFile(out, "w") as pack:
        for number, one in enumerate(all_templates(sheet), 1):
            stem = f"{number:02d}-{''.join(c if c.isalnum() else '-' for c in one.title.lower()).strip('-')}"
            add_to(pack, f"{stem}.svg", template_svg(one))
            add_to(pack, f"{stem}.dxf", template_dxf(one))
    return out.getvalue()


def model_pdf(sheet: SawSheet, size: Size, scale: float) -> bytes:
    """A box to fold up. SpecError where there is none."""
    model = model_of(sheet.solution.design, scale)
    if model is None:
        raise SpecError("no_model", ("scale",))
    return templates_pdf([_worded(sheet, model)], size)

"""Everything that goes out as a file, by its name: drawings, solids, tables, dates, the cut pack. One list for the screen, the web API and the command line."""

from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import datetime
from functools import cached_property
from typing import Literal

from fennup.app.services.buy_list import buy_list
from fennup.app.services.cut_list import cut_list
from fennup.app.services.dates import plan_ics
from fennup.app.services.drawn_sheets import client_block, drawn_blocks
from fennup.app.services.paper import pack_pdf, pack_zip
from fennup.app.services.part_cards import board_tag, part_cards, part_name
from fennup.app.services.saw_wishes import placements
from fennup.app.services.steps_sheet import SawSheet
from fennup.app.wording.boards import board_title
from fennup.app.wording.figures import Voice
from fennup.core.exchange.boards_forms import BoardsDocument
from fennup.core.exchange.document import solution_document
from fennup.core.exchange.meshes import Mesh, glb, meshes_of, stl, three_mf
from fennup.core.exchange.paper import Size
from fennup.core.exchange.sheets import Block, sheet_dxf, sheet_pdf, sheet_svg
from fennup.core.exchange.tables import Table, table_csv, tables_xlsx
from fennup.core.finish.planned import Finish
from fennup.core.solve import Solution

Group = Literal["drawings", "paper", "tables", "solids", "dates"]
BOARD_COLUMNS = (
    "Board",
    "Bought",
    "Board length mm",
    "Board width mm",
    "Board thickness mm",
    "Piece",
    "Name",
    "From mm",
    "To mm",
)


@dataclass(frozen=True)
class Outgoing:
    """A project with all that its files are made of; what takes long is asked for only by those that need it. `changed`: when its dates were last changed, UTC."""

    id: str
    name: str
    solution: Solution
    voice: Voice
    boards: Callable[[], BoardsDocument]
    finish: Callable[[], Finish]
    besides: Callable[[], list[tuple[str, str]]]
    client: Callable[[], list[str]]
    changed: datetime
    size: Size = "a4"

    @cached_property
    def blocks(self) -> list[Block]:
        """The drawings."""
        return drawn_blocks(self.solution, self.voice, self.name)

    @cached_property
    def meshes(self) -> list[Mesh]:
        """The boards."""
        named = {id: part_name(self.solution, part) for part in self.solution.design.parts for id in part.boards}
        tags = {id: board_tag(self.solution, id) for id in self.solution.design.solids}
        return meshes_of(self.solution.design, {id: f"{tags[id]} ({named[id]})" if id in named else tags[id] for id in tags})

    @cached_property
    def plan(self) -> BoardsDocument:
        """Which part comes out of which board."""
        return self.boards()

    @cached_property
    def saw(self) -> SawSheet:
        """The steps."""
        return SawSheet(self.solution, self.voice, placements(self.plan))

    @property
    def parts(self) -> Table:
        """The cut list."""
        return cut_list(part_cards(self.solution, self.voice).parts, solution_document(self.solution, None))

    @property
    def pieces(self) -> Table:
        """Every piece in its board, from where to where."""
        rows = []
        for board in self.plan.boards:
            for piece in board.pieces:
                xs = [point[0] for arris in piece.arrises for point in arris]
                key = piece.key.partition(" ")[0]
                tag = board_tag(self.solution, key) if key in self.solution.design.solids else piece.key
                rows.append((f"{board.number} {board_title(board.name, board.source)}", "yes" if board.bought else "", board.length_mm, board.width_mm,
                             board.thickness_mm, piece.key, tag, min(xs), max(xs)))  # fmt: skip
        return Table("Boards", BOARD_COLUMNS, rows)

    @property
    def bought(self) -> Table:
        """The buy list."""
        return buy_list(self.plan, self.besides())


@dataclass(frozen=True)
class Export:
    """One kind of file: what it is called, the end of its name, its media type, what it holds, and how it is made. `long`: it waits for the plan of the boards."""

    group: Group
    title: str
    suffix: str
    media_type: str
    about: str
    make: Callable[[Outgoing], bytes]
    long: bool = False


EXPORTS: Mapping[str, Export] = {
    "svg": Export("drawings", "Drawings, SVG", ".svg", "image/svg+xml", "The whole from its sides and every part, true size, a group for every layer.",
                  lambda out: sheet_svg(out.blocks, out.name)),
    "dxf": Export("drawings", "Drawings, DXF", ".dxf", "image/vnd.dxf", "The same for CAD and CNC: mm, true size, named layers.",
                  lambda out: sheet_dxf(out.blocks)),
    "pdf": Export("drawings", "Drawings, PDF", ".pdf", "application/pdf", "The same to print, at a scale that is said on every page.",
                  lambda out: sheet_pdf(out.blocks, out.name, out.size)),
    "sheet": Export("paper", "Sheet for whoever it is for, PDF", "-sheet.pdf", "application/pdf", "One page: picture, sizes, wood, finish, care, and the price if you wish.",
                    lambda out: sheet_pdf([client_block(out.solution, out.voice, out.name, out.client())], out.name, out.size)),
    "pack": Export("paper", "Cut pack, PDF", "-cut-pack.pdf", "application/pdf", "Drawings, steps, boards, templates and labels in one file for the bench.",
                   lambda out: pack_pdf(out.saw, out.name, out.size, out.blocks, [out.parts, out.pieces]), True),
    "templates": Export("paper", "Templates, ZIP", "-templates.zip", "application/zip", "Every template as SVG and DXF, true size.",
                        lambda out: pack_zip(out.saw), True),
    "csv": Export("tables", "Parts, CSV", "-parts.csv", "text/csv; charset=utf-8", "One part a row: count, section, lengths, angles.",
                  lambda out: table_csv(out.parts).encode()),
    "boards-csv": Export("tables", "Boards, CSV", "-boards.csv", "text/csv; charset=utf-8", "Every piece in its board, from where to where.",
                         lambda out: table_csv(out.pieces).encode(), True),
    "buy-csv": Export("tables", "To buy, CSV", "-to-buy.csv", "text/csv; charset=utf-8", "Boards, fasteners and finish to buy.",
                      lambda out: table_csv(out.bought).encode(), True),
    "xlsx": Export("tables", "Spreadsheet", ".xlsx", "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet", "Parts, boards and what is to buy, a sheet each.",
                   lambda out: tables_xlsx([out.parts, out.pieces, out.bought]), True),
    "glb": Export("solids", "Solids, GLB", ".glb", "model/gltf-binary", "For a phone, a browser or a renderer: metres, every board named.",
                  lambda out: glb(out.meshes)),
    "stl": Export("solids", "Solids, STL", ".stl", "model/stl", "mm, every board where it stands.", lambda out: stl(out.meshes)),
    "3mf": Export("solids", "Solids, 3MF", ".3mf", "model/3mf", "For a printer, a small model for instance: mm, every board an object.",
                  lambda out: three_mf(out.meshes)),
    "ics": Export("dates", "Dates, ICS", ".ics", "text/calendar; charset=utf-8", "The plan by the day for a calendar.",
                  lambda out: plan_ics(out.finish(), out.id, out.name, out.changed).encode()),
}  # fmt: skip

"""What the yard sells: nominal and actual sections, lengths, prices, stock. All invented."""

from typing import Any

YARD, CURRENCY = "Reedham timber yard", "EUR"
_INCH = 25.4
# Per metre and square mm of section; a longer board costs a little more for each metre.
_PER_M_MM2 = {"larch": 0.00245, "spruce": 0.00128, "oak": 0.0056}
_LONGER = 0.04
# name, width, thickness, wood, treated, lengths in mm.
_METRIC: tuple[tuple[str, float, float, str, bool, tuple[int, ...]], ...] = (
    ("planed larch 20 × 45", 45, 20, "larch", False, (2400, 3000)),
    ("planed larch 20 × 60", 60, 20, "larch", False, (1800, 2400, 3000)),
    ("planed larch 20 × 95", 95, 20, "larch", False, (1800, 2400, 3000, 4200)),
    ("planed larch 20 × 120", 120, 20, "larch", False, (2400, 3000)),
    ("planed larch 20 × 145", 145, 20, "larch", False, (2400, 3000, 4200)),
    ("planed larch 22 × 70", 70, 22, "larch", False, (2400, 3000)),
    ("planed larch 22 × 145", 145, 22, "larch", False, (2400, 3000)),
    ("planed larch 27 × 95", 95, 27, "larch", False, (2400, 3000, 4200)),
    ("planed larch 27 × 145", 145, 27, "larch", False, (3000, 4200)),
    ("planed larch 32 × 70", 70, 32, "larch", False, (2400, 3600)),
    ("planed spruce 38 × 90", 90, 38, "spruce", True, (2400, 3000, 4200)),
    ("planed spruce 38 × 130", 130, 38, "spruce", True, (3000, 4200)),
    ("planed larch 45 × 45", 45, 45, "larch", False, (2400, 3000)),
    ("planed larch 40 × 40", 40, 40, "larch", False, (2400, 3000)),
    ("planed larch 70 × 70", 70, 70, "larch", True, (2400, 3000)),
    ("planed oak 40 × 95", 95, 40, "oak", False, (1200, 2000)),
    ("planed larch 24 × 125", 125, 24, "larch", False, (2400, 4200)),
    ("planed larch 18 × 145", 145, 18, "larch", False, (2400, 3000)),
    ("planed larch 12 × 145", 145, 12, "larch", False, (2400,)),
)
_INCHES: tuple[tuple[str, float, float, str, bool, tuple[int, ...]], ...] = (
    ("spruce 1 × 3", 2.5, 0.75, "spruce", False, (6, 8, 10)),
    ("spruce 1 × 4", 3.5, 0.75, "spruce", False, (6, 8, 10, 12)),
    ("spruce 1 × 10", 9.25, 0.75, "spruce", False, (8, 10)),
    ("spruce 2 × 2", 1.5, 1.5, "spruce", False, (6, 8)),
    ("spruce 2 × 6", 5.5, 1.5, "spruce", True, (8, 10, 12, 16)),
    ("spruce 2 × 8", 7.25, 1.5, "spruce", True, (8, 12)),
)
_SHEETS = (
    ("6 mm birch plywood", 1220, 610, 6, 17.4), ("6 mm birch plywood, large", 2440, 1220, 6, 55.0),
    ("12 mm birch plywood", 1220, 610, 12, 26.8), ("12 mm birch plywood, large", 2440, 1220, 12, 84.0),
    ("12.7 mm marine plywood", 2440, 1220, 12.7, 112.0), ("16 mm spruce board, glued up", 2000, 600, 16, 41.5),
    ("20 mm spruce board, glued up", 2000, 800, 20, 64.5), ("22 mm spruce board, glued up", 2000, 400, 22, 37.0),
    ("18 mm spruce board, glued up", 2000, 500, 18, 39.5), ("19 mm spruce board, glued up", 1829, 610, 19.05, 46.0),
)  # fmt: skip


def _price(width: float, thick: float, long: float, wood: str, treated: bool) -> float:
    metres = long / 1000.0
    plain = _PER_M_MM2[wood] * width * thick * metres * (1.0 + _LONGER * metres)
    return float(round(plain * (1.12 if treated else 1.0), 1))


def price_list() -> dict[str, Any]:
    """The whole list, as the yard sends it."""
    items: list[dict[str, Any]] = []

    def add(code: str, name: str, long: float, wide: float, thick: float, price: float, **more: Any) -> None:
        stock = (7 * len(items)) % 23 + 2
        size = {"length_mm": round(long, 2), "width_mm": round(wide, 3), "thickness_mm": round(thick, 3)}
        items.append({"code": code, "name": name, **size, "price": price, "stock": stock, "grade": "sound", **more})

    for group, unit, lengths_in in ((_METRIC, 1.0, 1.0), (_INCHES, _INCH, 12 * _INCH)):
        for name, wide, thick, wood, treated, lengths in group:
            for long in lengths:
                size = (wide * unit, thick * unit, long * lengths_in)
                code = f"{wood}-{name.rpartition(wood)[2].replace(' ', '').replace('×', 'x')}-{long}"
                add(code, name, size[2], size[0], size[1], _price(*size, wood, treated), wood=wood, treated=treated)
    add("glazing-4-1500x1000", "acrylic glazing 4 mm", 1500, 1000, 4, 58.0, wood="acrylic", sheet=True, any_way=True)
    for name, sheet_long, sheet_wide, sheet_thick, price in _SHEETS:
        code = f"sheet-{sheet_thick:g}-{sheet_long}x{sheet_wide}"
        add(code, name, sheet_long, sheet_wide, sheet_thick, price, wood="plywood" if "ply" in name else "spruce", sheet=True)
    for long, price in ((2400, 13.4), (3000, 17.1)):
        add(f"larch-cornice-90x15-{long}", "larch cornice moulding 15 × 90", long, 90, 15, price, wood="larch")
    return {"yard": YARD, "currency": CURRENCY, "items": items}

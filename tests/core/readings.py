"""Two hundred texts that somebody may type as a length or an angle, with what the core makes of each."""

from fennup.core.errors import UnitError
from fennup.core.units.angles import parse_angle_deg
from fennup.core.units.lengths import Unit, parse_length

LENGTHS = (
    "", " ", "0", "5", "365", "1403", "14.375", "14,375", ".5", ",5", "0.5", "0,125", "12,5", "12.50", "-5", "\u22125", "- 5", "+5", "5.", "1e3",
    "1,234", "1,234.5", "1.234,5", "1 234", "1.234", "12,345", "123,456", "1234,567", "0,123", "1,23", "1,2345", "10 000", "1 234 567", "1 234/5",
    "1/2", "3/8", "14 3/8", "14-3/8", "14  3/8", "14 - 3/8", "14 3/8\"", "14-3/8″", "14⅜″", "14⅜", "½", "⅛ in", "¾\"", "14½", "1/0", "1/00", "3/8/2",
    "3 4", "14 3 8", "7/16 in", "22/7", "⅞mm", "14 ⅝ in", "5⁄8 in", "5\u20448\"", "0/5", "1 0/4",
    "4'", "4′", "4’", "4ft", "4 ft", "4 feet", "4 foot", "4' 7 1/4\"", "4'7\"", "4' 7", "4ft 7.25in", "4′ 7¼″", "4' 7 1/4''", "4'-7\"", "-4' 7\"",
    "4.5'", "4' 7.5", "4' 7' 2", "' 7", "4''", "4\" 7'", "4ft7in", "1' 1/2\"", "½'", "1/2 ft", "0' 6\"", "4 ft - 3 in", "4' 7 1/0\"",
    "1403 mm", "140.3cm", "140,3 cm", "1.2 m", "1,2m", "0.0254 m", "25.4mm", "1 in", "1in", "1 inch", "2 inches", "2inches", "2 ins", "10 millimetres",
    "10 millimeters", "10 millimetre", "3 meters", "12 mm 3", "mm", "in", "12 MM", "12 Mm", "1 IN", "36 CM", "36.5 cm", "5 km", "5 yd", "5m m", "5 c m",
    "abc", "<b>5</b>", "nan", "inf", "5+3", "5*3", "5 - 3", "5-3", "1--2", "--2", "14 -3/8", "\u00a05\u00a0", "5\u202fmm", "\t7\t", "７", "٣", "5 °",
    "9" * 39, "9" * 41, "1" + " " * 45, "3.14159", "1000,5", "1000,500", "999,999", "0,001", "00,123", "12.345,6", "5,", "5;3", "5 . 3", "14.3/8",
    "14 3.5/8", "7 3/16\" ", "“7”", "7”", "7“", "2' 3”", "6 1/2 mm", "6 1/2 cm", "6.5.2", "6,5,2", "1,000", "2 ft 6", "2 ft 6 1/2 in", "2ft 6inch",
    "412", "412.5", "412,5 mm", "16 7/32", "16 7/32\"", "1 31/64", "9 63/64 in", "-1/2", "-1/2 in", "-14 3/8 in", "-½\"", "1 m", "1,0 m", "3/4 m", "0.1 mm",
)  # fmt: skip
ANGLES = ("22.5", "22,5°", "22 1/2", "22° 30'", "22°30′", "45 deg", "45 degree", "45 degrees", "-3", "\u22123", "", "x", "90°°", "1/2", "22 1/0",
          ".5", "5.", "1e2", "7 ' 3", "30'", "12 5/8 °", "٣", "0", "360", " 15 ", "15 ° 7.5'")  # fmt: skip


def meant(text: str, unit: Unit) -> tuple[float | None, str]:
    """(mm, "") or (what it would be in inches where that is asked, else None; the refusal's code)."""
    try:
        return parse_length(text, unit).mm, ""
    except UnitError as error:
        found = error.data.get("mm")
        return (float(found) if isinstance(found, float) else None), error.code


def meant_deg(text: str) -> tuple[float | None, str]:
    """(degrees, "") or (None, the refusal's code)."""
    try:
        return parse_angle_deg(text), ""
    except UnitError as error:
        return None, error.code


def readings() -> list[tuple[str, str, float | None, str]]:
    """(text; `mm` or `in`, the tape's unit, or `deg`; what it means, the refusal's code)."""
    found = [(text, unit, *meant(text, unit)) for text in LENGTHS for unit in ("mm", "in")]  # type: ignore[arg-type]
    return [*found, *((text, "deg", *meant_deg(text)) for text in ANGLES)]

"""The boathouse's mouldings: found in its loft, left over from its floor, read from a drawing; and what is to be framed."""

from typing import Any

from sqlalchemy.orm import Session

from fennup.app.services import documents, racks
from fennup.app.services.upgrade import MOULDINGS
from fennup.core.exchange.outline import section_in
from fennup.core.mouldings.frames import project_with
from fennup.core.mouldings.library import Mouldings

# As somebody drew it after the piece in the loft: an ogee over a quarter round, the rabbet at the left.
OGEE = """<svg xmlns="http://www.w3.org/2000/svg" width="46mm" height="22mm" viewBox="0 0 46 22">
<path d="M 0 3 L 3 0 L 16 0 C 26 0 25 9 33 9 L 36 9 A 10 10 0 0 1 46 19 L 46 22 L 10 22 L 10 10 L 0 10 Z"/></svg>"""


def _rabbet(width: float, depth: float) -> dict[str, Any]:
    return {"form": "rabbet", "corner": "back_upper", "width_mm": width, "depth_mm": depth}


def demo_mouldings() -> Mouldings:
    """Five mouldings and four things to be framed."""
    drawn = section_in("ogee.svg", OGEE)
    ogee = [cut.model_dump(mode="json") for cut in drawn.section.ploughed]
    return Mouldings.model_validate({
        "mouldings": {
            "m1": {
                "name": "Reeded, from the loft", "width_mm": 47.0, "thickness_mm": 20.0, "wood": "oak", "finish": "old shellac",
                "ploughed": [
                    _rabbet(9.0, 12.0), {"form": "cove", "corner": "face_upper", "radius_mm": 5.0},
                    {"form": "groove", "side": "face", "far": True, "from_mm": 26.0, "width_mm": 4.0, "depth_mm": 3.0},
                    {"form": "round", "corner": "face_lower", "radius_mm": 5.0},
                ],
                "lengths": [{"mm": 1180.0}, {"mm": 940.0}, {"mm": 610.0}],
            },
            "m2": {
                "name": "Ogee, drawn", "width_mm": drawn.section.width_mm, "thickness_mm": drawn.section.thickness_mm, "wood": "pine",
                "finish": "white primer", "ploughed": ogee, "lengths": [{"mm": 2400.0, "count": 2}], "error_mm": round(drawn.error_mm, 3),
            },
            "m3": {
                "name": "Floor board, tongue sawn off", "width_mm": 88.0, "thickness_mm": 21.0, "wood": "larch",
                "ploughed": [_rabbet(8.0, 13.0)], "lengths": [{"mm": 1460.0}, {"mm": 1220.0, "count": 2}],
            },
            "m4": {
                "name": "Thin bead", "width_mm": 22.0, "thickness_mm": 11.0, "wood": "pine",
                "ploughed": [_rabbet(7.0, 9.0), {"form": "round", "corner": "face_lower", "radius_mm": 6.0}], "lengths": [{"mm": 1000.0, "count": 4}],
            },
            "m5": {
                "name": "Larch cornice", "width_mm": 90.0, "thickness_mm": 15.0, "wood": "larch",
                "ploughed": [
                    {"form": "cove", "corner": "face_upper", "radius_mm": 6.0}, {"form": "round", "corner": "face_lower", "radius_mm": 4.0},
                ],
                "lengths": [{"mm": 2400.0}],
            },
        },
        "contents": {
            "c1": {"name": "Crew photograph", "width_mm": 410.0, "height_mm": 300.0, "glass_mm": 2.0, "spacer_mm": 3.0, "art_mm": 1.0, "back_mm": 3.0, "weight_kg": 1.1},
            "c2": {"name": "Tide table", "width_mm": 620.0, "height_mm": 430.0, "glass_mm": 2.0, "art_mm": 1.0, "back_mm": 3.0, "weight_kg": 1.9},
            "c3": {"name": "Landing mirror", "width_mm": 760.0, "height_mm": 520.0, "glass_mm": 6.0, "back_mm": 8.0, "play_mm": 4.0},
            "c4": {"name": "Regatta poster", "width_mm": 594.0, "height_mm": 420.0, "glass_mm": 2.0, "art_mm": 0.5, "back_mm": 2.5, "weight_kg": 1.6},
        },
        "numbered": 5,
    })  # fmt: skip


def poster_frame() -> dict[str, Any]:
    """The regatta poster in the ogee: a frame of a moulding that comes with its profile and its finish."""
    library = demo_mouldings()
    return project_with(library.contents["c4"], library.mouldings["m2"]).model_dump(mode="json")


def fill_mouldings(session: Session) -> None:
    """The boathouse's mouldings; not where there have been any."""
    if not documents.ever_made(session, MOULDINGS):
        body = demo_mouldings().model_dump(mode="json")
        documents.create(session, MOULDINGS, body, {"event": "demo"}, racks.IDS[MOULDINGS])

"""What the demo's projects are written with: specs, short to say."""

from typing import Any

INCH = 25.4


def frame(
    shape: dict[str, Any], width: float, thickness: float, *, ploughed: tuple[dict[str, Any], ...] = (), **more: Any
) -> dict[str, Any]:
    """A flat frame."""
    board = {"width_mm": width, "thickness_mm": thickness, "ploughed": list(ploughed)}
    return {"kind": "flat_frame", "shape": shape, "board": board, **more}


def round_of(sides: int, **size: Any) -> dict[str, Any]:
    """A regular outline."""
    return {"form": "regular", "sides": sides, "size": size}


def box(plan: dict[str, Any], height: float, thickness: float, **more: Any) -> dict[str, Any]:
    """A box."""
    return {"kind": "box", "plan": plan, "height_mm": height, "thickness_mm": thickness, **more}


def level(width: float, depth: float) -> dict[str, Any]:
    """A rectangular plan."""
    return {"form": "rectangle", "width_mm": width, "depth_mm": depth}


def stand(plan: dict[str, Any], height: float, leg: float, **more: Any) -> dict[str, Any]:
    """A stand on square legs."""
    return {"kind": "stand", "plan": plan, "height_mm": height, "leg": {"width_mm": leg, "thickness_mm": leg}, **more}


def between(name: str, a: tuple[str, str, float], b: tuple[str, str, float], width: float, thick: float) -> dict[str, Any]:
    """A piece between two places on boards."""
    ends = [{"board": board, "side": side, "along_mm": along} for board, side, along in (a, b)]
    return {"name": name, "a": ends[0], "b": ends[1], "width_mm": width, "thickness_mm": thick}

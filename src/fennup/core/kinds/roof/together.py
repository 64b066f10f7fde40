"""A roof on another assembly: as many sides as that, and as wide."""

from fennup.core.kinds.roof.spec import Hip, LeanTo, Pyramid, RoofSpec

MOST_PANELS = 12
ROOM_FOR_JACKS = 4  # times their spacing: what is narrower takes no such roof


def set_on(spec: RoofSpec, sides: int, across: tuple[float, ...]) -> tuple[RoofSpec, tuple[str, ...]] | None:
    """Its eaves, or a lean-to's body, as wide as what it stands on; its height goes with its width. A gable stands on walls, not
    on what goes round."""
    shape = spec.shape
    width, depth = across[0], across[-1]
    if isinstance(shape, Pyramid) and sides <= MOST_PANELS:
        wide = max(across)
        sizes = {"sides": sides, "across_mm": wide, "height_mm": shape.height_mm * wide / shape.across_mm}
        # It follows one size: the wider one.
        return _with(spec, shape, sizes), ("eaves_flats",) if width >= depth else ("", "eaves_flats")
    if isinstance(shape, Hip) and sides == 4 and min(width, depth) >= ROOM_FOR_JACKS * shape.spacing_mm:
        sizes = {"width_mm": width, "depth_mm": depth, "rise_mm": shape.rise_mm * width / shape.width_mm}
        return _with(spec, shape, sizes), ("eaves_width", "eaves_depth")
    if isinstance(shape, LeanTo) and sides == 4:
        return _with(spec, shape, {"width_mm": width, "depth_mm": depth}), ("body_width", "body_depth")
    return None


def _with(spec: RoofSpec, shape: Hip | LeanTo | Pyramid, sizes: dict[str, float]) -> RoofSpec:
    return spec.model_copy(update={"shape": shape.model_copy(update=sizes)})

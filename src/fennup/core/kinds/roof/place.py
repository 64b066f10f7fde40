"""A roof as boards, cut planes, joints, gauges and claims. It places; it computes no setting and no length."""

from dataclasses import replace

from fennup.core.assembly.model import Assembly
from fennup.core.kinds.roof.gable import gable
from fennup.core.kinds.roof.hip import hip_roof
from fennup.core.kinds.roof.panels import lean_to, pyramid
from fennup.core.kinds.roof.spec import Gable, Hip, LeanTo, Pyramid, RoofSpec


def assemble(spec: RoofSpec) -> Assembly:
    """Everything. SpecError when no roof answers to the spec."""
    shape = spec.shape
    if isinstance(shape, Gable):
        made = gable(spec, shape)
    elif isinstance(shape, Pyramid):
        made = pyramid(spec, shape)
    else:
        made = hip_roof(spec, shape) if isinstance(shape, Hip) else lean_to(spec, shape)
    return replace(made, claims=spec.claims())


def shell(spec: RoofSpec) -> Assembly:
    """What sizes are taken on: one pair of rafters, the hips without jacks."""
    shape = spec.shape
    bare: Gable | Pyramid | Hip | LeanTo = shape
    if isinstance(shape, Gable):
        bare = shape.model_copy(update={"pairs": 1})
    elif isinstance(shape, Hip):
        bare = shape.model_copy(update={"spacing_mm": 10 * (shape.width_mm + shape.depth_mm)})
    return assemble(spec.model_copy(update={"shape": bare}))

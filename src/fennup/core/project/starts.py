"""What a new project can begin with: each kind's own starts, and some assemblies that belong together."""

from typing import Any

from fennup.core.errors import SpecError
from fennup.core.kinds.catalogue import KINDS
from fennup.core.project.spec import ProjectSpec, project_of

_LEG = {"width_mm": 40.0, "thickness_mm": 40.0}

TOGETHER: dict[str, dict[str, Any]] = {
    "bin_on_stand": {
        "members": {
            "m1": {
                "name": "Stand",
                "spec": {
                    "kind": "stand", "height_mm": 320.0, "leg": _LEG,
                    "plan": {"form": "four", "top_width_mm": 360.0, "top_depth_mm": 360.0, "front_splay_deg": 5.0, "side_splay_deg": 5.0},
                    "rails": [{"height_mm": 90.0, "width_mm": 50.0, "thickness_mm": 18.0}],
                    "top": {"thickness_mm": 18.0, "over_mm": 10.0},
                },
            },
            "m2": {
                "name": "Bin", "on": "m1",
                "spec": {
                    "kind": "box", "plan": {"form": "rectangle", "width_mm": 360.0, "depth_mm": 360.0}, "height_mm": 380.0,
                    "slope_deg": 5.0, "thickness_mm": 18.0,
                },
            },
            "m3": {
                "name": "Hood", "on": "m2",
                "spec": {"kind": "roof", "thickness_mm": 15.0, "shape": {"form": "pyramid", "sides": 4, "across_mm": 480.0, "height_mm": 150.0}},
            },
        },
        "links": [
            {"of": "m2", "measure": "outer_bottom_width", "after": "m1", "source": "top_width"},
            {"of": "m2", "measure": "outer_bottom_depth", "after": "m1", "source": "top_depth"},
            {"of": "m3", "measure": "eaves_flats", "after": "m2", "source": "outer_top_width", "plus_mm": 40.0},
        ],
        "numbered": 3,
    },
    "frame_in_frame": {
        "members": {
            "m1": {
                "name": "Inner",
                "spec": {
                    "kind": "flat_frame", "board": {"width_mm": 30.0, "thickness_mm": 12.0}, "rabbet": {"width_mm": 6.0, "depth_mm": 6.0},
                    "shape": {
                        "form": "rectangle",
                        "size": {"by": "holds", "object_width_mm": 400.0, "object_depth_mm": 300.0, "play_mm": 3.0},
                    },
                },
            },
            "m2": {
                "name": "Outer",  # its rabbet so deep that the floor lies on the inner one's face
                "spec": {
                    "kind": "flat_frame", "board": {"width_mm": 90.0, "thickness_mm": 22.0}, "rabbet": {"width_mm": 8.0, "depth_mm": 17.0},
                    "shape": {
                        "form": "rectangle",
                        "size": {"by": "holds", "object_width_mm": 451.0, "object_depth_mm": 351.0, "play_mm": 3.0},
                    },
                },
            },
        },
        "links": [
            {"of": "m2", "measure": "rabbet_width", "after": "m1", "source": "outside_width", "plus_mm": 3.0},
            {"of": "m2", "measure": "rabbet_depth", "after": "m1", "source": "outside_depth", "plus_mm": 3.0},
        ],
        "numbered": 2,
    },
    "posts_and_rail": {
        "members": {
            "m1": {
                "name": "Posts",
                "spec": {
                    "kind": "stand", "height_mm": 1000.0, "leg": {"width_mm": 90.0, "thickness_mm": 90.0},
                    "plan": {"form": "four", "top_width_mm": 1400.0, "top_depth_mm": 900.0, "front_splay_deg": 0.0, "side_splay_deg": 0.0},
                },
            },
        },
        "pieces": {
            f"p{number + 1}": {
                "name": f"Sloping rail {number}", "width_mm": 90.0, "thickness_mm": 40.0,
                "a": {"board": f"m1/{low}", "side": "upper", "along_mm": 650.0}, "b": {"board": f"m1/{high}", "side": "upper", "along_mm": 900.0},
            }
            for number, low, high in ((1, "DA", "AB"), (2, "CD", "BC"))
        },
        "numbered": 3,
    },
}  # fmt: skip
# Where somebody looks for a start that another kind makes.
ELSEWHERE = {"sloped_box": "box"}
FAMILIES: dict[str, tuple[str, ...]] = {
    **{
        name: (
            *(start for start in kind.starts if ELSEWHERE.get(start, name) == name),
            *(start for start, family in ELSEWHERE.items() if family == name),
        )
        for name, kind in KINDS.items()
    },
    "together": tuple(TOGETHER),
}


def start_spec(code: str) -> ProjectSpec:
    """The project that a start begins. SpecError `no_such_start`."""
    if code in TOGETHER:
        return ProjectSpec.model_validate(TOGETHER[code])
    for kind in KINDS.values():
        if code in kind.starts:
            return project_of(kind.spec.model_validate(kind.starts[code]), kind.called)
    raise SpecError("no_such_start", ("start",))

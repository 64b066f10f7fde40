"""What there is to decide about a box's corners, its insert, its strips' rails and its staves."""

from fennup.core.drawing.view import Control
from fennup.core.kinds.asking import Answers, choice, figure, one_of, with_or_without
from fennup.core.kinds.box.spec import BoxSpec, Cladding, Lining, Regular


def corner_controls(spec: BoxSpec) -> list[Control]:
    """Blocks in the corners, and an insert under the rim."""
    thick, blocks, insert = spec.thickness_mm, spec.blocks, spec.insert
    usual = {"along_mm": 2 * thick, "thickness_mm": thick}
    made = [with_or_without("blocks", "inside", "blocks", ("no_blocks", "with_blocks"), usual, blocks)]
    if blocks:
        for name in ("along", "thickness", "below"):
            made.append(figure(f"block_{name}", "inside", getattr(blocks, f"{name}_mm"), f"blocks.{name}_mm"))
    usual = {"reveal_mm": thick, "thickness_mm": thick / 2, "play_mm": 2.0, "ledger_mm": thick, "ledger_width_mm": 1.5 * thick}
    made.append(with_or_without("insert", "inside", "insert", ("no_insert", "with_insert"), usual, insert))
    if insert:
        for name in ("reveal", "thickness"):
            made.append(figure(f"insert_{name}", "inside", getattr(insert, f"{name}_mm"), f"insert.{name}_mm"))
        made.append(figure("play", "inside", insert.play_mm, "insert.play_mm", about="insert"))
        on = {"on_ledger": "ledger", **({"on_blocks": "blocks"} if blocks else {})}
        made.append(one_of("insert_on", "inside", "insert.on", dict(on), insert.on))
    if insert and insert.on == "ledger":
        made.append(figure("ledger_thickness", "inside", insert.ledger_mm, "insert.ledger_mm"))
        made.append(figure("ledger_width", "inside", insert.ledger_width_mm, "insert.ledger_width_mm"))
    return made


def strip_rails(spec: BoxSpec, clad: Cladding) -> list[Control]:
    """The rails between the strips: one more above the others, or one less."""
    rails = list(clad.rails_mm)
    room = spec.height_mm - clad.rail_width_mm
    answers: Answers = {"one_strip_rail_more": ([*rails, (rails[-1] + room) / 2 if rails else 0.0], False)}
    if rails:
        answers["one_strip_rail_less"] = (rails[:-1], False)
    made = [choice("strip_rails", "on_top", "cladding.rails_mm", answers)]
    for k, height in enumerate(rails):
        made.append(figure("strip_rail_height", "on_top", height, f"cladding.rails_mm.{k}", about=str(k + 1)))
    return [*made, figure("strip_rail_width", "on_top", clad.rail_width_mm, "cladding.rail_width_mm")] if rails else made


def lining_controls(lining: Lining | None) -> list[Control]:
    """A lining of sheet: how high it goes, how its corners overlap, and its drain holes."""
    made = [with_or_without("lining", "inside", "lining", ("no_lining", "sheet_lining"), {}, lining)]
    if lining:
        for name in ("below", "play", "lap"):
            value = getattr(lining, f"{name}_mm")
            made.append(
                figure(f"lining_{name}" if name != "play" else "play", "inside", value, f"lining.{name}_mm", about="lining")
            )
        made.append(figure("drains", "inside", float(lining.drains), "lining.drains", "count"))
        if lining.drains:
            made.append(figure("drain_mm", "inside", lining.drain_mm, "lining.drain_mm"))
    return made


def stave_controls(spec: BoxSpec) -> list[Control]:
    """How many staves a side has, and what is turned out of them."""
    made = [figure("staves", "board", float(spec.staves), "staves", "count")]
    if not (isinstance(spec.plan, Regular) and spec.upright):
        return made
    turned = spec.turned
    usual = {"outer_mm": spec.plan.across_mm}
    made.append(with_or_without("turned", "board", "turned", ("stave_flat", "stave_round"), usual, turned))
    if turned:
        made.append(figure("turned_outer", "board", turned.outer_mm, "turned.outer_mm"))
        hollow = spec.plan.across_mm - spec.thickness_mm
        made.append(with_or_without("bored", "board", "turned.inner_mm", ("bored_flat", "bored_round"), hollow, turned.inner_mm))
        if turned.inner_mm is not None:
            made.append(figure("turned_inner", "board", turned.inner_mm, "turned.inner_mm"))
    return made

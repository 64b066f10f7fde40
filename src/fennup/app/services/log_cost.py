"""What it costs and brings, in words, with where each figure comes from."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property

from fennup.app.schemas.finish import WhyOut
from fennup.app.schemas.log import CostOut
from fennup.app.schemas.sheet import ControlOut
from fennup.app.services.controls import figure_in, picked
from fennup.app.services.finish_fasten import FastenSheet
from fennup.app.wording.boards import board_title
from fennup.app.wording.figures import Voice
from fennup.app.wording.finish import hours
from fennup.app.wording.log import DEFER_SALE, money
from fennup.core.exchange.boards_forms import BoardForm, BoardsDocument
from fennup.core.finish.planned import Finish
from fennup.core.log.cost import BoardUsed, Bought, Cost, cost_of, used_share
from fennup.core.log.wishes import LogWishes

GRAMS_PER_KG = 1000.0
SHORT = {"a kilogram": "kg", "a litre": "l"}


def boards_used(plan: BoardsDocument, own: str = "") -> list[BoardUsed]:
    """The boards of a plan with what of each is used; of one that several projects share, this one's part of it by its pieces."""
    return [used for board in plan.boards if (used := _used(board, own)) is not None]


def _used(board: BoardForm, own: str) -> BoardUsed | None:
    every = [piece.overall_mm for piece in board.pieces]
    mine = [piece.overall_mm for piece in board.pieces if piece.project in ("", own)]
    if not mine:
        return None
    kept = [(o.to_mm - o.from_mm, o.width_mm) for o in board.offcuts if o.kept]
    share = used_share(board.length_mm, board.width_mm, kept, sum(mine), sum(every))
    volume = board.length_mm * board.width_mm * board.thickness_mm
    return BoardUsed(board_title(board.name, board.source), board.bought, board.price if board.bought else None, share, volume)


def small_things(finish: Finish, fasten: FastenSheet) -> list[tuple[str, Bought]]:
    """What is bought in small, each with the key of its price: fasteners by the piece, glue by the kilogram, coats by the litre."""
    prices = finish.tables.prices
    found: list[tuple[str, str, float, str]] = []
    for key, count in finish.buys.items():
        how, size, long = key
        found.append((f"{how} {size} {long:g}", fasten.bought_name(key), float(count), "each"))
    if finish.glued:
        found.append((finish.glue.name, finish.glue.name.capitalize(), finish.glue_g / GRAMS_PER_KG, "a kilogram"))
    if finish.recipe and finish.litres:
        found.append((finish.recipe.name, finish.recipe.name.capitalize(), finish.litres, "a litre"))
    return [(key, Bought(name, much, unit, prices.get(key))) for key, name, much, unit in found]


@dataclass(frozen=True)
class CostSheet:
    """A project's cost. `plan`: of its boards, None while there is none; `hours`: made, and planned; `currency`: of the price list, empty where it says none."""

    wishes: LogWishes
    finish: Finish
    fasten: FastenSheet
    plan: BoardsDocument | None
    own: str
    hours: tuple[float, float]
    voice: Voice
    currency: str

    def money(self, value: float) -> str:
        """A sum in the list's currency."""
        return money(value, self.currency)

    @cached_property
    def boards(self) -> list[BoardUsed]:
        """Its boards."""
        return boards_used(self.plan, self.own) if self.plan else []

    @cached_property
    def small(self) -> list[tuple[str, Bought]]:
        """What is bought in small."""
        return small_things(self.finish, self.fasten)

    @property
    def hours_counted(self) -> float:
        """Those made; while none are, those planned."""
        return self.hours[0] or self.hours[1]

    @cached_property
    def cost(self) -> Cost:
        """All of it."""
        small = [one for _, one in self.small]
        return cost_of(self.boards, small, self.finish.tables.wood_money, self.wishes.other_money, self.hours_counted)

    def out(self) -> CostOut:
        """As the screen shows it."""
        return CostOut(
            controls=self._controls(),
            prices=self._prices(),
            rows=self._rows() if self.plan else [],
            note=self._note(),
            waits=self.plan is None,
        )

    def _note(self) -> str:
        if self.plan is None:
            return "The boards are being planned: what they cost comes in a moment."
        said = []
        if self.cost.unknown:
            said.append(f"Without a price yet, and not in these sums: {', '.join(self.cost.unknown)}.")
        if self.plan.unplaced:
            said.append("Some pieces have no board yet: their wood is missing here.")
        return " ".join(said)

    def _controls(self) -> list[ControlOut]:
        wishes, plain = self.wishes, self.voice.plain

        def typed(path: str, label: str, value: float | None) -> ControlOut:
            return figure_in(path, f"{label}, {self.currency}".rstrip(", "), plain(value or 0.0), given=value is not None)

        return [
            typed("other_money", "What else it costs", wishes.other_money),
            typed("bought_money", "What a bought one costs", wishes.bought_money),
            typed("sale_money", "Sold for", wishes.sale_money),
            typed("rate_money", "An hour is to earn", wishes.rate_money),
        ]

    def _prices(self) -> list[ControlOut]:
        plain = self.voice.plain
        made = []
        if any(not board.bought or board.price is None for board in self.boards):
            value = self.finish.tables.wood_money
            made.append(
                figure_in("wood_money", "Wood from the rack, a cubic metre", plain(value or 0.0), given=value is not None)
            )
        for key, one in self.small:
            made.append(
                figure_in(
                    f"prices/{key}", f"{one.name}, {one.unit}", plain(one.price or 0.0, digits=3), given=one.price is not None
                )
            )
        return made

    def _rows(self) -> list[WhyOut]:
        cost = self.cost
        say: Callable[[float], str] = self.money
        made, planned = self.hours
        told = hours(self.hours_counted) if self.hours_counted else "no hours"
        came = "by the clock" if made else "as the plan has them, until the clock has run"
        rows = [
            WhyOut(
                title="Boards",
                figure=say(cost.boards),
                lines=[*self._board_lines(), "What goes back to the rack as an offcut is not counted."],
            ),
            WhyOut(title="Fasteners, glue, finish", figure=say(cost.small), lines=self._small_lines()),
            WhyOut(
                title="Materials, all",
                figure=say(cost.materials),
                lines=[f"{say(cost.boards)} + {say(cost.small)} + {say(cost.other)} for what else it costs."],
            ),
            WhyOut(
                title="Hours",
                figure=told,
                note=came,
                lines=[f"Made {hours(made) if made else 'none yet'}, planned {hours(planned)}."],
            ),
        ]
        wishes = self.wishes
        if wishes.rate_money is not None:
            price = cost.price_for(wishes.rate_money)
            share = f"{100 * cost.share_of_hours(wishes.rate_money):.0f} % of it is hours"
            rows.append(WhyOut(title=f"Price at {say(wishes.rate_money)} an hour", figure=say(price), note=share,
                               lines=[f"{say(cost.materials)} + {told} at {say(wishes.rate_money)}."]))  # fmt: skip
        if wishes.sale_money is not None:
            earns = cost.per_hour(wishes.sale_money)
            loss = earns is not None and earns < 0
            rows.append(WhyOut(title=f"Sold for {say(wishes.sale_money)}, an hour earns", figure="no hours" if earns is None else say(earns),
                               tone="wrong" if loss else "none", note="less than the materials cost" if loss else "",
                               lines=[f"({say(wishes.sale_money)} − {say(cost.materials)}) / {told}.", DEFER_SALE]))  # fmt: skip
        if wishes.bought_money is not None:
            saved = wishes.bought_money - cost.materials
            title = "Saved against a bought one" if saved >= 0 else "More than a bought one"
            rows.append(WhyOut(title=title, figure=say(abs(saved)), note="your hours not counted", tone="right" if saved >= 0 else "near",
                               lines=[f"{say(wishes.bought_money)} − {say(cost.materials)}. With your hours at what they are to earn it may be another sum."]))  # fmt: skip
        return rows

    def _board_lines(self) -> Sequence[str]:
        lines = []
        for board in self.boards:
            cost = board.cost(self.finish.tables.wood_money)
            whole = (
                f"{self.money(board.price)}" if board.bought and board.price is not None else f"{board.volume_mm3 / 1e9:.4f} m³"
            )
            lines.append(
                f"{board.name}: {100 * board.used:.0f} % of {whole} = {self.money(cost) if cost is not None else 'no price'}"
            )
        return lines

    def _small_lines(self) -> list[str]:
        lines = []
        for _, one in self.small:
            much = f"{one.much:.0f}" if one.unit == "each" else f"{one.much:.3f} {SHORT[one.unit]}"
            known = one.price is not None and one.cost is not None
            lines.append(
                f"{one.name}: {much} "
                + (f"at {one.price:g} {one.unit} = {self.money(one.cost or 0.0)}" if known else "without a price")
            )
        return lines


def sheet_controls(wishes: LogWishes) -> list[ControlOut]:
    """What the sheet for whoever it is for says besides."""
    return [picked("say_price", "The price on it", [("yes", "yes", True), ("no", "no", False)], wishes.say_price, few=True)]

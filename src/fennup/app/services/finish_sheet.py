"""The Finish place in words."""

from dataclasses import dataclass
from datetime import datetime

from fennup.app.schemas.finish import FinishOut
from fennup.app.schemas.fit import LineOut
from fennup.app.services import documents
from fennup.app.services.finish_coats import CoatsSheet
from fennup.app.services.finish_days import DaysSheet
from fennup.app.services.finish_fasten import FastenSheet
from fennup.app.services.finish_holds import HoldsSheet
from fennup.app.services.finish_site import SiteSheet
from fennup.app.wording.acts import did_words
from fennup.app.wording.figures import Voice
from fennup.app.wording.fit import FitWords
from fennup.core.finish.planned import Finish
from fennup.core.solve import Solution


@dataclass(frozen=True)
class FinishSheet:
    """A project's finish, ready to be worded. `now`: by the workshop's own clock."""

    finish: Finish
    solution: Solution
    voice: Voice
    now: datetime

    @property
    def words(self) -> FitWords:
        """Names and sentences."""
        return FitWords(self.solution, self.voice)

    @property
    def fasten(self) -> FastenSheet:
        """What holds it together."""
        return FastenSheet(self.finish, self.words)

    @property
    def coats(self) -> CoatsSheet:
        """What it is coated with."""
        return CoatsSheet(self.finish, self.words)

    @property
    def days(self) -> DaysSheet:
        """By the day."""
        return DaysSheet(self.finish, self.words, self.now)

    def out(self, state: documents.State, undo: str | None) -> FinishOut:
        """The whole place."""
        fasten, days = self.fasten.out(), self.days.out()
        return FinishOut(
            version=state.version,
            undo=undo or did_words(state.undo, self.voice),
            redo=did_words(state.redo, self.voice),
            foot=self._foot((fasten.joints and sum(j.tone == "wrong" for j in fasten.joints)) or 0, days.headline),
            buys=self.buys(),
            fasten=fasten,
            coats=self.coats.out(),
            days=days,
            holds=HoldsSheet(self.finish, self.words).out(),
            site=SiteSheet(self.finish, self.words).out(),
        )

    def buys(self) -> list[LineOut]:
        """What to buy besides boards: fasteners, glue, coats."""
        return [*self.fasten.buys(), *self.coats.buys()]

    def _foot(self, wrong: int, headline: str) -> str:
        if wrong:
            kinds = "kind of joint is" if wrong == 1 else "kinds of joints are"
            return f"{wrong} {kinds} not held yet"
        return headline

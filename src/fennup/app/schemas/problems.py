"""What is wrong with what was sent, field by field."""

from pydantic import BaseModel

from fennup.core.drawing.edit import Edit


class Offer(BaseModel):
    """One way out: what it does, in words and as acts."""

    label: str
    acts: list[Edit]


class FieldProblem(BaseModel):
    """One thing wrong, at one field. `ask` is set where a yes would make it right (`inches`); `offers` are ways out."""

    path: str
    text: str
    code: str
    ask: str | None = None
    offers: list[Offer] = []

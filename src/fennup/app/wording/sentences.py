"""Sentences kept as data: text with the places where figures and names go."""

from string import Formatter
from typing import Any

from fennup.app.wording.figures import Voice

LONGEST = 40


class _InWords(Formatter):
    """`{mm:length}` on the project's tape, `{mm:most}` and `{mm:least}` one that is a limit, on the side that is allowed, `{value:gap}` too small for a tape, `{deg:angle}`, `{measure:size}` by its name,
    `{part:inside}` a name within a sentence; without a sort, as it is."""

    def __init__(self, voice: Voice) -> None:
        self._voice = voice

    def format_field(self, value: Any, format_spec: str) -> Any:
        if format_spec == "length":
            return self._voice.say(float(value))
        if format_spec in ("most", "least"):
            return self._voice.limit(float(value), "most" if format_spec == "most" else "least")
        if format_spec == "gap":
            return self._voice.small(float(value))
        if format_spec == "angle":
            return self._voice.say_angle(float(value))
        if format_spec == "size":
            return self._voice.label(str(value))
        if format_spec and format_spec != "inside":
            return super().format_field(value, format_spec)
        text = str(value)
        return f"{text[:1].lower()}{text[1:]}" if format_spec == "inside" else text[:LONGEST] if isinstance(value, int) else text


def sentence(text: str, data: dict[str, Any], voice: Voice) -> str:
    """The text with its figures and names."""
    return _InWords(voice).vformat(text, (), data)

"""What the core raises when there is no result: a stable code, the fields at fault and the figures, no prose."""


class CoreError(Exception):
    """A refusal. `code` is stable, `fields` are dotted paths into the spec, `data` holds mm, degrees or names."""

    def __init__(self, code: str, fields: tuple[str, ...] = (), **data: object) -> None:
        super().__init__(code, fields, data)
        self.code = code
        self.fields = fields
        self.data = data


class UnitError(CoreError):
    """A text that is no length, angle or whole number, or one that could mean two things."""


class SpecError(CoreError):
    """A spec that no solid answers to: the fields say where it goes wrong."""


class CutError(CoreError):
    """A board and planes that leave no wood, or a plane that never crosses the board."""

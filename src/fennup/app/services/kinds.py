"""The kinds and the forms, as anyone outside can ask for them."""

from fennup.app.schemas.api import KindList, KindOut
from fennup.core.kinds.catalogue import KINDS


def kind_list() -> KindList:
    """Every kind with the JSON Schema of its spec."""
    return KindList(kinds=[KindOut(kind=k.name, title=k.title, spec_schema=k.spec.model_json_schema()) for k in KINDS.values()])

"""The need file: what is to grow where, and what matters; read, checked, described by its JSON Schema."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from ..errors import InvalidPlan
from ..plan.bed import BareBed
from ..plan.documents import parsed
from ..plan.fields import MOST_ALIKE
from ..plan.needs import Grown, Others, Wants
from ..plan.place import Place
from ..plan.shed import MOST_STOCK, Stock
from ..site import HostWall
from .plan import problems_of


class NeedFile(Grown):
    """What a gardener wants to grow on a bed of a place, and what matters of its support."""

    format: Literal["ascent-need"] = "ascent-need"
    version: Literal[1] = 1
    place: Place
    bed: BareBed
    others: Others = ()
    alike: int = Field(1, ge=1, le=MOST_ALIKE, description="beds or pots alike that share the plants out")
    path: float | None = Field(None, ge=0.3, le=2.4, description="width of one between two beds alike, m")
    host: HostWall | None = None
    wants: Wants = Wants()
    stock: Annotated[tuple[Stock, ...], Field(max_length=MOST_STOCK)] = ()


def read_need(data: bytes) -> NeedFile:
    """Return a need file.

    Raises:
        InvalidPlan: Every wrong field, with what is allowed.
    """
    try:
        return NeedFile.model_validate(parsed(data, "need"))
    except ValidationError as error:
        raise InvalidPlan(problems_of(error)) from error


def need_schema() -> dict[str, Any]:
    """Return the JSON Schema of the need file."""
    return NeedFile.model_json_schema()

"""A supplier's price list: read, checked, taken in as a garden's own prices."""

from __future__ import annotations

import datetime as dt
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from .. import tables
from ..errors import InvalidPlan
from ..plan.documents import parsed
from ..plan.fields import Currency, Name, Typed
from ..plan.garden import Garden
from ..plan.place import NO_CURRENCY
from ..tables.rows import Item
from .plan import problems_of

MOST_PRICED = 2000


class PricedItem(Typed):
    """What one pack of something costs: a row of the tables, how large the pack is where that differs, and
    whether it is to be had.

    size: pieces, or metres, of a pack; nothing where it is sold as it is. high: of mesh. [m] stock: packs
    there, where that is told. days: until more come.
    """

    item: Annotated[str, Field(min_length=1, max_length=64)]
    size: float | None = Field(None, gt=0, le=1e4)
    high: float | None = Field(None, gt=0, le=10)
    price: float = Field(ge=0, le=1e6)
    stock: int | None = Field(None, ge=0, le=10**6)
    days: int | None = Field(None, ge=0, le=400)

    @property
    def key(self) -> str:
        """Return what a garden keeps its price under."""
        sized = self.item if self.size is None else f"{self.item}@{self.size:g}"
        return sized if self.high is None else f"{sized}x{self.high:g}"


class PriceList(Typed):
    """A price list, whole or one page of it: `next` says where the rest begins."""

    format: Literal["ascent-prices"]
    version: Literal[1]
    supplier: Name
    currency: Currency
    until: dt.date
    items: Annotated[tuple[PricedItem, ...], Field(max_length=MOST_PRICED)]
    next: int | None = Field(None, ge=1, le=10**6)


def read_prices(text: str | bytes) -> PriceList:
    """Return the price list a document holds.

    Raises:
        InvalidPlan: Every wrong field, with its path.
    """
    try:
        return PriceList.model_validate(parsed(text, "prices"))
    except ValidationError as error:
        raise InvalidPlan(problems_of(error)) from error


def priced(garden: Garden, prices: PriceList) -> Garden:
    """Return a garden with the prices of a list for its own, those of things that no table knows left out;
    one that never named its money names it as the list does.
    """
    own = {row.key: row.price for row in prices.items if known(row.item) is not None}
    currency = prices.currency if garden.currency == NO_CURRENCY else garden.currency
    return garden.model_copy(update={"prices": {**garden.prices, **own}, "currency": currency})


def known(item: str) -> Item | None:
    """Return the row of the tables that a list names, none where no table has it."""
    return next((table()[item] for table in tables.ITEM_TABLES.values() if item in table()), None)


def prices_schema() -> dict[str, Any]:
    """Return the JSON Schema of a price list."""
    return PriceList.model_json_schema()

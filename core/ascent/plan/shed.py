"""What is in the shed, and what a structure takes from it."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field, model_validator

from .. import tables
from ..errors import UnknownItem
from ..tables import own
from .fields import Key, Name, Named, Note, Typed

MOST_STOCK, MOST_TAKEN = 400, 60  # in a shed, from it for one structure
StockTable = Literal["posts", "meshes", "ties", "wires", "anchors", "twines", "fittings", "cages"]
Condition = Literal["good", "fair", "poor"]
Sure = Literal["known", "seen", "guessed"]
MOST_STOCKED_ALIKE = 1000  # things of one kind in a shed, as one line of it
StockCount = Annotated[int, Field(ge=0, le=MOST_STOCKED_ALIKE)]
StockAge = Annotated[int, Field(ge=0, le=60)]


class Stock(Named):
    """Something in the shed, so many alike: like a row of a table, with measures, age and strength of their
    own.
    """

    table: StockTable
    item: Annotated[str, Field(max_length=64)] = Field(description="the row of the table that it is like")
    width: float | None = Field(None, description="across the weaker way, of what is no roll, m")
    depth: float | None = Field(None, description="across the other way; of a tube its wall, m")
    thickness: float | None = Field(None, description="of a wire, a string or a mesh’s wires, m")
    height: float | None = Field(None, description="of a mesh, m")
    length: float | None = Field(None, description="of each, m; nothing where it has none")
    count: StockCount = 1
    age: StockAge = Field(0, description="seasons it has been in use")
    condition: Condition = "good"
    strength: float = Field(1.0, ge=0.1, le=1.5, description="share of what such a new one bears")
    sure: Sure = Field("known", description="how sure one is of its strength")
    in_use: Note = Field("", description="what else it is in use for now; it is not planned with")

    @model_validator(mode="after")
    def _a_row(self) -> Stock:
        try:
            like = tables.item(self.table, self.item)
        except UnknownItem as error:
            raise ValueError(f"item: {error}") from error
        if own.MARK in self.item:
            raise ValueError("item: the key of a row of the table is allowed")
        measures = {measure.name: measure for measure in own.MEASURES.get(self.table, ())}
        for name in ("width", "depth", "thickness", "height", "length"):
            value, measure = getattr(self, name), measures.get(name)
            if value is not None and measure is None:
                raise ValueError(f"{name}: nothing is allowed for a row of {self.table}")
            if value is not None and measure and not measure.low <= value <= measure.high:
                raise ValueError(f"{name}: {measure.low:g} to {measure.high:g} m is allowed")
        if own.MEASURES.get(self.table) and self.length is None:
            raise ValueError("length: the length of each is needed")
        key = own.key_of(like, **self.measures)
        if (
            own.MARK in key
            and own.row_of(self.table, key, tables.ITEM_TABLES[self.table]().__getitem__) is None
        ):
            raise ValueError(f"width: measures that a row like {like.name} can have are allowed")
        return self

    @property
    def measures(self) -> dict[str, float | None]:
        """Return its own measures by name, SI."""
        return {name: getattr(self, name) for name in ("width", "depth", "thickness", "height", "length")}


class Taken(Typed):
    """Something from the shed that a structure has: pieces, or metres of what is cut from a roll or coil."""

    stock: Key
    amount: float = Field(gt=0.0, le=1e5)


class Spare(Typed):
    """Something of the shed that a structure may have.

    item: its key, with what it has of its own. amount: pieces, or metres of what is cut from a roll or coil.
    length: of each piece or roll. [m] life: seasons it has left.
    """

    stock: Key
    name: Name
    table: StockTable
    item: str
    amount: float
    length: float = 0.0
    life: float = 0.0

"""A garden: a place with everything in it. It is also the content of the garden file."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import Field

from .bed import Bed
from .features import Feature
from .fields import counted_first
from .needs import MOST_NEEDS, KeptNeed
from .place import Place
from .record import MOST_DIARIES, MOST_RECORDS, Diary, Record
from .shed import MOST_STOCK, Stock

FORMAT_VERSION: Literal[8] = 8
MOST_BEDS = MOST_FEATURES = 400


class Garden(Place):
    """A garden with its beds, what else is on its plan, its shed, what is wanted of it, and what was done."""

    beds: Annotated[tuple[Bed, ...], Field(max_length=MOST_BEDS), counted_first(MOST_BEDS)] = ()
    features: Annotated[
        tuple[Feature, ...], Field(max_length=MOST_FEATURES), counted_first(MOST_FEATURES)
    ] = ()
    stock: Annotated[tuple[Stock, ...], Field(max_length=MOST_STOCK), counted_first(MOST_STOCK)] = ()
    needs: Annotated[tuple[KeptNeed, ...], Field(max_length=MOST_NEEDS), counted_first(MOST_NEEDS)] = ()
    records: Annotated[tuple[Record, ...], Field(max_length=MOST_RECORDS), counted_first(MOST_RECORDS)] = ()
    diaries: Annotated[tuple[Diary, ...], Field(max_length=MOST_DIARIES), counted_first(MOST_DIARIES)] = ()

"""The plan: a garden and everything in it, typed. Those outside the core read it under one name."""

from .bed import MOST_PAST, MOST_STRUCTURES, BareBed, Bed, BedKind, BedTop
from .climate import MOST_SEEN, SeenWeek, Warmth
from .features import ROUND, Feature, FeatureKind
from .fields import GREATEST_GUST, Typed, day_of_year
from .garden import FORMAT_VERSION, MOST_BEDS, MOST_FEATURES, Garden
from .needs import MOST_NEEDS, KeptNeed
from .place import Place
from .record import MOST_DIARIES, MOST_RECORDS, Diary, Record
from .shed import MOST_STOCK, Spare, Stock, StockTable, Taken
from .structure import Planting, Structure

__all__ = [
    "FORMAT_VERSION",
    "GREATEST_GUST",
    "MOST_BEDS",
    "MOST_DIARIES",
    "MOST_FEATURES",
    "MOST_NEEDS",
    "MOST_PAST",
    "MOST_RECORDS",
    "MOST_SEEN",
    "MOST_STOCK",
    "MOST_STRUCTURES",
    "ROUND",
    "BareBed",
    "Bed",
    "BedKind",
    "BedTop",
    "Diary",
    "Feature",
    "FeatureKind",
    "Garden",
    "KeptNeed",
    "Place",
    "Planting",
    "Record",
    "SeenWeek",
    "Spare",
    "Stock",
    "StockTable",
    "Structure",
    "Taken",
    "Typed",
    "Warmth",
    "day_of_year",
]

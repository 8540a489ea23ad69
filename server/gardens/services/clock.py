"""What day it is."""

from __future__ import annotations

import datetime as dt
import zoneinfo

from ascent import plan as model
from django.conf import settings


def today(place: model.Place) -> dt.date:
    """Return the day that it is in a garden; that of the demo where one is set."""
    day: dt.date = settings.TODAY or dt.datetime.now(zoneinfo.ZoneInfo(place.timezone)).date()
    return day

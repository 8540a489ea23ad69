"""A supplier's price list, asked for over the protocol of docs/supplier-protocol.md and looked at first."""

from __future__ import annotations

import datetime as dt
import time
from urllib.parse import urlsplit

from ascent.errors import InvalidPlan, Problem
from ascent.files.prices import MOST_PRICED, PriceList, read_prices
from ascent.report.prices import prices_report
from django.conf import settings

from .. import schemas
from .access import Granted
from .asking import NoAnswer, asked
from .state import state_of, whole

_ALL = 9.0  # for the whole list [s]
_MOST_PAGES = 60


def _refused(what: str, allowed: str) -> InvalidPlan:
    return InvalidPlan([Problem("supplier", what, allowed)])


def list_of(address: str) -> PriceList:
    """Return the whole price list of a supplier.

    Raises:
        InvalidPlan: None is set, it does not answer in time, or what it answers is no price list.
    """
    if urlsplit(address).scheme not in ("http", "https"):
        raise _refused("nothing", "the address of a supplier is allowed, in ASCENT_SUPPLIER")
    end = time.monotonic() + _ALL
    pages = [_page(address, 0, end)]
    while (following := pages[-1].next) is not None:
        if len(pages) >= _MOST_PAGES or sum(len(page.items) for page in pages) > MOST_PRICED:
            raise _refused("a list without end", f"up to {MOST_PRICED} prices are allowed")
        pages.append(_page(address, following, end))
    first = pages[0]
    if any((page.supplier, page.currency) != (first.supplier, first.currency) for page in pages):
        raise _refused("pages of several lists", "one list is allowed: it changed meanwhile; try again")
    items = tuple(item for page in pages for item in page.items)
    return first.model_copy(update={"items": items[:MOST_PRICED], "next": None})


def _page(address: str, first: int, end: float) -> PriceList:
    try:
        return asked(f"{address}?from={first}", end, read_prices)
    except NoAnswer as error:
        raise _refused(
            str(error), "a price list is allowed; the supplier may be out, try again later"
        ) from error


def supplier_out(granted: Granted) -> schemas.SupplierOut:
    """Return a supplier's list and what it would change, looked at and not taken in.

    Raises:
        InvalidPlan: There is none, or it does not answer as it should.
    """
    prices = list_of(settings.SUPPLIER)
    core = whole(state_of(granted.garden))
    return schemas.SupplierOut(
        report=prices_report(core, prices, dt.datetime.now(dt.UTC).date(), core.units),
        text=prices.model_dump_json(),
        number=granted.garden.changes,
    )

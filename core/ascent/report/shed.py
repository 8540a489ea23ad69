"""The shed in words."""

from __future__ import annotations

from ..buying.shed import amount_of, by_metre, life_of, row_of, strength_of, worn
from ..plan.shed import Stock
from ..tables import item as row_for
from ..words.quantities import System, with_sizes, write
from ..words.texts import say


def stock_words(stock: Stock, system: System) -> str:
    """Return what something in the shed is."""
    told = with_sizes(row_for(stock.table, stock.item).name, system)
    sizes = [
        f"{1e3 * value:g} mm" if system == "metric" else write(value, "wire", system)
        for value in (stock.width, stock.depth, stock.thickness)
        if value
    ]
    if sizes:
        told += f", {' × '.join(sizes)}"
    if stock.height:
        told += f", {write(stock.height, 'length', system)} high"
    if stock.length:
        told += f", {write(stock.length, 'length', system)} long"
    return told


def widths_written(stock: Stock, system: System) -> dict[str, str]:
    """Return how thick something is, as such things are measured: to the tenth of a millimetre, not in
    metres.
    """
    widths = {"width": stock.width, "depth": stock.depth, "thickness": stock.thickness}
    return {name: write(value, "wire", system) for name, value in widths.items() if value}


def stock_state(stock: Stock, system: System) -> str:
    """Return what it still bears and how long it lasts, or why it is not planned with."""
    if worn(stock):
        life = row_for(stock.table, stock.item).life
        return say("stock.worn", system, words={"age": f"{stock.age}", "life": _seasons(life)})
    said = []
    if stock.in_use:
        said.append(say("stock.in_use", system, words={"use": stock.in_use}))
    share = strength_of(stock)
    if row_of(stock).key != stock.item and share < 1.0:
        said.append(say("stock.share", system, {"share": (100 * share, "count")}))
    if left := life_of(stock):
        said.append(say("stock.left", system, words={"left": _seasons(left)}))
    return "; ".join(said)


def _seasons(count: float) -> str:
    return f"{count:g} season{'' if count == 1 else 's'}"


def amount_text(stock: Stock, amount: float, system: System) -> str:
    """Return an amount of something in the shed: pieces, or metres of what is cut off a roll or coil.
    [pieces or m]
    """
    return write(amount, "length", system) if by_metre(row_of(stock)) else f"{amount:g}"


def whole_text(stock: Stock, system: System) -> str:
    """Return how much of it there is."""
    return amount_text(stock, amount_of(stock), system)

"""Options that describe themselves: what kind of control, its bounds, what it depends on, what fixes try."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any, Literal

from pydantic import AfterValidator, Field

from ..errors import UnknownItem
from ..plan.fields import Typed
from ..tables import item as item_of
from ..words.quantities import Kind

When = tuple[str, tuple[str, ...]]
DEEPER = (0.05, 0.10, 0.15, 0.25, 0.40)  # what fixes add to the depth of a post [m]


def _extra(group: str, kind: str, when: When | None, own_choice: bool, **more: Any) -> dict[str, Any]:
    """Return what an option says of itself; `own_choice` for what a gardener chose, which sizing leaves
    alone.
    """
    needed = {"when": {"option": when[0], "is": list(when[1])}} if when else {}
    return {"group": group, "kind": kind, **more, **needed, **({"own_choice": True} if own_choice else {})}


def measure(
    group: str,
    kind: Kind,
    default: float,
    low: float,
    high: float,
    step: float,
    *,
    tries: Sequence[float] | Literal["bays"] = (),
    when: When | None = None,
    own_choice: bool = False,
) -> Any:
    """Return an option that is a quantity with bounds and the step of its control, SI. [SI]

    Args:
        group: Its heading.
        kind: What it is a quantity of.
        default, low, high, step: In SI.
        tries: What fixes add to it, or ‘bays’ for a spacing that is closed up bay by bay.
        when: The option it depends on, and the values of that.
        own_choice: Whether it is the gardener's own choice.
    """
    more = {"step": step, **({"tries": tries if tries == "bays" else list(tries)} if tries else {})}
    return Field(default, ge=low, le=high, json_schema_extra=_extra(group, kind, when, own_choice, **more))


def item(
    group: str,
    table: str,
    default: str,
    role: str = "",
    *,
    when: When | None = None,
    own_choice: bool = False,
) -> Any:
    """Return an option chosen from a table; `role` narrows the rows, `when` the option it depends on."""
    return Field(default, json_schema_extra=_extra(group, "item", when, own_choice, table=table, role=role))


def row_of(table: str, role: str = "") -> AfterValidator:
    """Return the check that an option names a row of a table, one that serves in a role if one is given."""

    def check(key: str) -> str:
        try:
            serves = item_of(table, key).serves
        except UnknownItem as error:
            raise ValueError(str(error)) from error
        if role and role not in serves:
            raise ValueError(f"a row of {table} that serves as {role} is allowed")
        return key

    return AfterValidator(check)


def choice(group: str, default: Any, *, when: When | None = None, own_choice: bool = False) -> Any:
    """Return an option with a few named values, or a yes and no."""
    return Field(default, json_schema_extra=_extra(group, "choice", when, own_choice))


def extra_of(options: Typed | type[Typed], name: str) -> dict[str, Any]:
    """Return what an option says of itself."""
    kind = options if isinstance(options, type) else type(options)
    extra = kind.model_fields[name].json_schema_extra
    return extra if isinstance(extra, dict) else {}


def goes_with(options: Typed | type[Typed], name: str, value: Any) -> bool:
    """Return whether an option is in use with a value of the one it depends on."""
    written = str(value).lower() if isinstance(value, bool) else str(value)
    return written in extra_of(options, name)["when"]["is"]


def in_use(options: Typed, name: str) -> bool:
    """Return whether what an option depends on, if on anything, is so."""
    when = extra_of(options, name).get("when")
    if not when:
        return True
    ruler = str(when["option"])
    return goes_with(options, name, getattr(options, ruler)) and in_use(options, ruler)

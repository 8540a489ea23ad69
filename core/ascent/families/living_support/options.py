"""Living support: what must be decided of it."""

from __future__ import annotations

from typing import Annotated, Literal

from ...family.options import DEEPER, choice, item, measure, row_of
from ...plan.fields import Typed

KEY = "living-support"


class LivingSupportOptions(Typed):
    """What must be decided of a living support. Lengths in metres, times in days."""

    host: Annotated[str, row_of("hosts")] = item("hosts", "hosts", "corn", own_choice=True)
    mix: Literal["one", "alternate"] = choice("hosts", "one", own_choice=True)
    second: Annotated[str, row_of("hosts")] = item(
        "hosts", "hosts", "sunflower", when=("mix", ("alternate",)), own_choice=True
    )
    head_start: int = measure("hosts", "count", 18, 0, 45, 1, tries=(7, 14), own_choice=True)
    length: float = measure("block", "length", 3.0, 0.6, 12.0, 0.05, own_choice=True)
    rows: int = measure("block", "count", 4, 1, 10, 1, tries=(1, 2, 3), own_choice=True)
    row_spacing: float = measure("block", "length", 0.75, 0.25, 1.2, 0.01, own_choice=True)
    host_spacing: float = measure(
        "block", "length", 0.30, 0.15, 0.6, 0.01, tries=(-0.05, -0.1), own_choice=True
    )
    below: Literal["bare", "squash", "greens"] = choice("block", "bare", own_choice=True)
    backup: Literal["none", "strings"] = choice("backup", "none")
    backup_twine: Annotated[str, row_of("twines", "run")] = item(
        "backup", "twines", "polyester_3", "run", when=("backup", ("strings",))
    )
    post: Annotated[str, row_of("posts", "post")] = item(
        "backup", "posts", "tpost_1.8", "post", when=("backup", ("strings",))
    )
    post_spacing: float = measure(
        "backup", "length", 1.0, 0.6, 4.0, 0.05, tries="bays", when=("backup", ("strings",))
    )
    depth: float = measure(
        "backup", "length", 0.60, 0.2, 0.9, 0.01, tries=DEEPER, when=("backup", ("strings",))
    )

"""What time leaves of things that stand in wet soil."""

from __future__ import annotations

from dataclasses import replace

from .. import tables
from ..tables import rows


def after(post: rows.Post, seasons: int) -> rows.Post:
    """Return a post that has stood so many seasons in wet soil: rot or rust take of its strength evenly over
    its life, down to what is left of it when it should be replaced.

    Source: handbook-3.4
    """
    least = tables.constant(f"{tables.materials()[post.material].stuff}_least")
    return replace(post, sound=max(1.0 - (1.0 - least) * seasons / post.life_wet, least))

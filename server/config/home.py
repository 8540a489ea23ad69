"""Where a person's data and secrets live: outside the repository."""

from __future__ import annotations

import os
import secrets
from pathlib import Path


def home() -> Path:
    """Return the folder of data and secrets, made on first use and closed to others."""
    folder = Path(os.environ.get("ASCENT_HOME") or Path.home() / ".local" / "share" / "ascent")
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    (folder / "static").mkdir(exist_ok=True)
    return folder


def secret_key() -> str:
    """Return this installation's secret, made on first use."""
    path = home() / "secret"
    if not path.exists():
        path.touch(mode=0o600)
        path.write_text(secrets.token_urlsafe(64), encoding="ascii")
    return path.read_text(encoding="ascii")

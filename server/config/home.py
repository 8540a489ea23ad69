"""Where a person's data and secrets live: outside the repository, closed to others."""

from __future__ import annotations

import os
import secrets
import sys
from pathlib import Path

from accounts.files import write_whole

_LEAST_SECRET = 50


def home() -> Path:
    """Return the folder of data and secrets, made on first use and closed to others."""
    folder = Path(os.environ.get("ASCENT_HOME") or Path.home() / ".local" / "share" / "ascent")
    try:
        folder.mkdir(mode=0o700, parents=True, exist_ok=True)
        (folder / "static").mkdir(exist_ok=True)
    except OSError as error:
        _cannot_write(folder, error)
    return folder


def secret_key() -> str:
    """Return this installation's secret, made on first use; one that was cut short is made anew."""
    path = home() / "secret"
    if not path.exists() or len(path.read_text(encoding="ascii", errors="replace").strip()) < _LEAST_SECRET:
        try:
            write_whole(path, secrets.token_urlsafe(64).encode("ascii"))
        except OSError as error:
            _cannot_write(path, error)
    return path.read_text(encoding="ascii")


def _cannot_write(path: Path, error: OSError) -> None:
    sys.exit(
        f"ascent: {path} cannot be written: {error.strerror}. Make room, or let this account write there."
    )

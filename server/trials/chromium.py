"""The Chromium that tries the real interface: Debian's headless shell, which is light, or the whole."""

from __future__ import annotations

import shutil

ARGUMENTS = [
    "--no-sandbox",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--disable-dev-shm-usage",
]


def executable() -> str:
    """Return its path.

    Raises:
        LookupError: There is none.
    """
    for name in ("chromium-headless-shell", "chromium"):
        if path := shutil.which(name):
            return path
    raise LookupError("no Chromium is installed; ./ascent test installs it")

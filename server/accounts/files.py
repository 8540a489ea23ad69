"""Files and folders that only this account of the machine can read, written whole or not at all."""

from __future__ import annotations

import os
import secrets
from pathlib import Path


def closed_folder(folder: Path) -> Path:
    """Return a folder that only this account of the machine can look into, with all that is in it, whatever
    stood there before.
    """
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    folder.chmod(0o700)
    for path in folder.iterdir():
        if path.is_file() and path.stat().st_mode & 0o077:
            path.chmod(0o600)
    return folder


def write_whole(path: Path, content: bytes) -> None:
    """Write a file so that it is there whole, or not at all, and closed to others."""
    part = path.with_name(f".{path.name}.{os.getpid()}-{secrets.token_hex(4)}.part")
    try:
        with os.fdopen(os.open(part, os.O_WRONLY | os.O_CREAT | os.O_EXCL, 0o600), "wb") as handle:
            handle.write(content)
            handle.flush()
            os.fsync(handle.fileno())
        part.replace(path)
    except OSError:
        part.unlink(missing_ok=True)
        raise

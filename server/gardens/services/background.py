"""What is done beside the requests: by few threads, each thing once at a time."""

from __future__ import annotations

import logging
import threading
from collections.abc import Callable

from django.db import connections

_log = logging.getLogger(__name__)
_MOST = 2  # at once
_room = threading.BoundedSemaphore(_MOST)
_lock = threading.Lock()
_under_way: set[str] = set()


def begin(key: str, do: Callable[[], None]) -> None:
    """Begin something beside the request, unless it is under way already or as much is as may be."""
    with _lock:
        if key in _under_way or not _room.acquire(blocking=False):
            return
        _under_way.add(key)
    threading.Thread(target=_done, args=(key, do), name=f"background {key}", daemon=True).start()


def under_way(key: str) -> bool:
    """Return whether something has begun and not ended."""
    return key in _under_way


def _done(key: str, do: Callable[[], None]) -> None:
    try:
        do()
    except Exception:
        _log.exception("%s failed", key)
    finally:
        connections.close_all()
        with _lock:
            _under_way.discard(key)
        _room.release()

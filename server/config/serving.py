"""The server as it really runs: its limits and time-outs, the proxy it believes, and a clean end.

Run as ``python -m config.serving --port N``.
"""

from __future__ import annotations

import argparse
import importlib
import os
import signal
import sys
import threading
from typing import Any

import waitress
from django.conf import settings
from django.core.management import call_command
from django.db import connections
from simulators.scale import Scale
from simulators.supplier import Stall
from simulators.weather import Mast

from .bounds import MOST_OF_AN_ARCHIVE
from .wsgi import application

_THREADS = 8
_DAY = 86_400.0
_STORM = (24.0, 2)  # a gust that the demo's weather service forecasts [m/s], so many days ahead
_PULLS = (40.0, 80.0, 120.0, 60.0, 0.0)  # that somebody in the demo hangs on the scale [N]


def options() -> dict[str, Any]:
    """Return the server's limits: many open lines, none for long without a word; and the one proxy whose word
    it takes.

    A line that says nothing for `channel_timeout` seconds is closed, so that half-open ones keep nobody
    waiting.
    """
    chosen: dict[str, Any] = {
        "threads": _THREADS,
        "connection_limit": 2000,
        "channel_timeout": 20,
        "cleanup_interval": 5,
        "asyncore_use_poll": True,
        "max_request_body_size": MOST_OF_AN_ARCHIVE,
        "max_request_header_size": 32_768,
        "ident": None,
        "clear_untrusted_proxy_headers": True,
    }
    if proxy := os.environ.get("ASCENT_PROXY"):
        headers = {"x-forwarded-for", "x-forwarded-proto", "x-forwarded-host"}
        chosen |= {"trusted_proxy": proxy, "trusted_proxy_count": 1, "trusted_proxy_headers": headers}
    return chosen


def keep_house(stop: threading.Event) -> None:
    """Load what is slow to load before anybody asks for it; once a day forget what has served its time, until
    the server ends.
    """
    importlib.import_module("scipy.optimize")  # a cut list, and so a support that is sized, waits for it
    while not stop.is_set():
        call_command("purge", verbosity=0)
        connections.close_all()
        stop.wait(_DAY)


def main() -> None:
    """Serve until told to stop."""
    parser = argparse.ArgumentParser(prog="config.serving")
    parser.add_argument("--port", type=int, default=8000)
    asked = parser.parse_args()
    stop = threading.Event()
    signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
    if settings.DEMO and not settings.SUPPLIER:
        settings.SUPPLIER = Stall().opened().address
    if settings.DEMO and not settings.WEATHER:
        settings.WEATHER = Mast(today=settings.TODAY, storm=_STORM).opened().address
    if settings.DEMO and not settings.SCALE:
        settings.SCALE = Scale(pulls=_PULLS).opened().address
    threading.Thread(target=keep_house, args=(stop,), daemon=True).start()
    waitress.serve(application, listen=f"127.0.0.1:{asked.port}", **options(), _quiet=True)
    stop.set()


if __name__ == "__main__":
    main()

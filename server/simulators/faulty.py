"""What simulated services over HTTP share: they answer in a thread, and go wrong as they are told."""

from __future__ import annotations

import json
import threading
import time
from collections.abc import Sequence
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from typing import Any
from urllib.parse import parse_qs, urlsplit

COMMON = ("slow", "silent", "busy", "cut", "garbled", "endless", "moved", "drip")
_SLOW, _SILENT = 0.6, 30.0  # [s]
_DRIPS, _BETWEEN = 40, 0.5  # bytes of an answer that drips, and the time between two of them [s]
_ENDLESS = 64 * 1024 * 1024
Query = dict[str, list[str]]


class Faulty(ThreadingHTTPServer):
    """A service at paths of its own. Each fault happens as often as it is named: ‘busy,busy’ refuses two
    requests, then serves.
    """

    daemon_threads = True
    garbles: tuple[bytes, bytes] = (b"", b"")  # what is garbled, and into what

    def __init__(self, port: int = 0, faults: Sequence[str] = ()) -> None:
        super().__init__(("127.0.0.1", port), _Answer)
        self.faults = list(faults)
        self.asked = 0

    def page(self, path: str, query: Query, fault: str | None) -> dict[str, Any] | None:
        """Return what is answered at a path; nothing where there is none."""
        raise NotImplementedError

    def opened(self) -> Any:
        """Serve in a thread until it is closed."""
        threading.Thread(target=self.serve_forever, daemon=True).start()
        return self

    def next_fault(self) -> str | None:
        """Return what goes wrong with this request, if anything."""
        self.asked += 1
        return self.faults.pop(0) if self.faults else None


class _Answer(BaseHTTPRequestHandler):
    server: Faulty
    protocol_version = "HTTP/1.1"

    def log_message(self, format: str, *args: Any) -> None:
        """Say nothing."""

    def do_GET(self) -> None:
        """Answer, or go wrong as told."""
        asked = urlsplit(self.path)
        fault = self.server.next_fault()
        if fault in ("slow", "silent"):
            time.sleep(_SLOW if fault == "slow" else _SILENT)
        if fault == "moved":  # to somewhere it was not asked to send anybody
            self._bare(302, "Location", self.path)
            return
        if fault == "busy":
            self._bare(503, "Retry-After", "0")
            return
        page = self.server.page(asked.path, parse_qs(asked.query), fault)
        if page is None:
            self._send(404, b"{}")
            return
        body = json.dumps(page, ensure_ascii=False).encode()
        if fault == "garbled":
            body = body.replace(*self.server.garbles)
        if fault == "drip":
            self._drip(body)
        elif fault == "endless":
            self._send(200, body + b" " * _ENDLESS)
        elif fault == "cut":
            self._send(200, body[: len(body) // 2], len(body))
        else:
            self._send(200, body)

    def _drip(self, body: bytes) -> None:
        """Answer byte by byte, each soon enough after the one before."""
        self.send_response(200)
        self.send_header("Content-Length", str(len(body)))
        self.end_headers()
        self.close_connection = True
        try:
            for n in range(_DRIPS):
                self.wfile.write(body[n : n + 1])
                self.wfile.flush()
                time.sleep(_BETWEEN)
        except OSError:
            return

    def _bare(self, status: int, head: str, value: str) -> None:
        self.send_response(status)
        self.send_header(head, value)
        self.send_header("Content-Length", "0")
        self.end_headers()

    def _send(self, status: int, body: bytes, says: int | None = None) -> None:
        self.send_response(status)
        self.send_header("Content-Type", "application/json; charset=utf-8")
        self.send_header("Content-Length", str(len(body) if says is None else says))
        self.end_headers()
        try:
            self.wfile.write(body)
        except OSError:
            self.close_connection = True
        if says is not None:
            self.close_connection = True

"""Killing the server while it writes: what it acknowledged must be there afterwards, and the data file sound.

One process keeps the application loaded and forks a server from it each time, so that a start takes
milliseconds.
"""

from __future__ import annotations

import json
import os
import random
import signal
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
from contextlib import closing, suppress
from dataclasses import dataclass, field
from http.client import HTTPConnection, HTTPException
from pathlib import Path

from .served import ROOT, Visit, demo_home, free_port

_FORKING = """
import os, signal, sys
import waitress
from config.serving import application, options
from django.db import connections
from django.test import Client
visitor = Client()
for _ in range(2):  # everything that is loaded at the first request is loaded before the first fork
    visitor.get("/", headers={"host": "localhost"})
    change = {"edits": [{"kind": "place", "change": {"currency": "cu"}}]}
    as_here = {"host": "localhost"}
    visitor.post("/api/gardens/1/edits", change, content_type="application/json", headers=as_here)
connections.close_all()
signal.signal(signal.SIGCHLD, signal.SIG_IGN)
print("ready", flush=True)
for _ in sys.stdin:
    child = os.fork()
    if child == 0:
        waitress.serve(application, host="127.0.0.1", port=int(sys.argv[1]), **options(), _quiet=True)
    print(child, flush=True)
"""
_WRITERS = ("cove-bed", "chandlers", "marrow-bed", "twine-bed")
_PATIENCE = 20.0


@dataclass
class Tally:
    """What came of it."""

    kills: int = 0
    acknowledged: int = 0
    lost: list[str] = field(default_factory=list)
    damaged: list[str] = field(default_factory=list)
    seconds: float = 0.0


class _Writer(threading.Thread):
    """Moves one bed again and again, and remembers what was acknowledged last."""

    def __init__(self, port: int, bed: str, start: int) -> None:
        super().__init__(daemon=True)
        self.port, self.bed = port, bed
        self.sent = self.acknowledged = start
        self.count = 0
        self.stopping = False

    def run(self) -> None:
        """Write until the server is gone or enough is done."""
        with suppress(OSError, HTTPException, ValueError):
            visit = Visit(self.port)
            while not self.stopping:
                self.sent += 1
                change = {"x": self.sent / 1000.0}
                status, _ = visit.ask(
                    "POST",
                    "/api/gardens/1/edits",
                    {"edits": [{"kind": "bed", "key": self.bed, "change": change}]},
                )
                if status == 200:
                    self.acknowledged, self.count = self.sent, self.count + 1


def kill_while_writing(times: int, seed: int = 0) -> Tally:
    """Kill the server that many times while four clients write to it, and look each time at what is left."""
    chance = random.Random(seed)  # noqa: S311 - when to kill is no secret
    tally, begun, port = Tally(), time.monotonic(), free_port()
    with tempfile.TemporaryDirectory() as home:
        environment = demo_home(home, with_client=False)
        command = [sys.executable, "-c", _FORKING, str(port)]
        with subprocess.Popen(
            command,
            cwd=ROOT / "server",
            env=environment,
            stdin=subprocess.PIPE,
            stdout=subprocess.PIPE,
            stderr=subprocess.DEVNULL,
            text=True,
        ) as parent:
            assert parent.stdin and parent.stdout  # noqa: S101 - asked for just above
            parent.stdout.readline()
            values = dict.fromkeys(_WRITERS, 1000)
            for _ in range(times):
                parent.stdin.write("\n")
                parent.stdin.flush()
                child = int(parent.stdout.readline())
                _wait(port)
                writers = [_Writer(port, bed, values[bed]) for bed in _WRITERS]
                for writer in writers:
                    writer.start()
                _first_write(writers)
                time.sleep(chance.uniform(0.0, 0.25))
                os.kill(child, signal.SIGKILL)
                for writer in writers:
                    writer.join(_PATIENCE)
                tally.kills += 1
                tally.acknowledged += sum(writer.count for writer in writers)
                _look(Path(home) / "demo.sqlite3", writers, tally)
                values = {writer.bed: writer.sent for writer in writers}
            parent.stdin.close()
    tally.seconds = time.monotonic() - begun
    return tally


def _first_write(writers: list[_Writer]) -> None:
    """Wait until something was acknowledged, so that the kill comes in the middle of writing."""
    end = time.monotonic() + _PATIENCE
    while time.monotonic() < end and not any(writer.count for writer in writers):
        time.sleep(0.002)


def _wait(port: int) -> None:
    """Wait until the server answers."""
    end = time.monotonic() + _PATIENCE
    while time.monotonic() < end:
        with suppress(OSError):
            with closing(HTTPConnection("127.0.0.1", port, timeout=2)) as connection:
                connection.request("GET", "/api/session")
                connection.getresponse().read()
            return
        time.sleep(0.005)
    raise TimeoutError("the server did not come back")


def _look(path: Path, writers: list[_Writer], tally: Tally) -> None:
    """Compare what was acknowledged with what is stored."""
    with closing(sqlite3.connect(path, timeout=_PATIENCE)) as database:
        state = database.execute("PRAGMA integrity_check").fetchone()[0]
        loose = database.execute("PRAGMA foreign_key_check").fetchall()
        changes, count = database.execute(
            "SELECT changes, (SELECT COUNT(*) FROM gardens_change) FROM gardens_garden"
        ).fetchone()
        stored = {
            key: json.loads(text)["x"]
            for key, text in database.execute("SELECT key, document FROM gardens_thing WHERE kind = 'bed'")
        }
    if state != "ok" or loose or changes != count:
        tally.damaged.append(
            f"after kill {tally.kills}: {state}, {len(loose)} loose, {count} of {changes} changes"
        )
    for writer in writers:
        value = round(stored[writer.bed] * 1000)
        if writer.count and not writer.acknowledged <= value <= writer.sent:
            tally.lost.append(
                f"after kill {tally.kills}: {writer.bed} holds {value}, acknowledged {writer.acknowledged}"
            )

"""Backups of the data file by SQLite's own means while the application runs, and a look at whether everything
is sound.
"""

from __future__ import annotations

import datetime as dt
import hashlib
import itertools
import json
import os
import shutil
import sqlite3
import stat
import subprocess
import sys
import tempfile
import zipfile
import zlib
from collections.abc import Callable, Iterator
from contextlib import closing
from dataclasses import dataclass
from pathlib import Path

from ascent import tables
from ascent.errors import BrokenTable
from ascent.plan.garden import FORMAT_VERSION
from django.conf import settings
from django.db import DEFAULT_DB_ALIAS, connections
from django.db.migrations.executor import MigrationExecutor

_DATA, _LABEL = "ascent.sqlite3", "manifest.json"
_FORMAT = "ascent-backup"
_TABLES = {"gardens_garden", "gardens_thing", "gardens_change", "auth_user", "django_migrations"}
_BEGINS = b"SQLite format 3\0"
_LEAST_FREE = 200_000_000
_MOST_DATA = 5_000_000_000


class BadBackup(Exception):
    """A backup that cannot be trusted, or a place it cannot go to."""


@dataclass(frozen=True)
class Finding:
    """One thing the doctor looked at: whether it is sound, and what to do when it is not."""

    what: str
    sound: bool
    says: str
    do: str = ""


def data_file() -> Path:
    """Return the data file of this mode."""
    return Path(connections[DEFAULT_DB_ALIAS].settings_dict["NAME"])


def backup(path: Path) -> int:
    """Write a backup of the data file; the application may run and write meanwhile. Return its size in bytes.

    Raises:
        BadBackup: There is no data yet, or the place cannot be written.
    """
    if not data_file().exists():
        raise BadBackup(f"there is no data at {data_file()} yet")
    with tempfile.TemporaryDirectory() as folder:
        copy = Path(folder) / _DATA
        with closing(sqlite3.connect(data_file())) as source, closing(sqlite3.connect(copy)) as target:
            source.backup(target)
            target.execute("PRAGMA journal_mode=DELETE")
        label = {
            "format": _FORMAT,
            "version": FORMAT_VERSION,
            "sha256": _digest(copy),
            "bytes": copy.stat().st_size,
        }
        part = path.with_name(f"{path.name}.part")
        try:
            with zipfile.ZipFile(part, "w", zipfile.ZIP_DEFLATED) as archive:
                archive.write(copy, _DATA)
                archive.writestr(_LABEL, json.dumps(label, indent=1))
            part.chmod(0o600)
            part.replace(path)
        except OSError as error:
            part.unlink(missing_ok=True)
            raise BadBackup(f"{path} cannot be written: {error.strerror}") from error
    return path.stat().st_size


def restore(path: Path) -> Path:
    """Put a backup's data in place of what is there, while the application may run; return where the old data
    was kept.

    The backup is proved whole and no newer than this program, and brought up to date aside, before anything
    is touched. What was there is kept under its own moment, so that a second restore does not take the place
    of the first one's copy.

    Raises:
        BadBackup: It is no backup, it is damaged, or it is of a newer program; nothing was changed.
    """
    with tempfile.TemporaryDirectory() as folder:
        copy = _unpacked(path, Path(folder))
        _brought_up(copy)
        kept = _dated(data_file())
        if data_file().exists():
            backup(kept)
        with (
            closing(sqlite3.connect(copy)) as source,
            closing(sqlite3.connect(data_file(), timeout=30)) as target,
        ):
            target.execute("PRAGMA journal_mode=WAL")
            source.backup(target)
    return kept


def _dated(path: Path) -> Path:
    """Return a place for a copy that no other copy has."""
    stem = f"{path.stem}-before-restore-{dt.datetime.now(dt.UTC):%Y-%m-%d-%H%M%S}"
    taken = itertools.chain([""], (f"-{n}" for n in itertools.count(2)))
    return next(free for end in taken if not (free := path.with_name(f"{stem}{end}.zip")).exists())


def _unpacked(path: Path, folder: Path) -> Path:
    """Return a backup's data file, its checksum and its soundness proved."""
    try:
        with zipfile.ZipFile(path) as archive:
            label = json.loads(archive.read(_LABEL))
            if label.get("format") != _FORMAT or archive.getinfo(_DATA).file_size > _MOST_DATA:
                raise BadBackup(f"{path} is not a backup of Ascent")
            version = label.get("version")
            if not isinstance(version, int) or version > FORMAT_VERSION:
                raise BadBackup(
                    f"{path} is of a newer Ascent (form {version}; this one reads up to {FORMAT_VERSION}); "
                    "bring Ascent up to date first"
                )
            # what is no data file is known by its first bytes, before gigabytes of it are unpacked
            with archive.open(_DATA) as first:
                begins = first.read(len(_BEGINS))
            if begins != _BEGINS:
                raise BadBackup(f"{path} holds no data file of Ascent")
            copy = Path(archive.extract(_DATA, folder))
    except (OSError, KeyError, ValueError, AttributeError, zipfile.BadZipFile, zlib.error) as error:
        raise BadBackup(f"{path} is not a whole backup of Ascent ({error})") from error
    if _digest(copy) != label.get("sha256"):
        raise BadBackup(f"{path} is damaged: its checksum does not fit")
    try:
        with closing(sqlite3.connect(copy)) as database:
            state = database.execute("PRAGMA integrity_check").fetchone()[0]
            named = {
                row[0] for row in database.execute("SELECT name FROM sqlite_master WHERE type = 'table'")
            }
            steps = (
                set(database.execute("SELECT app, name FROM django_migrations"))
                if "django_migrations" in named
                else set()
            )
    except sqlite3.DatabaseError as error:
        raise BadBackup(f"{path} holds no data file ({error})") from error
    if state != "ok" or not named >= _TABLES or not steps:
        raise BadBackup(f"{path} holds no sound data of Ascent")
    known = MigrationExecutor(connections[DEFAULT_DB_ALIAS]).loader.disk_migrations
    if unknown := sorted(f"{app} {name}" for app, name in steps if (app, name) not in known):
        raise BadBackup(
            f"{path} is of a newer Ascent ({unknown[0]} is not known here); bring Ascent up to date first"
        )
    return copy


def _brought_up(copy: Path) -> None:
    """Bring a data file up to the present form where it lies, by a process of its own.

    Raises:
        BadBackup: It cannot be; that it lies aside is why nothing is lost by it.
    """
    words = [sys.executable, str(settings.ROOT / "server" / "manage.py"), "migrate", "-v0"]
    done = subprocess.run(
        words,
        env={**os.environ, "ASCENT_DATA": str(copy)},
        capture_output=True,
        text=True,
        timeout=600,
        check=False,
    )
    if done.returncode:
        raise BadBackup(
            f"it cannot be brought up to date: {done.stderr.strip().splitlines()[-1:] or 'no reason given'}"
        )


def _digest(path: Path) -> str:
    with path.open("rb") as handle:
        return hashlib.file_digest(handle, "sha256").hexdigest()


def examine() -> Iterator[Finding]:
    """Look at everything that must be sound, one thing after another."""
    for look in _LOOKS:
        yield look()


def _python() -> Finding:
    version = ".".join(map(str, sys.version_info[:3]))
    return Finding("Python", sys.version_info >= (3, 11), version, "install Python 3.11 or newer")


def _home() -> Finding:
    folder = data_file().parent
    open_to_others = stat.S_IMODE(folder.stat().st_mode) & 0o077
    free = shutil.disk_usage(folder).free
    if free < _LEAST_FREE:
        return Finding(
            "place for data", False, f"{folder}: {free / 1e6:.0f} MB free", "make room: at least 200 MB"
        )
    return Finding(
        "place for data",
        not open_to_others,
        f"{folder}, {free / 1e9:.1f} GB free",
        f"others can look into it: chmod 700 {folder}",
    )


def _secret() -> Finding:
    path = data_file().parent / "secret"
    sound = path.exists() and path.stat().st_size > 0 and not stat.S_IMODE(path.stat().st_mode) & 0o077
    return Finding("secret", sound, str(path), f"chmod 600 {path}")


def _secure() -> Finding:
    """Look whether a server that is told it is reached over HTTPS can know that it is."""
    proxy = os.environ.get("ASCENT_PROXY", "")
    if not settings.HTTPS:
        return Finding("HTTPS", True, "off" + (f", behind {proxy}" if proxy else ""))
    sound = bool(proxy) and bool(settings.CSRF_TRUSTED_ORIGINS)
    return Finding(
        "HTTPS",
        sound,
        f"on, behind {proxy or 'nobody'}",
        "set ASCENT_PROXY to the address of the proxy that ends it, and ASCENT_ORIGINS",
    )


def _tables() -> Finding:
    try:
        tables.load_all()
    except BrokenTable as error:
        return Finding(
            "tables", False, str(error), "put the row right, or take back your change of core/ascent/data"
        )
    return Finding(
        "tables", True, f"{len(tables.crops())} crops, {len(tables.posts())} posts, every source known"
    )


def _client() -> Finding:
    manifest = settings.ROOT / "client" / "dist" / ".vite" / "manifest.json"
    return Finding(
        "client",
        manifest.exists(),
        str(manifest.parent.parent),
        "run ./ascent serve or ./ascent demo: it builds the client",
    )


def _database() -> Finding:
    path = data_file()
    if not path.exists():
        return Finding("data file", True, f"{path}: none yet; it is made when the server first starts")
    try:
        with closing(sqlite3.connect(f"file:{path}?mode=ro", uri=True, timeout=30)) as database:
            state = database.execute("PRAGMA integrity_check").fetchone()[0]
            loose = database.execute("PRAGMA foreign_key_check").fetchall()
    except sqlite3.DatabaseError as error:
        state, loose = str(error), []
    sound = state == "ok" and not loose
    says = (
        f"{path}, {path.stat().st_size / 1e6:.1f} MB"
        if sound
        else f"{path}: {state}{f', {len(loose)} loose ends' if loose else ''}"
    )
    return Finding(
        "data file", sound, says, "stop the server and restore the latest backup: ./ascent restore FILE"
    )


def _migrations() -> Finding:
    if not data_file().exists():
        return Finding("data’s form", True, "nothing to bring up to date")
    try:
        connection = connections[DEFAULT_DB_ALIAS]
        executor = MigrationExecutor(connection)
        waiting = executor.migration_plan(executor.loader.graph.leaf_nodes())
    except Exception as error:
        return Finding("data’s form", False, str(error), "restore the latest backup: ./ascent restore FILE")
    says = f"{len(waiting)} steps behind" if waiting else "up to date"
    return Finding(
        "data’s form", not waiting, says, "start the server once: ./ascent serve brings it up to date"
    )


_LOOKS: tuple[Callable[[], Finding], ...] = (
    _python,
    _home,
    _secret,
    _secure,
    _tables,
    _client,
    _database,
    _migrations,
)

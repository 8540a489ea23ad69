"""Write a backup of all data to one file, verified by checksum; the server may run meanwhile."""

from __future__ import annotations

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from backups.keeping import BadBackup, backup


class Command(BaseCommand):
    """Back up."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the file's path."""
        parser.add_argument("file", type=Path)

    def handle(self, *_args: Any, **options: Any) -> None:
        """Write it."""
        try:
            size = backup(options["file"])
        except BadBackup as error:
            raise CommandError(str(error)) from error
        self.stdout.write(f"{options['file']}: {size / 1e6:.2f} MB, whole.")

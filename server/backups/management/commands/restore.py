"""Put a backup in place of the present data, once its checksum is proved; the server may run meanwhile."""

from __future__ import annotations

from argparse import ArgumentParser
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandError

from backups.keeping import BadBackup, restore


class Command(BaseCommand):
    """Restore."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the file's path."""
        parser.add_argument("file", type=Path)

    def handle(self, *_args: Any, **options: Any) -> None:
        """Prove it, keep what is there, put it in place, bring it up to date."""
        try:
            kept = restore(options["file"])
        except BadBackup as error:
            raise CommandError(f"{error}; nothing was changed") from error
        self.stdout.write(f"Restored from {options['file']}. What was there before is kept at {kept}.")

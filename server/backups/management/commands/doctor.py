"""Look at data, tables and set-up, and say what to do where something is not sound."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandError

from backups.keeping import examine


class Command(BaseCommand):
    """Examine."""

    help = __doc__
    requires_system_checks: list[str] = []  # noqa: RUF012 - Django's own style; what they would say is said here

    def handle(self, *_args: Any, **_options: Any) -> None:
        """Say one line for each thing; end with an error when one is not sound."""
        ill = 0
        for finding in examine():
            self.stdout.write(f"{'sound' if finding.sound else 'ILL  '}  {finding.what:<16}{finding.says}")
            if not finding.sound:
                ill += 1
                self.stdout.write(f"       → {finding.do}")
        if ill:
            raise CommandError(f"{ill} of these need you.")

"""Make an account, with an empty garden of its own."""

from __future__ import annotations

import getpass
import sys
from argparse import ArgumentParser
from typing import Any

from ascent.files.plan import Plan
from ascent.plan.garden import FORMAT_VERSION, Garden
from django.contrib.auth import get_user_model
from django.contrib.auth.password_validation import validate_password
from django.core.exceptions import ValidationError
from django.core.management.base import BaseCommand, CommandError
from limits.names import ALLOWED, nameable, tidied

from gardens.services.state import load_plan


class Command(BaseCommand):
    """Ask for a password twice, or read it once from standard input."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take the account's name."""
        parser.add_argument("name")

    def handle(self, *_args: Any, **options: Any) -> None:
        """Make it."""
        users, name = get_user_model().objects, tidied(options["name"])
        if not nameable(name):
            raise CommandError(f"‘{name}’ cannot be used: {ALLOWED}.")
        if users.filter(username=name).exists():
            raise CommandError(f"There is an account ‘{name}’ already; choose another name.")
        asked = sys.stdin.isatty()
        password = getpass.getpass("Password: ") if asked else sys.stdin.readline().rstrip("\n")
        if asked and getpass.getpass("Once more: ") != password:
            raise CommandError("The two passwords differ; nothing was made.")
        try:
            validate_password(password)
        except ValidationError as error:
            raise CommandError(" ".join(error.messages)) from error
        user = users.create_user(name, password=password)
        load_plan(
            user, Plan(format="ascent-plan", version=FORMAT_VERSION, garden=Garden(name=f"{name}’s garden"))
        )
        self.stdout.write(f"Account ‘{name}’ made.")

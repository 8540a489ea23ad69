"""Write the API's document; --check says whether the copy in the repository is current."""

from __future__ import annotations

import json
from argparse import ArgumentParser
from typing import Any

from ascent.files.need import need_schema
from ascent.files.plan import plan_schema
from django.conf import settings
from django.core.management.base import BaseCommand, CommandError

from config.api import api


class Command(BaseCommand):
    """The documents generated from the types: the API's, and the schemas of a plan file and a need file."""

    help = __doc__

    def add_arguments(self, parser: ArgumentParser) -> None:
        """Take --check."""
        parser.add_argument("--check", action="store_true")

    def handle(self, *_args: Any, **options: Any) -> None:
        """Write or compare."""
        documents = {
            "server/openapi.json": api.get_openapi_schema(path_prefix="/api/"),
            "docs/plan.schema.json": plan_schema(),
            "docs/need.schema.json": need_schema(),
        }
        for name, document in documents.items():
            path, text = (
                settings.ROOT / name,
                json.dumps(document, indent=1, sort_keys=True, ensure_ascii=False) + "\n",
            )
            if not options["check"]:
                path.write_text(text, encoding="utf-8")
            elif not path.exists() or path.read_text(encoding="utf-8") != text:
                raise CommandError(f"{name} is stale: run ./ascent fix")

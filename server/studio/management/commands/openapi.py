"""Writes the OpenAPI document, for the types of the front end."""

from __future__ import annotations

import json
from pathlib import Path
from typing import Any

from django.core.management.base import BaseCommand, CommandParser

from gondola_server.api import api


class Command(BaseCommand):
    help = "Write the OpenAPI document to a file."

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("path", type=Path)

    def handle(self, *_args: Any, path: Path, **_options: Any) -> None:
        text = json.dumps(api.get_openapi_schema(), indent=1, sort_keys=True, default=str)
        path.write_text(text + "\n")

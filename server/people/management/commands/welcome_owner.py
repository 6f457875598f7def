"""At the first start: tells how the owner of the studio comes in."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand, CommandParser
from django.db import transaction

from people.accounts import invite, no_owner
from people.models import Invitation


class Command(BaseCommand):
    help = "Make an invitation for the owner where there is none yet, and tell its address."

    requires_system_checks: list[str] = []

    def add_arguments(self, parser: CommandParser) -> None:
        parser.add_argument("address", help="where people reach this installation")

    @transaction.atomic
    def handle(self, *_args: Any, address: str, **_options: Any) -> None:
        if not no_owner():
            return
        Invitation.objects.filter(as_owner=True).delete()
        _, token = invite(as_owner=True)
        self.stdout.write(
            f"This studio has no owner yet. Open {address}/welcome/{token} and choose a name and a password.\n"
            "The address works once; until it was used, each start makes a new one."
        )

"""Puts the demo's owner and scenes in place; what is there already is left alone."""

from __future__ import annotations

from typing import Any

from django.core.management import call_command
from django.core.management.base import BaseCommand
from log.made_up import bring_history
from scenes.actions import create_scene
from scenes.models import Scene

from gondola_core.samples import SAMPLES
from studio.actions import demo_owner

FAILED = "The Ferry Landing"
"""The sample that comes with the history of how it went wrong."""


class Command(BaseCommand):
    help = "Bring the database up to date and make the demo's owner and sample scenes."

    requires_system_checks: list[str] = []

    def handle(self, *_args: Any, **_options: Any) -> None:
        call_command("migrate", verbosity=0)
        owner = demo_owner()
        # the newest stands first on the page
        for make in reversed(SAMPLES.values()):
            sample = make()
            if not Scene.objects.filter(owner=owner, name=sample.name).exists():
                create_scene(owner=owner, document=sample, note="sample")
                self.stdout.write(f"Added the sample scene {sample.name}.")
        failed = Scene.objects.filter(owner=owner, name=FAILED).order_by("created_at").first()
        if failed is not None:
            bring_history(owner=owner, scene=failed)

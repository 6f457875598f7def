"""Puts the demo's owner and scenes in place; what is there already is left alone."""

from __future__ import annotations

from typing import Any

from django.core.management.base import BaseCommand
from scenes.actions import create_scene
from scenes.models import Scene

from gondola_core.samples import SAMPLES
from studio.actions import demo_owner


class Command(BaseCommand):
    help = "Make the demo's owner and sample scenes."

    def handle(self, *_args: Any, **_options: Any) -> None:
        owner = demo_owner()
        for make in SAMPLES.values():
            sample = make()
            if not Scene.objects.filter(owner=owner, name=sample.name).exists():
                create_scene(owner=owner, document=sample, note="sample")
                self.stdout.write(f"Added the sample scene {sample.name}.")

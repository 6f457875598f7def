"""Why a piece went wrong, from its marked faults and its run."""

from __future__ import annotations

from collections.abc import Sequence

from bench import actions as bench
from bench.models import Run
from scenes.actions import state_of
from scenes.models import Scene
from shapes.actions import meshes_for

from gondola_core.explain.case import Case
from gondola_core.explain.fault import Fault, Spot
from gondola_core.explain.ranking import Explanation, explain

from .models import Entry


def faults_of(scene: Scene) -> list[Fault]:
    """The faults that are marked on a scene."""
    rows = scene.entries.filter(kind=Entry.Kind.FAULT, taken_back_at=None)
    return [
        Fault(**one.body["fault"], spot=None if one.x_mm is None or one.depth_mm is None else Spot(
            x_mm=one.x_mm, depth_mm=one.depth_mm, behind_mm=one.behind_mm))
        for one in rows
    ]


def case_of(scene: Scene) -> Case:
    """What was meant and what happened: of the newest real run, or the scene as it stands where there is none."""
    run = Run.objects.filter(scene=scene, rehearsal=False).order_by("-started_at").first()
    if run is None:
        document = state_of(scene).document
        return Case(document, document, [], faults_of(scene), meshes_for(owner=scene.owner, document=document))
    events, planned = bench.events_of(run), bench.document_of(run)
    happened = bench.happened_of(run, events)
    return Case(planned, happened, events, faults_of(scene), meshes_for(owner=scene.owner, document=planned))


def explained(*, scene: Scene, struck: Sequence[str]) -> Explanation:
    """The causes, ranked; GondolaError where no fault is marked."""
    return explain(case_of(scene), struck)

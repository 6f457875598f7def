"""What can be done with stills: keep one that a job drew, show them, take one away."""

from __future__ import annotations

import base64
import json
from typing import Any

from django.db import transaction
from django.http import HttpRequest
from django.shortcuts import get_object_or_404
from jobs.actions import refresh, result_of
from jobs.models import Job
from people.ways import scene_asked
from scenes.actions import head_of
from scenes.models import Scene

from .models import Still

MOST_STILLS = 40
"""Of a scene; the oldest go first."""


@transaction.atomic
def keep(*, owner: Any, scene: Scene, job_id: Any) -> Still:
    """Keep what a job drew with a scene; once, however often it is asked. Http404 if it is not done, or not theirs."""
    job = refresh(get_object_or_404(Job, pk=job_id, owner=owner, kind="still"))
    made = Still.objects.filter(job_id=job_id, scene=scene).first()
    if made is not None:
        return made
    get_object_or_404(Job, pk=job_id, owner=owner, kind="still", state=Job.State.DONE)
    drawn = json.loads(result_of(job))
    made = Still.objects.create(
        scene=scene, job_id=job_id, revision=head_of(scene).number, stand=drawn["stand"],
        width_px=drawn["width_px"], height_px=drawn["height_px"], png=base64.b64decode(drawn["png_base64"]),
    )
    extra = Still.objects.filter(scene=scene).values_list("pk", flat=True)[MOST_STILLS:]
    Still.objects.filter(pk__in=list(extra)).delete()
    return made


def stills_of(scene: Scene) -> list[Still]:
    """The newest first, without their pictures."""
    return list(Still.objects.filter(scene=scene).defer("png"))


def still_asked(request: HttpRequest, still_id: int) -> Still:
    """The still that a request is about, by the way to its scene; Http404 where that is not seen."""
    still = get_object_or_404(Still, pk=still_id)
    scene_asked(request, still.scene_id)
    return still

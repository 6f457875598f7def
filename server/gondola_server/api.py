"""The API: every router, and the one place that turns an error into an answer."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

from answers import (
    beginning,
    beside,
    checks,
    dam,
    edits,
    evaluating,
    figures,
    finish,
    heat,
    known,
    quantities,
    water,
)
from bench.api import lengthy
from bench.api import router as bench
from bench.devices_api import router as devices
from bench.mixes_api import router as mixes
from django.conf import settings
from django.core.exceptions import RequestDataTooBig
from django.db import OperationalError
from django.http import Http404, HttpRequest, HttpResponse
from documents.api import router as documents
from jobs.api import router as jobs
from keeping.api import router as keeping
from learning.api import fits
from learning.api import router as learning
from library.api import router as library
from log.api import router as log
from look import glance, shown
from look.api import router as look
from look.newest import Overtaken
from ninja import NinjaAPI
from ninja.errors import AuthenticationError, HttpError, Throttled, ValidationError, ValidationErrorContext
from ninja.openapi.schema import OpenAPISchema
from ninja.security import django_auth
from people.api import router as people
from people.signing import NotSignedIn
from people.ways import MayNot
from scenes.actions import StaleWrite
from scenes.api import router as scenes
from scenes.variants import VariantRefused
from scenes.variants_api import router as variants
from shapes.api import router as shapes
from stock.api import router as stock
from studio.aside import Answered, Lost
from studio.bodies import TooLarge
from studio.gone import Gone
from studio.pace import Pace
from studio.schemas import Problem, Refusal
from studio.turns import Busy, in_turn
from studio.units import reader_of

from gondola_core.errors import GondolaError, SceneError
from gondola_core.learning.sheet import DataSheet
from gondola_core.materials import Resin
from gondola_core.scene import problems_of
from gondola_core.studies.begin import Beginning
from gondola_core.tint.measured_spectrum import MeasuredSpectrum
from gondola_core.views.look.stand import Stand
from gondola_core.words import Words, speaker_of

from .disk import disk_sentence
from .parsing import SoundParser

REFUSALS = {
    400: "What was sent could not be read.",
    401: "Nobody is signed in.",
    403: "Seen, but not allowed to be changed; or not sent from a page of Gondola.",
    404: "There is no such thing, or it is not seen by whoever asks.",
    409: "Somebody was quicker.",
    413: "Larger than is taken in.",
    422: "Understood, and something in it has to be changed.",
    429: "Asked too often.",
    503: "Busy, or full; nothing was lost.",
}
"""Every status that an operation may refuse with; the body is a `Refusal` each time."""


class GondolaAPI(NinjaAPI):
    """Names every refusal of every operation; keeps what was given with each flaw, so that the sentence can name it."""

    def get_openapi_schema(self, **named: Any) -> OpenAPISchema:
        schema = super().get_openapi_schema(**named)
        body = {"application/json": {"schema": {"$ref": "#/components/schemas/Refusal"}}}
        schema["components"]["responses"] = {
            f"Refused{status}": {"description": words, "content": body} for status, words in REFUSALS.items()
        }
        for path in schema["paths"].values():
            for operation in path.values():
                if not any(str(status).startswith("2") for status in operation["responses"]):
                    operation["responses"][200] = {"description": "A file, or a stream."}
                for status in REFUSALS:
                    operation["responses"].setdefault(status, {"$ref": f"#/components/responses/Refused{status}"})
        return schema

    def validation_error_from_error_contexts(
        self, error_contexts: list[ValidationErrorContext]
    ) -> ValidationError:
        flaws = (
            flaw for context in error_contexts for flaw in context.pydantic_validation_error.errors(include_url=False)
        )
        return ValidationError([dict(flaw) for flaw in flaws])


api = GondolaAPI(
    title="Gondola",
    version="1",
    description="What will happen when a scene is cast in clear resin.",
    auth=django_auth,
    docs_url=None,
    parser=SoundParser(),
    throttle=Pace(),
)
api.add_router("", people)
api.add_router("", keeping)
api.add_router("", scenes)
api.add_router("", variants)
api.add_router("", shapes)
api.add_router("", library)
api.add_router("", jobs)
api.add_router("", bench)
api.add_router("", lengthy)
api.add_router("", devices)
api.add_router("", mixes)
api.add_router("", documents)
api.add_router("", stock)
api.add_router("", learning)
api.add_router("", fits)
api.add_router("", log)
api.add_router("", look)
for answer in (evaluating, heat, water, figures, dam, edits, checks, quantities, beginning, glance, shown, known,
               beside, finish):
    answer.router.add_decorator(in_turn, mode="operation")
    api.add_router("", answer.router)


ROOTS = {"beginning": Beginning, "sheet": DataSheet, "resin": Resin, "measured": MeasuredSpectrum, "stand": Stand}
"""Bodies that hold something else than a scene, by the name that leads to it."""


UNDERSTOOD = {
    400: "This could not be read: send well-formed JSON in UTF-8.",
    403: "This did not come from a page of Gondola that is signed in: load the page again.",
}
"""What is said of a request that is stopped before it is understood, by its status."""


def refuse(
    request: HttpRequest, status: int, problems: Sequence[tuple[str, str | Words]], **more: Any
) -> HttpResponse:
    """An answer that says what to change, in the units of who asks."""
    speak = speaker_of(reader_of(request))
    told = [Problem(field=_sound(field)[:200], message=_sound(speak.say(sentence))) for field, sentence in problems]
    refusal = Refusal(message=told[0].message, problems=told)
    return api.create_response(request, {**refusal.dict(), **more}, status=status)


def _sound(text: str) -> str:
    """What was given is told as far as it can be written."""
    return text.encode("utf-8", "replace").decode()


@api.exception_handler(ValidationError)
def _not_valid(request: HttpRequest, error: ValidationError) -> HttpResponse:
    flaws = []
    for flaw in error.errors:
        loc = list(flaw["loc"])
        for lead in ("body", "payload", "scene", "document", "before", "after"):
            if loc and loc[0] == lead:
                loc.pop(0)
        flaws.append({**flaw, "loc": tuple(loc)})
    first = next((flaw["loc"][0] for flaw in flaws if flaw["loc"] and flaw["loc"][0] in ROOTS), None)
    if first is None:
        return refuse(request, 422, problems_of(flaws))
    # those of the body that holds something else, then those of the scene beside it
    inner = [{**flaw, "loc": flaw["loc"][1:]} for flaw in flaws if flaw["loc"][:1] == (first,)]
    beside = [flaw for flaw in flaws if flaw["loc"][:1] != (first,)]
    return refuse(request, 422, [*problems_of(inner, ROOTS[first]), *problems_of(beside)])


@api.exception_handler(SceneError)
def _bad_scene(request: HttpRequest, error: SceneError) -> HttpResponse:
    return refuse(request, 422, error.flaws)


@api.exception_handler(GondolaError)
def _bad_input(request: HttpRequest, error: GondolaError) -> HttpResponse:
    return refuse(request, 422, [(error.field, error.sentence)])


@api.exception_handler(StaleWrite)
def _stale(request: HttpRequest, error: StaleWrite) -> HttpResponse:
    return refuse(request, 409, [("base_revision", error.message)], **error.newer(request.user))


@api.exception_handler(Overtaken)
def _overtaken(request: HttpRequest, error: Overtaken) -> HttpResponse:
    return refuse(request, 409, [("", error.message)])


@api.exception_handler(VariantRefused)
def _not_kept(request: HttpRequest, error: VariantRefused) -> HttpResponse:
    return refuse(request, 422, [("name", error.message)])


@api.exception_handler(RequestDataTooBig)
def _too_big(request: HttpRequest, _error: RequestDataTooBig) -> HttpResponse:
    most = settings.DATA_UPLOAD_MAX_MEMORY_SIZE // 2**20
    return refuse(request, 413, [("", f"This is over {most} MB; a scene is far smaller.")])


@api.exception_handler(TooLarge)
def _too_large(request: HttpRequest, error: TooLarge) -> HttpResponse:
    return refuse(request, 413, [("", error.message)])


@api.exception_handler(Http404)
def _not_found(request: HttpRequest, _error: Http404) -> HttpResponse:
    return refuse(request, 404, [("", "There is no such thing here, or it is not yours.")])


@api.exception_handler(AuthenticationError)
def _nobody(request: HttpRequest, _error: AuthenticationError) -> HttpResponse:
    return refuse(request, 401, [("", "Sign in first; what you were doing is still in the page.")])


@api.exception_handler(NotSignedIn)
def _not_signed_in(request: HttpRequest, error: NotSignedIn) -> HttpResponse:
    return refuse(request, 401, [("password", error.message)])


@api.exception_handler(MayNot)
def _may_not(request: HttpRequest, error: MayNot) -> HttpResponse:
    return refuse(request, 403, [("", error.message)])


@api.exception_handler(Gone)
@api.exception_handler(Busy)
@api.exception_handler(Lost)
def _busy(request: HttpRequest, error: Busy | Gone | Lost) -> HttpResponse:
    return refuse(request, 503, [("", error.message)])


@api.exception_handler(Answered)
def _answered(_request: HttpRequest, answered: Answered) -> HttpResponse:
    """What the process aside has said."""
    return answered.answer


@api.exception_handler(OSError)
@api.exception_handler(OperationalError)
def _disk(request: HttpRequest, error: OperationalError | OSError) -> HttpResponse:
    """A disk that takes nothing any more; whatever else it is stays a fault of ours."""
    sentence = disk_sentence(error)
    if sentence is None:
        raise error
    return refuse(request, 503, [("", sentence)])


@api.exception_handler(Throttled)
def _too_often(request: HttpRequest, error: Throttled) -> HttpResponse:
    answer = refuse(request, 429, [
        ("", f"So many questions at once are asked by no hand: wait {error.wait} seconds. Nothing was lost."),
    ])
    answer["Retry-After"] = str(error.wait)
    return answer


@api.exception_handler(HttpError)
def _other(request: HttpRequest, error: HttpError) -> HttpResponse:
    """What stops a request before it is understood."""
    told = error.__cause__
    sentence = told.sentence if isinstance(told, GondolaError) else UNDERSTOOD.get(error.status_code, str(error))
    return refuse(request, error.status_code, [("", sentence)])

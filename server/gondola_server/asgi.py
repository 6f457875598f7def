"""The application for an ASGI server; also keeps the jobs and warms the kernels where it is asked to."""

from __future__ import annotations

import gc
import os
import sys
import threading
import warnings

from django.core.asgi import get_asgi_application
from studio.bodies import LARGEST_ARCHIVE
from studio.gone import hearing
from studio.large import bounded

from gondola_core.scene.reading import LARGEST_FILE

# the static files' middleware streams them in blocks; they are small, and read in one thread either way
warnings.filterwarnings("ignore", message="StreamingHttpResponse must consume synchronous iterators")
os.environ.setdefault("DJANGO_SETTINGS_MODULE", "gondola_server.settings")
# threads hand over to each other fifty times as often as usual: a short question need not wait for a long one's turn
sys.setswitchinterval(0.0001)
application = bounded(hearing(get_asgi_application()), LARGEST_ARCHIVE, LARGEST_FILE)


def _warm() -> None:
    """Load the kernels before the first person asks."""
    from gondola_core.prepare import prepare_heat, prepare_pictures

    prepare_heat()
    prepare_pictures()
    # what is loaded by now stays: looking through it for rubbish would hold an answer up for a tenth of a second
    gc.collect()
    gc.freeze()


if os.environ.get("GONDOLA_SERVES") == "1":
    from jobs.actions import keep_for_ever

    # the process of long questions leaves the jobs to the other
    for beside in (_warm,) if os.environ.get("GONDOLA_BELOW") == "1" else (_warm, keep_for_ever):
        threading.Thread(target=beside, daemon=True).start()

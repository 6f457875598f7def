"""One process, so that answers kept in memory serve every request; the march lets go of the
interpreter while it computes, so threads share the cores."""

import threading

workers = 1
threads = 6
worker_class = "gthread"
timeout = 120
graceful_timeout = 5
accesslog = None
loglevel = "warning"


def post_worker_init(_worker):  # type: ignore[no-untyped-def]
    """Compile and load the kernels before the first person asks."""
    from gondola_core.answers.kept import Keeper
    from gondola_core.evaluate import evaluate
    from gondola_core.samples import quarry_pool
    from gondola_core.views.picture import picture

    def warm() -> None:
        scene = quarry_pool()
        evaluate(scene)
        picture(scene, "front", 400, {}, Keeper())

    threading.Thread(target=warm, daemon=True).start()

"""Steps of the work that come after what needs them."""

from __future__ import annotations

from collections.abc import Iterator

from ..answers.order import ORDER, Order
from ..bench.order import LAMP, moved_before
from ..scene import Scene
from ..scene.edits import order_work
from .flag import Finding, Severity, Where
from .registry import check


@check("out_of_order", stage="pours", needs=(ORDER,), source="assumed", remedies=(order_work,), by_grid=False)
def out_of_order(scene: Scene, order: Order) -> Iterator[Finding]:
    """A step that comes too late, and what that costs."""
    said = {step.id: step.words for step in order.steps}
    for rule in order.broken:
        yield Finding(
            severity=Severity.STOP if rule.first.startswith(LAMP) else Severity.WATCH, where=Where(), number=0.0,
            limit=0.0, quantity="plain", values={"first": said[rule.first], "then": said[rule.then], "cost": rule.cost},
            remedies=[order_work(scene, moved_before(order.steps, rule), said[rule.first], said[rule.then])],
        )

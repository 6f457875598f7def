"""How early and how late each moment of a cure may come, when room and resin are not as said."""

from __future__ import annotations

from dataclasses import dataclass
from math import inf

from .moments import PourCure


@dataclass(frozen=True, slots=True, kw_only=True)
class CureSpan:
    """Hours from the pour's own start; `late_h` None if a slow cure does not get there."""

    early_h: float
    late_h: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class CureSpans:
    """The moments of one pour, each with its band; None where the moment itself is not reached."""

    gel: CureSpan | None
    tack_opens: CureSpan | None
    tack_closes: CureSpan | None
    hard: CureSpan | None
    demould: CureSpan | None
    full_cure: CureSpan


def cure_spans(cure: PourCure, slow: PourCure, middle: PourCure, fast: PourCure) -> CureSpans:
    """Bands of a pour's moments from three coarse marches beside the main one.

        early = t min(1, t_fast/t_middle),  late = t max(1, t_slow/t_middle)

    so that what the coarse cells get wrong alike falls out. A warm cure may also be later: it has
    longer to cool. At each end of their bands the moments keep their order. Source: assumed
    """

    def span(moment: str) -> CureSpan | None:
        at = getattr(cure, moment)
        return None if at is None else _span(at, *(getattr(one, moment) for one in (slow, middle, fast)))

    days = _span(24 * cure.full_cure_d, slow.full_cure_d, middle.full_cure_d, fast.full_cure_d)
    told = [span(moment) for moment in ("gel_h", "tack_opens_h", "tack_closes_h", "hard_h", "demould_h")]
    gel, opens, closes, hard, demould, full = _in_order([*told, days])
    return CureSpans(
        gel=gel, tack_opens=opens, tack_closes=closes, hard=hard, demould=demould, full_cure=full or days,
    )


def _in_order(spans: list[CureSpan | None]) -> list[CureSpan | None]:
    """Each end no earlier than that of the moment before; late without end once one is."""
    early, late = 0.0, 0.0
    ordered: list[CureSpan | None] = []
    for span in spans:
        if span is None:
            ordered.append(None)
            continue
        early = max(early, span.early_h)
        late = inf if span.late_h is None else max(late, span.late_h)
        ordered.append(CureSpan(early_h=early, late_h=None if late == inf else late))
    return ordered


def _span(at: float, slow: float | None, middle: float | None, fast: float | None) -> CureSpan:
    if middle is None or middle <= 0:
        return CureSpan(early_h=at, late_h=None if middle is None else at)
    shares = [one / middle for one in (slow, fast) if one is not None]
    late = None if slow is None or fast is None else round(at * max(1.0, *shares), 2)
    return CureSpan(early_h=round(at * min([1.0, *shares]), 2), late_h=late)

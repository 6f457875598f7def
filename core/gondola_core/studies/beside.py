"""Two plans of one piece beside each other: what is gained and what is given, in words."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import datetime

from ..answers.joints import Meets
from ..answers.kept import Keeper
from ..answers.lines import Line
from ..answers.pours import PourOutcome
from ..checks import Flag, Severity
from ..evaluate import DRAFT, KEEPER, evaluate
from ..outcome import Outcome
from ..scene import Scene
from ..shape import Meshes
from ..words import Words, words
from .front.screen import sessions

SAME_K, SAME_D, SAME_MM = 1.0, 0.1, 1.0
"""Differences smaller than these are none. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class NewLine:
    """A layer line that only the second plan has."""

    depth_mm: float
    words: Words


@dataclass(frozen=True, slots=True, kw_only=True)
class Beside:
    """What the second plan has over the first.

    gains, gives  sentences, the weightiest first; same  what both have alike
    """

    gains: list[Words]
    gives: list[Words]
    same: list[Words]
    new_lines: list[NewLine]


@dataclass(frozen=True, slots=True, kw_only=True)
class _Said:
    """A difference: more than 0 is a gain of the second plan."""

    gain: float
    words: Words


def beside(
    before: Scene, after: Scene, meshes: Meshes | None = None, keeper: Keeper = KEEPER
) -> Beside:
    """Two scenes of one piece, both as drafts."""
    first, second = (evaluate(scene, DRAFT, keeper, meshes=meshes) for scene in (before, after))
    told = [one for one in [*_told(before, after, first, second), *_asks(before, after)] if one is not None]
    return Beside(
        gains=[one.words for one in told if one.gain > 0], gives=[one.words for one in told if one.gain < 0],
        same=[one.words for one in told if one.gain == 0],
        new_lines=[
            NewLine(depth_mm=line.depth_mm, words=_line_words(line)) for line in second.lines
            if all(abs(line.depth_mm - other.depth_mm) > SAME_MM for other in first.lines)
        ],
    )


def _told(before: Scene, after: Scene, first: Outcome, second: Outcome) -> Iterator[_Said | None]:
    yield from _stops(first, second)
    yield _heat(first, second)
    yield _days(first, second)
    yield _abraded(first, second)
    yield _sessions(first, second, after.bed.sealed and not before.bed.sealed)
    yield _lines(first, second)
    yield _bubbles(first, second)
    yield _resin(first, second)


def _asks(before: Scene, after: Scene) -> Iterator[_Said]:
    """What has to be there or done besides the pours, that the first plan does without."""
    had, has = before.brief.room, after.brief.room
    if has.warm_box_c is not None and has.warm_box_c != had.warm_box_c:
        yield _Said(gain=-1, words=words("beside.box", warm_c=has.warm_box_c))
    if has.fan and not had.fan:
        yield _Said(gain=-1, words=words("beside.fan"))
    if after.bed.sealed and not before.bed.sealed:
        yield _Said(gain=-1, words=words("beside.seal"))
    held = [
        words("beside.held", name=two.name, way=two.holding.replace("_", " "))
        for one, two in zip(before.figures, after.figures, strict=False) if one.holding != two.holding
    ]
    if held:
        yield _Said(gain=-1, words=words("beside.holds", held=held))


def _stops(first: Outcome, second: Outcome) -> Iterator[_Said]:
    """Stops that only one of them has, by what they are and not by which pour."""
    had, has = _stopping(first.flags), _stopping(second.flags)
    gone = [flag.title for code, flag in had.items() if code not in has]
    come = [flag.title for code, flag in has.items() if code not in had]
    if gone:
        yield _Said(gain=1.0, words=words("beside.stops_gone", titles=gone))
    if come:
        yield _Said(gain=-1.0, words=words("beside.stops_come", titles=come))


def _stopping(flags: list[Flag]) -> dict[str, Flag]:
    found: dict[str, Flag] = {}
    for flag in flags:
        if flag.severity is Severity.STOP:
            found.setdefault(flag.code, flag)
    return found


def _heat(first: Outcome, second: Outcome) -> _Said | None:
    had, has = first.whole.hottest_c, second.whole.hottest_c
    if had is None or has is None:
        return None
    if abs(has - had) < SAME_K:
        return _Said(gain=0, words=words("beside.heat_same", has_c=has))
    kind = "beside.cooler" if has < had else "beside.hotter"
    return _Said(gain=had - has, words=words(kind, by=abs(has - had), has_c=has, had_c=had, margin=_margin(second)))


def _margin(outcome: Outcome) -> Words:
    """What comes nearest to its limit."""
    known = [one for one in outcome.limits if one.reached_c is not None]
    if not known:
        return words("beside.no_margin")
    nearest = min(known, key=lambda one: one.limit_c - one.reached)
    left = nearest.limit_c - nearest.reached
    kind = "beside.under" if left >= 0 else "beside.over"
    return words(kind, name=nearest.name, left=abs(left))


def _days(first: Outcome, second: Outcome) -> _Said | None:
    had, has = first.whole.demould_h, second.whole.demould_h
    if had is None or has is None:
        return None
    by = (has - had) / 24
    if abs(by) < SAME_D:
        return _Said(gain=0, words=words("beside.days_same", days=has / 24))
    return _Said(gain=-by, words=words("beside.later" if by > 0 else "beside.sooner", by=abs(by), days=has / 24))


def _abraded(first: Outcome, second: Outcome) -> _Said | None:
    """Layers that are hard when the next one comes, and were not before."""
    had, has = (
        [pour.number - 1 for pour in one.pours if pour.joint.meets is Meets.TOO_LATE] for one in (first, second)
    )
    if len(has) <= len(had):
        return None
    return _Said(gain=-1, words=words("beside.abrade", pours=[str(number) for number in has]))


def _sessions(first: Outcome, second: Outcome, seal: bool) -> _Said | None:
    """Times at the bench; a seal coat that only the second has is one of its own."""
    had, has = (sessions([pour.clock.start_h for pour in one.pours]) for one in (first, second))
    has += seal
    if had == has:
        return None
    known = {pour.clock.starts_at for pour in first.pours}
    new = [_clock(pour) for pour in second.pours if pour.clock.starts_at not in known]
    kind = "beside.more_sessions" if has > had else "beside.fewer_sessions"
    return _Said(gain=had - has, words=words(kind, by=abs(has - had), at=new[:4] or [words("beside.sealing")]))


def _clock(pour: PourOutcome) -> str:
    return datetime.fromisoformat(pour.clock.starts_at).strftime("%a %H:%M")


def _lines(first: Outcome, second: Outcome) -> _Said | None:
    had, has = (sum(line.worst != "invisible" for line in one.lines) for one in (first, second))
    worst = max(second.lines, key=lambda line: max(side.de00 for side in line.sides), default=None)
    if worst is None:
        return None if had == has else _Said(gain=had, words=words("beside.no_line"))
    if had == has:
        return _Said(gain=0, words=words("beside.lines_same", lines=has, worst=_line_words(worst)))
    kind = "beside.more_lines" if has > had else "beside.fewer_lines"
    return _Said(gain=had - has, words=words(kind, lines=has, had=had, worst=_line_words(worst)))


def _line_words(line: Line) -> Words:
    """Where it shows most, and how much of it figures hide there."""
    side = max(line.sides, key=lambda one: one.de00)
    hidden = words("beside.hidden", share=side.hidden_fraction) if side.hidden_fraction > 0 else ""
    return words(
        "beside.line", seen=words(f"seams.{side.seen}"), side=words(f"lines.from_{side.side}"), hidden=hidden
    )


def _bubbles(first: Outcome, second: Outcome) -> _Said | None:
    had, has = (max(one.clarity, key=lambda pour: pour.seen_count) for one in (first, second))
    rank = {"few": 0, "some": 1, "many": 2}
    gain = rank[had.amount] - rank[has.amount]
    source = max(("stirring", "bed", "figures"), key=lambda name: float(getattr(has, f"{name}_fraction")))
    share = float(getattr(has, f"{source}_fraction"))
    most = words("beside.mostly", source=words(f"beside.from_{source}"), share=share) if share > 0 else ""
    kind = "beside.bubbles" if gain else "beside.bubbles_same"
    return _Said(gain=gain, words=words(kind, had=had.amount, has=has.amount, most=most))


def _resin(first: Outcome, second: Outcome) -> _Said | None:
    had, has = first.whole.all_pieces_mix_g, second.whole.all_pieces_mix_g
    if abs(has - had) < 0.01 * had:
        return None
    kind = "beside.more_resin" if has > had else "beside.less_resin"
    return _Said(gain=had - has, words=words(kind, by=abs(has - had), mass=has))

"""What an outcome decides, for holding a draft against a fine march."""

from __future__ import annotations

from gondola_core.answers.joints import Meets
from gondola_core.outcome import Outcome


def verdicts(outcome: Outcome) -> dict[tuple[object, ...], tuple[str, bool]]:
    """Each joint's word, each stop and each watch, and whether it was called close."""
    told: dict[tuple[object, ...], tuple[str, bool]] = {
        ("joint", pour.number): (pour.joint.meets, pour.joint.meets == Meets.TOO_CLOSE) for pour in outcome.pours
    }
    for flag in outcome.flags:
        if flag.severity != "note":
            told[(flag.code, flag.pour_number, flag.figure_id)] = (str(flag.severity), flag.close_call)
    return told


def differing(draft: Outcome, fine: Outcome) -> list[tuple[object, ...]]:
    """Verdicts that are not alike and that the draft did not call close."""
    one, two = verdicts(draft), verdicts(fine)
    found = []
    for key in one.keys() | two.keys():
        word, close = one.get(key, ("", False))
        if not close and word != two.get(key, ("", False))[0]:
            found.append((*key, word, two.get(key, ("", False))[0]))
    return found

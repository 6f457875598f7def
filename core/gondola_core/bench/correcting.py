"""At the scale: what it shows of a cup, and what to do when too much of a part was poured."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Literal

from ..cure.kinetics import arrhenius_factor
from ..errors import GondolaError
from ..materials import Resin
from ..words import Words, words
from .mixing import mass_ratio

NOTICED, SOFT, RUBBERY = 0.02, 0.05, 0.10
"""Errors of the ratio from which a set resin is a little softer, clearly soft, and hardly sets. Source: own_geometry"""
SOFTENS_K = (3.0, 5.0)
"""By how much the glass temperature falls at an error of some percent. Source: own_geometry"""
MIXES_IN = 0.1
"""Share of the working time within which what is added still mixes in. Source: own_geometry"""
MOST_POURED_G = 50_000.0
"""As much as a label may allow to be mixed at once. Source: definition"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Weighed:
    """A cup as a scale shows it: part B is what the rounded part A asks for.

    error_fraction  of the ratio, by what is rounded
    """

    part_a_g: float
    part_b_g: float
    error_fraction: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Correction:
    """What was poured against the ratio.

    error_fraction   (B/A)/(b/a) - 1
    add, add_g       the part that is short and how much; None where it is right as far as anybody notices
    take_out_g       of part A where no B has come to it yet, as another way
    mix_g, over_g    the mix then, and how much it is over what was wanted
    until_min        after the parts meet, while it still mixes in
    """

    error_fraction: float
    add: Literal["a", "b"] | None
    add_g: float
    take_out_g: float
    mix_g: float
    over_g: float
    until_min: float
    left_words: Words
    do_words: Words


def ratio_error(resin: Resin, part_a_g: float, part_b_g: float) -> float:
    """(B/A)/(b/a) - 1. Source: definition"""
    return part_b_g / part_a_g / mass_ratio(resin) - 1.0


def weighed(resin: Resin, part_a_g: float, step_g: float) -> Weighed:
    """A to the scale's step; B from that A, rounded too. Source: own_geometry"""
    a = max(step_g, round(part_a_g / step_g) * step_g)
    b = max(step_g, round(a * mass_ratio(resin) / step_g) * step_g)
    return Weighed(
        part_a_g=round(a, 4), part_b_g=round(b, 4), error_fraction=round(ratio_error(resin, a, b), 5)
    )


def corrected(resin: Resin, part_a_g: float, part_b_g: float, wanted_g: float, mix_c: float) -> Correction:
    """How a cup is put right: by adding the part that is short, never by taking out of what is mixed.

    GondolaError where nothing was poured, or more than anybody mixes.
    Source: own_geometry
    """
    if part_a_g <= 0 or part_b_g < 0 or part_a_g + part_b_g > MOST_POURED_G:
        raise GondolaError(words("refusals.poured", most=MOST_POURED_G), "part_a_g")
    ratio = mass_ratio(resin)
    error = ratio_error(resin, part_a_g, part_b_g)
    short_b = part_a_g * ratio - part_b_g
    add: Literal["a", "b"] = "b" if short_b > 0 else "a"
    add_g = short_b if short_b > 0 else part_b_g / ratio - part_a_g
    wanted_a = wanted_g / (1.0 + ratio)
    until = MIXES_IN * resin.working_min / float(arrhenius_factor(mix_c, resin.activation_1_kj_mol))
    alright, begun = abs(error) < NOTICED, part_b_g > 0
    mix = part_a_g + part_b_g + (0.0 if alright else add_g)
    take_out = 0.0 if begun else max(0.0, part_a_g - wanted_a)
    kind = "right" if alright else "b_to_come" if not begun else f"add_{add}"
    return Correction(
        error_fraction=round(error, 4), add=None if alright else add, add_g=0.0 if alright else round(add_g, 2),
        take_out_g=round(take_out, 2), mix_g=round(mix, 2), over_g=round(max(0.0, mix - wanted_g), 2),
        until_min=round(until, 1), left_words=_left(error) if begun else words("correcting.no_b"),
        do_words=words(
            f"correcting.{kind}", add=add_g, mix=mix, over=max(0.0, mix - wanted_g), until=until, out=take_out
        ),
    )


def _left(error: float) -> Words:
    """What becomes of the resin if it is left as it is. Source: own_geometry"""
    size = abs(error)
    kind = "none" if size < NOTICED else "little" if size < SOFT else "soft" if size < RUBBERY else "rubbery"
    return words(f"correcting.left_{kind}", which="A" if error < 0 else "B", by=SOFTENS_K)


@dataclass(frozen=True, slots=True, kw_only=True)
class TooDark:
    """A colourant of which too much fell.

    clear_g       of plain mix that would bring the cup back, all together
    next_drops    drops per 100 g that the pour above may still have, so that both together look as meant;
                  None where nothing is poured above, or not even none of it is enough
    """

    colourant_id: str
    over_fraction: float
    clear_g: float
    next_drops: float | None
    words: Words


DARKER = 0.15
"""Share of a dose from which it is told that too much fell. Source: assumed"""


def too_dark(
    ink: tuple[str, str], wanted_drops: float, given_drops: float, mix_g: float,
    above: tuple[float, float] | None = None,
) -> TooDark | None:
    """What brings a cup with too many drops back; None where it is not so dark.

        clear = m (given/wanted - 1),  next = d_next - (given - wanted)/m 100 t/t_next

    ink      id and name of the colourant
    wanted_drops, given_drops   neat, in this mix
    above    drops per 100 g of the pour above, and its thickness over that of this one

    Light through both pours is that of the drops in both.
    Source: definition
    """
    if wanted_drops <= 0 or given_drops < wanted_drops * (1 + DARKER):
        return None
    key, name = ink
    over = given_drops / wanted_drops - 1.0
    clear = mix_g * over
    left = None
    if above is not None:
        dose, thick = above
        left = dose - (given_drops - wanted_drops) / mix_g * 100 / thick
    told = words(
        "correcting.dark_both" if left is not None and left >= 0 else "correcting.dark_clear", name=name, over=over,
        clear=clear, drops=left or 0.0,
    )
    return TooDark(
        colourant_id=key, over_fraction=round(over, 3), clear_g=round(clear, 1),
        next_drops=round(left, 3) if left is not None and left >= 0 else None, words=told,
    )


@dataclass(frozen=True, slots=True, kw_only=True)
class TopUp:
    """A pour that ended short of its line: how much more, in its two parts."""

    short_mm: float
    volume_ml: float
    part_a_g: float
    part_b_g: float
    words: Words


LEAST_SHORT_MM = 0.3
"""Short of the line by less than this is at the line. Source: assumed"""


def top_up(resin: Resin, short_mm: float, surface_cm2: float, mix_c: float) -> TopUp | None:
    """What fills a pour up to its line, and until when it still blends; None where it is at its line.

        V = A h;  it blends while what is there is not much thicker: the working time

    Source: assumed
    """
    if short_mm < LEAST_SHORT_MM:
        return None
    volume = surface_cm2 * short_mm / 10
    mass, ratio = volume * resin.density_g_ml, mass_ratio(resin)
    until = resin.working_min / float(arrhenius_factor(mix_c, resin.activation_1_kj_mol))
    return TopUp(
        short_mm=round(short_mm, 2), volume_ml=round(volume, 1), part_a_g=round(mass / (1 + ratio), 1),
        part_b_g=round(mass * ratio / (1 + ratio), 1),
        words=words(
            "correcting.top_up", short=short_mm, volume=volume, a=mass / (1 + ratio), b=mass * ratio / (1 + ratio),
            until=until,
        ),
    )

"""What floats, what sinks, and what holds it: buoyancy, stems, wires, lines, glue spots, pins."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from math import cos, pi, radians, sin

from ..materials import Resin, load_library
from ..scene import Figure
from ..shape import Bulk, above_ml
from ..units import CM2, G_PER_ML, GPA, GRAVITY, ML, MM, G

NEUTRAL_G_ML = 0.05
"""Difference in density below which a figure may drift either way. Source: own_holding"""
SAFETY = 3.0
"""How many times a hold has to carry its load. Source: own_holding"""
SAFETY_WARM = 5.0
"""The same within 10 K of what holds it softening. Source: own_holding"""
MOST_BEND_MM = 0.5
"""Bend of a hold that nobody sees. Source: own_holding"""
RESIN_COLD_GPA = 2.5
"""Stiffness of cured clear epoxy below its glass temperature. Source: own_holding"""
RESIN_WARM_GPA = 0.03
"""The same above it. Source: own_holding"""
TACK_KPA = 2.0
"""Hold of a layer that has just gelled, of 1 to 10 kPa. Source: own_holding"""
GLUE_MM2_PER_GF = 10.0
"""Least hot-glue area for each gram-force. Source: own_holding"""
GLUE_CREEPS_C = 45.0
"""Hot glue under load creeps from here. Source: own_holding"""
LINE_STRENGTH_N = 8.0
"""Nylon line of 0.2 mm. Source: own_holding"""
PIN_SHEAR_MPA = 0.5
"""Hold of a wire glued into plaster or wood, over its skin. Source: own_holding"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Way:
    """One way of holding a figure, checked: `number` against `limit` in `unit`."""

    way: str
    name: str
    holds: bool
    number: float
    limit: float
    unit: str
    sentence: str


@dataclass(frozen=True, slots=True, kw_only=True)
class FigureFacts:
    """What a figure is and does in its resin.

    lift_gf          upward if above 0, in grams-force, at the worst moment of all pours: what stands in
                     liquid and the air shut in under it lift, its mass and what set resin holds do not
    lift_spread_gf   how far that may be off because its volume is a guess
    lift_pour        number of that pour; None where no resin comes to it
    ballast_g        lead that would make it neutral, None where it sinks
    rests_mm         height of its place at which it would touch the bed; None off the bed
    peak_c           hottest resin around it; None where it touches none
    """

    figure_id: str
    volume_ml: float
    volume_spread_ml: float
    area_cm2: float
    mass_g: float
    density_g_ml: float
    lift_gf: float
    lift_spread_gf: float
    lift_pour: int | None
    behaves: str
    ballast_g: float | None
    above_ml: float
    inside_ml: float
    rests_mm: float | None
    peak_c: float | None
    flat_underside_cm2: float
    trapped_ml: float
    ways: list[Way]


def lift_force(volume: float, mass: float, resin_density: float) -> float:
    """Net upward force on a body in still liquid [N].

        F = (rho V - m) g

    volume, mass   [m3], [kg]
    resin_density  [kg/m3]
    returns        [N]; 1 ml at 1 g/ml of difference is 9.807 mN, one gram-force

    Source: archimedes

    >>> round(lift_force(20e-6, 20e-6 * 160, 1100), 4)
    0.1844
    """
    return (resin_density * volume - mass) * GRAVITY


def cantilever_bend(force: float, length: float, diameter: float, stiffness: float) -> float:
    """Deflection of a round bar at its free end, loaded across.

        d = F L^3 / (3 E I),  I = pi D^4 / 64

    Units SI. Source: euler_bernoulli1750

    >>> round(cantilever_bend(0.1844, 0.040, 0.001, 200e9) * 1e3, 3)
    0.401
    """
    return force * length**3 / (3 * stiffness * pi * diameter**4 / 64)


def buckling_force(length: float, diameter: float, stiffness: float) -> float:
    """Force along a round bar, fixed at one end and free at the other, at which it gives way.

        F = pi^2 E I / (4 L^2)

    Units SI. Source: euler1744

    >>> round(buckling_force(0.060, 0.0008, 200e9), 2)
    2.76
    """
    return pi**2 * stiffness * pi * diameter**4 / 64 / (4 * length**2)


def least_diameter(force: float, length: float, stiffness: float, bend: float) -> float:
    """Thinnest round bar that bends no more than `bend` under a load across its end.

        D = (64 F L^3 / (3 pi E d))^(1/4)

    Units SI. Source: euler_bernoulli1750

    >>> round(least_diameter(0.2, 0.05, 200e9, 0.0005) * 1e3, 2)
    1.14
    """
    return float((64 * abs(force) * length**3 / (3 * pi * stiffness * bend)) ** 0.25)


def shell_inside(volume: float, area: float, wall: float) -> float:
    """Volume inside a shell of even wall; exact where every face touches one inner sphere.

        V_in = V (1 - t A / (3 V))^3

    Source: own_holding

    >>> round(shell_inside(4 / 3 * 3.14159265 * 1000, 4 * 3.14159265 * 100, 2.0), 1)
    2144.7
    """
    share = max(0.0, 1.0 - wall * area / (3.0 * volume)) if volume > 0 else 0.0
    return volume * share**3


def figure_mass_g(figure: Figure, bulk: Bulk) -> tuple[float, float, float]:
    """Mass [g], volume that displaces resin [ml], and hollow inside [ml] of a figure."""
    inside = 0.0
    if figure.hollow is not None:
        inside = shell_inside(
            bulk.volume_ml * ML, bulk.area_cm2 * CM2, figure.hollow.wall_mm * MM
        ) / ML
    mass = figure.mass_g
    if mass is None:
        mass = figure.material.density_g_ml * (bulk.volume_ml - inside)
    displaced = bulk.volume_ml
    if figure.hollow is not None and figure.hollow.vented:
        displaced -= inside
    return mass, displaced, inside


EMBEDDED_MM = 1.0
"""A figure that reaches this far into set resin is held by it. Source: assumed"""


@dataclass(frozen=True, slots=True, kw_only=True)
class Wetting:
    """One pour as it meets a figure: its resin, floor and line above the tank's floor, and the air that it
    shuts in under the figure up to each of them."""

    number: int
    resin: Resin
    floor_mm: float
    line_mm: float
    air_below_floor_ml: float
    air_below_line_ml: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Load:
    """Net force on a figure at its worst moment, upward if above 0 [N]; in which pour, and what that displaces."""

    force: float
    pour: int | None
    resin: Resin
    displaced_ml: float


def worst_load(figure: Figure, bulk: Bulk, pours: Sequence[Wetting]) -> Load:
    """The largest upward force on a figure while any pour is liquid.

        F = rho g (V(line) - V(floor) + V_air) - m g - hold

    Each pour is worst when it is full and still liquid. Resin of earlier pours in which the figure
    stands is set: it presses no more, and holds by its tack over the skin that it covers.

    pours  those of the scene from the bottom, at least one
    Source: archimedes; the hold is own_holding
    """
    mass, displaced, _ = figure_mass_g(figure, bulk)
    share = displaced / bulk.volume_ml if bulk.volume_ml > 0 else 0.0
    foot = figure.place.height_mm + float(bulk.least[2])
    top = figure.place.height_mm + float(bulk.most[2])

    def below_ml(height_mm: float) -> float:
        return share * (bulk.volume_ml - above_ml(bulk, height_mm - figure.place.height_mm))

    found: list[Load] = []
    for pour in pours:
        if pour.line_mm <= foot or pour.floor_mm >= top:
            continue
        set_ml = below_ml(pour.floor_mm) if foot < pour.floor_mm - EMBEDDED_MM else 0.0
        begun = 0.0 if set_ml == 0.0 else pour.air_below_floor_ml
        wet_ml = below_ml(pour.line_mm) - set_ml + pour.air_below_line_ml - begun
        skin_cm2 = bulk.area_cm2 * set_ml / max(displaced, 1e-9)
        force = lift_force(wet_ml * ML, mass * G, pour.resin.density_g_ml * G_PER_ML)
        hold = TACK_KPA * 1e3 * skin_cm2 * CM2
        held = max(min(force, 0.0), force - hold) if force > 0 else force
        found.append(Load(force=held, pour=pour.number, resin=pour.resin, displaced_ml=wet_ml))
    if not found:
        return Load(force=-mass * G * GRAVITY, pour=None, resin=pours[-1].resin, displaced_ml=0.0)
    return max(found, key=lambda load: load.force)


def figure_facts(
    figure: Figure,
    bulk: Bulk,
    load: Load,
    *,
    gap_below_mm: float | None,
    line_below_mm: float | None,
    contact_cm2: float,
    layer_is_stiff: bool,
    room_above_mm: float,
    peak_c: float | None,
    above_ml: float,
    trapped_ml: float,
) -> FigureFacts:
    """Buoyancy of one figure and every way of holding it.

    gap_below_mm    from its lowest point down to the bed under it; None where there is none
    line_below_mm   from its lowest point down to the layer line it would be laid on; None: none
    contact_cm2     of its underside near its lowest point
    layer_is_stiff  True if that layer has gelled when the next pour comes
    room_above_mm   from its highest point up to a bridge on the rim
    """
    mass, displaced, inside = figure_mass_g(figure, bulk)
    resin, force = load.resin, load.force
    lift_gf = force / (G * GRAVITY)
    density = mass / displaced if displaced > 0 else figure.material.density_g_ml
    excess = lift_gf / load.displaced_ml if load.displaced_ml > 0 else -density
    behaves = "near neutral, may drift" if abs(excess) < NEUTRAL_G_ML + 1e-09 else "floats" if excess > 0 else "sinks"
    lead = load_library().solids["lead"].density_g_ml
    ballast = None
    if force > 0:
        ballast = round(lift_gf / (1 - resin.density_g_ml / lead), 2)
    ways = _ways(
        figure, resin, force, gap_below_mm, line_below_mm, contact_cm2, layer_is_stiff,
        room_above_mm, peak_c,
    )
    return FigureFacts(
        figure_id=figure.id,
        volume_ml=round(bulk.volume_ml, 3),
        volume_spread_ml=round(bulk.spread_ml, 3),
        area_cm2=round(bulk.area_cm2, 2),
        mass_g=round(mass, 3),
        density_g_ml=round(density, 3),
        lift_gf=round(lift_gf, 3),
        lift_spread_gf=round(bulk.spread_ml * abs(
            resin.density_g_ml - (figure.material.density_g_ml if figure.mass_g is None else 0.0)
        ), 3),
        lift_pour=load.pour,
        behaves=behaves,
        ballast_g=ballast,
        above_ml=round(above_ml, 3),
        inside_ml=round(inside, 3),
        rests_mm=(
            round(figure.place.height_mm - gap_below_mm, 2) if gap_below_mm is not None else None
        ),
        peak_c=peak_c,
        flat_underside_cm2=round(bulk.flat_underside_cm2, 2),
        trapped_ml=round(trapped_ml, 3),
        ways=ways,
    )


def _ways(
    figure: Figure, resin: Resin, force: float, gap_below_mm: float | None,
    line_below_mm: float | None, contact_cm2: float, layer_is_stiff: bool, room_above_mm: float,
    peak_c: float | None,
) -> list[Way]:
    hold = figure.hold
    load_gf = abs(force) / (G * GRAVITY)
    warm = peak_c if peak_c is not None else 25.0
    length = max(gap_below_mm if gap_below_mm is not None else room_above_mm, 1.0)
    up = force > 0
    return [
        _on_bed(up, gap_below_mm, load_gf),
        _staged(force, line_below_mm, contact_cm2, layer_is_stiff),
        _bar("stem", "clear stem", force, hold.stem_mm, length, hold.lean_deg,
             RESIN_WARM_GPA if warm > resin.tg_full_c else RESIN_COLD_GPA,
             f"; warm at {warm:.0f} °C it is soft" if warm > resin.tg_full_c else ""),
        _bar("wire", f"{hold.wire} wire", force, hold.wire_mm, length, hold.lean_deg,
             load_library().solids[hold.wire].stiffness_gpa or 100.0, ""),
        _line(force, up, room_above_mm),
        _glue(figure, load_gf, warm),
        _pin(figure, force, gap_below_mm),
    ]


def _on_bed(up: bool, gap_below_mm: float | None, load_gf: float) -> Way:
    gap = gap_below_mm if gap_below_mm is not None else 99.0
    rests = gap <= 0.6
    if up:
        words = f"it lifts off with {load_gf:.1f} gf: fasten it"
    else:
        words = "its own weight holds it" if rests else f"it hangs {gap:.0f} mm above the bed"
    return Way(
        way="on_bed", name="stands on the bed", holds=rests and not up, number=round(gap, 1),
        limit=0.6, unit="mm", sentence=words,
    )


def _staged(
    force: float, line_below_mm: float | None, contact_cm2: float, layer_is_stiff: bool
) -> Way:
    carries = TACK_KPA * 1e3 * contact_cm2 * CM2
    needs = SAFETY * abs(force)
    if line_below_mm is None:
        words, holds = "no layer line below it to be laid on", False
    elif abs(line_below_mm) > 2.0:
        holds = False
        words = f"the layer line is {abs(line_below_mm):.0f} mm off: put the line at its rest"
    elif not layer_is_stiff:
        words, holds = "the layer below is still liquid when the next is poured", False
    else:
        holds = force <= 0 or carries >= needs
        words = (
            f"tack carries {carries / (G * GRAVITY):.0f} gf, {SAFETY:g} times its load is "
            f"{needs / (G * GRAVITY):.1f} gf"
        )
    return Way(
        way="staged", name="laid on a set layer", holds=holds,
        number=round(carries / (G * GRAVITY), 1), limit=round(needs / (G * GRAVITY), 1), unit="gf",
        sentence=words,
    )


def _bar(
    way: str, name: str, force: float, diameter_mm: float, length_mm: float, lean_deg: float,
    stiffness_gpa: float, tail: str,
) -> Way:
    diameter, length, stiffness = diameter_mm * MM, length_mm * MM, stiffness_gpa * GPA
    across = abs(force) * sin(radians(lean_deg))
    bend_mm = cantilever_bend(across, length, diameter, stiffness) / MM
    along = abs(force) * cos(radians(lean_deg))
    # held up from the bed against sinking, the bar is pressed; against floating, it is pulled
    gives_way = force < 0 and SAFETY * along > buckling_force(length, diameter, stiffness)
    holds = bend_mm <= MOST_BEND_MM and not gives_way
    thinnest = least_diameter(across, length, stiffness, MOST_BEND_MM * MM) / MM
    if gives_way:
        words = f"{diameter_mm:g} mm over {length_mm:.0f} mm buckles under its weight"
    elif holds:
        words = f"{diameter_mm:g} mm over {length_mm:.0f} mm bends {bend_mm:.2f} mm"
    else:
        words = (
            f"{diameter_mm:g} mm over {length_mm:.0f} mm bends {bend_mm:.1f} mm: "
            f"take {thinnest:.1f} mm"
        )
    return Way(
        way=way, name=name, holds=holds, number=round(min(bend_mm, 999.0), 2), limit=MOST_BEND_MM,
        unit="mm", sentence=words + tail,
    )


def _line(force: float, up: bool, room_above_mm: float) -> Way:
    needs = SAFETY * abs(force)
    holds = not up and needs <= LINE_STRENGTH_N
    if up:
        words = "it floats: a line has to pull it down from an anchor in the bed"
    else:
        words = f"hangs {room_above_mm:.0f} mm below a bridge; a 0.2 mm line carries it"
        if not holds:
            words = "too heavy for one 0.2 mm line: take several"
    return Way(
        way="line", name="line from a bridge", holds=holds, number=round(needs, 2),
        limit=LINE_STRENGTH_N, unit="N", sentence=words,
    )


def _glue(figure: Figure, load_gf: float, warm_c: float) -> Way:
    glue = load_library().solids["hot-glue"]
    factor = SAFETY_WARM / SAFETY if warm_c > glue.limit_c - 10 else 1.0
    needs = GLUE_MM2_PER_GF * load_gf * factor
    holds = figure.hold.glue_mm2 >= needs and warm_c < GLUE_CREEPS_C
    if warm_c >= GLUE_CREEPS_C:
        words = f"it gets {warm_c:.0f} °C there; under load hot glue creeps from {GLUE_CREEPS_C:g}"
    else:
        words = f"needs {needs:.0f} mm² and has {figure.hold.glue_mm2:g}; {warm_c:.0f} °C there"
    return Way(
        way="glue_spot", name="spot of hot glue", holds=holds, number=round(needs, 1),
        limit=figure.hold.glue_mm2, unit="mm²", sentence=words,
    )


def _pin(figure: Figure, force: float, gap_below_mm: float | None) -> Way:
    hold = figure.hold
    carries = PIN_SHEAR_MPA * 1e6 * pi * hold.wire_mm * MM * hold.pin_depth_mm * MM
    needs = SAFETY * abs(force)
    gap = gap_below_mm if gap_below_mm is not None else 99.0
    near = gap <= 3.0
    holds = near and carries >= needs
    words = f"{hold.wire_mm:g} mm wire, {hold.pin_depth_mm:g} mm deep, carries {carries:.1f} N"
    if not near:
        words = f"the bed is {gap:.0f} mm below it: a pin reaches 3 mm"
    return Way(
        way="pin", name="pin into the bed", holds=holds, number=round(needs, 2),
        limit=round(carries, 2), unit="N", sentence=words,
    )

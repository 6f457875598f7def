"""Laws of holding: lift, bend and buckling of round bars, the inside of a shell."""

from __future__ import annotations

from math import pi

from ..units import GRAVITY


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

"""The outcome document: everything that Gondola says of a scene, every number with its unit."""

from __future__ import annotations

from dataclasses import dataclass

from .bench.doses import MeasuredPour
from .bench.hands import HandsOn
from .bench.mixing import Mix
from .checks import Flag, HeatLimit
from .cure.bond import Bond
from .cure.bubbles import BubbleProfile, Settling
from .cure.light import LightAnswer
from .cure.moments import CureHistory, HeatProfile, MarchAudit, PourCure
from .cure.spans import CureSpan, CureSpans
from .cure.stress import PourStress
from .dam import DamFacts
from .holding.facts import FigureFacts
from .scene.schedule import Night
from .shape import Outline
from .shape.pockets import AirTrap, DryBasin, PourPlace
from .tint import FigureSight, Seam, WaterProfile


@dataclass(frozen=True, slots=True, kw_only=True)
class PeakBand:
    """Peak if room and resin run cool, and if they run warm."""

    low_c: float
    high_c: float


@dataclass(frozen=True, slots=True, kw_only=True)
class DoseDrops:
    """One colourant of a pour, for its whole mix."""

    colourant_id: str
    name: str
    drops: float
    mass_g: float


@dataclass(frozen=True, slots=True, kw_only=True)
class PourOutcome:
    """One pour, numbered from the bottom. `cure` is None where the bed leaves it no room.

    free_volume_ml    not solid between its lines
    resin_volume_ml   what it takes up there: what is reached, less the air that stays; a hollow
                      whose rim it passes counts whole
    depth_mm          of its liquid, from its line down to bed or layer below; bottom_depth_mm is where
                      the line below it lies, or the floor
    gas_ml            what the pores of the bed give off while it is liquid
    places            where it has to be poured, if not all in one place
    allowance_ml      on top, for the films in the cups and the climb at the walls; in `mix`
    working_early_min, working_late_min   the label's time over what its rate may be off
    spans             how early and late each moment of its cure may come
    opens_early_at, opens_late_at   when the tack opens for fast and for slow resin
    """

    number: int
    id: str
    resin_name: str
    ratio_words: str
    top_depth_mm: float
    bottom_depth_mm: float
    depth_mm: float
    free_volume_ml: float
    resin_volume_ml: float
    trapped_ml: float
    gas_ml: float
    allowance_ml: float
    places: list[PourPlace]
    free_surface_cm2: float
    mix: Mix
    doses: list[DoseDrops]
    measured: MeasuredPour
    start_h: float
    starts_at: str
    working_min: float
    working_early_min: float
    working_late_min: float
    tack_opens_at: str | None
    tack_closes_at: str | None
    opens_early_at: str | None
    opens_late_at: str | None
    hard_at: str | None
    cure: PourCure | None
    peak_band: PeakBand | None
    spans: CureSpans | None
    stress: PourStress | None
    light: LightAnswer | None
    settling: list[Settling]
    joint: str
    bond: Bond | None
    hands: HandsOn
    seam: Seam | None


@dataclass(frozen=True, slots=True, kw_only=True)
class FigureView:
    """A figure drawn in one view.

    spread_mm  how far its outline may be off because its solid is a guess
    """

    figure_id: str
    name: str
    reads_srgb: str
    nearest_mm: float
    spread_mm: float
    outlines: list[Outline]


@dataclass(frozen=True, slots=True, kw_only=True)
class View:
    """One view of the tank: its inner outline, the bed where it is cut, figures, farthest first."""

    across_mm: float
    bed_cut_mm: list[list[float]]
    tank_mm: list[list[float]]
    figures: list[FigureView]


@dataclass(frozen=True, slots=True, kw_only=True)
class Sounding:
    """Depth of the bed at one point."""

    x_mm: float
    behind_mm: float
    depth_mm: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Section:
    """What is drawn of the tank."""

    front: View
    side: View
    above: View
    soundings: list[Sounding]


@dataclass(frozen=True, slots=True, kw_only=True)
class Filling:
    """How the water grows with height, and what air and hollows do to it.

    gas_ml  what the bed's pores give off while pours are liquid, all pours together
    """

    height_mm: list[float]
    free_ml: list[float]
    resin_ml: list[float]
    traps: list[AirTrap]
    basins: list[DryBasin]
    bed_ml: float
    steepest_deg: float
    gas_ml: float
    seal_coat_g: float


@dataclass(frozen=True, slots=True, kw_only=True)
class Whole:
    """The piece as a whole; `resin_volume_ml` is what all pours take up.

    demould_span, full_cure_span   hours from the first pour, if room and resin are not as said
    """

    free_volume_ml: float
    resin_volume_ml: float
    mix_g: float
    pieces_count: int
    all_pieces_mix_g: float
    all_pieces_ml: float
    outer_width_mm: float
    outer_behind_mm: float
    piece_kg: float
    bed_area_cm2: float
    bed_top_depth_mm: float
    headroom_mm: float
    demould_h: float | None
    demould_at: str | None
    demould_span: CureSpan | None
    full_cure_d: float | None
    full_cure_span: CureSpan | None
    hottest_c: float | None


@dataclass(frozen=True, slots=True, kw_only=True)
class RoomTrace:
    """The room through the plan."""

    at_h: list[float]
    room_c: list[float]
    nights: list[Night]


@dataclass(frozen=True, slots=True, kw_only=True)
class Outcome:
    """What will happen, as far as Gondola can tell."""

    scene_digest: str
    grade: str
    whole: Whole
    pours: list[PourOutcome]
    heat: HeatProfile
    limits: list[HeatLimit]
    history: CureHistory
    bubbles: BubbleProfile
    water: WaterProfile
    sights: list[FigureSight]
    section: Section
    filling: Filling
    figures: list[FigureFacts]
    dam: DamFacts
    room: RoomTrace
    flags: list[Flag]
    march: MarchAudit

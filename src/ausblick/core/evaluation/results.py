"""What an evaluation holds: small frozen records, each with its units."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from ..camera.coverage import Coverage
from ..camera.level_schools import LevelTarget
from ..camera.screen_grid import Grid, SurfaceName
from ..camera.view import View
from ..damage.damage import Damage, WorstDamage, worst_of
from ..geometry.vectors import Bools, Floats
from ..light.cloth import Highlight
from ..light.mirror import Mirrored, Reflection
from ..light.others_shade import OthersShade
from ..light.returned import SceneLight
from ..light.spill import Spill
from ..plan import Plan
from ..standards.quantities import (
    Degrees,
    Lux,
    LuxSeconds,
    Metres,
    OpenMetres,
    OpenPixels,
    OpenStops,
    Percent,
    Points,
    Seconds,
    Share,
)
from .lamps_in_picture import FramedLamp


@dataclass(frozen=True)
class SurfaceReading:
    """The same of one surface; `share_percent`: of the needed screen in the picture."""

    name: SurfaceName
    share_percent: Percent
    level_luma: Percent
    level_key_channel: Percent
    lux_mean: Lux
    lux_min: Lux
    lux_max: Lux
    spread_stops: OpenStops


@dataclass(frozen=True)
class ScreenReading:
    """Levels in %, light in lux, over the needed part of the screen that the camera sees, all its surfaces taken as
    one. `lux_min`, `lux_max` and `spread_stops` leave out the shade that a figure always throws round its own feet on
    curve and floor run (see `Shadow`); the band of the signal has it. `surfaces`: each by itself; `darkest` and
    `brightest`: on which the light is least and most."""

    level_luma: Percent
    level_key_channel: Percent
    lux_mean: Lux
    lux_min: Lux
    lux_max: Lux
    uniformity: Share
    spread_stops: OpenStops
    band_percent: Points
    surfaces: tuple[SurfaceReading, ...]
    darkest: SurfaceName
    brightest: SurfaceName


@dataclass(frozen=True)
class Flash:
    """`ambient_percent`: share of the face's light that is not flash; `fires_whole`: the shutter is not shorter than
    the sync time; `lux_s` on the face from flashes; `recycle_s` until all can fire as they are set."""

    ambient_percent: Percent
    fires_whole: bool
    lux_s: LuxSeconds
    recycle_s: Seconds


@dataclass(frozen=True, eq=False)
class ScreenMap:
    """Over one surface of the screen, rows along its y, (H, W) each: lux and both traces with the figure's shadow and
    the set's returned light, `open` lux without the shadow, `shadow` the share of light lost to it, `wrinkles` the
    folds' contrast in points of signal; `judged`: needed cells that the camera sees; `share`: how much each counts;
    `linear` (H, W, 3): linear light as the lens sees it, white = 1, unclipped; `folds`: their contrast as a share."""

    grid: Grid
    lux: Floats
    open: Floats
    luma: Floats
    key_channel: Floats
    shadow: Floats
    wrinkles: Floats
    judged: Bools
    share: Floats
    linear: Floats
    folds: Floats

    @property
    def even_lux(self) -> Floats:
        """Lux by which evenness is told: on the wall with the figure's shadow, which need not fall there."""
        return self.lux if self.grid.sheet.name in OFF_THE_FLOOR else self.open


OFF_THE_FLOOR = ("wall", "left wing", "right wing")


@dataclass(frozen=True)
class Shadow:
    """The figure's shadow where the camera sees the needed screen: light lost at the deepest place and
    the part of it that loses at least SHADOW_SEEN, in %; on the surface where it is deepest, its middle (x, y) in m
    along it and the lamp that casts most."""

    deepest_percent: Percent
    area_visible_percent: Percent
    at: tuple[float, float] | None
    lamp: str | None
    surface: SurfaceName = "wall"


@dataclass(frozen=True)
class Texture:
    """Folds as contrast in points of signal (95th percentile), and the brightest highlight of each lamp."""

    wrinkle_percent: Points
    highlights: tuple[Highlight, ...]


@dataclass(frozen=True)
class Zones:
    """Light in the wrong place: share in % of the needed screen's lamp light that comes from the
    subject's lamps, and of the face's that comes from the screen's."""

    screen_from_subject_lamps: Percent | None
    face_from_screen_lamps: Percent | None


@dataclass(frozen=True)
class Exposure:
    """Light on the face in lux (None without a figure), and what the skin then reads in %."""

    subject_lux: Lux | None
    grey_lux: Lux
    subject_level: Percent | None
    stops_over: OpenStops | None


@dataclass(frozen=True)
class Blur:
    """Smear of the fastest movement and the screen's defocus disc, in recorded px."""

    motion_px: OpenPixels | None
    screen_defocus_px: OpenPixels | None
    shutter_angle: Degrees


@dataclass(frozen=True)
class Focus:
    """Sharp from near to far (m, far may be inf) when focused on the mark."""

    distance_m: Metres
    near_m: Metres
    far_m: OpenMetres


@dataclass(frozen=True, eq=False)
class Evaluation:
    """The whole of it. `screen_maps`: of the wall and the other surfaces that the frame needs. `*_by_lamp`: each
    lamp's lux by id, on the judged screen and on the face. `*_shadow`: on wall and wings, on curve and floor run.
    `face_shade`: who else stands in the face's light. `others`: the same of each companion, looked at as the subject.
    `rim_ratio`: lux of the back lamps on the top and back of the head over lux on the face. `damage`: what the key
    will lose, as predicted; None without a lit screen."""

    plan: Plan
    view: View
    coverage: Coverage
    screen: ScreenReading | None
    screen_maps: tuple[ScreenMap, ...]
    screen_by_lamp: dict[str, float]
    exposure: Exposure
    subject_light: Floats
    face_by_lamp: dict[str, float]
    face_shade: OthersShade | None
    target: LevelTarget
    blur: Blur
    focus: Focus | None
    shadow: Shadow | None
    upright_shadow: Shadow | None
    ground_shadow: Shadow | None
    spill: Spill
    lamps_in_picture: tuple[FramedLamp, ...]
    reflections: tuple[Reflection, ...]
    mirrored: tuple[Mirrored, ...]
    texture: Texture | None
    hue_spread_deg: Degrees | None
    zones: Zones
    rim_ratio: float
    damage: Damage | None
    flash: Flash | None
    scene_light: SceneLight
    not_computed: tuple[str, ...]
    others: tuple[Evaluation, ...] = ()

    @property
    def screen_map(self) -> ScreenMap:
        """The wall's."""
        return self.screen_maps[0]

    def of(self, person: int) -> Evaluation:
        """Of the subject (0), or of a companion by its place among them, from 1."""
        return self if person == 0 else self.others[person - 1]

    @cached_property
    def worst_person(self) -> int:
        """Whom the key costs most: the subject (0), or a companion from 1."""
        return 0 if self.worst_damage is None else self.worst_damage.kinder_of

    @cached_property
    def worst_damage(self) -> WorstDamage | None:
        """Of whom the key costs most; None without a lit screen."""
        return worst_of([one.damage for one in (self, *self.others)])

    @property
    def judged_cells(self) -> tuple[tuple[Grid, Bools], ...]:
        """Each surface's grid with the cells (H, W) that are judged."""
        return tuple((one.grid, one.judged) for one in self.screen_maps if one.judged.any())

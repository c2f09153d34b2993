"""What an evaluation says, as models of the API."""

from __future__ import annotations

from typing import Any, Literal

from .answers import Answer


class ChangeModel(Answer):
    path: str
    value: Any


class RemedyModel(Answer):
    text: str
    effect: str
    cost: str
    outcome: Literal["cured", "better", "does-not-apply"]
    before: float | None
    after: float | None
    worsens: list[str]
    changes: list[ChangeModel]


class FindingModel(Answer):
    id: str
    stage: Literal["plate", "space", "screen", "light", "subject", "camera"]
    severity: Literal["stop", "fix", "consider", "fine"]
    says: str
    measure: str
    value: float | None
    limit: float | None
    unit: str
    why: str
    source: str
    digits: int
    remedies: list[RemedyModel]


class CoverageModel(Answer):
    needed: list[float] | None
    covered: bool
    margin_m: float | None
    margin_px: float | None


class ScreenModel(Answer):
    level_luma: float
    level_key_channel: float
    lux_mean: float
    lux_min: float
    lux_max: float
    uniformity: float
    spread_stops: float | None
    band_percent: float


class ExposureModel(Answer):
    subject_lux: float | None
    grey_lux: float
    subject_level: float | None
    stops_over: float | None


class BlurModel(Answer):
    motion_px: float | None
    screen_defocus_px: float | None
    shutter_angle: float


class FocusModel(Answer):
    distance_m: float
    near_m: float
    far_m: float | None


class ShadowModel(Answer):
    """The figure's shadow where the camera sees the needed screen: lost light in %, its middle, its lamp."""

    deepest_percent: float
    area_visible_percent: float
    at: tuple[float, float] | None
    lamp: str | None


class SourceModel(Answer):
    surface: str
    share: float


class ProbeModel(Answer):
    """Light R, G, B in lux on a place of the subject, and its share of screen colour in %."""

    name: str
    kind: Literal["front", "side", "back", "under", "top"]
    at: tuple[float, float, float]
    facing: tuple[float, float, float]
    light: tuple[float, float, float]
    share: float | None
    lamps: float
    framed: bool
    sources: list[SourceModel]


class SpillModel(Answer):
    """Key-channel share in %: face, the worse cheek, back of the head, the worst underside."""

    front: float | None
    side: float | None
    back: float | None
    under: float | None
    probes: list[ProbeModel]


class ReflectionModel(Answer):
    """A lamp against the window pane; `at` on the pane's plane in m."""

    light: str
    visible: bool
    at: tuple[float, float] | None


class MirroredModel(Answer):
    name: str
    shape: Literal["sphere", "cylinder", "pane"]
    share: float


class HighlightModel(Answer):
    light: str
    x: float
    y: float
    added: float


class TextureModel(Answer):
    wrinkle_percent: float
    highlights: list[HighlightModel]


class ZonesModel(Answer):
    """Light in the wrong place, in %."""

    screen_from_subject_lamps: float | None
    face_from_screen_lamps: float | None


class CheckModel(Answer):
    coverage: CoverageModel
    screen: ScreenModel | None
    exposure: ExposureModel
    shadow: ShadowModel
    spill: SpillModel
    reflections: list[ReflectionModel]
    mirrored: list[MirroredModel]
    texture: TextureModel | None
    zones: ZonesModel
    blur: BlurModel
    focus: FocusModel | None
    findings: list[FindingModel]
    not_computed: list[str]


class OutlineModel(Answer):
    name: str
    points: list[tuple[float, float]]


class LampInPicture(Answer):
    id: str
    u: float
    v: float


class PictureModel(Answer):
    """Outlines in the upright picture, 0..1; `plane` takes (x, y, 1) on the screen to the picture."""

    width: int
    height: int
    plane: list[list[float]]
    surfaces: list[OutlineModel]
    needed: list[tuple[float, float]]
    figure: list[OutlineModel]
    lamps: list[LampInPicture]


class ContourModel(Answer):
    level: float
    line: list[tuple[float, float]]


class MapModel(Answer):
    """Deviation of the screen's level from the target in %, and the share of light lost to the figure's
    shadow (rows from the lower edge up)."""

    x: list[float]
    y: list[float]
    deviation: list[list[float]]
    shadow: list[list[float]]
    judged: list[list[bool]]
    target: float
    target_low: float
    target_high: float
    trace: Literal["luma", "key-channel"]
    step: float
    contours: list[ContourModel]


class FloorShadowModel(Answer):
    """Share of the lamps' light on the floor that the figure keeps off: rows by z, away from the screen."""

    x: list[float]
    z: list[float]
    lost: list[list[float]]


class LampShare(Answer):
    """What a lamp causes in lux on the judged screen and on the face, returned light in it."""

    id: str
    screen_lux: float
    face_lux: float


class InputModel(Answer):
    name: str
    value: float
    unit: str


class NumberModel(Answer):
    """A reading that can be asked why."""

    id: str
    stage: str
    label: str
    value: float | None
    unit: str
    digits: int
    formula: str
    source: str
    inputs: list[InputModel]


class LoadModel(Answer):
    """What lamps draw from a circuit undimmed."""

    circuit: str
    watts: float
    amps: float
    rated_amps: float | None


class EvaluationModel(Answer):
    """Everything the set-up view draws, from one evaluation."""

    check: CheckModel
    needed_outline: list[tuple[float, float]]
    picture: PictureModel
    map: MapModel
    floor_shadow: FloorShadowModel | None
    lamps: list[LampShare]
    loads: list[LoadModel]
    numbers: list[NumberModel]
    action_heights: tuple[float, float] | None
    field_on_screen: tuple[float, float, float, float] | None
    field_of_view_deg: float

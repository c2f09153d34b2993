"""What the API says, as models: the OpenAPI description and the front end's types come from these."""

from __future__ import annotations

from datetime import datetime
from typing import Annotated, Any, Literal

from pydantic import BaseModel, ConfigDict, Field, StringConstraints

from ausblick.core.plan import Plan


class Answer(BaseModel):
    """Answers promise exactly their fields, so every one of them is required in the description."""

    model_config = ConfigDict(extra="forbid", json_schema_serialization_defaults_required=True)


class Problem(Answer):
    """One shape for every error. `field` names what to mend, where there is such a thing."""

    title: str
    detail: str
    field: str | None = None


class ChangeModel(Answer):
    path: str
    value: Any


class RemedyModel(Answer):
    text: str
    effect: str
    cost: str
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


class CheckModel(Answer):
    coverage: CoverageModel
    screen: ScreenModel | None
    exposure: ExposureModel
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
    """Deviation of the screen's level from the target in % (rows from the lower edge up)."""

    x: list[float]
    y: list[float]
    deviation: list[list[float]]
    judged: list[list[bool]]
    target: float
    target_low: float
    target_high: float
    trace: Literal["luma", "key-channel"]
    step: float
    contours: list[ContourModel]


class LampShare(Answer):
    """A lamp's lux on the judged screen and on the face."""

    id: str
    screen_lux: float
    face_lux: float
    computed: bool


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


class EvaluationModel(Answer):
    """Everything the set-up view draws, from one evaluation."""

    check: CheckModel
    needed_outline: list[tuple[float, float]]
    picture: PictureModel
    map: MapModel
    lamps: list[LampShare]
    numbers: list[NumberModel]
    action_heights: tuple[float, float] | None
    field_on_screen: tuple[float, float, float, float] | None
    field_of_view_deg: float


class EvaluateBody(BaseModel):
    plan: dict[str, Any] = Field(description="A plan document.")
    changes: list[ChangeModel] = Field(default=[], max_length=200)
    remedies: bool = True


Title = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=200)]


class SetupSummary(Answer):
    id: int
    title: str
    revision: int
    changed: datetime
    worst: Literal["stop", "fix", "consider", "fine"]
    worst_says: str
    open_findings: int


class SetupModel(Answer):
    id: int
    revision: int
    plan: Plan
    changed: datetime
    can_undo: bool
    can_redo: bool
    unknown_fields: list[str]


class SetupList(Answer):
    setups: list[SetupSummary]


class CreateBody(BaseModel):
    plan: dict[str, Any] | None = Field(default=None, description="A plan document; none starts a plain one.")
    title: Title | None = None


class SaveBody(BaseModel):
    base: int = Field(ge=0, le=2**31, description="The revision this change was made on.")
    plan: dict[str, Any] = Field(description="A plan document.")


class TitleBody(BaseModel):
    title: Title


class NameBody(BaseModel):
    name: Title


class VersionModel(Answer):
    id: int
    name: str
    origin: str
    created: datetime


class VersionList(Answer):
    versions: list[VersionModel]


class ConflictModel(Answer):
    """Somebody saved first: theirs is `current`; yours is kept as version `kept`."""

    title: str
    detail: str
    current: SetupModel
    kept: int


class SpotModel(Answer):
    x: float
    y: float
    w: float
    h: float
    delta_percent: float


class LevelModel(Answer):
    mean: float
    p1: float
    p99: float


class FrameReadingModel(Answer):
    width: int
    height: int
    hue: Literal["green", "blue"] | None
    screen_area_percent: float
    level_luma: LevelModel | None
    level_key_channel: LevelModel | None
    band_percent: float | None
    even_percent: float | None
    grid: list[list[float | None]] | None
    slope_percent: list[float] | None
    hot_spots: list[SpotModel]
    shadows: list[SpotModel]
    noise_percent: float | None
    hue_deg: float | None
    saturation: float | None
    clipped_percent: float | None
    edge_contact: bool | None
    edge_contact_frame: list[str]
    edge_contact_screen: list[str]


class SampleModel(Answer):
    rgb: list[float]
    x: float
    y: float


class KeyModel(Answer):
    residue_percent: float
    holes_percent: float | None
    black_clip: float
    white_clip: float
    needed_clip: float
    sample: SampleModel


class ScopesModel(Answer):
    """Base64 of brightness bytes, row by row; `top` is the level of the waveform's first row in %."""

    waveform: str
    waveform_key: str
    wave_columns: int
    wave_rows: int
    top: float
    vectorscope: str
    vector_side: int
    vector_reach: float
    histogram: list[float]


class DeviationModel(Answer):
    """Smoothed level minus the mean, % (null off the screen), rows from the top."""

    values: list[list[float | None]]


class FrameSummary(Answer):
    id: int
    name: str
    created: datetime
    hue: Literal["green", "blue"] | None
    level: float | None


class FrameList(Answer):
    frames: list[FrameSummary]


class FrameModel(Answer):
    id: int
    setup_id: int
    name: str
    created: datetime
    reading: FrameReadingModel
    key: KeyModel | None
    scopes: ScopesModel
    deviation: DeviationModel | None


class ComparedModel(Answer):
    name: str
    unit: str
    planned: float | None
    measured: float | None
    difference: float | None
    agree_within: float
    means: str


class VerdictModel(Answer):
    state: Literal["holds", "tight", "fails"]
    says: str


class ComparisonModel(Answer):
    verdict: VerdictModel
    rows: list[ComparedModel]
    planned_grid: list[list[float | None]]
    target_low: float
    target_high: float
    trace: Literal["luma", "key-channel"]
    planned_hue: str
    not_computed: list[str]


class TermModel(Answer):
    term: str
    means: str


class GlossaryModel(Answer):
    terms: list[TermModel]


class SetupPath(BaseModel):
    setup_id: int = Field(ge=1, le=2**31)


class VersionPath(SetupPath):
    version_id: int = Field(ge=1, le=2**31)


class FramePath(BaseModel):
    frame_id: int = Field(ge=1, le=2**31)

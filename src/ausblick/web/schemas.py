"""What the API says, as models: the OpenAPI description and the front end's types come from these."""

from __future__ import annotations

from typing import Annotated, Any, Literal

from pydantic import BaseModel, Field, StringConstraints

from ausblick.core.diagnosis.comparison import Compared, Verdict
from ausblick.core.frames.drift import Drifted
from ausblick.core.frames.frame_report import ClipReport, FrameReport
from ausblick.core.matte.key_report import KeyReport
from ausblick.core.plan import Plan
from ausblick.core.plan.changes import Change
from ausblick.core.sentences import Sentence

from .answers import Answer, Moment


class Problem(Answer):
    """One shape for every error. `field` names what to mend, where there is such a thing."""

    title: str
    detail: str
    field: str | None = None


REFUSALS: Any = dict.fromkeys((403, 404, 408, 409, 413, 422, 429, 503, 507), Problem)
"""What any request may be answered besides its own success: not from here, not there, too slow, somebody was first,
too large, not readable, too much is being worked on, the data is in use, no space left."""


class EvaluateBody(BaseModel):
    plan: dict[str, Any] = Field(description="A plan document.")
    changes: list[Change] = Field(default=[], max_length=200)
    remedies: bool = True


class PictureBody(BaseModel):
    plan: dict[str, Any] = Field(description="A plan document.")
    at_once: bool = Field(
        default=False,
        description="Answer in light that is known: where only people or the camera have moved since the last "
        "picture, in that one's; else with no picture.",
    )


Title = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=200)]


class SetupTitle(Answer):
    """`damaged`: what is wrong with a set-up that can't be read; empty for all others."""

    id: int
    title: str
    revision: int
    changed: Moment
    damaged: str = ""


class SetupSummary(SetupTitle):
    worst: Literal["stop", "fix", "consider", "fine"]
    worst_says: str
    worst_told: Sentence | None
    open_findings: int


class SetupModel(Answer):
    id: int
    revision: int
    plan: Plan
    changed: Moment
    can_undo: bool
    can_redo: bool
    unknown_fields: list[str]


class SetupList(Answer):
    setups: list[SetupSummary]


class SetupTitles(Answer):
    setups: list[SetupTitle]


class CreateBody(BaseModel):
    plan: dict[str, Any] | None = Field(default=None, description="A plan document; none starts a plain one.")
    title: Title | None = None


class SaveBody(BaseModel):
    base: int = Field(ge=0, le=2**31, description="The revision this change was made on.")
    plan: dict[str, Any] = Field(description="A plan document.")
    was: dict[str, Any] | None = Field(
        default=None, description="The plan at `base`: with it, changes that do not touch the same field are merged."
    )


class TitleBody(BaseModel):
    title: Title


class NameBody(BaseModel):
    name: Title


class VersionModel(Answer):
    id: int
    name: str
    origin: str
    created: Moment


class VersionPlan(Answer):
    plan: Plan


class VersionList(Answer):
    versions: list[VersionModel]


class TrashedSetup(Answer):
    id: int
    title: str


class TrashedFrame(Answer):
    id: int
    setup_id: int
    name: str
    deleted: Moment


class TrashModel(Answer):
    setups: list[TrashedSetup]
    frames: list[TrashedFrame]


class CollisionModel(Answer):
    """A field that both changed; a value that was taken away is null."""

    path: str
    mine: Any
    theirs: Any


class ConflictModel(Answer):
    """Somebody saved first: theirs is `current`; yours is kept as version `kept`."""

    title: str
    detail: str
    current: SetupModel
    kept: int
    collisions: list[CollisionModel]


class ScopesModel(Answer):
    """Base64 of brightness bytes, row by row; `top` is the level of the waveform's first row in %."""

    waveform: str
    waveform_key: str
    parade: list[str] = Field(default=[])
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
    created: Moment
    hue: Literal["green", "blue"] | None
    hue_deg: float | None
    level: float | None


class FrameList(Answer):
    frames: list[FrameSummary]


class SaidColour(Answer):
    primaries: str
    transfer: str


class FrameModel(Answer):
    """`region`: corners that a person drew round the screen; `clip` for a clip, whose middle frame is shown;
    `turned`: quarter turns by which a lying still was set upright; `said`: how a person said that it is written."""

    clip: ClipReport | None = None
    region: list[tuple[float, float]] = Field(default=[])
    turned: int = 0
    said: SaidColour | None = None
    id: int
    setup_id: int
    name: str
    created: Moment
    reading: FrameReport
    key: KeyReport | None
    scopes: ScopesModel
    deviation: DeviationModel | None


class ComparisonModel(Answer):
    """`hot_spots_planned`, `shadows_planned`: in the reading's order, does the plan's own picture have them?"""

    verdict: Verdict
    rows: list[Compared]
    hot_spots_planned: list[bool]
    shadows_planned: list[bool]
    planned_grid: list[list[float | None]]
    target_low: float
    target_high: float
    trace: Literal["luma", "key-channel"]
    planned_hue: str
    not_computed: list[str]


class DriftModel(Answer):
    before: str
    now: str
    rows: list[Drifted]


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


class SincePath(FramePath):
    other_id: int = Field(ge=1, le=2**31)

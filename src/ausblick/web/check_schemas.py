"""What the API says of frames and clips from the set: fit, pose, trial key, hand readings, stand-in, lists."""

from __future__ import annotations

from typing import Any, Literal

from pydantic import BaseModel, Field, RootModel

from ausblick.app.frame_told import FrameCause
from ausblick.core.diagnosis.hand_readings import HandReading, Zebra
from ausblick.core.diagnosis.trial_key import Box
from ausblick.core.frames.frame_report import FrameReport
from ausblick.core.plan.changes import Change
from ausblick.core.standin.as_built import FIRST_SEED
from ausblick.core.standin.standin_camera import MeterReading

from .answers import Answer
from .kit_schemas import PlanBody
from .schemas import FrameModel, FramePath, ScopesModel, SetupPath

Corner = tuple[float, float]


class CauseModel(RootModel[FrameCause]):
    """What `FrameCause` says."""


class RegionBody(BaseModel):
    corners: list[Corner] = Field(max_length=200, description="Parts of the frame; none takes the correction back.")


class ColourBody(BaseModel):
    """How the file is written, as a person says; without both as it says itself."""

    primaries: Literal["709", "2020", "P3", "601", "601-625"] | None = None
    transfer: Literal["709", "sRGB", "HLG", "PQ", "linear", "log"] | None = None


class PoseBody(BaseModel):
    corners: list[Corner] = Field(default=[], max_length=4, description="From the upper left, clockwise; none: find.")
    foot: Corner | None = None
    head: Corner | None = None
    height: float = Field(default=1.75, gt=0.1, le=5.0)


class PoseRowModel(Answer):
    name: str
    unit: str
    planned: float
    measured: float
    error: float


class PoseModel(Answer):
    corners: list[Corner]
    rows: list[PoseRowModel]
    misfit_px: float
    mark: tuple[float, float] | None
    mark_problem: str
    changes: list[Change]


class TrialModel(Answer):
    residue_percent: float
    holes_percent: float | None
    needed_clip: float
    residue: list[Box]
    holes: list[Box]


class CleanQuery(BaseModel):
    clean: int | None = Field(default=None, ge=1, le=2**31, description="A frame of the same view without anybody.")


class TrialPath(FramePath):
    view: Literal["matte", "dark", "bright", "plate", "spilled"]


class PixelQuery(BaseModel):
    x: float = Field(default=0.5, ge=0.0, le=1.0)
    y: float = Field(default=0.5, ge=0.0, le=1.0)
    w: int = Field(default=320, ge=16, le=2000)
    h: int = Field(default=180, ge=16, le=2000)


class NineBody(PlanBody):
    values: list[float | None] = Field(max_length=9, min_length=9)
    unit: Literal["percent", "lux", "foot-candle", "stops"]


class HandModel(RootModel[HandReading]):
    """What `HandReading` says."""


class ZebraBody(BaseModel):
    first: float
    full: float


class ZebraModel(RootModel[Zebra]):
    """What `Zebra` says."""


class StandinBody(BaseModel):
    seed: int = Field(default=FIRST_SEED, ge=0, le=2**31 - 1)
    faults: bool = Field(default=True, description="Hidden deviations; without them the set is as planned.")


class StandinChanges(BaseModel):
    changes: list[Change] = Field(max_length=50)


class StandinModel(Answer):
    """`plan`: its lamps and camera as they stand; what was hidden is told by `truth` only when asked."""

    seed: int
    plan: dict[str, Any]
    truth: list[str]


class LookModel(Answer):
    """One picture of the stand-in: JPEG in base64, its reading and instruments; level and unevenness in % that the
    plan's own picture has by the same ruler."""

    planned_luma: float | None
    planned_even: float | None
    picture: str
    reading: FrameReport
    scopes: ScopesModel


class TruthQuery(BaseModel):
    tell: bool = False


class MeterBody(BaseModel):
    kind: Literal["incident", "spot"]
    at: list[float] = Field(min_length=2, max_length=3, description="x, y, z in m; for a spot parts of the frame.")


class MeterModel(RootModel[MeterReading]):
    """What `MeterReading` says."""


class RecordBody(BaseModel):
    what: Literal["still", "clip"]


class ImportModel(Answer):
    """A file that is being read: `share` done 0..1, and the frame when it is there."""

    id: str
    state: Literal["running", "done", "failed", "cancelled"]
    name: str
    share: float
    problem: str
    frame: FrameModel | None


class ImportPath(BaseModel):
    job_id: str = Field(min_length=1, max_length=40)


class WatchBody(BaseModel):
    folder: str = Field(min_length=1, max_length=1000)


class WatchModel(Answer):
    folder: str | None
    seen: int
    problem: str


class ItemModel(Answer):
    id: str
    when: Literal["before", "after"]
    text: str
    done: bool | None
    says: str
    ticked: bool


class ItemList(Answer):
    items: list[ItemModel]


class TickPath(SetupPath):
    item: str = Field(min_length=1, max_length=60)


class TickBody(BaseModel):
    ticked: bool

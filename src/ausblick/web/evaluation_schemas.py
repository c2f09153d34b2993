"""What an evaluation says, as models of the API."""

from __future__ import annotations

from typing import Annotated, Literal

from pydantic import SkipValidation

from ausblick.core.advice.check_report import CheckReport
from ausblick.core.camera.screen_grid import SurfaceName
from ausblick.core.evaluation.number import Number
from ausblick.core.rig.circuits import Load

from .answers import Answer

Row = Annotated[list[float], SkipValidation]
Rows = Annotated[list[list[float]], SkipValidation]
Cells = Annotated[list[list[bool]], SkipValidation]
"""Made of the core's arrays, some ten thousand numbers an answer: their kind is known."""


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
    plane: Rows
    surfaces: list[OutlineModel]
    needed: list[tuple[float, float]]
    figure: list[OutlineModel]
    lamps: list[LampInPicture]


class ContourModel(Answer):
    level: float
    line: list[tuple[float, float]]


class SurfaceMapModel(Answer):
    """The same of a curve, floor run or wing: at its cells' middles, x and y in m along it (of a floor run across and
    away from the wall); `u`, `v`: the corners of the cells in the upright picture, one more than cells each way."""

    name: SurfaceName
    x: Row
    y: Row
    u: Rows
    v: Rows
    deviation: Rows
    shadow: Rows
    judged: Cells


class MapModel(Answer):
    """Deviation of the screen's level from the target in %, and the share of light lost to the figure's
    shadow (rows from the lower edge up), on the wall; `beside`: on the other surfaces that the frame needs."""

    beside: list[SurfaceMapModel]

    x: Row
    y: Row
    deviation: Rows
    shadow: Rows
    judged: Cells
    target: float
    target_low: float
    target_high: float
    trace: Literal["luma", "key-channel"]
    step: float
    contours: list[ContourModel]


class FloorShadowModel(Answer):
    """Share of the lamps' light on the floor that the figure keeps off: rows by z, away from the screen."""

    x: Row
    z: Row
    lost: Rows


class LampShare(Answer):
    """What a lamp causes in lux on the judged screen and on the face, returned light in it; `beam`: degrees left and
    right of the aim on the floor plan to where half of its strength is left (None for a sun)."""

    id: str
    screen_lux: float
    face_lux: float
    beam: tuple[float, float] | None


class PlannedPictureModel(Answer):
    """The planned set as the camera would see it: JPEG in base64, upright; null where no light is known at once.
    `settled`: in the plan's own light, not in that of the last picture."""

    picture: str | None
    settled: bool


class EvaluationModel(Answer):
    """Everything the set-up view draws, from one evaluation."""

    check: CheckReport
    needed_outline: list[tuple[float, float]]
    picture: PictureModel
    map: MapModel
    floor_shadow: FloorShadowModel | None
    lamps: list[LampShare]
    loads: list[Load]
    numbers: list[Number]
    action_heights: tuple[float, float] | None
    field_on_screen: tuple[float, float, float, float] | None
    field_of_view_deg: float

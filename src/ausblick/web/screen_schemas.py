"""What the API says of a screen: colour evidence, advice, and the rigging sheet."""

from __future__ import annotations

from pydantic import Field

from .answers import Answer
from .kit_schemas import PlanBody


class ScreenBody(PlanBody):
    wind_ms: float = Field(default=0.0, ge=0.0, le=30.0, allow_inf_nan=False, description="Wind outdoors, m/s.")


class EvidenceModel(Answer):
    surface: str
    screen: str
    matte: float
    chroma_distance: float
    luma_distance: float


class AdviceModel(Answer):
    colour: str
    reasons: list[str]
    costs: list[str]


class CautionModel(Answer):
    says: str


class SheetModel(Answer):
    area_m2: float
    clamps: int
    edge_weights: int
    stands: int
    moment_nm: float
    ballast_kg: float
    bags_per_stand: int
    steaming_min: float
    people: int
    cautions: list[CautionModel]


class MaterialModel(Answer):
    name: str
    gloss: float
    transmittance: float
    wrinkle_slope: float
    widest: float
    flat: str
    travels: str
    floor: str


class CheckItem(Answer):
    thing: str
    matter: str
    do: str
    test: str


class ScreenAdviceModel(Answer):
    checks: list[CheckItem]
    materials: list[MaterialModel]
    evidence: list[EvidenceModel]
    advice: AdviceModel
    sheet: SheetModel
    bag_kg: float
    solid: float

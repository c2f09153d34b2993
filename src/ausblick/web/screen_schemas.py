"""What the API says of a screen: colour evidence, advice, and the rigging sheet."""

from __future__ import annotations

from ausblick.core.rig.materials import MaterialFacts
from ausblick.core.rig.rigging_sheet import RiggingSheet
from ausblick.core.rig.screen_colour import Advice, Evidence
from ausblick.core.rig.wardrobe_check import Check

from .answers import Answer


class ScreenAdviceModel(Answer):
    checks: list[Check]
    materials: list[MaterialFacts]
    evidence: list[Evidence]
    advice: Advice
    sheet: RiggingSheet
    bag_kg: float
    solid: float

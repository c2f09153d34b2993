"""Screen materials: the properties that feed the model, and what each is like to live with."""

from __future__ import annotations

from dataclasses import dataclass

from ..plan.scene import Material


@dataclass(frozen=True)
class MaterialFacts:
    """gloss, transmittance 0..1; wrinkle_slope as rise over run; widest piece in m; words for the rest."""

    name: Material
    gloss: float
    transmittance: float
    wrinkle_slope: float
    widest: float
    flat: str
    travels: str
    floor: str


FACTS: tuple[MaterialFacts, ...] = (
    MaterialFacts("paint", 0.01, 0.0, 0.002, 50.0, "as flat as the wall", "stays", "coved corner, repaint after use"),
    MaterialFacts("paper", 0.03, 0.08, 0.008, 3.6, "flat", "a long tube", "tears, takes shoe marks: roll on"),
    MaterialFacts(
        "muslin", 0.02, 0.05, 0.03, 6.0, "wrinkles: steam it", "folds small, do not wash", "slips: tape and mats"
    ),
    MaterialFacts("foam-backed", 0.01, 0.01, 0.015, 3.0, "flat, scatters evenly", "bulky", "wears well"),
    MaterialFacts("stretch", 0.02, 0.06, 0.008, 4.0, "pulls flat", "folds small", "not for the floor"),
    MaterialFacts("pop-up", 0.02, 0.05, 0.01, 2.1, "flat", "travels best", "no floor piece"),
    MaterialFacts("framed", 0.02, 0.05, 0.01, 6.0, "flat, the same every month", "needs assembly", "no floor piece"),
    MaterialFacts("vinyl", 0.12, 0.0, 0.006, 4.0, "flat, but can shine", "a roll", "wipes clean"),
    MaterialFacts("velvet", 0.005, 0.01, 0.01, 1.5, "flat, eats light", "a roll", "wears"),
)


def facts_of(material: Material) -> MaterialFacts | None:
    return next((facts for facts in FACTS if facts.name == material), None)

"""Why-texts for what light does beyond level and spread: shadow, spill, zones, folds, hue."""

from __future__ import annotations

from .explaining import Input, Number
from .light.shadow import BODY_RADIUS
from .results import Evaluation
from .screen_reading import SHADOW_SEEN

SHARE = (
    "(E_K − ½ (E_A + E_B)) / E_K of all light arriving there: lamps, and what screen, floor and walls return; "
    "white light gives 0"
)
RADIOSITY = "Radiosity over the set's surfaces, solved directly (Goral et al. 1984)"


def light_numbers(e: Evaluation) -> list[Number]:
    """Of the station Screen light."""
    shadow, texture = e.shadow, e.texture
    return [
        Number(
            "shadow", "light", "Shadow, deepest", shadow.deepest_percent if shadow else None, "%", 0,
            f"light lost to the figure (a body of {BODY_RADIUS} m radius and a head) at the darkest place of the "
            "needed screen that the camera sees, lamp by lamp over 144 places of its face",
            "Geometry; share of all light there",
            (Input("part of the needed screen that loses 5 % or more", shadow.area_visible_percent, "%"),
             Input("counted from", 100.0 * SHADOW_SEEN, "%")) if shadow else (),
        ),
        Number(
            "hue-spread", "light", "Hue spread", e.hue_spread_deg, "°", 1,
            "angle on the vectorscope between the 1st and 99th percentile of the needed screen's hue",
            "ITU-R BT.709-6; lamps' colours by Krystek 1985", (),
        ),
        Number(
            "folds", "light", "Folds", texture.wrinkle_percent if texture else None, "%", 1,
            "slope of the cloth × tangent of the light's angle, lamps summed as vectors, softened by the screen's "
            "blur; in points of signal, 95th percentile",
            "Lambert's cosine law", (Input("slope", e.plan.screen.wrinkle_slope, ""),),
        ),
        Number(
            "others-on-screen", "light", "From the subject's lamps", e.zones.screen_from_subject_lamps, "%", 0,
            "their part of the light that lamps cause on the needed screen, returned light in it",
            RADIOSITY, (),
        ),
    ]  # fmt: skip


def subject_numbers(e: Evaluation) -> list[Number]:
    """Of the station Subject."""
    spill = e.spill
    named = {"front": "face", "side": "edge", "back": "back", "under": "underside"}
    return [
        Number(
            f"spill-{kind}",
            "subject",
            f"Spill, {label}",
            getattr(spill, kind),
            "%",
            1,
            SHARE,
            RADIOSITY,
            _senders(e, kind),
        )
        for kind, label in named.items()
    ]


def _senders(e: Evaluation, kind: str) -> tuple[Input, ...]:
    """The four surfaces that send most to the worst place of a kind."""
    readings = [r for r in e.spill.probes if r.place.kind == kind and r.share is not None]
    if not readings:
        return ()
    worst = max(readings, key=lambda r: r.share or 0.0)
    return tuple(Input(f"{name}, on the {worst.place.name}", share, "points") for name, share in worst.sources[:4])

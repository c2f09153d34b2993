"""Why-texts for what light does beyond level and spread: shadow, spill, zones, folds, hue."""

from __future__ import annotations

from ..light.figure_shadow import BODY_RADIUS
from .number import Input, Number
from .results import Evaluation
from .screen_light import SHADOW_SEEN

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
            id="shadow",
            stage="light",
            label="Shadow, deepest",
            value=shadow.deepest_percent if shadow else None,
            unit="%",
            digits=0,
            formula=f"light lost to the figure (a body of {BODY_RADIUS} m radius and a head) at the darkest "
            "place of the needed screen that the camera sees, lamp by lamp over 144 places of its face",
            source="Geometry; share of all light there",
            inputs=(
                Input("part of the needed screen that loses 5 % or more", shadow.area_visible_percent, "%"),
                Input("counted from", 100.0 * SHADOW_SEEN, "%"),
            )
            if shadow
            else (),
        ),
        Number(
            id="hue-spread",
            stage="light",
            label="Hue spread",
            value=e.hue_spread_deg,
            unit="°",
            digits=1,
            formula="angle on the vectorscope between the 1st and 99th percentile of the needed screen's hue",
            source="ITU-R BT.709-6; lamps' colours by Krystek 1985",
            inputs=(),
        ),
        Number(
            id="folds",
            stage="light",
            label="Folds",
            value=texture.wrinkle_percent if texture else None,
            unit="%",
            digits=1,
            formula="slope of the cloth × tangent of the light's angle, lamps summed as vectors, softened by the "
            "screen's blur; in points of signal, 95th percentile",
            source="Lambert's cosine law",
            inputs=(Input("slope", e.plan.screen.wrinkle_slope, ""),),
        ),
        Number(
            id="others-on-screen",
            stage="light",
            label="From the subject's lamps",
            value=e.zones.screen_from_subject_lamps,
            unit="%",
            digits=0,
            formula="their part of the light that lamps cause on the needed screen, returned light in it",
            source=RADIOSITY,
            inputs=(),
        ),
    ]


def subject_numbers(e: Evaluation) -> list[Number]:
    """Of the station Subject."""
    spill = e.spill
    named = {"front": "face", "side": "edge", "back": "back", "under": "underside"}
    return [
        Number(
            id=f"spill-{kind}",
            stage="subject",
            label=f"Spill, {label}",
            value=getattr(spill, kind),
            unit="%",
            digits=1,
            formula=SHARE,
            source=RADIOSITY,
            inputs=_senders(e, kind),
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

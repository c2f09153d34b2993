"""The lighting brief: what a plate asks of the lamps, in places and numbers."""

from __future__ import annotations

from dataclasses import dataclass

from ...camera.level_schools import LevelTarget, level_target
from ...camera.view import view_of
from ...evaluation.results import Evaluation
from ...plan import Plan
from ..rules.rim_rules import rim_wanted
from .lamp_roles import FILL_OF_KEY, around_face, in_frame, inside

DISTANCES = (1.5, 2.0, 3.0)
HARDNESS = {
    "hard": "a small face far away: bare lamp, lens or long throw",
    "medium": "a face of half a metre to a metre at two metres",
    "soft": "a large face near by: soft box, or a frame of diffusion",
}


@dataclass(frozen=True)
class KeyStand:
    """One place for the key's stand, m. `problem` says what is in the way; empty when it stands."""

    away: float
    x: float
    y: float
    z: float
    problem: str


@dataclass(frozen=True)
class LightingBrief:
    """`ratio` = key to fill on the face. `levels` by school. `words` say the rest."""

    wrap_around: bool
    stands: tuple[KeyStand, ...]
    ratio: float
    rim: bool
    cct: float
    levels: tuple[LevelTarget, ...]
    words: tuple[str, ...]


def lighting_brief(evaluation: Evaluation) -> LightingBrief:
    """The brief for the plan's plate; soft light from all sides when the plate is not known."""
    plan = evaluation.plan
    plate = plan.plate
    levels = tuple(
        level_target(plan.model_copy(update={"targets": plan.targets.model_copy(update={"level_school": school})}),
                     evaluation.subject_light)
        for school in ("below-face", "mid-grey", "follow-plate", "away-from-edge")
    )  # fmt: skip
    if not plate.known:
        flat = (
            "Soft light from every side, no shadow to contradict the plate that comes.",
            "It costs shape: the figure will look flat, and shape can't be added afterwards.",
        )
        return LightingBrief(True, (), 1.0, False, plan.camera.white_balance_k, levels, flat)
    side = "left" if plate.key_azimuth < 0 else "right"
    away = abs(plate.key_azimuth)
    rim = rim_wanted(plate) is not None
    words = (
        f"Key from the {side}, {away:.0f}° round from the camera and {plate.key_elevation:.0f}° up.",
        f"Shadows fall to the {'right' if side == 'left' else 'left'}"
        + (" and toward the camera." if away > 90.0 else " and away from the camera."),
        f"{plate.softness.capitalize()}: {HARDNESS[plate.softness]}.",
        f"Its light is about {plate.cct:.0f} K; the camera stands at {plan.camera.white_balance_k:.0f} K.",
        "A rim light belongs to it: the plate has light from behind, or is dark behind the edge."
        if rim
        else "No rim light: nothing in the plate would make one.",
    )
    return LightingBrief(False, _stands(plan), 1.0 / FILL_OF_KEY[plate.softness], rim, plate.cct, levels, words)


def _stands(plan: Plan) -> tuple[KeyStand, ...]:
    if plan.subject is None:
        return ()
    view, found = view_of(plan.camera, plan.subject), []
    for away in DISTANCES:
        place = around_face(plan.subject, plan.plate.key_azimuth, plan.plate.key_elevation, away)
        problem = (
            "in the picture" if in_frame(plan, view, place) else "" if inside(plan, place) else "outside the room"
        )
        x, y, z = (round(v, 2) for v in place)
        found.append(KeyStand(away, x, y, z, problem))
    return tuple(found)

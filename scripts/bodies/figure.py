"""All pieces of a build, by name: head, hairs, arms and hands by pose, trousers, shoes."""

from __future__ import annotations

import numpy as np

from . import clothes, head
from .builds import Build
from .fields import Floats
from .hands import Hand, hand_field
from .meshes import Mesh, meshed
from .poses import Pose, poses_of

FINE, HAND, CLOTH, LEG = 0.26, 0.26, 0.62, 0.85
"""Cells in hundredths of stature: 4.5 mm, 4.5 mm, 11 mm, 15 mm."""
KINDS = ("smooth", "fine", "curly")
SEATED_FLOOR = 20.8
"""Where the floor is under somebody seated, whose hips stay where a standing figure's are: a chair's seat of 45 cm
under 1.72 m."""


def pieces_of(build: Build) -> dict[str, Mesh]:
    found = {"head": meshed(lambda p: head.skin_of_head(p, build), ((-8, 82, -9), (8, 101, 8)), FINE)}
    for kind in KINDS:
        low = 78.0 if kind == "fine" else 84.0
        found[f"hair {kind}"] = meshed(
            lambda p, k=kind: head.hair(p, build, k), ((-10, low, -10), (10, 104, 8)), 0.42
        )
    for name, pose in poses_of(build).items():
        found |= {f"{name} {part}": mesh for part, mesh in _arms(build, name, pose).items()}
    found["legs"] = meshed(lambda p: clothes.trousers(p, build), ((-14, 2, -9), (14, 57, 9)), LEG)
    found["shoes"] = meshed(lambda p: clothes.shoes(p, 6.0, 0.0, -0.8), ((-12, -1, -6), (12, 7, 12)), 0.5)
    found["seated legs"] = meshed(
        lambda p: clothes.seated(p, build, SEATED_FLOOR), ((-14, SEATED_FLOOR + 2, -9), (14, 57, 29)), LEG
    )
    found["seated shoes"] = meshed(
        lambda p: clothes.shoes(p, 6.6, SEATED_FLOOR, 20.7),
        ((-12, SEATED_FLOOR - 1, 15), (12, SEATED_FLOOR + 7, 34)),
        0.5,
    )
    return found


def _arms(build: Build, name: str, pose: Pose) -> dict[str, Mesh]:
    still, moving, limb = pose.still, pose.moving, build.limb
    hands = {"hand": _hand(pose.still_hand), "moving hand": _hand(pose.moving_hand)}
    if name == "reaching":
        # For a picture of hands the body stands beside the frame and reaches into it.
        left = meshed(lambda p: clothes.sleeve(p, still, limb), ((-68, 40, -6), (-24, 62, 9)), CLOTH)
        right = meshed(lambda p: clothes.sleeve(p, moving, limb), ((19, 40, -6), (68, 62, 9)), CLOTH)
        return {"coat": left, "moving sleeve": right, **hands}

    def forearm(p: Floats) -> Floats:
        return clothes.lower_sleeve(p, moving, limb) - clothes.creases(p, (moving,))

    return {
        "coat": meshed(lambda p: clothes.coat(p, build, still, moving), ((-32, 41, -10), (25, 88, 11)), CLOTH),
        "moving sleeve": meshed(forearm, ((12, 62, -5), (27, 84, 9)), CLOTH),
        **hands,
    }


def _hand(hand: Hand) -> Mesh:
    at = np.array(hand.at)
    low, high = at - 12.5, at + 12.5
    along = np.array(hand.along) / np.linalg.norm(hand.along)
    middle = at + 4.0 * along
    low, high = np.maximum(low, middle - 8.2), np.minimum(high, middle + 8.2)
    return meshed(lambda p: hand_field(p, hand), (tuple(low), tuple(high)), HAND)

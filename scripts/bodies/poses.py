"""How the figure holds its arms, in hundredths of stature: one hand hangs or holds, the other is raised and moves."""

from __future__ import annotations

from dataclasses import dataclass

from .builds import Build
from .clothes import Arm
from .hands import Hand


@dataclass(frozen=True)
class Pose:
    """The still arm, the moving one, and their hands."""

    still: Arm
    still_hand: Hand
    moving: Arm
    moving_hand: Hand


def poses_of(build: Build) -> dict[str, Pose]:
    x = build.shoulder + 0.2
    raised = ((x, 80.2, -1.0), (17.0, 67.8, 0.5), (20.7, 80.2, 4.0))
    waving = Hand((20.8, 80.9, 4.2), (0.14, 1.0, 0.05), (-0.25, 0.0, 1.0), 1.0, 7.0, 1.0, 13.0)
    hanging = ((-x, 80.2, -1.0), (-x - 4.0, 64.6, -2.0), (-x - 4.6, 50.6, 1.2))
    beside = Hand((-x - 4.6, 49.9, 1.3), (0.02, -1.0, 0.14), (1.0, 0.0, -0.35), -1.0, 16.0)
    holding = ((-x, 80.2, -1.0), (-x - 8.4, 67.9, -0.3), (-26.3, 81.6, 0.4))
    gripping = Hand((-26.4, 82.0, 0.9), (0.1, 0.38, 1.0), (1.0, 0.0, -0.1), -1.0, 42.0)
    reaching = ((-64.0, 47.0, 0.0), (-50.0, 49.6, 2.0), (-26.6, 56.2, 4.0))
    under = Hand((-26.0, 56.4, 4.2), (1.0, 0.2, 0.15), (-0.1, 1.0, 0.45), -1.0, 14.0)
    coming = ((64.0, 47.0, 0.0), (50.0, 49.6, 2.0), (21.6, 57.2, 4.0))
    over = Hand((21.0, 57.4, 4.2), (-1.0, 0.42, 0.1), (0.2, -0.6, 0.75), 1.0, 12.0, 1.05)
    return {
        "plain": Pose(hanging, beside, raised, waving),
        "holding": Pose(holding, gripping, raised, waving),
        "reaching": Pose(reaching, under, coming, over),
    }

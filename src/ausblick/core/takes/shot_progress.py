"""What of a shot is in the can: good takes of each variant, the reference take, and when it was filmed last."""

from __future__ import annotations

from dataclasses import dataclass

from ..production.production_document import PlannedShot
from ..sentences import tell
from .take_document import Take
from .take_rules import TakeFinding, graded


@dataclass(frozen=True)
class VariantCount:
    """`good` takes of a variant; the name is empty where a shot has none."""

    name: str
    good: int


@dataclass(frozen=True)
class ShotProgress:
    """`share` of the variants that have a good take, 0..1; `reference`: key of the first good take."""

    shot: str
    takes: int
    variants: tuple[VariantCount, ...]
    share: float
    reference: str | None
    last_at: str | None

    @property
    def done(self) -> bool:
        return self.share >= 1.0


def shot_progress(shot: PlannedShot, takes: list[Take]) -> ShotProgress:
    own = sorted((one for one in takes if one.shot == shot.id and one.kind == "take"), key=lambda one: one.at)
    good = [one for one in own if one.status == "good"]
    names = shot.variants or ("",)
    # Of a shot without variants every good take counts, whatever somebody called it.
    counts = tuple(
        VariantCount(name, sum(not shot.variants or one.variant == name for one in good)) for name in names
    )
    return ShotProgress(
        shot=shot.id,
        takes=len(own),
        variants=counts,
        share=sum(count.good > 0 for count in counts) / len(counts),
        reference=good[0].key if good else None,
        last_at=own[-1].at if own else None,
    )


def not_done(shot: PlannedShot, progress: ShotProgress) -> TakeFinding | None:
    """Told at wrap of a shot that must be filmed or should."""
    if progress.done or shot.priority == "if-time":
        return None
    wanted = float(len(progress.variants))
    have = float(sum(count.good > 0 for count in progress.variants))
    return graded("take.not-done", wanted - have, tell("take.not-done", title=shot.title or shot.id, have=have,
                                                       wanted=wanted))  # fmt: skip


def outfit_changed(shot: PlannedShot, takes: list[Take]) -> TakeFinding | None:
    """Told until a take is logged in the outfit that the shot has now."""
    own = [take for take in takes if take.shot == shot.id and take.kind == "take"]
    if not own or own[-1].outfit == shot.outfit:
        return None
    return graded("take.outfit", 1.0, tell("take.outfit"))

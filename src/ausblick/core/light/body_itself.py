"""What a body sends itself: a lit shirt brightens the chin over it and colours it, an arm the coat beside it.

How much of which zone each place sees was worked out when the body was made; a zone sends what its places do in the
mean, each as far as it sees the body: what does not see it is not seen from it.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from scipy.sparse import csr_matrix

from ..figure.body_file import ITSELF_STEP
from ..figure.body_ink import ink_of
from ..figure.body_zones import ZONES, zones_of
from ..figure.solid_body import BodyShape
from ..geometry.vectors import Floats32, Ints
from ..plan import Subject
from ..remembered.shelf import remembered

EACH = 24
"""Places at which the light on a zone is worked out."""
BURIED = 0.85
"""Places that see hardly anything else lie under hair or cloth, and nobody sees them."""
TIMES = 3
"""Light is followed so often: once more would add less than a hundredth."""


@dataclass(frozen=True, eq=False)
class ZonePlaces:
    """Places (M,) that stand for the zones of a body, the zone of each (M,), and its share (M,) of the zone. `among`
    (ZONES, ZONES): how much of what each zone sees is each other."""

    places: Ints
    zone: Ints
    share: Floats32
    among: Floats32

    def mean(self, values: Floats32) -> Floats32:
        """Of values (M, 3) in each zone (ZONES, 3)."""
        weighed = self.share[:, None] * values
        return np.stack([np.bincount(self.zone, column, ZONES) for column in weighed.T], axis=1).astype(np.float32)


@remembered(8)
def zone_places(shape: BodyShape) -> ZonePlaces:
    """Some of each zone, spread over it."""
    zone = zones_of(shape.own, shape.facing)
    in_order = np.argsort(zone, kind="stable")
    counts = np.bincount(zone, minlength=ZONES)
    starts = np.cumsum(counts) - counts
    spread = [
        start + np.unique(np.linspace(0, n - 1, EACH).astype(int))
        for start, n in zip(starts, counts, strict=True)
        if n
    ]
    places = np.sort(in_order[np.concatenate(spread)])
    sees = _of_itself(shape)[places]
    kept = np.asarray(sees.sum(axis=1)).ravel()
    seen = shape.areas[places] * np.where(kept < BURIED, kept, 0.0)
    whole = np.bincount(zone[places], seen, ZONES)
    share = (seen / np.maximum(whole[zone[places]], 1e-12)).astype(np.float32)
    to_zones = csr_matrix((share, (zone[places], np.arange(len(places)))), shape=(ZONES, len(places)))
    return ZonePlaces(places, zone[places], share, (to_zones @ sees).toarray())


@remembered(8)
def _of_itself(shape: BodyShape) -> csr_matrix:
    """What each place sees of each zone (V, ZONES): most see few."""
    return csr_matrix(np.float32(ITSELF_STEP) * shape.itself)


def sent_to_itself(subject: Subject, shape: BodyShape, lux: Floats32) -> Floats32:
    """Light (V, 3) in lux on the places of a body on which there is `lux` (V, 3), known at its `zone_places` at
    least."""
    zones = zone_places(shape)
    ink = ink_of(subject, shape.part[zones.places], shape.own[zones.places]).reflectance
    first, mean_ink = zones.mean(ink * lux[zones.places]), zones.mean(ink)
    sent = first
    for _ in range(TIMES - 1):
        sent = first + mean_ink * np.einsum("zy,yc->zc", zones.among, sent)
    return np.asarray(_of_itself(shape) @ sent, dtype=np.float32)

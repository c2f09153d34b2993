"""How well a story explains a frame: its best deviations, and how probable the frame is under it.

Gauss and Newton's steps to the most probable deviations; the evidence by Laplace's method (MacKay, Information
Theory, Inference, and Learning Algorithms, 2003, ch. 28), so that a story pays for what it leaves open and not by a
count. What blocks a lamp, or a light that nobody planned, is a smooth field: a Gaussian process added to the noise.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

import numpy as np
from scipy.linalg import block_diag

from ..geometry.vectors import Floats
from .light_model import Deviations, LightModel
from .observed_light import ObservedLight
from .stories import Story, begins, bounds, centre, prior, spreads

REACH, FIELD = 0.3, 0.6
"""Errors of the level hang together over the first distance, what stands in a beam over the second, m."""
TOGETHER, CHROMA_TOGETHER = 0.7, 0.3
BESIDE_SHADOW, ASIDE = 0.15, 0.3
"""Of a lamp's lost share, what another figure or pose may differ in; so far beside it as well, m."""
SKIN, SKIN_COLOUR = 0.35, 0.09
"""How far, ln, a person's skin may be from the planned one in level and in colour: 0.6, as people are dark and fair,
and 0.15, both over the root of what evidence is tempered by, as these are known to be no smaller."""
FACE, FACE_COLOUR = (0.12, 0.18, 0.12), (0.05, 0.05, 0.05)
"""How far light on left, middle and right of a face is from a ball's: a nose catches more, and heads turn."""
TURNED = 0.2
"""How far what a lamp gives a side of a face may be from a ball's, as a share: noses and brows shade, heads turn."""
APART = 0.02
"""How far a surface of the screen may look brighter or darker than the wall does, as a share: it lies differently, is
seen flatter, is walked on."""
OBSTACLE, STRANGER, STRANGER_CHROMA = 0.45, 0.2, 0.015
WRONG_WAY, FREE, PART_OF_IT = 0.02, 0.05, 0.03
STEPS = 6


@dataclass(frozen=True, eq=False)
class Fit:
    """A story at its best: `log_odds` of it and the frame together up to a constant; the deviations; chi squared over
    the number of data; `strain`: the most that it stretches what it leaves as careful, in standard deviations; the
    field that a story of an obstacle or a stranger found (N,), as a share of the light."""

    story: Story
    log_odds: float
    log_prior: float
    by: Deviations
    misfit: float
    strain: float
    field: Floats | None


class Errors:
    """The errors of the data: what hangs together, what a figure in another pose does beside its shadow, and a face
    that is not the planned one."""

    def __init__(self, model: LightModel) -> None:
        places = model.observed.places
        away = np.linalg.norm(places[:, None, :] - places[None, :, :], axis=2)
        one = np.eye(len(places))
        noise = model.observed.noise
        near = np.exp(-away / REACH)
        total, each = model.light(model.as_planned)
        lost = (each[..., model.key] / total[:, model.key] * (1.0 / np.maximum(model.left, 0.05) - 1.0)).sum(axis=0)
        # Another figure or pose moves a shadow's edge into the cells beside it.
        lost = (lost[None, : len(places)] * (away < ASIDE)).max(axis=1)
        level = noise**2 * (TOGETHER * near + (1.0 - TOGETHER) * one) + np.diag((BESIDE_SHADOW * lost) ** 2)
        chroma = model.observed.chroma**2 * (CHROMA_TOGETHER * near + (1.0 - CHROMA_TOGETHER) * one)
        level = level + APART**2 * _alike(model.observed)
        blocks = [level, chroma, chroma]
        if model.observed.face is not None:
            turned = _turned_face(model)
            face = [SKIN**2 + np.diag(np.square(FACE)), *[SKIN_COLOUR**2 + np.diag(np.square(FACE_COLOUR))] * 2]
            blocks = [block_diag(a, b + np.diag(c)) for a, b, c in zip(blocks, face, turned, strict=True)]
        self.blocks = blocks if model.observed.coloured else blocks[:1]
        # What stands in a beam before the screen, or shines on it, is not before the face.
        self.smooth = np.zeros(blocks[0].shape)
        self.smooth[: len(places), : len(places)] = np.exp(-0.5 * (away / FIELD) ** 2)

    def whitened(self, added: list[Floats]) -> Whitening:
        """`added` to each of the blocks."""
        blocks = [block + added[k] if added else block for k, block in enumerate(self.blocks)]
        roots = np.linalg.cholesky(np.array(blocks))
        log_det = 2.0 * float(np.log(np.diagonal(roots, axis1=1, axis2=2)).sum())
        return Whitening(np.linalg.inv(roots), log_det)


@dataclass(frozen=True, eq=False)
class Whitening:
    """What makes errors even and independent: the inverse root (B, N, N) of each block of their covariance, and the
    logarithm of its determinant."""

    roots: Floats
    log_det: float

    def of(self, data: Floats) -> Floats:
        """Data (B N,) or columns of them (B N, C), in standard deviations."""
        blocks, size, _ = self.roots.shape
        return np.asarray((self.roots @ data.reshape(blocks, size, -1)).reshape(data.shape))

    def level_weight(self, white: Floats) -> Floats:
        """Of whitened data (B N,) what the first block's inverse makes of them (N,)."""
        return np.asarray(self.roots[0].T @ white[: self.roots.shape[1]])


def _turned_face(model: LightModel) -> Floats:
    """Variances (3, Z) of the level and of the two colours of a face's zones, as what each lamp gives a zone may be
    other than a ball would get: where lamps of unlike colours meet, or the screen's, the colour is as uncertain."""
    zones = slice(model.observed.cells, None)
    total, each = model.light(model.as_planned)
    share = each[:, zones] / total[None, zones]
    level = share[..., model.key]
    by = [level, *(share[..., c] - level for c in model.others)]
    return np.array([(np.square(TURNED * one)).sum(axis=0) for one in by])


def _alike(observed: ObservedLight) -> Floats:
    """1 for two cells of one surface beside the wall (N, N), 0 for all others."""
    of = np.repeat(np.arange(len(observed.surfaces)), [len(one.rgb) for one in observed.surfaces])
    return np.asarray((of[:, None] == of[None, :]) & (of > 0)[:, None], dtype=float)


class StoryFit:
    """Stories about one frame."""

    def __init__(self, model: LightModel) -> None:
        self.model = model
        self.data = model.data(model.observed.rgb)
        self.lamps = len(model.lamps)
        self.errors = Errors(model)

    @cached_property
    def _plain(self) -> Whitening:
        return self.errors.whitened([])

    def _field_of(self, story: Story) -> tuple[Floats, list[Floats]] | None:
        """How much of the light a field would touch (N,), and what that adds to the errors."""
        for part in story:
            if part.kind == "obstacle" and part.lamp is not None:
                total, each = self.model.light(self.model.as_planned)
                share = OBSTACLE * each[part.lamp][:, self.model.key] / total[:, self.model.key]
                chroma = 0.0
            elif part.kind == "stranger":
                share, chroma = np.full(self.model.count, STRANGER), STRANGER_CHROMA
            else:
                continue
            level = share[:, None] * share[None, :] * self.errors.smooth
            return share, [level, chroma**2 * self.errors.smooth, chroma**2 * self.errors.smooth]
        return None

    def of(self, story: Story, steps: int = STEPS, near: Fit | None = None, beside: Fit | None = None) -> Fit:
        """`near`: a fit of the story, or of a part of it, from whose deviations this one begins; `beside`: a fit of
        its other part, from which it begins as well, with what only the first part leaves open taken from `near`:
        alone, a part bends what it leaves as careful towards what the other one would explain."""
        found = self._field_of(story)
        errors = self.errors.whitened(found[1]) if found else self._plain
        starts = begins(story, self.lamps)
        if near is not None and near.story == story:
            starts = [near.by.vector]
        elif near is not None:
            own, middle = near.by.vector, centre(near.story, self.lamps)
            starts = [np.where(np.abs(own - middle) > np.abs(one - middle), own, one) for one in starts]
            if beside is not None:
                opened = spreads(near.story, self.lamps) > spreads((), self.lamps)
                starts.append(np.where(opened, own, beside.by.vector))
        if len(starts) > MOST_BEGINS:
            precision = spreads(story, self.lamps) ** -2.0
            costs = [self._cost(one, centre(story, self.lamps), precision, errors)[0] for one in starts]
            starts = [starts[i] for i in np.argsort(costs)[:MOST_BEGINS]]
        tries = [self._descended(story, begin, errors, steps) for begin in starts]
        cost, vector, off, log_hessian = min(tries, key=lambda t: t[0] + 0.5 * t[3])
        spread = spreads(story, self.lamps)
        log_prior = float(np.log(prior(story, self.lamps)))
        log_odds = -cost - 0.5 * log_hessian - 0.5 * errors.log_det - float(np.log(spread).sum())
        field = None
        if found is not None:
            field = found[1][0] @ errors.level_weight(off)
            # Cloth in a beam takes light, a light that nobody planned adds some: neither does the other.
            wrong = field.max() if any(part.kind == "obstacle" for part in story) else -field.min()
            log_odds -= 0.5 * (max(0.0, float(wrong)) / WRONG_WAY) ** 2
            log_odds -= 0.5 * (self._all_of_it(story, field) / PART_OF_IT) ** 2
        return Fit(
            story,
            log_odds + log_prior,
            log_prior,
            Deviations.of(vector),
            float(off @ off) / len(off),
            self._strain(story, vector),
            field,
        )

    def _descended(
        self, story: Story, begin: Floats, errors: Whitening, steps: int
    ) -> tuple[float, Floats, Floats, float]:
        """Cost, deviations, what they leave of the data in standard deviations, and the logarithm of the curvature's
        determinant."""
        middle, precision = centre(story, self.lamps), spreads(story, self.lamps) ** -2.0
        low, high = bounds(self.lamps)
        vector, damping = begin, 0.0
        cost, off = self._cost(vector, middle, precision, errors)
        hessian = np.diag(precision)
        for _ in range(steps):
            slopes = errors.of(self.model.slopes(Deviations.of(vector)))
            hessian = slopes.T @ slopes + np.diag(precision)
            pull = slopes.T @ off - precision * (vector - middle)
            step = np.linalg.solve(hessian + damping * np.diag(np.diag(hessian)), pull)
            trial = np.clip(vector + step, low, high)
            worth, left = self._cost(trial, middle, precision, errors)
            if worth > cost:
                damping = max(4.0 * damping, 0.3)
                continue
            done = cost - worth < 0.02
            vector, cost, off, damping = trial, worth, left, 0.3 * damping
            if done:
                break
        return cost, vector, off, float(np.linalg.slogdet(hessian)[1])

    def _cost(self, vector: Floats, middle: Floats, precision: Floats, errors: Whitening) -> tuple[float, Floats]:
        off = errors.of(self.data - self.model.predicted(Deviations.of(vector)))
        by = vector - middle
        return 0.5 * float(off @ off) + 0.5 * float(by @ (precision * by)), off

    def _all_of_it(self, story: Story, field: Floats) -> float:
        """What an obstacle would take even where it takes least, as a share of its lamp: one in a beam leaves some of
        the beam free, or the lamp is dimmer."""
        lamps = [part.lamp for part in story if part.kind == "obstacle" and part.lamp is not None]
        if not lamps:
            return 0.0
        total, each = self.model.light(self.model.as_planned)
        # Of the screen: what stands in a beam there is not before the face.
        cells = self.model.observed.cells
        share = (each[lamps[0]][:, self.model.key] / total[:, self.model.key])[:cells]
        strong = share > 0.5 * share.max()
        return max(0.0, -float((field[:cells][strong] / share[strong]).max()) - FREE)

    def _strain(self, story: Story, vector: Floats) -> float:
        spread = spreads(story, self.lamps)
        careful = spread == spreads((), self.lamps)
        return float(np.abs((vector - centre(story, self.lamps)) / spread)[careful].max(initial=0.0))

    def level_errors(self) -> Floats:
        """How exactly (L,) each lamp's level is told when all of them are open: one standard deviation."""
        spread = spreads((), self.lamps)
        spread[5::6] = OPEN_LEVEL
        slopes = self._plain.of(self.model.slopes(self.model.as_planned))
        hessian = slopes.T @ slopes + np.diag(spread**-2.0)
        return np.sqrt(np.diag(np.linalg.inv(hessian))[5::6])


MOST_BEGINS = 2
"""Of all places to begin, those that fit best are followed."""
OPEN_LEVEL = 1.0

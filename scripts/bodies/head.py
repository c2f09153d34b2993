"""Head, neck and hair as fields, in hundredths of stature; eyes 93.4 high, the chin at 87."""

from __future__ import annotations

import numpy as np

from .builds import Build
from .fields import Floats, ball, blunt, ellipsoid, joined, round_cone, within, without

EYE = (1.82, 93.35, 3.05)
PIVOT = np.array([0.0, 87.0, -0.6])
"""A larger head grows from here."""


def grown(p: Floats, build: Build) -> Floats:
    """Places as they are on an adult's head. A head that is larger keeps its top where stature ends."""
    size = build.head
    chin = 100.0 - 13.0 * size
    q = p - np.array([PIVOT[0], chin, PIVOT[2]])
    return np.asarray(q / size + PIVOT)


def skull(q: Floats, more: float = 0.0) -> Floats:
    vault = blunt(q, (0.0, 94.9, -0.75), (4.2 + more, 5.0 + more, 5.05 + more))
    forehead = blunt(q, (0.0, 94.6, 0.9), (3.7 + more, 4.15 + more, 3.75 + more))
    return joined(1.2, vault, forehead)


def mask(q: Floats, build: Build) -> Floats:
    """The face, without eyes."""
    mirrored = q.copy()
    mirrored[..., 0] = np.abs(q[..., 0])
    face = round_cone(q, (0.0, 92.6, 1.2), 3.55, (0.0, 89.0, 2.2), 1.9 + 0.3 * build.jaw)
    cheek = ball(mirrored, (2.2, 91.2, 2.2), 1.5)
    angle = (2.2 + 0.3 * build.jaw, 90.1, 0.0)
    jaw = round_cone(mirrored, angle, 1.0 + 0.15 * build.jaw, (0.5 + 0.25 * build.jaw, 88.0, 2.8), 0.9)
    chin = ball(q, (0.0, 88.0, 3.05), 0.95 + 0.1 * build.jaw)
    head = joined(1.5, skull(q), face)
    head = joined(1.0, head, cheek)
    head = joined(1.3, head, jaw, chin)
    brow = round_cone(mirrored, (0.75, 94.35, 4.05), 0.42, (2.6, 94.4, 3.2), 0.38) + 0.25 * (1.0 - build.brow)
    head = joined(0.9, head, brow)
    # The socket, and the hollow beside the root of the nose.
    socket = ellipsoid(mirrored, (1.95, 93.25, 4.55), (1.35, 0.78, 1.15))
    head = without(0.7, head, socket)
    buccal = ball(mirrored, (1.75, 89.9, 1.75), 1.55 + 0.1 * build.jaw)
    head = joined(0.9, head, buccal)
    muzzle = ellipsoid(q, (0.0, 89.9, 2.7), (2.1, 2.0, 1.75))
    head = joined(0.8, head, muzzle)
    nose = round_cone(q, (0.0, 93.6, 4.0), 0.38, (0.0, 91.15, 4.95 + 0.15 * build.nose), 0.50 + 0.06 * build.nose)
    wing = ball(mirrored, (0.62, 90.8, 4.55), 0.42 + 0.05 * build.nose)
    head = joined(0.55, head, joined(0.4, nose, wing))
    head = without(0.25, head, ellipsoid(mirrored, (0.40, 90.45, 4.9), (0.26, 0.2, 0.36)))
    lips = joined(
        0.28,
        round_cone(mirrored, (0.0, 89.72, 4.30), 0.36, (1.2, 89.5, 3.75), 0.14),
        round_cone(mirrored, (0.0, 89.10, 4.22), 0.42, (1.05, 89.38, 3.75), 0.16),
    )
    head = joined(0.35, head, lips)
    groove = round_cone(mirrored, (0.0, 89.42, 4.68), 0.12, (1.15, 89.5, 4.05), 0.05)
    return without(0.25, head, groove)


def eyes(q: Floats) -> Floats:
    """Eyeball and lids in one; where the eye is open is painted."""
    mirrored = q.copy()
    mirrored[..., 0] = np.abs(q[..., 0])
    lid = round_cone(mirrored, (1.15, 93.62, 3.62), 0.18, (2.55, 93.62, 3.42), 0.18)
    return joined(0.3, ball(mirrored, EYE, 0.86), lid)


def ear(q: Floats) -> Floats:
    mirrored = q.copy()
    mirrored[..., 0] = np.abs(q[..., 0])
    # It leans back and stands off behind.
    p = mirrored - np.array([4.25, 92.1, -0.9])
    p = np.stack([p[..., 0] + 0.45 * p[..., 2], p[..., 1] + 0.15 * p[..., 2], p[..., 2] - 0.1 * p[..., 1]], axis=-1)
    shell = ellipsoid(p, (0.0, 0.0, 0.0), (0.42, 1.75, 1.05))
    bowl = ellipsoid(p, (0.45, 0.1, 0.15), (0.42, 1.1, 0.62))
    return without(0.2, shell, bowl)


def neck(p: Floats, build: Build) -> Floats:
    top = 100.0 - 13.0 * build.head
    column = round_cone(p, (0.0, top + 3.2, -0.9), build.neck, (0.0, 83.2, -1.7), build.neck + 0.25)
    mirrored = p.copy()
    mirrored[..., 0] = np.abs(p[..., 0])
    cord = round_cone(mirrored, (2.6 * build.neck / 3.2, top + 2.6, -0.8), 0.55, (0.9, 83.3, 1.35), 0.5)
    return joined(0.9, column, cord)


def skin_of_head(p: Floats, build: Build) -> Floats:
    q = grown(p, build)
    head = joined(0.25, mask(q, build), ear(q))
    head = joined(0.22, head, eyes(q))
    return joined(1.1, head * build.head, neck(p, build))


def hairline(q: Floats) -> Floats:
    """Inside < 0 where hair grows: above the forehead, before the ears, round them, down to the nape."""
    x, y, z = np.abs(q[..., 0]), q[..., 1], q[..., 2]
    # Over the forehead the line lies level, at the temples it goes back a little, then down before the ear.
    front = 97.3 + 0.5 * np.exp(-(((x - 2.4) / 0.9) ** 2))
    at_temple = _step(z, 1.15, 0.35)
    before_ear = 92.3
    at_ear = _step(z, -0.35, 0.25) * (1.0 - _step(z, 0.0, 0.2))
    behind = 1.0 - _step(z, -1.5, 0.35)
    low = at_temple * front + (1.0 - at_temple) * (behind * 88.6 + (1.0 - behind) * (before_ear + 1.6 * at_ear))
    return np.asarray(0.7 * (low - y) + 0.10 * bumps(q * np.array([1.0, 0.4, 1.0]), 1.1))


def _step(v: Floats, at: float, over: float) -> Floats:
    return np.asarray(1.0 / (1.0 + np.exp(np.clip(-(v - at) / over, -40.0, 40.0))))


def bumps(q: Floats, size: float) -> Floats:
    """A smooth unrest -1..1 about `size` long, the same for every build."""
    found = np.zeros(q.shape[:-1])
    rng = np.random.default_rng(5)
    for _ in range(9):
        way = rng.normal(size=3)
        way *= 2.0 * np.pi / size / np.linalg.norm(way)
        found += np.sin(q @ way + rng.uniform(0.0, 6.28))
    return np.asarray(found / 4.5)


def hair(p: Floats, build: Build, kind: str) -> Floats:
    q = grown(p, build)
    if kind == "curly":
        cap = ellipsoid(q, (0.0, 95.0, -0.9), (5.6, 6.3, 6.3)) - 0.55 * bumps(q, 2.2)
        return within(0.9, cap, hairline(q) - 0.2) * build.head
    # It thins out toward its border until it goes under the skin.
    share = np.clip(-hairline(q) / 1.6 + 0.12, -2.0, 1.0)
    cap = skull(q) - 0.95 * share - 0.14 * np.clip(share, 0.0, 1.0) * bumps(q * np.array([1.0, 0.35, 1.0]), 1.5)
    if kind == "smooth":
        return cap * build.head
    mirrored = q.copy()
    mirrored[..., 0] = np.abs(q[..., 0])
    fall = joined(
        1.5,
        round_cone(mirrored, (3.7, 94.5, -1.2), 1.35, (4.7, 85.0, -1.4), 1.25),
        round_cone(mirrored, (4.7, 85.0, -1.4), 1.25, (5.4, 80.2, 0.4), 0.75),
        round_cone(mirrored, (2.0, 94.5, -3.9), 1.9, (2.4, 81.5, -5.0), 1.5),
    ) - 0.2 * bumps(q * np.array([1.0, 0.15, 1.0]), 1.3)
    return joined(1.2, cap, fall) * build.head

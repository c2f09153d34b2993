"""The clothed body as fields, in hundredths of stature: a coat with its collar and sleeves, trousers, shoes."""

from __future__ import annotations

import numpy as np

from .builds import Build
from .fields import Floats, both, box, ellipsoid, joined, loft, ring, round_cone
from .head import bumps

Point = tuple[float, float, float]
Arm = tuple[Point, Point, Point]
"""Shoulder, elbow and wrist."""


def coat(p: Floats, build: Build, still: Arm, moving: Arm) -> Floats:
    """With one whole sleeve and the upper one of the arm that moves."""
    b = build
    heights = np.array([43.0, 47.0, 53.0, 58.5, 64.0, 70.0, 74.5, 78.5, 81.5, 83.6])
    hip, waist, chest = b.hip + 0.75, b.waist + 0.65, b.chest + 0.65
    halves = np.array(
        [
            hip + 0.35,
            hip,
            0.5 * (hip + waist),
            waist,
            0.45 * waist + 0.55 * chest,
            chest,
            chest + 0.3,
            chest - 0.5,
            0.62 * chest,
            0.42 * chest,
        ]
    )
    depths = np.array([6.6, 6.9, 6.3, 5.9, 6.3, 7.0, 7.0, 6.3, 4.9, 3.7])
    forward = np.array([-0.3, -0.3, -0.1, 0.2, 0.3, 0.2, 0.0, -0.4, -1.0, -1.4])
    body = loft(p, heights, halves, depths, forward)
    if b.bust:
        swell = both(lambda q: ellipsoid(q, (3.7, 73.2, 4.6), (3.6, 3.6, 3.1)))(p)
        body = joined(2.2, body, swell)
    yoke = both(lambda q: round_cone(q, (2.0, 83.4, -1.5), 2.2, (b.shoulder - 0.6, 80.9, -1.0), 2.9 * b.limb))(p)
    found = joined(2.4, body, yoke)
    found = joined(1.6, found, sleeve(p, still, b.limb))
    found = joined(1.6, found, upper_sleeve(p, moving, b.limb))
    found = found - creases(p, (still, moving))
    return _tailored(p, found, b)


def sleeve(p: Floats, arm: Arm, limb: float) -> Floats:
    return joined(0.9, upper_sleeve(p, arm, limb), lower_sleeve(p, arm, limb))


def upper_sleeve(p: Floats, arm: Arm, limb: float) -> Floats:
    return round_cone(p, arm[0], 3.45 * limb, arm[1], 2.55 * limb)


def lower_sleeve(p: Floats, arm: Arm, limb: float) -> Floats:
    """The cuff is open: the sleeve ends flat a little before the wrist."""
    _, elbow, wrist = arm
    way = np.array(wrist) - np.array(elbow)
    way = way / np.linalg.norm(way)
    beyond = (p - np.array(wrist)) @ way + 0.4
    return np.maximum(round_cone(p, elbow, 2.5 * limb, wrist, 1.95 * limb), beyond)


def creases(p: Floats, arms: tuple[Arm, ...]) -> Floats:
    """Folds of 3 to 4 mm where cloth is bent: inside the elbow, under the arm, at the waist; a little everywhere."""
    found = 0.07 * bumps(p * np.array([1.0, 0.55, 1.0]), 5.0)
    waist = np.exp(-(((p[..., 1] - 57.0) / 5.0) ** 2))
    found += 0.16 * waist * np.sin(1.15 * p[..., 1] + 0.55 * p[..., 0] + 0.8 * bumps(p, 9.0))
    for shoulder, elbow, _ in arms:
        for centre, reach, size in ((elbow, 3.6, 0.24), (shoulder, 4.6, 0.16)):
            near = np.exp(-(((p - np.array(centre)) / reach) ** 2).sum(axis=-1))
            way = np.array(elbow) - np.array(shoulder)
            way /= np.linalg.norm(way)
            along = (p - np.array(centre)) @ way
            found += size * near * np.sin(1.75 * along + 0.5 * p[..., 0] + 0.9 * bumps(p, 7.0))
    return found


def _tailored(p: Floats, found: Floats, b: Build) -> Floats:
    """Collar, lapels, the front's edge and its buttons."""
    collar = ring(p, (0.0, 84.0, -1.6), (b.neck + 0.75, b.neck + 0.8), 0.7, 0.34)
    found = joined(0.9, found, np.maximum(collar, p[..., 2] - 1.9))
    x = p[..., 0]
    mirrored = p.copy()
    mirrored[..., 0] = np.abs(x)
    front = p[..., 2] > 0.0
    # A lapel: a slab a little thicker than the coat, from the throat to where the fronts meet and out to a point.
    y = p[..., 1]
    inside = _in_triangle(mirrored[..., 0], y, ((2.3, 85.0), (0.1, 71.5), (5.6, 78.6)))
    inside = np.clip(inside / 1.5, 0.0, 1.0)
    inside = inside * inside * (3.0 - 2.0 * inside)
    found = found - np.where(front, 0.34 * inside, 0.0)
    # One front lies over the other.
    over = front & (y < 72.0)
    found = found - np.where(
        over, 0.14 / (1.0 + np.exp(-(x + 1.0) / 0.25)) * np.clip((72.0 - y) / 2.0, 0.0, 1.0), 0.0
    )
    pocket = np.clip(1.0 - np.abs(y - 52.5) / 0.7, 0.0, 1.0) * np.clip(
        (2.6 - np.abs(mirrored[..., 0] - 6.0)) / 0.3, 0, 1
    )
    return np.asarray(found - np.where(front, 0.12 * pocket, 0.0))


def _in_triangle(x: Floats, y: Floats, corners: tuple[tuple[float, float], ...]) -> Floats:
    """How far inside a triangle places are; its corners run counter-clockwise or not alike."""
    found = np.full(x.shape, np.inf)
    (ax, ay), (bx, by) = np.subtract(corners[1], corners[0]), np.subtract(corners[2], corners[0])
    turn = ax * by - ay * bx
    for a, b in zip(corners, (*corners[1:], corners[0]), strict=True):
        way = np.subtract(b, a)
        found = np.minimum(found, np.sign(turn) * (way[0] * (y - a[1]) - way[1] * (x - a[0])) / np.hypot(*way))
    return found


def trousers(p: Floats, build: Build) -> Floats:
    k = build.limb

    def leg(q: Floats) -> Floats:
        thigh = round_cone(q, (4.9, 47.5, -0.4), 5.3 * k, (5.5, 28.0, 0.2), 3.9 * k)
        shin = round_cone(q, (5.5, 28.0, 0.2), 3.9 * k, (6.0, 5.2, -1.0), 3.1 * k)
        found = joined(2.0, thigh, shin)
        return np.maximum(found, 3.4 - q[..., 1])

    legs = both(leg)(p)
    seat = ellipsoid(p, (0.0, 48.5, -0.6), (build.hip + 0.1, 6.5, 6.6))
    fold = np.exp(-(((p[..., 1] - 27.0) / 3.5) ** 2)) + 0.9 * np.exp(-(((p[..., 1] - 6.5) / 2.6) ** 2))
    folds = 0.17 * fold * np.sin(1.5 * p[..., 1] + 0.6 * p[..., 0] + bumps(p, 8.0)) + 0.05 * bumps(p, 5.0)
    # The crease that was ironed in.
    return joined(1.5, legs, seat) - folds


def seated(p: Floats, build: Build, floor: float) -> Floats:
    """Thighs toward the lens, shins down to a floor `floor` above where a standing figure's would be."""
    k = build.limb

    def leg(q: Floats) -> Floats:
        thigh = round_cone(q, (4.9, 48.0, -1.0), 5.2 * k, (6.2, 46.5, 22.0), 4.1 * k)
        shin = round_cone(q, (6.2, 46.2, 22.0), 4.0 * k, (6.6, floor + 5.0, 20.5), 3.1 * k)
        found = joined(1.6, thigh, shin)
        return np.maximum(found, floor + 3.4 - q[..., 1])

    seat = ellipsoid(p, (0.0, 48.5, -0.8), (build.hip + 0.4, 6.0, 7.2))
    found = joined(1.6, both(leg)(p), seat)
    near = np.exp(-(((p[..., 2] - 19.0) / 5.0) ** 2))
    folds = 0.2 * near * np.sin(1.2 * (p[..., 2] - p[..., 1]) + bumps(p, 8.0)) + 0.06 * bumps(p, 5.0)
    return found - folds


def shoes(p: Floats, x: float, floor: float, forward: float) -> Floats:
    def shoe(q: Floats) -> Floats:
        q = q - np.array([x, floor, forward])
        # Toes point a little outward.
        q = np.stack([q[..., 0] - 0.14 * q[..., 2], q[..., 1], q[..., 2]], axis=-1)
        upper = joined(
            1.0,
            ellipsoid(q, (0.0, 1.5, 4.6), (2.35, 1.9, 4.2)),
            ellipsoid(q, (0.0, 1.9, -0.9), (1.9, 2.6, 2.9)),
            round_cone(q, (0.0, 3.6, -0.9), 1.9, (0.0, 1.6, 3.5), 1.7),
        )
        sole = box(q, (0.0, 0.45, 2.6), (2.3, 0.45, 6.3), 0.4)
        sole = np.maximum(sole, ellipsoid(q, (0.0, 0.4, 2.6), (2.5, 4.0, 6.4)))
        return np.maximum(joined(0.25, upper, sole), -q[..., 1])

    return both(shoe)(p)

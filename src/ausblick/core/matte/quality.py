"""What is wrong with a drawn key, region by region; one number is made of it by the fixed scale of core/damage.

Sharpening and blur can't win: soft edges and the composite are measured too.
"""

from __future__ import annotations

from dataclasses import asdict, dataclass, fields, replace

import cv2
import numpy as np

from ..colour.curves import rec709
from ..damage.scale import QualityPart, parts_of
from ..geometry.vectors import Bools, Floats, Floats32
from ..standards.quantities import Percent, Share, SquareCentimetres
from .pull import Pulled, figure_of
from .render import Drawn

DARK, BRIGHT = 0.01, 0.7


@dataclass(frozen=True)
class Measures:
    """Raw matte errors 0..1 (None where the region is not in the picture); motion and soft edge in cm2; the clip that
    the screen needs; residue and holes in %; composite error and screen colour left at the edge, in signal 0..1;
    `matte_loss`: mean of 1 - matte over the solid figure in %."""

    edge_error: Share | None
    hair_error: Share | None
    motion_error: Share | None
    soft_edge: SquareCentimetres | None
    needed_clip: Share | None
    composite_error: Share | None
    screen_left: Share | None
    residue_percent: Percent | None
    holes_percent: Percent | None
    matte_loss: Percent | None

    @property
    def parts(self) -> tuple[QualityPart, ...]:
        return parts_of(asdict(self))


def measured(drawn: Drawn, linear: Floats32, pulled: Pulled, channel: int, reach: float) -> Measures:
    """Measures of one window, of whom it looks at. `reach`: half width of the edge band in px."""
    alpha = drawn.alpha[: linear.shape[0], : linear.shape[1]]
    hair = drawn.hair[: linear.shape[0], : linear.shape[1]] > 0.5
    hand = drawn.hand[: linear.shape[0], : linear.shape[1]] > 0.0
    on_screen = drawn.screen[: linear.shape[0], : linear.shape[1]] > 0.5
    others = drawn.others[: linear.shape[0], : linear.shape[1]]
    alone = ~_grown(others > 0.02, reach) if others.any() else np.ones_like(hair)
    near_hair = _grown(hair, reach)
    near_hand = _grown(hand, reach)
    edge = _grown((alpha > 0.02) & (alpha < 0.98), reach) & on_screen & alone
    outline = edge & ~_inside(drawn.glass[: linear.shape[0], : linear.shape[1]] > 0.5, reach)
    body = outline & ~near_hair & ~near_hand
    # Above 1 the figure is only further from the screen's colour: no error.
    error = np.abs(np.clip(pulled.raw, -0.5, 1.0) - alpha)
    hair_band = near_hair & on_screen & alone & (alpha < 0.98)
    flat = pulled.flat & (alpha < 1e-6) & on_screen
    solid = cv2.erode(((alpha > 0.999) & (others < 0.5)).astype(np.uint8), np.ones((3, 3), np.uint8)).astype(bool)
    loss = 100.0 * float((1.0 - pulled.matte[solid]).mean()) if solid.any() else None
    matte_error = np.abs(pulled.matte - alpha)
    # The body that stands still beside the hand is no part of what moves: what is lost of it is a loss of matte.
    beside = (alpha > 0.999) & (drawn.hand[: linear.shape[0], : linear.shape[1]] < 0.01)
    soft = (pulled.matte > 0.05) & (pulled.matte < 0.95) & outline & ~near_hair
    return Measures(
        edge_error=_mean(error, body),
        hair_error=_mean(error, hair_band),
        motion_error=float(matte_error[near_hand & on_screen & ~beside].sum()) * drawn.cm2 if hand.any() else None,
        soft_edge=float(soft.sum()) * drawn.cm2 if edge.any() else None,
        needed_clip=pulled.needed_clip,
        composite_error=_composite(drawn, linear, pulled, channel, edge),
        screen_left=_left(linear, pulled, channel, edge),
        residue_percent=100.0 * float((pulled.matte[flat] > 0.02).mean()) if flat.any() else None,
        holes_percent=100.0 * float((pulled.matte[solid] < 0.95).mean()) if solid.any() else None,
        matte_loss=loss,
    )


def held_out(pulled: Pulled, drawn: Drawn) -> Pulled:
    """With the hold-outs that are drawn at the edit: whole inside of them, as the key is at their border."""
    height, width = pulled.matte.shape
    inside = (drawn.held[:height, :width] > 0.999).astype(np.float32)
    if not inside.any():
        return pulled
    return replace(pulled, raw=np.maximum(pulled.raw, inside), matte=np.maximum(pulled.matte, inside))


def _grown(mask: Bools, reach: float) -> Bools:
    size = 2 * max(1, round(reach)) + 1
    return cv2.dilate(mask.astype(np.uint8), np.ones((size, size), np.uint8)).astype(bool)


def _inside(mask: Bools, reach: float) -> Bools:
    """Of a mask what lies further than `reach` px from its border."""
    return ~_grown(~mask, reach)


def _mean(values: Floats, mask: Bools) -> float | None:
    return float(values[mask].mean()) if int(mask.sum()) > 30 else None


def _composite(drawn: Drawn, linear: Floats32, pulled: Pulled, channel: int, edge: Bools) -> float | None:
    """Mean error of the composite's signal at the edge, the worse of a dark and a bright ground."""
    if int(edge.sum()) < 30:
        return None
    shape = linear.shape[:2]
    truth = drawn.foreground[: shape[0], : shape[1]][edge]
    alpha = drawn.alpha[: shape[0], : shape[1]][edge][:, None]
    matte = pulled.matte[edge]
    figure = figure_of(linear[edge], matte, pulled.screen[edge], channel)
    found = []
    for level in (DARK, BRIGHT):
        made = rec709((figure + (1.0 - matte[:, None]) * level).astype(np.float64))
        wanted = rec709(truth + (1.0 - alpha) * level)
        found.append(float(np.abs(made - wanted).mean()))
    return max(found)


def _left(linear: Floats32, pulled: Pulled, channel: int, edge: Bools) -> float | None:
    """Key channel above the mean of the others that is left in the edge after despill, as signal."""
    if int(edge.sum()) < 30:
        return None
    figure = figure_of(linear[edge], pulled.matte[edge], pulled.screen[edge], channel)
    signal = rec709(figure.astype(np.float64))
    others = (signal.sum(axis=-1) - signal[:, channel]) / 2.0
    return float(np.clip(signal[:, channel] - others, 0.0, None).mean())


def joined(found: list[Measures]) -> Measures:
    """One set of measures from several windows: means, and the worst needed clip."""
    values = {}
    for field in fields(Measures):
        known = [v for m in found if (v := getattr(m, field.name)) is not None]
        worst = field.name in ("needed_clip",)
        values[field.name] = None if not known else float(max(known) if worst else np.mean(known))
    return Measures(**values)

"""From a measured frame to its cause: which story explains it best, how sure that is, and what cannot be told.

Certainties are marginal: how probable it is that this lamp (or the exposure, or the balance) is at fault, all stories
that say so taken together. How far they can be trusted is measured in `benchmarks/causes.py`.
"""

from __future__ import annotations

import math
from collections.abc import Callable
from dataclasses import dataclass, replace
from itertools import product
from typing import Literal

import numpy as np

from ..geometry.vectors import Bools, Floats
from ..light.basis import BasisStore
from ..plan import Change, Plan
from .cause_told import Told, told_as_planned, told_of, told_strange, told_unsure
from .light_model import LightModel, light_model_of
from .observed_light import ObservedLight
from .stated_certainty import second_certainty, stated_certainty
from .stories import CAREFUL_LAMP, MOST_COLOUR, MOST_LEVEL, MOST_PLACE, Culprit, Kind, Story, singles
from .story_fit import Fit, StoryFit

StoryName = Literal[
    "as-planned", "dimmer", "off", "moved", "colour", "white-balance", "exposure", "obstacle", "unknown"
]
NAMES: dict[Kind, StoryName] = {
    "as planned": "as-planned", "lens": "as-planned", "white balance": "white-balance", "stranger": "unknown",
    "exposure": "exposure", "dimmer": "dimmer", "off": "off", "moved": "moved", "colour": "colour",
    "obstacle": "obstacle",
}  # fmt: skip
LEAST_CELLS = 12
BEYOND_CARE = 3.0
"""Standard deviations of care beyond which a lamp's level is a fault, whatever else a story tells."""
SETTLED = 0.98
"""A single story that is this probable and leaves nothing over needs no second one."""
LEAVES_NOTHING, STRAINED = 0.6, 2.0
FIRST_LOOK, REFINED, BEST = 2, 8, 3
"""All stories are looked at in so many steps; so many of the best are followed to their end, and so many of these are
tried with every other one beside them."""
CLEAR_LEVEL, CLEAR_COLOUR, CLEAR_PLACE = 0.07, 14.0, 0.2
"""Differences below this (share, mired, m) are not worth a walk to the lamp."""
SHOWN = 8.0
SECOND = 0.5
"""A second thing is told where it is more likely than not."""
TEMPER, MOST_TEMPER = 3.0, 4.0
STRANGE, HOPELESS = 14.0, 60.0
"""Chi squared per datum beyond which no story holds: light or geometry that nobody planned; and beyond which a second
cause is not looked for."""
CANNOT_TELL = 0.2
"""A lamp whose level is known no better than this, all levels open, is not judged by the frame."""
AROUND, LEAST_AROUND = 0.6, 8
POOR, SETTLES, SPOILT, SPOILT_MOST = 0.9, 0.6, 0.03, 0.2
"""Where no story holds well (chi squared per datum), cells this far, ln, from the plane through their neighbours (m
round them) are left out, unless so many are, if that settles it."""


@dataclass(frozen=True)
class Also:
    """The second thing that is wrong."""

    story: StoryName
    lamp: str | None
    factor: float | None
    moved: tuple[float, float] | None
    mired: float | None
    certainty: float
    says: str
    cure: str


@dataclass(frozen=True)
class Cause:
    """`lamp`: its name; `factor`: light over planned, of the lamp or of all; `moved`: (x, z) in m; `mired`: warmer
    than planned; `certainty` 0..1; `changes` make the plan as built; `decide`: the frame that would tell more, or
    empty; `not_judged`: lamps that this frame cannot tell anything of; `misfit`: chi squared per datum of what is
    left."""

    story: StoryName
    lamp: str | None
    factor: float | None
    moved: tuple[float, float] | None
    mired: float | None
    certainty: float
    says: str
    cure: str
    also: Also | None
    not_judged: tuple[str, ...]
    decide: str
    changes: tuple[Change, ...]
    misfit: float


def cause_of_light(plan: Plan, observed: ObservedLight, store: BasisStore, least: int = LEAST_CELLS) -> Cause | None:
    """None where the plan has no lamp on, or fewer than `least` places of the screen are observed."""
    if observed.cells < least or not any(lamp.on and lamp.dimmer > 0.0 for lamp in plan.lights):
        return None
    model = light_model_of(plan, observed, store)
    rough = _rough(model)
    seen = _as_noisy(model.observed, rough)
    fit = StoryFit(replace(model, observed=seen))
    found = _fits(fit)
    spoilt = _spoilt(rough) if POOR < found[0].misfit < HOPELESS else np.zeros(0, dtype=bool)
    if spoilt.any():
        without = StoryFit(light_model_of(plan, seen.picked(~spoilt), store))
        again = _fits(without)
        # What is smooth all round a few cells was spoilt by them; what stands in a beam reaches further.
        if again[0].misfit < SETTLES * found[0].misfit:
            fit, found = without, again
    return _explained(fit, found)


def _sorted(found: list[Fit]) -> list[Fit]:
    return sorted((one for one in found if not one.story or not _at_its_end(one)), key=lambda one: -one.log_odds)


def _fits(fit: StoryFit) -> list[Fit]:
    """Single stories, and pairs of the best of them where none settles it; the most probable first."""
    quick = _sorted([fit.of(story, steps=FIRST_LOOK) for story in singles(fit.lamps)])
    found = _sorted([*(fit.of(one.story, near=one) for one in quick[:REFINED]), *quick[REFINED:]])
    share = _shares(found)
    if found[0].misfit > HOPELESS:
        return found
    settled = found[0].misfit < LEAVES_NOTHING and found[0].strain < STRAINED and share[0] > SETTLED
    if settled and any(part.kind != "lens" for part in found[0].story):
        return found
    parts = [one for one in found if one.story]
    known = [one for one in parts if one.story[0].kind != "stranger"]
    # What a lens does at the corners lies over whatever a lamp does, and may hide it.
    best = [one for i, one in enumerate(known) if i < BEST or (one.story[0].kind == "lens" and _helps(one, found))]
    pairs = [(one, part) for one, part in product(best, parts) if _together(one.story[0], part.story[0])]
    tried = _sorted([_paired(fit, one, part) for one, part in pairs])
    refined = [fit.of(one.story, near=one) for one in tried[:4]]
    return _sorted([*found, *refined])


def _paired(fit: StoryFit, one: Fit, part: Fit) -> Fit:
    """A look at two stories together; beside a lens it begins from what the other one found alone as well."""
    lens = one.story[0].kind == "lens"
    return fit.of((*one.story, *part.story), steps=1, near=one, beside=part if lens else None)


def _helps(one: Fit, found: list[Fit]) -> bool:
    """Does a story say more of the frame than that all is as planned?"""
    return one.log_odds > max(other.log_odds for other in found if not other.story)


def _together(first: Culprit, second: Culprit) -> bool:
    if first.lamp is None or first.lamp != second.lamp:
        return first != second and "stranger" not in (first.kind, second.kind)
    return {first.kind, second.kind} in ({"moved", "dimmer"}, {"colour", "dimmer"}, {"moved", "colour"})


def _at_its_end(one: Fit) -> bool:
    """A search that ended at the edge of what it may reach found nothing."""
    by = one.by
    return bool(
        np.abs(by.place).max(initial=0.0) > 0.98 * MOST_PLACE
        or np.abs(by.mired).max(initial=0.0) > 0.98 * MOST_COLOUR
        or by.level.max(initial=0.0) > 0.98 * MOST_LEVEL
    )


def _shares(found: list[Fit]) -> Floats:
    """How probable each is; evidences are tempered, the more where even the best leaves more than the errors allow:
    what the model does not know of a set is not as independent as its errors are taken to be."""
    temper = TEMPER * float(np.clip(found[0].misfit, 1.0, MOST_TEMPER))
    evidence = np.array([one.log_odds - one.log_prior for one in found])
    odds = np.exp((evidence - evidence.max()) / temper + np.array([one.log_prior for one in found]))
    return np.asarray(odds / odds.sum())


def _rough(model: LightModel) -> Floats:
    """How far each cell lies (1 or 3, N), ln, from what its neighbours say of it: what lamps do differs from the plan
    smoothly, so that a plane through the neighbours tells it; noise, creases, spots and marks do not."""
    off = (model.data(model.observed.rgb) - model.predicted(model.as_planned)).reshape(-1, model.count).T
    places = model.observed.places
    found = np.zeros((len(places), off.shape[1]))
    off = off[: len(places)]
    for i, at in enumerate(places):
        away = np.linalg.norm(places - at, axis=1)
        (near,) = np.nonzero((away > 0.0) & (away < AROUND))
        if len(near) >= LEAST_AROUND:
            plane = np.column_stack([np.ones(len(near)), places[near] - at])
            found[i] = off[i] - np.linalg.lstsq(plane, off[near], rcond=None)[0][0]
    return found.T


def _as_noisy(observed: ObservedLight, rough: Floats) -> ObservedLight:
    """With errors no smaller than a frame's own roughness says: a codec's are larger than a good camera's."""
    spread = 1.4826 * np.median(np.abs(rough), axis=1)
    chroma = max(observed.chroma, float(spread[1:].max(initial=0.0)))
    return replace(observed, noise=max(observed.noise, float(spread[0])), chroma=chroma)


def _spoilt(rough: Floats) -> Bools:
    """Cells (N,) that a crease, a spot, a mark or a strand of hair stands in. None where there are many of them."""
    found: Bools = np.any(np.abs(rough) > SPOILT, axis=0)
    return found if found.mean() < SPOILT_MOST else np.zeros(len(found), dtype=bool)


def _explained(fit: StoryFit, found: list[Fit]) -> Cause:
    model, best, share = fit.model, found[0], _shares(found)
    dim = {int(i) for i in np.flatnonzero(fit.level_errors() > CANNOT_TELL)}
    plain = max(one.log_odds - one.log_prior for one in found if not one.story)
    clear = [
        (
            *(part for part in one.story if _clear(one, part) and (part.lamp not in dim or _shown(one, plain))),
            *(part for part in implied(one) if part.lamp not in dim),
        )
        for one in found
    ]

    def probable(says: Callable[[Story], bool]) -> float:
        return float(sum(p for p, story in zip(share, clear, strict=True) if says(story)))

    def marginal(part: Culprit) -> float:
        if part.lamp is None:
            return probable(lambda story: part in story)
        return probable(lambda story: any(p.lamp == part.lamp for p in story))

    # What takes light in a beam is told after what is certain of a lamp itself.
    parts = sorted(clear[0], key=lambda part: (-round(marginal(part), 2), part.kind in ("obstacle", "stranger")))
    planned = probable(lambda story: not story)
    if parts and planned > marginal(parts[0]):
        parts = []
    told_of_lamps = {part.lamp for part in parts}
    cannot = [model.lamp_list[i].name for i in sorted(dim) if i not in told_of_lamps]
    if best.misfit > STRANGE:
        return _cause("unknown", told_strange(model, best), 0.0, None, cannot, "", best)
    if not parts:
        lens = any(part.kind == "lens" for part in best.story)
        certainty = stated_certainty("as-planned", planned, lens)
        return _cause("as-planned", told_as_planned(best, certainty), certainty, None, cannot, "", best)
    first = parts[0]
    saying = told_of(model, _teller(found, first), first)
    certainty = stated_certainty(_name(first, saying), marginal(first))
    rival = _rival(model, found, share, first)
    second = marginal(parts[1]) if len(parts) > 1 else 0.0
    also = _also(model, _teller(found, parts[1]), parts[1], second) if second > SECOND else None
    told, decide = told_unsure(saying, first, certainty, rival)
    return _cause(_name(first, told), told, certainty, also, cannot, decide, best)


def _name(part: Culprit, told: Told) -> StoryName:
    """A dimmer that leaves nothing is a lamp that is off."""
    return "off" if told.factor == 0.0 else NAMES[part.kind]


def _shown(one: Fit, plain: float) -> bool:
    """Of a lamp that a frame hardly judges only what it shows beyond doubt is told."""
    return one.log_odds - one.log_prior - plain > SHOWN


def implied(one: Fit) -> tuple[Culprit, ...]:
    """Lamps that a story has far weaker or brighter than care allows though it blames another thing."""
    blamed = {part.lamp for part in one.story}
    off = np.abs(one.by.level - 1.0)
    far = (off > BEYOND_CARE * CAREFUL_LAMP[0]) & (off > CLEAR_LEVEL)
    return tuple(Culprit("dimmer", int(i)) for i in np.flatnonzero(far) if int(i) not in blamed)


def _teller(found: list[Fit], part: Culprit) -> Fit:
    """The most probable story that says so in as many words."""
    return next((one for one in found if part in one.story), found[0])


def _clear(one: Fit, part: Culprit) -> bool:
    """Is it worth a walk to the lamp?"""
    by, i = one.by, part.lamp
    if part.kind == "lens":
        # A lens that darkens its corners is as it is: a term of the fit, and nobody's fault.
        return False
    if part.kind == "exposure":
        return abs(float(by.camera[0])) > CLEAR_LEVEL
    if part.kind == "white balance":
        return abs(float(by.camera[1])) > CLEAR_COLOUR
    if part.kind == "obstacle":
        return one.field is not None and -float(one.field.min()) > CLEAR_LEVEL
    if i is None or part.kind == "off":
        return True
    if part.kind == "dimmer":
        return abs(float(by.level[i]) - 1.0) > CLEAR_LEVEL
    if part.kind == "colour":
        return abs(float(by.mired[i])) > CLEAR_COLOUR
    return float(np.linalg.norm(by.place[i])) > CLEAR_PLACE


def _rival(model: LightModel, found: list[Fit], share: Floats, first: Culprit) -> str | None:
    """The other lamp that is most likely at fault instead."""
    odds = np.zeros(len(model.lamps))
    for p, one in zip(share, found, strict=True):
        if not any(part == first or (part.lamp is not None and part.lamp == first.lamp) for part in one.story):
            for part in one.story:
                if part.lamp is not None:
                    odds[part.lamp] += p
    return model.lamp_list[int(odds.argmax())].name if len(odds) and odds.max() > 0.05 else None


def _also(model: LightModel, best: Fit, part: Culprit, certainty: float) -> Also:
    t = told_of(model, best, part)
    name = _name(part, t)
    return Also(name, t.lamp, t.factor, t.moved, t.mired, second_certainty(name, certainty), t.says, t.cure)


def _cause(
    story: StoryName, told: Told, certainty: float, also: Also | None, cannot: list[str], decide: str, best: Fit
) -> Cause:
    if cannot and not decide:
        decide = f"To judge {' and '.join(cannot)}: a frame with the other lamps off"
    return Cause(
        story, told.lamp, told.factor, told.moved, told.mired, min(1.0, max(0.0, certainty)), told.says, told.cure,
        also, tuple(cannot), decide, told.changes, best.misfit if math.isfinite(best.misfit) else 0.0,
    )  # fmt: skip

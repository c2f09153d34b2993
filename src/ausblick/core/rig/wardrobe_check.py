"""The check of wardrobe and props before the day: what is the matter, what to do, what to test."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace

import numpy as np

from ..camera.level_schools import key_channel
from ..plan import Plan, Subject, of_person, people_of
from .screen_colour import SOLID, is_fair, matte_of, surfaces

SHINY = 0.15


@dataclass(frozen=True)
class Check:
    """One thing that wants attention before the day."""

    thing: str
    matter: str
    do: str
    test: str


KINDS: dict[str, tuple[str, str, str]] = {
    "glass": ("lets the screen through, and mirrors it at its rim",
              "limit turns of the head for glasses; film glass once before the screen and once before grey",
              "a key of the thing itself, moved as in the take"),
    "metal": ("mirrors the screen, however far away that is",
              "move the screen out of the mirror angle, dull it with spray, or hang grey cloth where it looks",
              "turn it slowly before the screen and watch the key channel"),
    "liquid": ("lets the screen through and throws it about",
               "film it apart, lit from behind, and lay it over; keep liquids off mains and cable joints",
               "a pour before the screen at the shutter of the take"),
    "smoke": ("is half screen everywhere: no key gives it back whole",
              "film it before black and add it; keep fog off hot lamps, and air the room",
              "a puff before the screen, keyed, against the same before black"),
}  # fmt: skip


def checks(plan: Plan) -> list[Check]:
    """What has to be looked at, hue conflicts first."""
    people = people_of(plan)
    if not people:
        return []
    return [*hue_checks(plan), *(check for person in people for check in _of_person(person))]


def _of_person(person: Subject) -> Iterator[Check]:
    """What is a companion's says so."""
    found = (
        *_hair(person),
        *_shiny(person),
        *(Check(prop.name, *KINDS[prop.kind]) for prop in person.props if prop.kind in KINDS),
    )
    yield from (replace(check, thing=of_person(person, check.thing)) for check in found)


def hue_checks(plan: Plan) -> list[Check]:
    """What shares the screen's colour; needs a figure."""
    screen = np.array(plan.screen.reflectance)
    channel = key_channel(plan.screen.hue, screen)
    found = []
    for name, rgb in surfaces(plan).items():
        matte = matte_of(rgb, screen, channel)
        if matte < SOLID:
            found.append(
                Check(
                    name,
                    f"shares the {plan.screen.hue} screen's colour: keys at {100 * matte:.0f} % of solid",
                    "change it, or the screen's colour; if it must stay, draw a hold-out round it, and keep it off "
                    "the outline of the figure",
                    "a key with it worn; edges of near-hue cloth flicker only in playback",
                )
            )
    return found


def _hair(person: Subject) -> list[Check]:
    kind, fair = person.hair_kind, is_fair(person)
    if not fair and kind not in ("fine", "curly"):
        return []
    word = " and ".join(w for w, on in (("fair", fair), (kind, kind in ("fine", "curly"))) if on)
    return [
        Check(
            "hair",
            f"{word}: single hairs mix with the screen",
            "tie back what may be tied, a back light on the rest, a darker screen behind fair hair",
            "a key of the person's own hair, at the exposure of the take",
        )
    ]


def _shiny(person: Subject) -> list[Check]:
    return [
        Check(
            garment.name,
            "shines: it shows the screen as a reflection",
            "dull it with powder or spray, turn it, or take the floor piece away from under it",
            "walk through the action and watch its edges in the key channel",
        )
        for garment in person.seen_wardrobe
        if garment.gloss > SHINY
    ]

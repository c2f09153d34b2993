"""The Fern House's visitor film: two days, eight shots, three people, three outfits, one of them green."""

from __future__ import annotations

from ausblick.core.production.production_document import Production, production_from

VAULT, SCREE, DANCER, SHED, JAR, GARDENERS, WELCOME = range(1, 8)
"""Numbers of the demo's set-ups, in the order in which they are made."""


def visitor_film() -> Production:
    return production_from(
        {
            "format": "ausblick-production",
            "version": 1,
            "title": "Visitor film",
            "place": "The packing hall of the Fern House",
            "days": [
                {"date": "2027-03-16", "call": "08:00", "end": "16:00",
                 "breaks": [{"at": "12:30", "minutes": 45, "name": "Lunch in the fern court"}]},
                {"date": "2027-03-17", "call": "09:00", "end": "17:30",
                 "breaks": [{"at": "13:00", "minutes": 45, "name": "Lunch"}]},
            ],
            "people": [
                {"id": "head", "name": "The head gardener", "role": "tells the story", "from": "09:00",
                 "to": "17:30"},
                {"id": "keeper", "name": "The seed keeper", "role": "opens the vault",
                 "height": 1.81, "hair_kind": "none"},
                {"id": "dancer", "name": "The fern dancer", "role": "dances", "minor": True, "from": "10:00",
                 "to": "15:00", "height": 1.46, "body": "child", "hair_kind": "fine", "hair": [0.2, 0.12, 0.06]},
            ],
            "outfits": [
                {"id": "apron", "person": "head", "name": "Brown apron", "garments": [
                    {"name": "linen shirt", "reflectance": [0.6, 0.57, 0.56]},
                    {"name": "brown apron", "reflectance": [0.16, 0.1, 0.06]}]},
                {"id": "moss", "person": "head", "name": "Moss jacket", "garments": [
                    {"name": "moss jacket", "reflectance": [0.09, 0.2, 0.06]}]},
                {"id": "coat", "person": "keeper", "name": "Store coat", "minutes": 5, "garments": [
                    {"name": "grey coat", "reflectance": [0.4, 0.4, 0.42]}]},
            ],
            "sound": [{"id": "pin", "name": "Worn at the collar", "way": "worn", "track": 1}],
            "plates": [
                {"id": "shelves", "name": "Drawers of the vault, still", "plate": {
                    "mean_level": 18.0, "key_azimuth": -60.0, "key_elevation": 20.0, "softness": "hard",
                    "cct": 4300.0, "camera_height": 1.5, "tilt": 0.0, "focal_mm_ff": 50.0}}],
            "shots": [
                {"id": "v1", "title": "Seed vault: the door", "setup": VAULT, "person": "keeper", "outfit": "coat",
                 "minutes": 40, "variants": ["door opens", "door stays shut"]},
                {"id": "s1", "title": "Scree at noon", "setup": SCREE, "person": "head", "outfit": "moss",
                 "minutes": 45, "needs": ["feet"]},
                {"id": "v2", "title": "Seed vault: the drawer", "setup": VAULT, "person": "keeper", "outfit": "coat",
                 "minutes": 30, "priority": "should", "plate": "shelves"},
                {"id": "g1", "title": "Portraits of the gardeners", "setup": GARDENERS, "person": "head",
                 "outfit": "apron", "minutes": 40, "priority": "if-time"},
                {"id": "d1", "title": "Fern dancer", "setup": DANCER, "person": "dancer", "minutes": 60, "day": 1,
                 "needs": ["feet", "moving-camera"]},
                {"id": "p1", "title": "Potting-shed window", "setup": SHED, "person": "head", "outfit": "apron",
                 "minutes": 45, "day": 1, "dirty": True},
                {"id": "j1", "title": "Seed jar", "setup": JAR, "minutes": 50, "day": 1, "needs": ["smoke"]},
                {"id": "w1", "title": "Welcome", "setup": WELCOME, "person": "head", "outfit": "apron", "minutes": 35,
                 "day": 1, "variants": ["long", "short", "with names"], "needs": ["sound"],
                 "script": "Welcome to the Fern House. Please keep to the paths; the ferns were here first."},
            ],
        }
    )  # fmt: skip

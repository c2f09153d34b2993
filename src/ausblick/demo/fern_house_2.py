"""Four more shots of the Fern House, each with faults that light, shadow and spill make."""

from __future__ import annotations

from typing import Any

from ausblick.core.plan import Plan, plan_from

from .fern_house import HALL, panel

PAPER: dict[str, Any] = {"format": "ausblick-plan", "version": 1, "room": HALL}


def fern_dancer() -> Plan:
    """Green costume, so blue screen; fast. Faults: the screen hangs beside the whitewashed left wall, which
    sends its blue back; a shutter far too slow for a dancer; the blue floor reaches in front of the feet."""
    return plan_from({
        **PAPER,
        "title": "Fern dancer",
        "screen": {"hue": "blue", "reflectance": [0.05, 0.10, 0.40], "material": "foam-backed", "x_centre": -1.5,
                   "width": 4.2, "height": 3.2, "floor_run": 3.9, "wrinkle_slope": 0.012},
        "subject": {"x": -2.2, "z": 3.0, "height": 1.70, "body": "woman", "framing": "full", "speed": 4.0,
                    "feet_seen": True,
                    "envelope": {"left": 0.7, "right": 0.9, "up": 0.4, "front": 0.5, "back": 0.5},
                    "wardrobe": [{"name": "fern costume", "reflectance": [0.10, 0.28, 0.08]}]},
        "camera": {"x": -2.0, "y": 1.5, "z": 8.4, "pan": -2.0, "tilt": -6.0, "roll": 90, "focal_mm": 50,
                   "f_number": 3.2, "shutter_s": 0.02, "iso": 400, "fps": 25},
        "lights": [
            panel("left panel", "screen", [-3.35, 1.2, 2.8], [-0.8, 1.1, 0.0], 1.0, 24000.0, 0.9),
            panel("right panel", "screen", [0.6, 1.1, 2.8], [-2.2, 1.1, 0.0], 1.0, 24000.0, 1.2),
            panel("grove key", "key", [-1.0, 2.7, 5.0], [-2.2, 1.4, 3.0], 0.28, 20000.0, 0.9, 5600.0, "B"),
            panel("back light", "back", [-1.4, 2.8, 1.6], [-2.2, 1.5, 3.0], 0.85, 4000.0, 0.3, 5600.0, "B"),
        ],
        "plate": {"mean_level": 40, "key_azimuth": 30, "key_elevation": 32, "softness": "medium", "tilt": -6,
                  "focal_mm_ff": 76},
        "targets": {"level_school": "below-face", "shutter_school": "90", "distance_school": "2m-plus"},
    })  # fmt: skip


def potting_shed() -> Plan:
    """The screen stands outside a window of the set. Faults: the fill is mirrored in the pane, daylight comes
    through the cloth, and a tungsten lamp from the loft stands among daylight panels."""
    return plan_from({
        **PAPER,
        "title": "Potting-shed window",
        "screen": {"hue": "green", "material": "framed", "width": 3.0, "height": 2.6, "wrinkle_slope": 0.01,
                   "behind_lux": 900},
        "window": {"x": 0.3, "y": 1.6, "z": 1.2, "width": 1.2, "height": 1.3},
        "subject": {"x": -0.2, "z": 2.4, "height": 1.72, "framing": "chest", "speed": 0.5,
                    "envelope": {"left": 0.35, "right": 0.45, "up": 0.15, "front": 0.3, "back": 0.2}},
        "camera": {"x": 0.0, "y": 1.5, "z": 6.2, "focal_mm": 50, "f_number": 5.6, "shutter_s": 0.02, "iso": 400,
                   "fps": 25},
        "lights": [
            panel("left panel", "screen", [-1.6, 1.4, 0.85], [0.7, 1.4, 0.0], 0.55, 12000.0, 0.6),
            panel("right panel", "screen", [1.8, 1.4, 0.85], [-0.5, 1.4, 0.0], 0.55, 12000.0, 0.6),
            panel("window key", "key", [1.9, 2.3, 3.6], [-0.2, 1.5, 2.4], 0.6, 20000.0, 1.2, 5600.0, "B"),
            panel("shed fill", "fill", [0.75, 1.7, 4.9], [-0.2, 1.5, 2.4], 0.25, 12000.0, 0.9, 5600.0, "B"),
            {"name": "loft lamp", "role": "other", "position": [-1.0, 2.3, 0.75], "aim": [-0.9, 1.2, 0.0],
             "dimmer": 0.6, "circuit": "A",
             "fixture": {"emitter": {"shape": "disc", "diameter": 0.2}, "flux_lm": 9000,
                         "beam": {"kind": "beam", "deg": 60}, "cct": 3200, "cri": 99, "watts": 650}},
        ],
        "plate": {"mean_level": 60, "key_azimuth": 60, "key_elevation": 22, "softness": "soft", "focal_mm_ff": 76},
        "targets": {"level_school": "follow-plate", "shutter_school": "180", "distance_school": "1.2-2m"},
    })  # fmt: skip


def seed_jar() -> Plan:
    """Hands, glass and horn. Faults: a shiny vinyl screen, far larger than the jar needs and mirrored in it, lit
    from too near."""
    return plan_from({
        **PAPER,
        "title": "Seed jar",
        "screen": {"hue": "green", "material": "vinyl", "width": 3.0, "height": 2.4, "gloss": 0.12,
                   "wrinkle_slope": 0.05, "wing_right": 1.5},
        "subject": {"x": 0.0, "z": 1.3, "height": 1.72, "framing": "hands", "speed": 0.4,
                    "envelope": {"left": 0.35, "right": 0.35, "up": 0.1, "front": 0.25, "back": 0.2},
                    "props": [{"name": "seed jar", "kind": "glass"},
                              {"name": "horn scoop", "kind": "matt", "shape": "scoop",
                               "reflectance": [0.3, 0.24, 0.16]}]},
        "camera": {"x": 0.0, "y": 1.2, "z": 3.9, "tilt": -4.0, "focal_mm": 50, "f_number": 5.6, "shutter_s": 0.02,
                   "iso": 400, "fps": 25},
        "lights": [
            panel("left tube", "screen", [-1.1, 1.0, 0.55], [0.3, 1.0, 0.0], 0.4, 3600.0, 0.6),
            panel("right tube", "screen", [1.1, 1.0, 0.55], [-0.3, 1.0, 0.0], 0.4, 3600.0, 0.6),
            panel("bench key", "key", [-1.3, 2.2, 2.6], [0.0, 1.1, 1.3], 0.35, 20000.0, 0.6, 5600.0, "B"),
            panel("bench fill", "fill", [1.4, 1.8, 3.4], [0.0, 1.1, 1.3], 0.2, 12000.0, 0.9, 5600.0, "B"),
        ],
        "plate": {"mean_level": 35, "key_azimuth": -45, "key_elevation": 38, "softness": "soft", "tilt": -4,
                  "camera_height": 1.2, "focal_mm_ff": 76},
        "targets": {"level_school": "below-face", "shutter_school": "180", "distance_school": "1.2-2m"},
    })  # fmt: skip


def gardeners() -> Plan:
    """Portraits, stills with a flash warmed to the floods. Faults: the mark so near that the key throws a shadow
    on the screen, two hot lamps on one circuit, one of them against the cloth."""
    hot = {"emitter": {"shape": "disc", "diameter": 0.25}, "flux_lm": 42000, "beam": {"kind": "beam", "deg": 70},
           "cct": 3200, "cri": 99, "watts": 2000}  # fmt: skip
    flash = {"emitter": {"shape": "disc", "diameter": 0.2}, "flash_lms": 2600, "cct": 5600, "watts": 150,
             "recycle_s": 2.0}  # fmt: skip
    return plan_from({
        **PAPER,
        "title": "Portraits of the gardeners",
        "medium": "stills",
        "screen": {"hue": "green", "material": "paper", "width": 2.7, "height": 2.6, "wrinkle_slope": 0.01},
        "subject": {"x": 0.0, "z": 0.9, "height": 1.75, "framing": "chest", "speed": 0.2,
                    "envelope": {"left": 0.35, "right": 0.35, "up": 0.15, "front": 0.2, "back": 0.2}},
        "camera": {"x": 0.0, "y": 1.55, "z": 4.2, "focal_mm": 50, "f_number": 8.0, "shutter_s": 0.01, "iso": 400,
                   "fps": 25, "white_balance_k": 3200},
        "lights": [
            {"name": "left flood", "role": "screen", "position": [-2.0, 1.5, 1.4], "aim": [0.4, 1.5, 0.0],
             "dimmer": 0.5, "circuit": "A", "fixture": hot},
            {"name": "right flood", "role": "screen", "position": [1.5, 1.5, 0.8], "aim": [-0.4, 1.5, 0.0],
             "dimmer": 0.35, "circuit": "A", "fixture": hot},
            {"name": "portrait key", "role": "key", "position": [-1.2, 2.2, 2.6], "aim": [0.0, 1.55, 0.9],
             "dimmer": 0.5, "circuit": "B", "gel": [1.0, 0.602, 0.248], "fixture": flash,
             "modifier": {"kind": "softbox", "width": 0.9, "height": 0.6}},
        ],
        "plate": {"mean_level": 50, "key_azimuth": -38, "key_elevation": 20, "softness": "medium", "cct": 3200,
                  "camera_height": 1.55, "focal_mm_ff": 76},
        "targets": {"level_school": "below-face", "distance_school": "1.2-2m"},
    })  # fmt: skip


def welcome() -> Plan:
    """The welcome at the door: nothing is wrong with it, to see what that looks like."""
    return plan_from({
        **PAPER,
        "title": "Fern House welcome",
        "screen": {"hue": "green", "material": "paint", "width": 4.2, "height": 3.2, "wrinkle_slope": 0.0,
                   "gloss": 0.01, "transmittance": 0.0},
        "subject": {"x": 0.0, "z": 3.0, "height": 1.70, "body": "woman", "framing": "waist", "speed": 0.2,
                    "hair": [0.10, 0.07, 0.05],
                    "envelope": {"left": 0.45, "right": 0.45, "up": 0.15, "front": 0.25, "back": 0.2},
                    "wardrobe": [{"name": "plum jacket", "reflectance": [0.18, 0.06, 0.12]}]},
        "camera": {"x": 0.0, "y": 1.55, "z": 7.0, "focal_mm": 50, "f_number": 2.8, "shutter_s": 0.02, "iso": 400,
                   "fps": 25, "sensor": {"px_w": 3840, "px_h": 2160},
                   "recording": {"codec": "raw", "chroma": "raw", "bits": 12, "mbit_s": 900}},
        "lights": [
            panel("left panel", "screen", [-2.9, 1.6, 2.6], [0.9, 1.6, 0.0], 0.42, 14000.0, 0.75),
            panel("right panel", "screen", [2.9, 1.6, 2.6], [-0.9, 1.6, 0.0], 0.42, 14000.0, 0.75),
            {**panel("welcome key", "key", [-1.5, 2.3, 5.2], [0.0, 1.55, 3.0], 0.9, 9000.0, 0.9, 5600.0, "B"),
             "modifier": {"kind": "grid", "deg": 50}},
            panel("hair light", "back", [1.4, 2.9, 1.6], [0.0, 1.6, 3.0], 0.3, 4000.0, 0.3, 5600.0, "B"),
        ],
        "plate": {"mean_level": 45, "key_azimuth": -34, "key_elevation": 17, "softness": "soft",
                  "camera_height": 1.55, "tilt": 0.0, "focal_mm_ff": 76.6},
        "targets": {"level_school": "below-face", "shutter_school": "180", "distance_school": "2m-plus"},
    })  # fmt: skip


def two_gardeners() -> Plan:
    """Two at the potting bench. Faults: the key stands so flat that he keeps it off her face, and her jacket is the
    colour of moss."""
    return plan_from({
        **PAPER,
        "title": "Two gardeners",
        "screen": {"hue": "green", "material": "paint", "width": 4.8, "height": 3.2, "wrinkle_slope": 0.0,
                   "gloss": 0.01, "transmittance": 0.0},
        "subject": {"x": -0.42, "z": 3.0, "height": 1.82, "body": "man", "framing": "waist", "speed": 0.2,
                    "hair": [0.10, 0.07, 0.05],
                    "envelope": {"left": 0.4, "right": 0.35, "up": 0.15, "front": 0.2, "back": 0.2},
                    "wardrobe": [{"name": "brown apron", "reflectance": [0.16, 0.1, 0.06]}]},
        "companions": [
            {"id": "apprentice", "name": "apprentice", "x": 0.42, "z": 2.85, "height": 1.66, "body": "woman",
             "hair_kind": "curly", "hair": [0.2, 0.12, 0.06],
             "wardrobe": [{"name": "moss jacket", "reflectance": [0.09, 0.2, 0.06]}]},
        ],
        "camera": {"x": 0.0, "y": 1.5, "z": 7.6, "focal_mm": 42, "f_number": 4.0, "shutter_s": 0.02, "iso": 800,
                   "fps": 25, "sensor": {"px_w": 3840, "px_h": 2160},
                   "recording": {"codec": "raw", "chroma": "raw", "bits": 12, "mbit_s": 900}},
        "lights": [
            panel("left panel", "screen", [-3.1, 1.6, 2.3], [1.0, 1.6, 0.0], 0.5, 14000.0, 0.75),
            panel("right panel", "screen", [3.1, 1.6, 2.3], [-1.0, 1.6, 0.0], 0.5, 14000.0, 0.75),
            panel("bench key", "key", [-3.0, 1.75, 4.0], [0.0, 1.55, 3.0], 0.8, 9000.0, 0.6, 5600.0, "B"),
            panel("bench fill", "fill", [2.2, 1.9, 5.6], [0.0, 1.5, 2.9], 0.25, 9000.0, 0.6, 5600.0, "B"),
        ],
        "plate": {"mean_level": 45, "key_azimuth": -60, "key_elevation": 12, "softness": "soft",
                  "camera_height": 1.5, "tilt": 0.0, "focal_mm_ff": 64},
        "targets": {"level_school": "below-face", "shutter_school": "180", "distance_school": "2m-plus"},
    })  # fmt: skip

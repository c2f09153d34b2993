"""Every number can be asked why: its formula in words, what went into it, and whose formula it is."""

from __future__ import annotations

from .explain_light import light_numbers, subject_numbers
from .explain_recording import recording_numbers
from .explaining import Input, Number
from .optics.figure import figure_height_px
from .optics.focus import SHARP_PX
from .optics.view import pixel_pitch_mm
from .results import Evaluation
from .signal.exposure import INCIDENT_C


def numbers(evaluation: Evaluation) -> list[Number]:
    """The readings of a plan, in the order of the work."""
    return [
        *_space(evaluation),
        *_screen(evaluation),
        *_light(evaluation),
        *light_numbers(evaluation),
        *_subject(evaluation),
        *subject_numbers(evaluation),
        *_camera(evaluation),
        *recording_numbers(evaluation),
    ]


def _space(e: Evaluation) -> list[Number]:
    camera, subject = e.plan.camera, e.plan.subject
    if subject is None:
        return []
    sensor = camera.sensor
    upright = round(camera.roll / 90.0) % 2 == 0
    return [
        Number(
            "figure-px",
            "space",
            "Figure in the picture",
            figure_height_px(e.plan, e.view),
            "px",
            0,
            "height of the framed part on the sensor, cut at the picture's edge; with the camera turned the other "
            "way the same filling of the picture gives this times the sides' ratio",
            "Ray and plane",
            (
                Input(
                    "turned the other way, times",
                    sensor.px_w / sensor.px_h if upright else sensor.px_h / sensor.px_w,
                    "",
                ),
            ),
        ),
        Number(
            "gap",
            "space",
            "Mark to screen",
            subject.z,
            "m",
            2,
            "z of the mark; the screen lies in z = 0",
            "Geometry of the set",
            (),
        ),
        Number(
            "distance",
            "space",
            "Camera to mark",
            e.focus.distance_m if e.focus else None,
            "m",
            2,
            "from the lens to the eyes, along the optical axis",
            "Geometry of the set",
            (Input("camera z", camera.z, "m"), Input("mark z", subject.z, "m")),
        ),
    ]


def _screen(e: Evaluation) -> list[Number]:
    needed = e.coverage.needed
    size = (
        ()
        if needed is None
        else (
            Input("needed width", needed[2] - needed[0], "m"),
            Input("needed height", needed[3] - needed[1], "m"),
            Input("screen width", e.plan.screen.width, "m"),
            Input("screen height", e.plan.screen.height, "m"),
        )
    )
    return [
        Number(
            "margin",
            "screen",
            "Screen to spare",
            e.coverage.margin_m,
            "m",
            2,
            "the reach of the action, cut by the frame, followed along rays from the lens to the screen; "
            "the smallest distance to the screen's edge there",
            "Ray and plane",
            size,
        ),
    ]


def _light(e: Evaluation) -> list[Number]:
    screen = e.screen
    lux = Input("mean light on it", screen.lux_mean if screen else 0.0, "lx")
    grey = Input("light for grey", e.exposure.grey_lux, "lx")
    red, green, blue = e.plan.screen.reflectance
    level = "reflectance × lux / lux for grey, channel by channel, through the camera's curve"
    of = (
        lux,
        grey,
        Input("reflectance R", red, ""),
        Input("reflectance G", green, ""),
        Input("reflectance B", blue, ""),
    )
    return [
        Number(
            "level-luma",
            "light",
            "Screen, luma",
            screen.level_luma if screen else None,
            "%",
            0,
            f"{level}; then 0.2126 R + 0.7152 G + 0.0722 B",
            "ITU-R BT.709-6",
            of,
        ),
        Number(
            "level-key",
            "light",
            "Screen, key channel",
            screen.level_key_channel if screen else None,
            "%",
            0,
            f"{level}; the key channel alone",
            "ITU-R BT.709-6",
            of,
        ),
        Number(
            "spread",
            "light",
            "Spread",
            screen.spread_stops if screen else None,
            "stops",
            2,
            "log2 of the brightest over the darkest place of the needed screen",
            "Definition of a stop",
            (Input("brightest", screen.lux_max, "lx"), Input("darkest", screen.lux_min, "lx")) if screen else (),
        ),
        Number(
            "band",
            "light",
            "Band",
            screen.band_percent if screen else None,
            "%",
            1,
            "99th minus 1st percentile of the signal over the needed screen",
            "Width of the line on a waveform",
            (),
        ),
    ]


def _subject(e: Evaluation) -> list[Number]:
    exposure, camera = e.exposure, e.plan.camera
    return [
        Number(
            "face",
            "subject",
            "Light on the face",
            exposure.subject_lux,
            "lx",
            0,
            "sum of all lamps on a small surface at eye height that faces the camera, and what the room returns",
            "Photometric distance law",
            (),
        ),
        Number(
            "grey",
            "subject",
            "Light for grey",
            exposure.grey_lux,
            "lx",
            0,
            f"{INCIDENT_C:.0f} × f-number² × ND / (shutter × ISO)",
            "ISO 2720, incident light, C = 250",
            (
                Input("f-number", camera.f_number, ""),
                Input("shutter", camera.shutter_s, "s"),
                Input("ISO", camera.iso, ""),
                Input("ND", camera.nd_stops, "stops"),
            ),
        ),
        Number(
            "over",
            "subject",
            "Face against grey",
            exposure.stops_over,
            "stops",
            1,
            "log2 of light on the face over light for grey",
            "Definition of a stop",
            (),
        ),
        Number(
            "skin",
            "subject",
            "Skin",
            exposure.subject_level,
            "%",
            0,
            "luma of the skin under that light",
            "ITU-R BT.709-6",
            (),
        ),
    ]


def _camera(e: Evaluation) -> list[Number]:
    camera, subject = e.plan.camera, e.plan.subject
    pitch = Input("pixel pitch", 1000.0 * pixel_pitch_mm(camera), "µm")
    focal = Input("focal length", camera.focal_mm, "mm")
    speed = Input("speed", subject.speed if subject else 0.0, "m/s")
    away = Input("distance", e.focus.distance_m if e.focus else 0.0, "m")
    sharp = None if e.focus is None else e.focus.far_m - e.focus.near_m
    return [
        Number(
            "smear",
            "camera",
            "Smear",
            e.blur.motion_px,
            "px",
            0,
            "speed × shutter × focal length / (distance × pixel pitch)",
            "Geometric optics",
            (speed, Input("shutter", camera.shutter_s, "s"), focal, away, pitch),
        ),
        Number(
            "angle",
            "camera",
            "Shutter angle",
            e.blur.shutter_angle,
            "°",
            0,
            "360 × shutter × frames per second",
            "Definition",
            (Input("shutter", camera.shutter_s, "s"), Input("frames per second", camera.fps, "")),
        ),
        Number(
            "depth",
            "camera",
            "Depth of field",
            sharp,
            "m",
            2,
            f"farthest minus nearest distance whose blur stays within {SHARP_PX:.0f} recorded pixels",
            "Thin lens, hyperfocal distance",
            (focal, Input("f-number", camera.f_number, ""), away, pitch),
        ),
        Number(
            "melt",
            "camera",
            "Screen blur",
            e.blur.screen_defocus_px,
            "px",
            1,
            "diameter of the disc that a point of the screen becomes: f² / (N (s − f)) × |D − s| / D",
            "Thin lens",
            (focal, Input("f-number", camera.f_number, ""), away, pitch),
        ),
    ]

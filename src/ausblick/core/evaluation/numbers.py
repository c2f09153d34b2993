"""Every number can be asked why: its formula in words, what went into it, and whose formula it is."""

from __future__ import annotations

from ..camera.exposure import INCIDENT_C
from ..camera.focus import SHARP_PX
from ..camera.view import image_distance, pixel_pitch_mm
from ..figure.outline import figure_height_px
from .number import Input, Number
from .numbers_of_key import key_numbers
from .numbers_of_light import light_numbers, subject_numbers
from .numbers_of_recording import recording_numbers
from .results import Evaluation


def numbers(evaluation: Evaluation) -> list[Number]:
    """The readings of a plan, in the order of the work."""
    return [
        *_space(evaluation),
        *_screen(evaluation),
        *_light(evaluation),
        *light_numbers(evaluation),
        *_subject(evaluation),
        *subject_numbers(evaluation),
        *(one for one in _camera(evaluation) if one.id != "angle" or evaluation.plan.medium != "stills"),
        *recording_numbers(evaluation),
        *key_numbers(evaluation),
    ]


def _space(e: Evaluation) -> list[Number]:
    camera, subject = e.plan.camera, e.plan.subject
    if subject is None:
        return []
    sensor = camera.sensor
    upright = round(camera.roll / 90.0) % 2 == 0
    return [
        Number(
            id="figure-px",
            stage="space",
            label="Figure in the picture",
            value=figure_height_px(e.plan, e.view),
            unit="px",
            digits=0,
            formula="height of the framed part on the sensor, cut at the picture's edge; with the camera turned "
            "the other way the same filling of the picture gives this times the sides' ratio",
            source="Ray and plane",
            inputs=(
                Input(
                    "turned the other way, times",
                    sensor.px_w / sensor.px_h if upright else sensor.px_h / sensor.px_w,
                    "",
                ),
            ),
        ),
        Number(
            id="gap",
            stage="space",
            label="Mark to screen",
            value=subject.z,
            unit="m",
            digits=2,
            formula="z of the mark; the screen lies in z = 0",
            source="Geometry of the set",
            inputs=(),
        ),
        Number(
            id="distance",
            stage="space",
            label="Camera to mark",
            value=e.focus.distance_m if e.focus else None,
            unit="m",
            digits=2,
            formula="from the lens to the eyes, along the optical axis",
            source="Geometry of the set",
            inputs=(Input("camera z", camera.z, "m"), Input("mark z", subject.z, "m")),
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
            id="margin",
            stage="screen",
            label="Screen to spare",
            value=e.coverage.margin_m,
            unit="m",
            digits=2,
            formula="the reach of the action, cut by the frame, followed along rays from the lens to the screen; "
            "the smallest distance to the screen's edge there",
            source="Ray and plane",
            inputs=size,
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
            id="level-luma",
            stage="light",
            label="Screen, luma",
            value=screen.level_luma if screen else None,
            unit="%",
            digits=0,
            formula=f"{level}; then 0.2126 R + 0.7152 G + 0.0722 B",
            source="ITU-R BT.709-6",
            inputs=of,
        ),
        Number(
            id="level-key",
            stage="light",
            label="Screen, key channel",
            value=screen.level_key_channel if screen else None,
            unit="%",
            digits=0,
            formula=f"{level}; the key channel alone",
            source="ITU-R BT.709-6",
            inputs=of,
        ),
        Number(
            id="spread",
            stage="light",
            label="Spread",
            value=screen.spread_stops if screen else None,
            unit="stops",
            digits=2,
            formula="log2 of the brightest over the darkest place of the needed screen",
            source="Definition of a stop",
            inputs=(Input("brightest", screen.lux_max, "lx"), Input("darkest", screen.lux_min, "lx"))
            if screen
            else (),
        ),
        Number(
            id="band",
            stage="light",
            label="Band",
            value=screen.band_percent if screen else None,
            unit="%",
            digits=1,
            formula="99th minus 1st percentile of the signal over the needed screen",
            source="Width of the line on a waveform",
            inputs=(),
        ),
    ]


def _subject(e: Evaluation) -> list[Number]:
    exposure, camera = e.exposure, e.plan.camera
    return [
        Number(
            id="face",
            stage="subject",
            label="Light on the face",
            value=exposure.subject_lux,
            unit="lx",
            digits=0,
            formula="sum of all lamps on a small surface at eye height that faces the camera, and what the room "
            "returns",
            source="Photometric distance law",
            inputs=(),
        ),
        Number(
            id="grey",
            stage="subject",
            label="Light for grey",
            value=exposure.grey_lux,
            unit="lx",
            digits=0,
            formula=f"{INCIDENT_C:.0f} × f-number² × ND / (shutter × ISO)",
            source="ISO 2720, incident light, C = 250",
            inputs=(
                Input("f-number", camera.f_number, ""),
                Input("shutter", camera.shutter_s, "s"),
                Input("ISO", camera.iso, ""),
                Input("ND", camera.nd_stops, "stops"),
            ),
        ),
        Number(
            id="over",
            stage="subject",
            label="Face against grey",
            value=exposure.stops_over,
            unit="stops",
            digits=1,
            formula="log2 of light on the face over light for grey",
            source="Definition of a stop",
            inputs=(),
        ),
        Number(
            id="skin",
            stage="subject",
            label="Skin",
            value=exposure.subject_level,
            unit="%",
            digits=0,
            formula="luma of the skin under that light",
            source="ITU-R BT.709-6",
            inputs=(),
        ),
    ]


def _camera(e: Evaluation) -> list[Number]:
    camera, subject = e.plan.camera, e.plan.subject
    pitch = Input("pixel pitch", 1000.0 * pixel_pitch_mm(camera), "µm")
    focal = Input("focal length", camera.focal_mm, "mm")
    speed = Input("speed", subject.speed if subject else 0.0, "m/s")
    reach = e.focus.distance_m if e.focus else 0.0
    away, image = Input("distance", reach, "m"), Input("image distance", image_distance(camera.focal_mm, reach), "mm")
    sharp = None if e.focus is None else e.focus.far_m - e.focus.near_m
    return [
        Number(
            id="smear",
            stage="camera",
            label="Smear",
            value=e.blur.motion_px,
            unit="px",
            digits=0,
            formula="speed × shutter × image distance / (distance × pixel pitch)",
            source="Geometric optics",
            inputs=(speed, Input("shutter", camera.shutter_s, "s"), image, away, pitch),
        ),
        Number(
            id="angle",
            stage="camera",
            label="Shutter angle",
            value=e.blur.shutter_angle,
            unit="°",
            digits=0,
            formula="360 × shutter × frames per second",
            source="Definition",
            inputs=(Input("shutter", camera.shutter_s, "s"), Input("frames per second", camera.fps, "")),
        ),
        Number(
            id="depth",
            stage="camera",
            label="Depth of field",
            value=sharp,
            unit="m",
            digits=2,
            formula=f"farthest minus nearest distance whose blur stays within {SHARP_PX:.0f} recorded pixels",
            source="Thin lens, hyperfocal distance",
            inputs=(focal, Input("f-number", camera.f_number, ""), away, pitch),
        ),
        Number(
            id="melt",
            stage="camera",
            label="Screen blur",
            value=e.blur.screen_defocus_px,
            unit="px",
            digits=1,
            formula="diameter of the disc that a point of the screen becomes: f² / (N (s − f)) × |D − s| / D",
            source="Thin lens",
            inputs=(focal, Input("f-number", camera.f_number, ""), away, pitch),
        ),
    ]

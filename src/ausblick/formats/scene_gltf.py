"""Room, screen, things, lights and camera as glTF 2.0 with KHR_lights_punctual: metres, y up, one file.

The plan's axes are glTF's own (right-handed, y up), so that nothing is turned. A lamp is a spot where its beam is
narrower than half a sphere, else a point; its intensity is the candela along its aim, dimmed, its colour as the
camera's white balance sees it. A sun is a directional light in lux. Cameras and lights look along -z of their node.
"""

from __future__ import annotations

import base64
import json
import math
from typing import Any

import numpy as np

from ausblick.core.camera.screen_grid import shown_sheets
from ausblick.core.camera.view import View, view_of
from ausblick.core.colour.white_point import light_rgb
from ausblick.core.geometry.vectors import Floats, unit
from ausblick.core.light.beam_width import beam_width
from ausblick.core.light.emission import Emission, emission_of
from ausblick.core.plan import Companion, Light, Plan, people_of

LIGHTS = "KHR_lights_punctual"
FLOAT, USHORT, TRIANGLES = 5126, 5123, 4
EXPOSED = 0.05
"""Nearest distance of the camera's field, m."""


def scene_gltf(plan: Plan) -> str:
    """One self-contained .gltf document."""
    scene = _Scene()
    for name, corners, colour in _surfaces(plan):
        scene.mesh(name, corners, colour)
    for person in people_of(plan):
        name = person.name if isinstance(person, Companion) else "figure"
        scene.box(name, (person.x, person.z), (0.46, person.height, 0.28), person.skin)
    for lamp in plan.lights:
        scene.light(lamp, emission_of(lamp, plan), plan)
    scene.camera(plan, view_of(plan.camera, plan.subject))
    return json.dumps(scene.document(plan.title), allow_nan=False)


def _surfaces(plan: Plan) -> list[tuple[str, Floats, tuple[float, float, float]]]:
    """Outlines (N, 3) with their reflectance."""
    room, found = plan.room, []
    if room.kind == "interior":
        x0, x1, z0, z1, top = room.x_min, room.x_max, room.z_min, room.z_max, room.height
        walls, ink = room.reflectance, room.reflectance.walls
        found += [
            ("floor", [(x0, 0, z1), (x1, 0, z1), (x1, 0, z0), (x0, 0, z0)], walls.floor),
            ("ceiling", [(x0, top, z0), (x1, top, z0), (x1, top, z1), (x0, top, z1)], walls.ceiling),
            ("wall behind the screen", [(x0, 0, z0), (x1, 0, z0), (x1, top, z0), (x0, top, z0)], ink),
            ("wall behind the camera", [(x1, 0, z1), (x0, 0, z1), (x0, top, z1), (x1, top, z1)], ink),
            ("left wall", [(x0, 0, z1), (x0, 0, z0), (x0, top, z0), (x0, top, z1)], ink),
            ("right wall", [(x1, 0, z0), (x1, 0, z1), (x1, top, z1), (x1, top, z0)], ink),
        ]
    surfaces = [(name, np.array(corners, dtype=float), colour) for name, corners, colour in found]
    surfaces += [(f"screen, {s.name}", s.outline(), plan.screen.reflectance) for s in shown_sheets(plan.screen)]
    surfaces += [(f"flag {flag.id}", np.array(flag.corners), flag.reflectance) for flag in plan.flags]
    if plan.window is not None:
        surfaces.append(("pane", np.array(plan.window.corners), (0.9, 0.9, 0.9)))
    return surfaces


class _Scene:
    """Collects what a glTF document has in lists."""

    def __init__(self) -> None:
        self.bytes = b""
        self.nodes: list[dict[str, Any]] = []
        self.meshes: list[dict[str, Any]] = []
        self.materials: list[dict[str, Any]] = []
        self.views: list[dict[str, Any]] = []
        self.accessors: list[dict[str, Any]] = []
        self.lights: list[dict[str, Any]] = []
        self.cameras: list[dict[str, Any]] = []

    def mesh(self, name: str, outline: Floats, colour: tuple[float, float, float]) -> None:
        """A flat or bent strip: corners one after another, the first half beside the second turned round."""
        half = len(outline) // 2
        pairs = [(k, k + 1, len(outline) - 2 - k, len(outline) - 1 - k) for k in range(half - 1)]
        self._solid(name, outline, [t for a, b, c, d in pairs for t in (a, b, c, a, c, d)], colour)

    def box(
        self, name: str, at: tuple[float, float], size: tuple[float, float, float], colour: tuple[float, float, float]
    ) -> None:
        x, z = size[0] / 2.0, size[2] / 2.0
        corners = np.array([(at[0] + i * x, y, at[1] + k * z) for y in (0.0, size[1])
                            for i, k in ((-1, 1), (1, 1), (1, -1), (-1, -1))])  # fmt: skip
        sides = [(0, 1, 5, 4), (1, 2, 6, 5), (2, 3, 7, 6), (3, 0, 4, 7), (4, 5, 6, 7), (3, 2, 1, 0)]
        self._solid(name, corners, [t for a, b, c, d in sides for t in (a, b, c, a, c, d)], colour)

    def _solid(self, name: str, places: Floats, order: list[int], colour: tuple[float, float, float]) -> None:
        matt = {"baseColorFactor": [*colour, 1.0], "metallicFactor": 0.0, "roughnessFactor": 0.9}
        self.materials.append({"name": name, "doubleSided": True, "pbrMetallicRoughness": matt})
        points = places.astype("<f4")
        position = self._accessor(points.tobytes(), FLOAT, len(points), "VEC3")
        self.accessors[position] |= {"min": points.min(axis=0).tolist(), "max": points.max(axis=0).tolist()}
        indices = self._accessor(np.array(order, dtype="<u2").tobytes(), USHORT, len(order), "SCALAR")
        part = {"attributes": {"POSITION": position}, "indices": indices, "material": len(self.materials) - 1,
                "mode": TRIANGLES}  # fmt: skip
        self.meshes.append({"name": name, "primitives": [part]})
        self.nodes.append({"name": name, "mesh": len(self.meshes) - 1})

    def _accessor(self, data: bytes, kind: int, count: int, shape: str) -> int:
        self.bytes += bytes(-len(self.bytes) % 4)
        self.views.append({"buffer": 0, "byteOffset": len(self.bytes), "byteLength": len(data)})
        self.bytes += data
        accessor = {"bufferView": len(self.views) - 1, "componentType": kind, "count": count, "type": shape}
        self.accessors.append(accessor)
        return len(self.accessors) - 1

    def light(self, lamp: Light, emission: Emission, plan: Plan) -> None:
        camera = plan.camera
        colour = light_rgb(lamp.fixture.cct, lamp.fixture.duv, camera.white_balance_k, camera.tint) * np.array(
            lamp.gel
        )
        share = lamp.dimmer if lamp.on else 0.0
        light: dict[str, Any] = {"name": lamp.name, "color": (colour / max(float(colour.max()), 1e-6)).tolist()}
        if emission.normal_lux is not None:
            light |= {"type": "directional", "intensity": emission.normal_lux * share}
        else:
            beam = beam_width(emission)
            peak = float(emission.candela(emission.face.axis[:, None] * 3.0, np.array([3.0]))[0])
            light |= {"type": "point", "intensity": peak * share}
            if beam is not None and max(beam) < 90.0:
                # Half of the strength at the beam's edge, nothing at twice that.
                edge = math.radians(min(90.0, 2.0 * max(beam)))
                light |= {"type": "spot", "spot": {"innerConeAngle": 0.0, "outerConeAngle": edge}}
        self.lights.append(light)
        self.nodes.append(
            {"name": lamp.name, "matrix": _looking(np.array(lamp.position), np.array(lamp.aim)),
             "extensions": {LIGHTS: {"light": len(self.lights) - 1}}}
        )  # fmt: skip

    def camera(self, plan: Plan, view: View) -> None:
        lens = {"yfov": 2.0 * math.atan(view.tan_v), "aspectRatio": view.tan_h / view.tan_v, "znear": EXPOSED}
        self.cameras.append({"name": "camera", "type": "perspective", "perspective": lens})
        right, up, ahead = view.axes
        self.nodes.append({"name": "camera", "camera": 0, "matrix": _matrix(right, up, -ahead, view.lens)})

    def document(self, title: str) -> dict[str, Any]:
        data = "data:application/octet-stream;base64," + base64.b64encode(self.bytes).decode()
        document = {
            "asset": {"version": "2.0", "generator": "Ausblick"},
            "scene": 0,
            "scenes": [{"name": title, "nodes": [*range(len(self.nodes))]}],
            "nodes": self.nodes,
            "meshes": self.meshes,
            "materials": self.materials,
            "accessors": self.accessors,
            "bufferViews": self.views,
            "buffers": [{"byteLength": len(self.bytes), "uri": data}],
            "cameras": self.cameras,
        }
        # An empty list is not allowed in the format.
        if self.lights:
            document |= {"extensionsUsed": [LIGHTS], "extensions": {LIGHTS: {"lights": self.lights}}}
        return document


def _looking(here: Floats, at: Floats) -> list[float]:
    """A node whose -z looks from `here` to `at`."""
    back = unit(here - at)
    side = np.array([0.0, 1.0, 0.0]) if abs(back[1]) < 0.999 else np.array([0.0, 0.0, -1.0])
    right = unit(np.cross(side, back))
    return _matrix(right, np.cross(back, right), back, here)


def _matrix(x: Floats, y: Floats, z: Floats, place: Floats) -> list[float]:
    """Column by column."""
    rows = np.eye(4)
    rows[:3, 0], rows[:3, 1], rows[:3, 2], rows[:3, 3] = x, y, z, place
    return [float(value) for value in rows.T.ravel()]

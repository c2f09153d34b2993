"""The kit document: one open, versioned JSON document, like the plan."""

from __future__ import annotations

import json
from typing import Annotated, Any, Literal

from pydantic import Field, ValidationError

from ..plan import Fixture, PlanError, Recording, Sensor
from ..plan.document import check_shape, readable_error
from ..plan.fields import Name, Part, Reach, Rgb, Share, Switch, number
from ..plan.scene import Material

MAX_KIT = 2_000_000
"""Characters of the document."""
Count = Annotated[int, Field(ge=0, le=1000, strict=True, description="pieces")]


class KitScreen(Part):
    """A screen as it hangs. `floor_run` is the longest floor piece it comes with, metres."""

    name: Name = "screen"
    count: Count = 1
    hue: Literal["green", "blue", "other"] = "green"
    reflectance: Rgb = (0.06, 0.34, 0.10)
    material: Material = "muslin"
    width: Annotated[float, number(0.1, 50.0, "metres")] = 3.0
    height: Annotated[float, number(0.1, 50.0, "metres")] = 2.6
    floor_run: Reach = 0.0
    gloss: Share = 0.02
    transmittance: Share = 0.05
    wrinkle_slope: Annotated[float, number(0.0, 2.0, "slope, rise over run")] = 0.03


class KitLens(Part):
    """`fixed`: its opening is what it is, as a phone's."""

    name: Name = "35 mm"
    count: Count = 1
    focal_mm: Annotated[float, number(1.0, 2000.0, "millimetres")] = 35.0
    f_number: Annotated[float, number(0.5, 32.0, "widest f-number")] = 2.8
    fixed: Switch = False


class KitCamera(Part):
    name: Name = "camera"
    count: Count = 1
    sensor: Sensor = Sensor()
    recording: Recording = Recording()


class KitLamp(Part):
    name: Name = "panel"
    count: Count = 1
    fixture: Fixture = Fixture(flux_lm=6000.0)


class KitStand(Part):
    """`load_kg` and `height` are the maker's ratings."""

    name: Name = "stand"
    count: Count = 1
    height: Annotated[float, number(0.1, 20.0, "metres")] = 2.6
    load_kg: Annotated[float, number(0.1, 500.0, "kilogram")] = 5.0


class Kit(Part):
    format: Literal["ausblick-kit"] = "ausblick-kit"
    version: Literal[1] = 1
    screens: Annotated[tuple[KitScreen, ...], Field(max_length=200)] = ()
    lenses: Annotated[tuple[KitLens, ...], Field(max_length=200)] = ()
    cameras: Annotated[tuple[KitCamera, ...], Field(max_length=200)] = ()
    lamps: Annotated[tuple[KitLamp, ...], Field(max_length=200)] = ()
    stands: Annotated[tuple[KitStand, ...], Field(max_length=200)] = ()
    sandbags: Count = 0
    sandbag_kg: Annotated[float, number(0.1, 100.0, "kilogram")] = 7.0
    clamps: Count = 0


class KitError(PlanError):
    """A kit that can't be read; names the field like PlanError."""


def kit_from(data: Any) -> Kit:
    """The kit in parsed JSON. Raises KitError naming the first field that is wrong."""
    try:
        if not isinstance(data, dict):
            raise KitError("kit", "must be an object")
        check_shape(data)
        if len(json.dumps(data)) > MAX_KIT:
            raise KitError("kit", f"is larger than {MAX_KIT // 1_000_000} MB")
        return Kit.model_validate(data)
    except ValidationError as err:
        path, problem, value, more = readable_error(err)
        raise KitError(path or "kit", problem, value, more) from None
    except PlanError as err:
        raise KitError(err.path or "kit", err.problem, err.value, err.more) from None


def dump_kit(kit: Kit) -> dict[str, Any]:
    return kit.model_dump(mode="json")

"""Lamps: what emits, with which beam and colour, where it stands and what is put before it."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from .fields import Coordinate, Kelvin, Name, Part, Point, Rgb, Share, Size, Switch, number


class PointEmitter(Part):
    shape: Literal["point"] = "point"


class RectEmitter(Part):
    shape: Literal["rect"] = "rect"
    width: Size = 0.6
    height: Size = 0.6


class DiscEmitter(Part):
    """A round face. Its size may also come as `radius` or `width`; it is kept as `diameter`."""

    shape: Literal["disc"] = "disc"
    diameter: Size = 0.4

    @model_validator(mode="before")
    @classmethod
    def _one_size(cls, data: object) -> object:
        if not isinstance(data, dict) or "diameter" in data:
            return data
        radius, width = data.get("radius"), data.get("width")
        if isinstance(radius, int | float):
            return {k: v for k, v in data.items() if k != "radius"} | {"diameter": 2.0 * radius}
        if isinstance(width, int | float):
            return {k: v for k, v in data.items() if k not in ("width", "height")} | {"diameter": width}
        return data


class SunEmitter(Part):
    shape: Literal["sun"] = "sun"


class WindowEmitter(Part):
    """A window of the room that the sky is seen through: glass of `width` x `height` m, as bright all over."""

    shape: Literal["window"] = "window"
    width: Size = 1.2
    height: Size = 1.4


Emitter = Annotated[
    PointEmitter | RectEmitter | DiscEmitter | SunEmitter | WindowEmitter, Field(discriminator="shape")
]


class LambertBeam(Part):
    kind: Literal["lambert"] = "lambert"


class CosineBeam(Part):
    kind: Literal["cosine"] = "cosine"
    n: Annotated[float, number(0.0, 1000.0, "exponent of the cosine lobe")] = 1.0


class AngleBeam(Part):
    """`deg` is the full angle between the directions of half the peak intensity."""

    kind: Literal["beam"] = "beam"
    deg: Annotated[float, number(0.5, 179.0, "degrees, full half-peak angle")] = 60.0


class IesBeam(Part):
    """`ref` names an entry of the plan's `photometry`."""

    kind: Literal["ies"] = "ies"
    ref: Name = ""


Beam = Annotated[LambertBeam | CosineBeam | AngleBeam | IesBeam, Field(discriminator="kind")]
Flux = Annotated[float, number(0.0, 1e7, "lumen")]
Peak = Annotated[float, number(0.0, 1e8, "candela")]
Opening = Annotated[float, number(0.0, 170.0, "degrees from the lamp's axis")]
Luminance = Annotated[float, number(0.0, 1e5, "candela per square metre")]
NormalLux = Annotated[float, number(0.0, 2e5, "lux on a surface facing the sun")]


POWERS = {"flux_lm", "flash_lms", "peak_cd", "normal_lux", "luminance"}
OWN_POWER = {"sun": "normal_lux", "window": "luminance"}
SUN_LUX, WINDOW_LUMINANCE = 80_000.0, 3000.0
"""Daylight where nobody gives it: a clear noon; an overcast sky through glass, cd/m2."""
USUAL_POWER: dict[object, dict[str, float]] = {
    "sun": {"normal_lux": SUN_LUX},
    "window": {"luminance": WINDOW_LUMINANCE},
}


class Fixture(Part):
    """Exactly one power: `flux_lm`, `peak_cd`, or for a flash `flash_lms`, its luminous energy at full; a sun has
    `normal_lux`, a window the `luminance` of what is seen through it, glass and nets counted. `flash_s`: how long the
    flash burns; `recycle_s`: until it can fire again at full. `cct_range`: where its colour can be turned, lowest and
    highest. `flicker`: with the mains, not at all, or nobody knows."""

    emitter: Emitter = RectEmitter()
    flux_lm: Flux | None = None
    flash_lms: Annotated[float, number(0.0, 1e6, "lumen second")] | None = None
    peak_cd: Peak | None = None
    normal_lux: NormalLux | None = None
    luminance: Luminance | None = None
    beam: Beam = LambertBeam()
    cct: Kelvin = 5600.0
    duv: Annotated[float, number(-0.1, 0.1, "distance from the Planckian locus, CIE 1960")] = 0.0
    cri: Annotated[float, number(0.0, 100.0, "colour rendering index")] = 95.0
    watts: Annotated[float, number(0.0, 100_000.0, "watt")] = 60.0
    cct_range: tuple[Kelvin, Kelvin] | None = None
    flicker: Literal["mains", "free", "unknown"] = "unknown"
    flash_s: Annotated[float, number(0.00001, 1.0, "seconds")] = 0.001
    recycle_s: Annotated[float, number(0.01, 60.0, "seconds")] = 1.5

    @property
    def luminous(self) -> float | None:
        """Flux in lm, of a flash energy in lm s; None where another power is given."""
        return self.flux_lm if self.flux_lm is not None else self.flash_lms

    @model_validator(mode="before")
    @classmethod
    def _default_power(cls, data: object) -> object:
        if isinstance(data, dict) and not POWERS & data.keys():
            emitter, beam = data.get("emitter"), data.get("beam")
            if isinstance(beam, dict) and beam.get("kind") == "ies":
                return data
            shape = emitter.get("shape") if isinstance(emitter, dict) else None
            return {**data, **USUAL_POWER.get(shape, {"flux_lm": 6000.0})}
        return data

    @model_validator(mode="after")
    def _range_rises(self) -> Self:
        if self.cct_range is not None and self.cct_range[0] > self.cct_range[1]:
            raise ValueError("cct_range must be the lowest and the highest colour temperature, in this order")
        return self

    @model_validator(mode="after")
    def _one_power(self) -> Self:
        given = [name for name in sorted(POWERS) if getattr(self, name) is not None]
        own = OWN_POWER.get(self.emitter.shape)
        if own is not None:
            if given != [own]:
                raise ValueError(f"a {self.emitter.shape} takes {own} and nothing else for its power")
            if self.beam.kind != "lambert":
                raise ValueError(f"a {self.emitter.shape} has no beam of its own: leave beam out")
        elif len(given) > 1 or {*OWN_POWER.values()} & {*given} or not (given or self.beam.kind == "ies"):
            raise ValueError("give exactly one of flux_lm, peak_cd and flash_lms")
        return self


MODIFIERS: dict[str, dict[str, float]] = {
    "softbox": {"width": 0.9, "height": 0.6, "transmission": 0.55},
    "umbrella": {"width": 1.0, "transmission": 0.55},
    "diffusion": {"width": 1.0, "height": 1.0, "distance": 0.5, "transmission": 0.5},
    "grid": {"deg": 40.0},
    "doors": {"deg": 45.0},
}
"""What a modifier is where its fields are left out, m and degrees: usual sizes, and the share of light that layers of
cloth (soft box, umbrella) or one sheet (diffusion) let through; ours, from usual kit."""


class Modifier(Part):
    """What is put before a lamp. A field left out takes the kind's usual value (core/light/emission.py).

    softbox, umbrella, diffusion: a new face of `width` x `height` m (umbrella: `width` across) that
    lets `transmission` of the light through; diffusion hangs `distance` m before the lamp.
    grid: nothing leaves beyond half of `deg` from the axis. doors: leaves opened `deg` from the axis;
    `top`, `bottom`, `left`, `right` open one of them differently (left and right as the lamp looks).
    """

    kind: Literal["none", "softbox", "umbrella", "diffusion", "grid", "doors"] = "none"
    width: Size | None = None
    height: Size | None = None
    transmission: Share | None = None
    distance: Size | None = None
    deg: Annotated[float, number(1.0, 179.0, "degrees")] | None = None
    top: Opening | None = None
    bottom: Opening | None = None
    left: Opening | None = None
    right: Opening | None = None


MOST_BEYOND = 3
"""Further modifiers that a lamp takes before its first: more hangs on no lamp."""
Role = Literal["screen", "key", "fill", "back", "other"]
POSITION: tuple[Coordinate, Coordinate, Coordinate] = (-2.0, 2.2, 2.0)
AIM: tuple[Coordinate, Coordinate, Coordinate] = (-0.3, 1.3, 0.0)


class Light(Part):
    """`beyond`: what stands before the `modifier`, in the order in which the light meets it: a grid on a soft box,
    doors on a grid, a sheet before all of it."""

    id: Name = "l1"
    name: Name = "lamp"
    role: Role = "screen"
    fixture: Fixture = Fixture(flux_lm=6000.0)
    position: Point = POSITION
    aim: Point = AIM
    dimmer: Share = 1.0
    on: Switch = True
    modifier: Modifier = Modifier()
    beyond: Annotated[tuple[Modifier, ...], Field(max_length=MOST_BEYOND)] = ()
    gel: Rgb = (1.0, 1.0, 1.0)
    circuit: Name = "A"

    @property
    def is_daylight(self) -> bool:
        """The sun or a window: it stands on no stand, hangs on no circuit, and nobody moves or dims it."""
        return self.fixture.emitter.shape in OWN_POWER

    @property
    def modifiers(self) -> tuple[Modifier, ...]:
        """All that stands before the lamp, in the order in which its light meets it."""
        return tuple(one for one in (self.modifier, *self.beyond) if one.kind != "none")

    @model_validator(mode="after")
    def _aimed_somewhere(self) -> Self:
        gap = sum((a - b) ** 2 for a, b in zip(self.position, self.aim, strict=True))
        if gap < 1e-6:
            raise ValueError("position and aim must be at least 1 mm apart")
        return self

"""What the set-up is for: the plate that goes behind, and the schools whose limits apply."""

from typing import Annotated, Any, Literal, get_args

from pydantic import Field, field_validator, model_validator

from .fields import Angle, Coordinate, Kelvin, Level, Part, Switch, number

PlateFact = Literal[
    "mean_level", "key_azimuth", "key_elevation", "softness", "cct", "camera_height", "tilt", "focal_mm_ff",
    "shutter_angle",
]  # fmt: skip


class Plate(Part):
    """`key_azimuth` is the side the plate's light comes from: negative from the left. Degrees.

    `light`: from one side; from two, the second from `second_azimuth` and `second_elevation` (moon and lantern); from
    an overcast sky, or from everywhere, which have no side.

    `known` is false while nobody can say yet what goes behind. `unknown` names facts that nobody gave: a document
    that leaves them out has them there, and they hold no value until one is set.
    """

    known: Switch = True
    mean_level: Level = 20.0
    key_azimuth: Angle = -60.0
    key_elevation: Annotated[float, number(-90.0, 90.0, "degrees")] = 20.0
    light: Literal["one", "two", "overcast", "flat"] = "one"
    second_azimuth: Angle = 150.0
    second_elevation: Annotated[float, number(-90.0, 90.0, "degrees")] = 20.0
    softness: Literal["hard", "medium", "soft"] = "hard"
    cct: Kelvin = 4300.0
    camera_height: Coordinate = 1.5
    tilt: Annotated[float, number(-90.0, 90.0, "degrees")] = 0.0
    focal_mm_ff: Annotated[float, number(1.0, 2000.0, "millimetres, on a 36 mm wide sensor")] = 50.0
    shutter_angle: Annotated[float, number(0.1, 360.0, "degrees")] = 180.0
    unknown: tuple[PlateFact, ...] = ()

    @model_validator(mode="before")
    @classmethod
    def _facts_left_out(cls, data: Any) -> Any:
        if not isinstance(data, dict) or "unknown" in data:
            return data
        return {**data, "unknown": [fact for fact in get_args(PlateFact) if fact not in data]}

    def tells(self, *facts: PlateFact) -> bool:
        """Is there a plate, and was any of these facts given?"""
        return self.known and any(fact not in self.unknown for fact in facts)


LevelSchool = Literal["below-face", "mid-grey", "follow-plate", "away-from-edge", "custom"]
Trace = Literal["luma", "key-channel"]
ShutterSchool = Literal["180", "90", "faster", "match-plate"]
DistanceSchool = Literal["1m", "1.2-2m", "2m-plus", "3m", "shadow-gone"]
CoverageSchool = Literal["where-needed", "cover-frame"]


class Targets(Part):
    """What is aimed at. `face_stops`: the light on the face, in stops against mid-grey; left out, as the plate wants
    it. `region`: corners x, y in m on the screen's plane of the only part of it that is replaced, a sign or a
    display: their convex hull is needed, whatever the figure does; none: as the school of coverage says."""

    level_school: LevelSchool = "below-face"
    screen_level: Level = 42.0
    level_trace: Trace = "luma"
    face_stops: Annotated[float, number(-4.0, 3.0, "stops against mid-grey")] | None = None
    shutter_school: ShutterSchool = "180"
    distance_school: DistanceSchool = "1.2-2m"
    coverage_school: CoverageSchool = "where-needed"
    region: Annotated[tuple[tuple[Coordinate, Coordinate], ...], Field(max_length=24)] = ()

    @field_validator("region", mode="after")
    @classmethod
    def _encloses_something(cls, corners: tuple[tuple[float, float], ...]) -> tuple[tuple[float, float], ...]:
        if not corners:
            return corners
        xs, ys = zip(*corners, strict=True)
        following = zip(corners, (*corners[1:], corners[0]), strict=True)
        area = sum(x0 * y1 - x1 * y0 for (x0, y0), (x1, y1) in following) / 2.0
        if len(corners) < 3 or abs(area) < 1e-4 or max(xs) - min(xs) < 0.01 or max(ys) - min(ys) < 0.01:
            raise ValueError("a part of the screen needs three corners at least that enclose some of it")
        return corners

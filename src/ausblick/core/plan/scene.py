"""Room, screen, flags and window pane: everything that stands still."""

from typing import Annotated, Literal, Self

from pydantic import Field, model_validator

from .fields import Coordinate, Kelvin, Lux, Name, Part, Point, Reach, Rgb, Share, Size, Switch, number


class Circuit(Part):
    name: Name = "A"
    amps: Annotated[float, number(0.1, 1000.0, "ampere")] = 16.0


class Mains(Part):
    volts: Annotated[float, number(12.0, 1000.0, "volt")] = 230.0
    hz: Annotated[float, number(10.0, 400.0, "hertz")] = 50.0
    circuits: Annotated[tuple[Circuit, ...], Field(max_length=64)] = (Circuit(),)


class RoomReflectance(Part):
    walls: Rgb = (0.7, 0.7, 0.7)
    ceiling: Rgb = (0.7, 0.7, 0.7)
    floor: Rgb = (0.25, 0.25, 0.25)


class Room(Part):
    """Walls at x_min, x_max, z_min, z_max; the floor at y = 0, the ceiling at `height`. Metres. `wind_ms`: air that
    moves at the screen, outdoors by the wind, indoors by a fan."""

    kind: Literal["interior", "exterior"] = "interior"
    x_min: Coordinate = -3.7
    x_max: Coordinate = 3.7
    z_min: Coordinate = -0.3
    z_max: Coordinate = 9.5
    height: Annotated[float, number(1.0, 50.0, "metres")] = 3.6
    reflectance: RoomReflectance = RoomReflectance()
    ambient_lux: Lux = 0.0
    ambient_cct: Kelvin = 5600.0
    wind_ms: Annotated[float, number(0.0, 30.0, "metres per second")] = 0.0
    mains: Mains = Mains()

    @model_validator(mode="after")
    def _walls_in_order(self) -> Self:
        if self.x_min >= self.x_max:
            raise ValueError("x_min must be less than x_max")
        if self.z_min >= self.z_max:
            raise ValueError("z_min must be less than z_max")
        return self


Material = Literal[
    "muslin", "paint", "paper", "foam-backed", "stretch", "pop-up", "framed", "vinyl", "velvet", "other"
]


class Screen(Part):
    """The screen lies in z = 0 and faces the camera. Metres; reflectance is linear Rec.709.

    `curve_radius`: of the bend with which it runs onto the floor; 0 is a sharp fold.
    """

    hue: Literal["green", "blue", "other"] = "green"
    reflectance: Rgb = (0.06, 0.34, 0.10)
    material: Material = "muslin"
    x_centre: Coordinate = 0.0
    bottom: Annotated[float, number(0.0, 50.0, "metres")] = 0.0
    width: Annotated[float, number(0.1, 50.0, "metres")] = 3.0
    height: Annotated[float, number(0.1, 50.0, "metres")] = 2.6
    floor_run: Reach = 0.0
    curve_radius: Annotated[float, number(0.0, 5.0, "metres")] = 0.0
    wing_left: Reach = 0.0
    wing_right: Reach = 0.0
    gloss: Share = 0.02
    transmittance: Share = 0.05
    wrinkle_slope: Annotated[float, number(0.0, 2.0, "slope, rise over run")] = 0.03
    behind_lux: Lux = 0.0


class Flag(Part):
    """A flat four-cornered surface of its own: black cloth, white board, free-standing wall."""

    id: Name = "f1"
    corners: tuple[Point, Point, Point, Point]
    reflectance: Rgb = (0.03, 0.03, 0.03)


class Window(Part):
    """A glass pane parallel to the screen; x, y, z are its centre. Metres. `in_wall`: it is the opening of a wall,
    and screen is seen through it only; a loose pane or a frame without a wall is not. `film_stops`: neutral film on
    the pane of a wall's window."""

    x: Coordinate = 0.0
    y: Coordinate = 1.5
    z: Coordinate = 1.0
    width: Size = 1.0
    height: Size = 1.2
    in_wall: Switch = True
    film_stops: Annotated[float, number(0.0, 10.0, "stops")] = 0.0

    @property
    def corners(self) -> tuple[Point, Point, Point, Point]:
        """Lower left, lower right, upper right, upper left."""
        x, y = self.width / 2.0, self.height / 2.0
        left, right, low, high = self.x - x, self.x + x, self.y - y, self.y + y
        return (left, low, self.z), (right, low, self.z), (right, high, self.z), (left, high, self.z)

"""Numbers with their unit: what a result's field is in, told once, shown in the API's description.

A result says `lux_mean: Lux`. To Python it is a float; pydantic writes the unit into the schema. Results stay
plain frozen dataclasses: a drag makes hundreds of them, and what is computed here needs no checking at run time.
"""

from __future__ import annotations

from typing import Annotated

from pydantic import Field, PlainSerializer

from .unbounded import finite

Percent = Annotated[float, Field(description="%")]
Points = Annotated[float, Field(description="points of signal, %")]
Share = Annotated[float, Field(description="0 to 1")]
Metres = Annotated[float, Field(description="m")]
Pixels = Annotated[float, Field(description="px")]
Lux = Annotated[float, Field(description="lx")]
LuxSeconds = Annotated[float, Field(description="lx s")]
Seconds = Annotated[float, Field(description="s")]
Hertz = Annotated[float, Field(description="Hz")]
Degrees = Annotated[float, Field(description="degrees")]
Stops = Annotated[float, Field(description="stops")]
Watts = Annotated[float, Field(description="W")]
Amperes = Annotated[float, Field(description="A")]
MegabitsPerSecond = Annotated[float, Field(description="Mbit/s")]
FramesPerSecond = Annotated[float, Field(description="frames a second")]
SquareCentimetres = Annotated[float, Field(description="cm2")]
OpenStops = Annotated[float, PlainSerializer(finite, return_type=Stops | None)]
OpenMetres = Annotated[float, PlainSerializer(finite, return_type=Metres | None)]
OpenPixels = Annotated[float, PlainSerializer(finite, return_type=Pixels | None)]
"""What may be without bound is null in an answer then (see `unbounded`)."""

"""The plan document: models, defaults, limits, and the errors that name a field."""

from . import edit
from .camera import Camera, Recording, Sensor
from .changes import Change, apply_changes
from .company import as_said, name_of, of_person, one_of_several, people_of, seen_as
from .document import (
    FORMAT,
    VERSION,
    Plan,
    PlanError,
    dump_plan,
    plan_from,
    plan_schema,
    range_at,
    read_plan,
    unknown_fields,
)
from .ies import IesError, Photometry, read_ies
from .intent import CoverageSchool, DistanceSchool, LevelSchool, Plate, PlateFact, ShutterSchool, Targets, Trace
from .lamps import Fixture, Light, Modifier, Role
from .merge import Collision, merge
from .people import EYE_HEIGHT, Companion, Envelope, Framing, Prop, Subject
from .scene import Flag, Room, Screen, Window

__all__ = [
    "EYE_HEIGHT",
    "FORMAT",
    "VERSION",
    "Camera",
    "Change",
    "Collision",
    "Companion",
    "CoverageSchool",
    "DistanceSchool",
    "Envelope",
    "Fixture",
    "Flag",
    "Framing",
    "IesError",
    "LevelSchool",
    "Light",
    "Modifier",
    "Photometry",
    "Plan",
    "PlanError",
    "Plate",
    "PlateFact",
    "Prop",
    "Recording",
    "Role",
    "Room",
    "Screen",
    "Sensor",
    "ShutterSchool",
    "Subject",
    "Targets",
    "Trace",
    "Window",
    "apply_changes",
    "as_said",
    "dump_plan",
    "edit",
    "merge",
    "name_of",
    "of_person",
    "one_of_several",
    "people_of",
    "plan_from",
    "plan_schema",
    "range_at",
    "read_ies",
    "read_plan",
    "seen_as",
    "unknown_fields",
]

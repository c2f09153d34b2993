"""The subject: where it stands, how far it reaches, what it wears and holds."""

from typing import Annotated, Literal

from pydantic import Field

from .fields import Coordinate, Name, Part, Reach, Rgb, Share, Switch, number

HIPS, SEAT = 0.47, 0.45
"""Height of the hips as a share of stature, and of a chair's seat, m: usual proportions and furniture."""
EYE_HEIGHT = 0.93
"""Height of the eyes as a share of stature: usual proportions of adults (0.93 to 0.94)."""
HANDS_HEIGHT = 0.6
"""The same of hands that are shown alone: between waist and chest, where they are drawn."""


class Envelope(Part):
    """Reach of the action round the mark, in metres: sideways, above the head, to camera, to screen."""

    left: Reach = 0.6
    right: Reach = 0.6
    up: Reach = 0.2
    front: Reach = 0.4
    back: Reach = 0.3


Keying = Literal["kept", "away", "held-out"]
"""What the key is to do with a thing: keep it; take it away, it has the screen's colour on purpose; keep it although
it shares that colour, by a hold-out drawn at the edit."""


Covers = Literal["body", "top", "legs", "detail"]


class Garment(Part):
    """`covers`: all that is dressed, what is above the waist, what is below it, or no more than a tie does. Of
    several for one place the first is seen; what covers only that place before what covers the body."""

    name: Name = "coat"
    reflectance: Rgb = (0.1, 0.1, 0.12)
    gloss: Share = 0.0
    covers: Covers = "body"
    keying: Keying = "kept"


PropShape = Literal["sphere", "cylinder", "pane", "scoop", "bat", "glasses", "worn"]
MirrorShape = Literal["sphere", "cylinder", "pane"]
MIRRORS: dict[PropShape, MirrorShape] = {
    "sphere": "sphere", "cylinder": "cylinder", "pane": "pane", "scoop": "sphere", "bat": "cylinder",
    "glasses": "pane", "worn": "sphere",
}  # fmt: skip


class Prop(Part):
    """`shape` decides how a thing is drawn and what a shiny one mirrors; left out, glass and liquid are cylinders,
    metal a sphere. Glasses are on the nose, what is worn lies on skin or clothes and is not drawn, all else is held.
    """

    name: Name = "prop"
    kind: Literal["glass", "metal", "matt", "liquid", "smoke"] = "glass"
    reflectance: Rgb = (0.5, 0.5, 0.5)
    shape: PropShape | None = None
    keying: Keying = "kept"

    @property
    def formed(self) -> PropShape:
        """Its shape, said or usual."""
        return self.shape or ("sphere" if self.kind == "metal" else "cylinder")

    @property
    def held(self) -> bool:
        return self.formed not in ("glasses", "worn")

    @property
    def mirrors_as(self) -> MirrorShape:
        """What a shiny one mirrors: a bowl and what is worn as a ball does, a bat as a rod, a lens as a pane."""
        return MIRRORS[self.formed]


Build = Literal["man", "woman", "child"]
HairKind = Literal["smooth", "curly", "fine", "none"]
Framing = Literal["full", "knees", "waist", "chest", "face", "hands"]


class Subject(Part):
    """`body`: whose build the figure has. `posture`: seated, hips and all above them come down
    to a chair's seat, and the legs reach forward."""

    x: Coordinate = 0.0
    z: Coordinate = 2.4
    height: Annotated[float, number(0.1, 5.0, "metres")] = 1.72
    body: Build = "man"
    posture: Literal["standing", "seated"] = "standing"
    framing: Framing = "full"
    envelope: Envelope = Envelope()
    feet_seen: Switch = False
    speed: Annotated[float, number(0.0, 100.0, "metres per second")] = 1.5
    skin: Rgb = (0.45, 0.30, 0.22)
    hair: Rgb = (0.05, 0.035, 0.025)
    hair_kind: HairKind = "smooth"
    wardrobe: Annotated[tuple[Garment, ...], Field(max_length=100)] = ()
    props: Annotated[tuple[Prop, ...], Field(max_length=100)] = ()

    @property
    def worn_above(self) -> Garment | None:
        """What is seen above the waist."""
        return self._worn("top")

    @property
    def worn_below(self) -> Garment | None:
        """What is seen below the waist."""
        return self._worn("legs")

    @property
    def legs_seen(self) -> bool:
        """Are they in the picture?"""
        return self.framing in ("full", "knees")

    @property
    def seen_wardrobe(self) -> tuple[Garment, ...]:
        """Without what only covers legs that are out of the picture."""
        return tuple(one for one in self.wardrobe if one.covers != "legs" or self.legs_seen)

    def _worn(self, place: Covers) -> Garment | None:
        there = (one for covers in (place, "body") for one in self.wardrobe if one.covers == covers)
        return next(there, None)

    @property
    def eyes(self) -> tuple[float, float, float]:
        """Where the lens is focused: x, y, z in m."""
        return self.x, self.up(EYE_HEIGHT), self.z

    @property
    def skin_at(self) -> tuple[float, float, float]:
        """Where the light on skin is measured: on the face, of hands alone in the middle of where they work; m."""
        return self.eyes if self.framing != "hands" else (self.x, self.up(HANDS_HEIGHT), self.z)

    @property
    def lowered(self) -> float:
        """How far sitting brings down hips and head, m."""
        return max(0.0, HIPS * self.height - SEAT) if self.posture == "seated" else 0.0

    def up(self, share: float) -> float:
        """Height in m above the floor of a place of the body given as a share of stature."""
        if share >= HIPS:
            return share * self.height - self.lowered
        return share / HIPS * (HIPS * self.height - self.lowered)

    @property
    def top(self) -> float:
        """Of the head, m above the floor."""
        return self.up(1.0)


class Companion(Subject):
    """Somebody else in the picture, judged as the subject is. Framing and whether feet are seen are the picture's and
    so the subject's; the lens stays focused on the subject. `id` tells companions apart."""

    id: Name = "p2"
    name: Name = "second person"

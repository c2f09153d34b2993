"""The figure as a solid body on its mark: pieces put together for how it stands, what it holds and how its hair is.

It faces the camera. Its axes are x to the right as the camera sees it, y up, z toward the camera.
"""

from __future__ import annotations

from collections.abc import Hashable
from dataclasses import dataclass
from functools import cached_property
from typing import TypeVar

import numpy as np

from ..geometry.vectors import Bools, Bytes, Floats, Floats32, Ints32, dot
from ..plan import Camera, Prop, Subject
from ..plan.people import Build, HairKind
from ..remembered.shelf import remembered
from .body_file import ITSELF_STEP, BodyPiece, pieces_of
from .chair import chair_piece
from .on_mark import OnMark, on_mark

PARTS = ("head", "hair", "coat", "legs", "shoes", "hand", "moving sleeve", "moving hand", "chair")
MOVING = ("moving sleeve", "moving hand")
"""What the fastest movement carries."""
COVERED, BURIED = ("head", "legs"), 0.985
"""Parts whose places are left out where they see nothing but the body: skin under hair, legs under the coat."""
KNEES, MODELLED_FLOOR = 0.46, 0.208
"""Seated: below the knees legs are as long as the chair is high; they were modelled over a floor at such a share of
stature."""


Shares = TypeVar("Shares", Floats, Floats32)


@dataclass(frozen=True, eq=False)
class BodyShape:
    """A body wherever it stands and however tall. Of its places (V,): `shares` (V, 3), where they are from its own
    zero, and `own` (V, 3), where on the modelled body, both in shares of stature; `facing` (V, 3); `sight` (V, 9)
    and `itself` (V, ZONES; see `body_file`); `part`: index into PARTS. Triangles (T, 3) of what is still and of what
    moves."""

    shares: Floats32
    own: Floats32
    facing: Floats32
    sight: Floats32
    itself: Bytes
    part: Bytes
    still: Ints32
    moving: Ints32

    @cached_property
    def triangles(self) -> Ints32:
        return np.concatenate([self.still, self.moving])

    @cached_property
    def normals(self) -> Floats32:
        """Of its triangles (T, 3), outward, twice as long as they are large."""
        a, b, c = (self.shares[self.triangles[:, i]] for i in range(3))
        return np.asarray(np.cross(b - a, c - a), dtype=np.float32)

    @cached_property
    def offsets(self) -> Floats32:
        """How far the planes of its triangles (T,) are from its zero, by the same measure."""
        return np.asarray(dot(self.normals, self.shares[self.triangles[:, 0]]))

    @cached_property
    def areas(self) -> Floats:
        """Of the surface round each place (V,), in squares of stature."""
        each = np.linalg.norm(self.normals, axis=1) / 6.0
        return np.asarray(np.bincount(self.triangles.ravel(), np.repeat(each, 3), len(self.shares)), dtype=np.float64)


@dataclass(frozen=True, eq=False)
class SolidBody:
    """A shape on its mark; `key`: what it is remembered by."""

    key: Hashable
    shape: BodyShape
    mark: OnMark

    @cached_property
    def places(self) -> Floats32:
        """Of the shape (V, 3), m in the set."""
        return np.asarray(self.mark.at(self.shape.shares), dtype=np.float32)

    @cached_property
    def middle(self) -> Floats:
        """Of its places (3,), m in the set."""
        return np.asarray(self.places.mean(axis=0), dtype=np.float64)

    @cached_property
    def facing(self) -> Floats32:
        """What they face (V, 3) in the set."""
        return np.asarray(self.shape.facing @ self.mark.turn.T.astype(np.float32), dtype=np.float32)

    def turned_to(self, place: Floats) -> Bools:
        """Corners (V,) of triangles that face a place (3,) of the set."""
        shape = self.shape
        (facing,) = np.nonzero(shape.normals @ self.mark.shares_of(place).astype(np.float32) > shape.offsets)
        found = np.zeros(len(shape.shares), dtype=np.bool_)
        found[shape.triangles.take(facing, axis=0).ravel()] = True
        return found


def solid_body(subject: Subject, camera: Camera) -> SolidBody:
    seated = subject.posture == "seated"
    kind = (subject.body, _arms(subject), seated, subject.hair_kind, subject.height if seated else 1.0)
    return _placed(kind, on_mark(subject, camera))


def _arms(subject: Subject) -> str:
    if subject.framing == "hands":
        return "reaching"
    return "holding" if any(prop.held for prop in subject.props) else "plain"


def piece_name(subject: Subject, part: str) -> str | None:
    """The piece that is a part of the figure as it is; None for one that it lacks."""
    arms = _arms(subject)
    if part in ("coat", "hand", *MOVING):
        return f"{arms} {part}"
    if arms == "reaching" or part == "chair" or (part == "hair" and subject.hair_kind == "none"):
        return None
    if part == "hair":
        return f"hair {subject.hair_kind}"
    return f"seated {part}" if subject.posture == "seated" and part in ("legs", "shoes") else part


Kind = tuple[Build, str, bool, HairKind, float]


@remembered(8)
def _placed(kind: Kind, mark: OnMark) -> SolidBody:
    return SolidBody(("body", kind, mark), _shape(*kind), mark)


@remembered(8)
def _shape(build: Build, arms: str, seated: bool, hair: HairKind, height: float) -> BodyShape:
    found = _pieces(build, arms, seated, hair)
    own = np.concatenate([piece.places for _, piece in found])
    shares = own
    if seated:
        lowered = Subject(height=height, posture="seated").lowered
        shares = with_floor(own, lowered / height)
        if arms != "reaching":
            found.append(("chair", chair_piece(height, lowered)))
            own, shares = (np.concatenate([v, found[-1][1].places]) for v in (own, shares))
    starts = np.cumsum([0, *(len(piece.places) for _, piece in found)])
    triangles = [(name, piece.triangles + np.int32(s)) for (name, piece), s in zip(found, starts, strict=False)]
    return BodyShape(
        shares=shares,
        own=own,
        facing=np.concatenate([piece.facing for _, piece in found]),
        sight=np.concatenate([piece.sight for _, piece in found]),
        itself=np.concatenate([piece.itself for _, piece in found]),
        part=np.repeat([PARTS.index(name) for name, _ in found], np.diff(starts)).astype(np.uint8),
        still=np.concatenate([t for name, t in triangles if name not in MOVING]),
        moving=np.concatenate([t for name, t in triangles if name in MOVING]),
    )


def _pieces(build: Build, arms: str, seated: bool, hair: HairKind) -> list[tuple[str, BodyPiece]]:
    like = Subject(
        body=build,
        posture="seated" if seated else "standing",
        framing="hands" if arms == "reaching" else "full",
        hair_kind=hair,
        props=(Prop(),) if arms == "holding" else (),
    )
    named = {part: name for part in PARTS if (name := piece_name(like, part)) is not None}
    found = zip(named, pieces_of(build, list(named.values()), hair), strict=True)
    return [(part, _not_buried(piece) if part in COVERED else piece) for part, piece in found]


def _not_buried(piece: BodyPiece) -> BodyPiece:
    """Less what lies so deep under hair or cloth that no light and no lens gets there."""
    buried = ITSELF_STEP * piece.itself.sum(axis=1, dtype=np.float64) > BURIED
    triangles = piece.triangles[~buried[piece.triangles].all(axis=1)]
    used = np.zeros(len(buried), dtype=bool)
    used[triangles] = True
    named = {name: getattr(piece, name)[used] for name in ("places", "facing", "sight", "itself")}
    return BodyPiece(**named, triangles=(np.cumsum(used) - 1)[triangles].astype(np.int32))


def with_floor(own: Shares, floor: float) -> Shares:
    """Places (N, 2 or 3) with shins that reach down to a floor at a share of stature."""
    longer = (KNEES - floor) / (KNEES - MODELLED_FLOOR)
    y = own[:, 1]
    moved = own.copy()
    moved[:, 1] = np.where(y < KNEES, KNEES + (y - KNEES) * longer, y)
    return moved

"""What `key` and `test-key` say: one shape for the command line, the API and the page.

Other programs rely on the names (docs/formats.md); fields may be added, none changes its meaning.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from ..damage.scale import QualityPart
from ..plan import Change, one_of_several
from ..sentences import Sentence, say
from ..standards.quantities import Percent, Points, Share, SquareCentimetres
from .keyer import Key, Sample
from .levers import Lever
from .pull import Keyer
from .quality import Measures
from .simulation import SimulatedKey


@dataclass(frozen=True, kw_only=True)
class KeyReport:
    """The plain one-click key: residue in % of the screen, holes in % of the solid figure, clips as matte values."""

    residue_percent: Percent
    holes_percent: Percent | None
    black_clip: Share
    white_clip: Share
    needed_clip: Share
    sample: Sample


@dataclass(frozen=True, kw_only=True)
class SecondReport:
    """The plan's measures by the chroma distance."""

    edge_error: Share | None
    hair_error: Share | None
    needed_clip: Share | None
    residue_percent: Percent | None
    holes_percent: Percent | None


@dataclass(frozen=True, kw_only=True)
class LeverReport:
    """A change, the quality after it (0 to 100), and its cost. `told` and `costs` are the same to be said in other
    units; a key kept by an older version has none."""

    change: str
    quality_after: float
    gain: float
    cost: str
    changes: tuple[Change, ...]
    told: Sentence | None = None
    costs: Sentence | None = None


@dataclass(frozen=True, kw_only=True)
class TestKeyReport:
    """Quality 0 to 100 by the kinder `formula`, and by the other one; errors 0 to 1 of the matte; soft edge in cm2;
    residue, holes, flicker and loss of matte in %. `person`: of whom, where several are in the picture: the one whom
    the key costs most."""

    quality: float
    edge_error: Share | None
    residue_percent: Percent | None
    holes_percent: Percent | None
    hair_error: Share | None
    motion_error: Share | None
    soft_edge_cm2: SquareCentimetres | None
    needed_clip: Share | None
    composite_error: Share | None
    screen_left: Share | None
    matte_loss: Percent | None
    flicker_percent: Points | None
    second_keyer: SecondReport | None
    formula: Keyer
    other_quality: float
    parts: tuple[QualityPart, ...]
    levers: tuple[LeverReport, ...]
    person: str | None = None


def key_report(key: Key) -> KeyReport:
    return KeyReport(
        residue_percent=key.residue_percent,
        holes_percent=key.holes_percent,
        black_clip=key.black_clip,
        white_clip=key.white_clip,
        needed_clip=key.needed_clip,
        sample=key.sample,
    )


def test_key_report(key: SimulatedKey) -> TestKeyReport:
    """Of a key without levers."""
    m = key.measures
    return TestKeyReport(
        quality=key.quality,
        edge_error=m.edge_error,
        residue_percent=m.residue_percent,
        holes_percent=m.holes_percent,
        hair_error=m.hair_error,
        motion_error=m.motion_error,
        soft_edge_cm2=m.soft_edge,
        needed_clip=m.needed_clip,
        composite_error=m.composite_error,
        screen_left=m.screen_left,
        matte_loss=m.matte_loss,
        flicker_percent=key.flicker_percent,
        second_keyer=None if key.second is None else _second(key.second),
        formula=key.kinder.formula,
        other_quality=key.other.quality,
        parts=key.parts,
        levers=(),
        person=one_of_several(key.capture.plan, key.kinder.person),
    )


def with_levers(report: TestKeyReport, levers: Sequence[Lever]) -> TestKeyReport:
    return replace(report, levers=tuple(_lever(lever) for lever in levers))


def _second(m: Measures) -> SecondReport:
    return SecondReport(
        edge_error=m.edge_error,
        hair_error=m.hair_error,
        needed_clip=m.needed_clip,
        residue_percent=m.residue_percent,
        holes_percent=m.holes_percent,
    )


def _lever(lever: Lever) -> LeverReport:
    return LeverReport(
        change=say(lever.change),
        quality_after=lever.quality_after,
        gain=lever.gain,
        cost="" if lever.cost is None else say(lever.cost),
        changes=lever.changes,
        told=lever.change,
        costs=lever.cost,
    )

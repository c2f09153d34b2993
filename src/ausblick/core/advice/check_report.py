"""What `check` says: one shape for the command line, the API and the page (docs/formats.md promises its keys)."""

from __future__ import annotations

from dataclasses import dataclass

from ..evaluation.results import (
    Blur,
    Evaluation,
    Exposure,
    Focus,
    ScreenReading,
    Shadow,
    Texture,
    Zones,
)
from ..light.mirror import Mirrored, Reflection
from ..light.spill import Kind, ProbeReading, Spill
from ..plan import Change
from ..sentences import Sentence, digits, say
from ..standards.limit import Severity
from ..standards.quantities import Metres, Percent, Pixels
from ..standards.unbounded import Unbounded
from .rule import Finding, Outcome, Remedy, Rule, Stage


@dataclass(frozen=True, kw_only=True)
class CoverageReport:
    """`needed`: x0, y0, x1, y1 on the screen's plane in m; the margin in m and px, negative where some is missing."""

    needed: tuple[float, float, float, float] | None
    covered: bool
    margin_m: Metres | None
    margin_px: Pixels | None


@dataclass(frozen=True)
class SourceReport:
    """A surface that sends screen colour to a place, and its share in points."""

    surface: str
    share: Percent


@dataclass(frozen=True, kw_only=True)
class ProbeReport:
    """Light R, G, B in lux on a place of the subject, and its share of screen colour in %."""

    name: str
    kind: Kind
    at: tuple[float, float, float]
    facing: tuple[float, float, float]
    light: tuple[float, float, float]
    share: Percent | None
    lamps: Percent
    framed: bool
    sources: tuple[SourceReport, ...]


@dataclass(frozen=True, kw_only=True)
class SpillReport:
    """Key-channel share in %: face, the worse cheek, back of the head, the worst underside."""

    front: Percent | None
    side: Percent | None
    back: Percent | None
    under: Percent | None
    probes: tuple[ProbeReport, ...]


@dataclass(frozen=True, kw_only=True)
class RemedyReport:
    """A remedy that was tried: `text`, `effect` and `cost` in metric words; `told` and `costs` are the same to be
    said in other units; `before` and `after` are the rule's value."""

    text: str
    effect: str
    cost: str
    outcome: Outcome
    before: Unbounded | None
    after: Unbounded | None
    worsens: tuple[str, ...]
    changes: tuple[Change, ...]
    told: Sentence
    costs: Sentence | None


@dataclass(frozen=True, kw_only=True)
class FindingReport:
    """A rule's judgement: value and limit in `unit`; `source` says whose limit it is, `reason` why it is that.
    `says` is metric, `told` the same to be said in other units."""

    id: str
    stage: Stage
    severity: Severity
    says: str
    told: Sentence
    measure: str
    value: Unbounded | None
    limit: Unbounded | None
    unit: str
    why: str
    source: str
    reason: str
    digits: int
    remedies: tuple[RemedyReport, ...]


@dataclass(frozen=True, kw_only=True)
class CheckReport:
    coverage: CoverageReport
    screen: ScreenReading | None
    exposure: Exposure
    shadow: Shadow
    spill: SpillReport
    reflections: tuple[Reflection, ...]
    mirrored: tuple[Mirrored, ...]
    texture: Texture | None
    zones: Zones
    blur: Blur
    focus: Focus | None
    findings: tuple[FindingReport, ...]
    not_computed: tuple[str, ...]


def check_report(evaluation: Evaluation, findings: list[Finding]) -> CheckReport:
    """The evaluation and its findings as they are told."""
    coverage = evaluation.coverage
    return CheckReport(
        coverage=CoverageReport(
            needed=coverage.needed,
            covered=coverage.covered,
            margin_m=coverage.margin_m,
            margin_px=coverage.margin_px,
        ),
        screen=evaluation.screen,
        exposure=evaluation.exposure,
        # No figure, or no needed screen in view: no shadow.
        shadow=evaluation.shadow or Shadow(0.0, 0.0, None, None),
        spill=_spill(evaluation.spill),
        reflections=evaluation.reflections,
        mirrored=evaluation.mirrored,
        texture=evaluation.texture,
        zones=evaluation.zones,
        blur=evaluation.blur,
        focus=evaluation.focus,
        findings=tuple(_finding(finding) for finding in findings),
        not_computed=evaluation.not_computed,
    )


def _spill(spill: Spill) -> SpillReport:
    probes = tuple(_probe(reading) for reading in spill.probes)
    return SpillReport(front=spill.front, side=spill.side, back=spill.back, under=spill.under, probes=probes)


def _probe(reading: ProbeReading) -> ProbeReport:
    red, green, blue = (float(v) for v in reading.light)
    place = reading.place
    return ProbeReport(
        name=place.name,
        kind=place.kind,
        at=place.at,
        facing=place.facing,
        light=(red, green, blue),
        share=reading.share,
        lamps=reading.lamps,
        framed=reading.framed,
        sources=tuple(SourceReport(name, share) for name, share in reading.sources),
    )


def _finding(finding: Finding) -> FindingReport:
    rule, judgement = finding.rule, finding.judgement
    return FindingReport(
        id=rule.id,
        stage=rule.stage,
        severity=judgement.severity,
        says=say(judgement.says),
        told=judgement.says,
        measure=rule.measure,
        value=judgement.value,
        limit=judgement.limit,
        unit=judgement.unit,
        why=judgement.why or rule.why,
        source=rule.source,
        reason=rule.limit.reason,
        digits=rule.digits,
        remedies=tuple(_remedy(rule, judgement.unit, remedy) for remedy in finding.remedies),
    )


def _remedy(rule: Rule, unit: str, remedy: Remedy) -> RemedyReport:
    return RemedyReport(
        text=say(remedy.text),
        effect=_effect(rule, unit, remedy),
        cost="" if remedy.cost is None else say(remedy.cost),
        outcome=remedy.outcome,
        before=remedy.before,
        after=remedy.after,
        worsens=remedy.worsens,
        changes=remedy.changes,
        told=remedy.text,
        costs=remedy.cost,
    )


def _effect(rule: Rule, unit: str, remedy: Remedy) -> str:
    """The rule's value before and after, in its unit."""
    before = "none" if remedy.before is None else digits(remedy.before, rule.digits)
    if remedy.outcome == "does-not-apply":
        return f"{rule.measure} {before} {unit}".rstrip() + ": no longer a question"
    after = "none" if remedy.after is None else digits(remedy.after, rule.digits)
    return f"{rule.measure} {before} → {after} {unit}".rstrip()

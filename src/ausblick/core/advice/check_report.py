"""What `check` says: one shape for the command line, the API and the page (docs/formats.md promises its keys)."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass

from ..damage.formula import Formula
from ..damage.scale import QualityPart
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
from ..plan import Change, name_of, one_of_several, people_of
from ..sentences import Sentence, digits, say
from ..standards.limit import Severity
from ..standards.quantities import Lux, Metres, OpenStops, Percent, Pixels
from ..standards.rule_names import NAMES
from ..standards.unbounded import Unbounded
from .causes import open_causes
from .companions import whose
from .rule import Finding, Outcome, Remedy, Rule, Stage
from .whole_plan import weight_of_one


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
class PersonReport:
    """Of each person in the picture, the subject first: light on the face, what the skin reads, screen colour on face
    and worse cheek in %, and the quality that the key would have for this one alone (see PredictedKey), None for who
    stands beside the picture."""

    name: str
    subject_lux: Lux | None
    stops_over: OpenStops | None
    subject_level: Percent | None
    spill_front: Percent | None
    spill_side: Percent | None
    quality: float | None


@dataclass(frozen=True, kw_only=True)
class RemedyReport:
    """A remedy that was tried: `text`, `effect` and `cost` in metric words; `told` and `costs` are the same to be
    said in other units; `before` and `after` are the rule's value. `worsens`: ids of rules, and the same in words;
    `open_before` and `open_after`: what all open findings weigh; `quality_after`: of the key, predicted; `gives`: the
    plan is better for it."""

    text: str
    effect: str
    cost: str
    outcome: Outcome
    before: Unbounded | None
    after: Unbounded | None
    worsens: tuple[str, ...]
    worsens_words: tuple[str, ...]
    open_before: float
    open_after: float
    quality_after: float
    gives: bool
    changes: tuple[Change, ...]
    told: Sentence
    costs: Sentence | None


@dataclass(frozen=True, kw_only=True)
class FindingReport:
    """A rule's judgement: value and limit in `unit`; `who` names the companion whom it is of, empty for the subject
    and the set; `source` says whose limit it is, `reason` why it is that.
    `weight`: what it weighs among all open findings. `says` is metric, `told` the same to be said in other units.
    `cause_of`: open damages (ids) that it adds to; `no_remedy`: why there is none, empty where there is one or none
    is asked for."""

    id: str
    stage: Stage
    severity: Severity
    weight: float
    who: str
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
    cause_of: tuple[str, ...]
    remedies: tuple[RemedyReport, ...]
    no_remedy: str
    no_remedy_told: Sentence | None


@dataclass(frozen=True, kw_only=True)
class PredictedKey:
    """The quality that a test key would have, 0 to 100, and its parts, predicted without a picture; by the kinder
    formula. `person`: of whom, where several are in the picture: the one whom the key costs most."""

    quality: float
    formula: Formula
    parts: tuple[QualityPart, ...]
    person: str | None = None


@dataclass(frozen=True, kw_only=True)
class CheckReport:
    coverage: CoverageReport
    screen: ScreenReading | None
    exposure: Exposure
    shadow: Shadow
    spill: SpillReport
    people: tuple[PersonReport, ...]
    reflections: tuple[Reflection, ...]
    mirrored: tuple[Mirrored, ...]
    texture: Texture | None
    zones: Zones
    blur: Blur
    focus: Focus | None
    findings: tuple[FindingReport, ...]
    predicted: PredictedKey | None
    not_computed: tuple[str, ...]


def check_report(evaluation: Evaluation, findings: list[Finding]) -> CheckReport:
    """The evaluation and its findings as they are told."""
    coverage, causes = evaluation.coverage, open_causes(evaluation, {f.rule.id: f.judgement for f in findings})
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
        people=tuple(_people(evaluation)),
        reflections=evaluation.reflections,
        mirrored=evaluation.mirrored,
        texture=evaluation.texture,
        zones=evaluation.zones,
        blur=evaluation.blur,
        focus=evaluation.focus,
        findings=tuple(
            _finding(finding, whose(evaluation, finding.judgement), causes.get(finding.rule.id, ()))
            for finding in findings
        ),
        predicted=_predicted(evaluation),
        not_computed=evaluation.not_computed,
    )


def _predicted(evaluation: Evaluation) -> PredictedKey | None:
    damage = evaluation.worst_damage
    if damage is None:
        return None
    kinder = damage.kinder
    whom = one_of_several(evaluation.plan, evaluation.worst_person)
    return PredictedKey(quality=kinder.quality, formula=kinder.formula, parts=kinder.parts, person=whom)


def _people(evaluation: Evaluation) -> Iterator[PersonReport]:
    for i, person in enumerate(people_of(evaluation.plan)):
        own = evaluation.of(i)
        yield PersonReport(
            name=name_of(person),
            subject_lux=own.exposure.subject_lux,
            stops_over=own.exposure.stops_over,
            subject_level=own.exposure.subject_level,
            spill_front=own.spill.front,
            spill_side=own.spill.side,
            quality=own.damage.kinder.quality if own.damage is not None and own.damage.shown else None,
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


def _finding(finding: Finding, who: str, cause_of: tuple[str, ...]) -> FindingReport:
    rule, judgement = finding.rule, finding.judgement
    return FindingReport(
        id=rule.id,
        stage=rule.stage,
        severity=judgement.severity,
        weight=weight_of_one(rule.id, judgement),
        who=who,
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
        cause_of=cause_of,
        no_remedy="" if finding.no_remedy is None else say(finding.no_remedy),
        no_remedy_told=finding.no_remedy,
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
        worsens_words=tuple(NAMES[rule_id] for rule_id in remedy.worsens),
        open_before=remedy.open_before,
        open_after=remedy.open_after,
        quality_after=remedy.quality_after,
        gives=remedy.gives,
        changes=remedy.changes,
        told=remedy.text,
        costs=remedy.cost,
    )


def _effect(rule: Rule, unit: str, remedy: Remedy) -> str:
    """The rule's value before and after, in its unit."""
    if remedy.outcome == "does-not-apply":
        return f"{rule.measure}: no longer a question"
    before = "none" if remedy.before is None else digits(remedy.before, rule.digits)
    after = "none" if remedy.after is None else digits(remedy.after, rule.digits)
    return f"{rule.measure} {before} → {after} {unit}".rstrip()

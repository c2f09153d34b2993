"""One sentence over all findings: good, usable, or will not do, because."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Literal

from ..sentences import Sentence, tell
from .rule import Finding

Verdict = Literal["good", "usable", "no"]


def verdict_of(findings: Sequence[Finding]) -> Verdict:
    """`findings` worst first. Nothing above *consider* is good; a stop will not do."""
    worst = findings[0].judgement.severity if findings else "fine"
    return "no" if worst == "stop" else "usable" if worst == "fix" else "good"


def verdict_told(findings: Sequence[Finding]) -> Sentence:
    verdict = verdict_of(findings)
    if verdict == "good":
        return tell("verdict/good")
    because = findings[0].judgement.says
    return tell("verdict/no" if verdict == "no" else "verdict/usable", because=because)

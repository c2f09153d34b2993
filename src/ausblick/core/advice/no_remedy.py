"""Why a stop or a fix has no remedy in the plan, and what it would take."""

from __future__ import annotations

from ..sentences import SENTENCES, Sentence, tell
from .rule import Judgement


def no_remedy(rule_id: str, judgement: Judgement) -> Sentence | None:
    """None for what is only to be considered."""
    if judgement.severity not in ("stop", "fix"):
        return None
    own = f"none/{rule_id}"
    return tell(own if own in SENTENCES else "none/any")

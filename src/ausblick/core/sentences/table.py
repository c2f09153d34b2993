"""Every sentence, by its id: the one place where words, their order and their units stand."""

from __future__ import annotations

from .costs import COSTS
from .findings_told import FINDINGS
from .remedies_told import REMEDIES
from .searches_told import SEARCHES

SENTENCES: dict[str, str] = {**FINDINGS, **REMEDIES, **COSTS, **SEARCHES}

"""Every sentence, by its id: the one place where words, their order and their units stand."""

from __future__ import annotations

from .costs import COSTS
from .days_told import DAYS
from .findings_told import FINDINGS
from .frames_told import FRAMES
from .none_told import NONE
from .remedies_told import REMEDIES
from .searches_told import SEARCHES
from .verdicts_told import VERDICTS

SENTENCES: dict[str, str] = {**FINDINGS, **REMEDIES, **COSTS, **SEARCHES, **NONE, **VERDICTS, **DAYS, **FRAMES}

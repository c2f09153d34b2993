"""The one sentence over a whole set-up."""

from __future__ import annotations

VERDICTS = {
    "verdict/good": "Good: nothing here costs the key anything that shows",
    "verdict/usable": "Usable, but: {because}",
    "verdict/instead": "Not {wanted} ({because}), but {instead}. {says}",
    "verdict/no": "Will not do, because: {because}",
}

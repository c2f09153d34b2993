"""What the plan does to the key, as it is predicted without a picture."""

from __future__ import annotations

from ..plan import one_of_several
from .number import Input, Number
from .results import Evaluation

DRAWN = "Fitted to drawn keys, docs/model.md"


def _whose(e: Evaluation) -> str:
    whom = one_of_several(e.plan, e.worst_person)
    return "" if whom is None else f"Of {whom}, whom it costs most: "


def key_numbers(e: Evaluation) -> list[Number]:
    worst = e.worst_damage
    if worst is None or e.damage is None:
        return []
    key, screen = worst.kinder, e.damage.kinder
    return [
        Number(
            id="quality",
            stage="camera",
            label="Key, predicted",
            value=key.quality,
            unit="of 100",
            digits=0,
            formula=f"{_whose(e)}100 halved for the root of the weighted mean square of the parts, each from its "
            "ideal (0) to a border capture (1); composite and screen left in the edge need a drawn key",
            source=DRAWN,
            inputs=tuple(
                Input(part.name.replace("_", " "), part.value, "") for part in key.parts if part.value is not None
            ),
        ),
        Number(
            id="clip",
            stage="light",
            label="Clip the screen needs",
            value=screen.needed_clip,
            unit="",
            digits=2,
            formula="99.5 % quantile over the needed screen of 1 − d / median of d, with noise and folds; d is the "
            "key channel less the others",
            source="Colour-difference key",
            inputs=tuple(Input(name, max(0.0, part), "") for name, part in screen.clip_causes.items()),
        ),
    ]

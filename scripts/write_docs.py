"""Write what is generated: OpenAPI, JSON Schemas of the open documents, and the page of rules.

python scripts/write_docs.py          writes docs/
python scripts/write_docs.py --check  exits 1 and names what is stale
"""

from __future__ import annotations

import json
import math
import os
import sys
import tempfile
from pathlib import Path

os.environ["AUSBLICK_DESCRIBED"] = "1"

from page_facts import page_facts
from pydantic import BaseModel

from ausblick.core.advice.rule_table import RULES
from ausblick.core.advice.rules.kit_rules import kit_rules
from ausblick.core.kit import Kit
from ausblick.core.plan import Plan
from ausblick.core.production.production_document import Production
from ausblick.core.sentences.table import SENTENCES
from ausblick.core.standards.day_limits import DAY_LIMITS
from ausblick.core.standards.limit import Limit
from ausblick.core.takes.take_document import Take
from ausblick.web.app import create_app

STAGES = ("plate", "space", "screen", "light", "subject", "camera")
ROOT = Path(__file__).resolve().parent.parent


def without_nulls(value: object) -> object:
    if isinstance(value, dict):
        return {k: without_nulls(v) for k, v in value.items() if v is not None or k == "default"}
    if isinstance(value, list):
        return [without_nulls(v) for v in value]
    return value


def openapi() -> str:
    with tempfile.TemporaryDirectory() as folder:
        app = create_app(Path(folder))
        return json.dumps(without_nulls(app.api_doc), indent=1, sort_keys=True) + "\n"


def schema_of(model: type[BaseModel], title: str) -> str:
    schema = model.model_json_schema(by_alias=True)
    schema["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    schema["title"] = title
    return json.dumps(schema, indent=1) + "\n"


def limit_line(limit: Limit) -> str:
    """The number with its unit, the steps beyond it, whose it is, and why it is that."""
    unit = f" {limit.unit}" if limit.unit else ""
    beyond = f" {limit.excess_unit}" if limit.excess_unit else unit
    words = {limit.fix: "to be mended", limit.stop: "stops the shoot"}
    steps = [
        f"{word} beyond it" + (f" by more than {step:.3g}{beyond}" if step > 0.0 else "")
        for step, word in words.items()
        if math.isfinite(step)
    ]
    return "; ".join([f"**{limit.at:.3g}{unit}**", *steps]) + f". {limit.source}. {limit.reason}"


def rules_page() -> str:
    lines = [
        "# Rules",
        "",
        "Generated from the table of rules (`src/ausblick/core/advice/rule_table.py`). Each finding names one of "
        "these. All limits stand in one place, `src/ausblick/core/standards/limits.py`, the schools' numbers beside "
        "them in `schools.py`; a limit belongs to the school that is named with it.",
        "",
    ]
    stage = None
    for rule in sorted((*RULES, *kit_rules(Kit())), key=lambda rule: STAGES.index(rule.stage)):
        if rule.stage != stage:
            stage = rule.stage
            lines += [f"## {stage.capitalize()}", ""]
        lines += [
            f"### `{rule.id}`",
            "",
            f"*Measures* {rule.measure}. {rule.why}",
            "",
            f"*Limit.* {limit_line(rule.limit)}",
            "",
        ]
    lines += ["## Days and takes", "", "What is judged of a production (`src/ausblick/core/production/day_rules.py`) "
              "and of its takes (`src/ausblick/core/takes/`); limits in `src/ausblick/core/standards/day_limits.py`.",
              ""]  # fmt: skip
    for name, limit in DAY_LIMITS.items():
        lines += [f"### `{name}`", "", f"*Limit.* {limit_line(limit)}", ""]
    return "\n".join(lines)


def main() -> int:
    wanted = {
        ROOT / "docs/api/openapi.json": openapi(),
        ROOT / "docs/plan.schema.json": schema_of(Plan, "Ausblick plan, version 1"),
        ROOT / "docs/production.schema.json": schema_of(Production, "Ausblick production, version 1"),
        ROOT / "docs/take.schema.json": schema_of(Take, "Ausblick take, version 1"),
        ROOT / "docs/rules.md": rules_page(),
        ROOT / "web/src/lib/facts.generated.ts": page_facts(),
        ROOT / "web/src/lib/sentences.generated.json": json.dumps(SENTENCES, ensure_ascii=False, indent=1) + "\n",
    }
    if "--check" not in sys.argv:
        for path, text in wanted.items():
            path.write_text(text, encoding="utf-8")
        return 0
    stale = [
        str(p.relative_to(ROOT)) for p, text in wanted.items() if not p.is_file() or p.read_text("utf-8") != text
    ]
    if stale:
        print(f"stale: {', '.join(stale)}; run 'make types'")
    return 1 if stale else 0


if __name__ == "__main__":
    sys.exit(main())

from __future__ import annotations

import re

from ausblick.core.plan import Plan, edit
from ausblick.core.plan.edit import Field


def fields() -> list[str]:
    parts = (edit.camera, edit.screen, edit.subject, edit.room)
    found = [value.path for part in parts for value in vars(type(part)).values() if isinstance(value, Field)]
    found += [value.path for value in vars(edit.lamp(3)).values() if isinstance(value, Field)]
    found += [value.path for value in vars(edit.companion(1)).values() if isinstance(value, Field)]
    found += [edit.subject.reach(side).path for side in ("left", "right", "up", "front", "back")]
    return [*found, edit.lights.path, edit.flags.path, edit.medium.path]


def test_every_edit_names_a_field_of_the_plan() -> None:
    """A path that is misspelt would be told to whoever tries the remedy, and not before."""
    schema = Plan.model_json_schema()

    def options(node: dict[str, object]) -> list[dict[str, object]]:
        if "$ref" in node:
            return options(schema["$defs"][str(node["$ref"]).rsplit("/", 1)[1]])
        found = [o for word in ("anyOf", "oneOf") for one in node.get(word, []) for o in options(one)]  # type: ignore[attr-defined]
        return found or [node]

    for path in fields():
        nodes = [schema]
        for step in re.findall(r"[^.\[\]]+", path):
            nodes = [
                option
                for node in nodes
                for option in options(
                    node.get("items", {}) if step.isdigit() else node.get("properties", {}).get(step, {})
                )
                if option
            ]
        assert nodes, path
    assert len(fields()) > 45


def test_an_edit_is_a_change_by_its_path() -> None:
    assert edit.lamp(2).dimmer(0.5) == edit.Change("lights[2].dimmer", 0.5)
    assert edit.camera.f_number(4.0).path == "camera.f_number"

"""The allowed range of any number field of the plan, read off the schema of the models."""

from __future__ import annotations

import re
from typing import Any

Schema = dict[str, Any]


def _options(schema: Schema, node: Schema) -> list[Schema]:
    """A schema node with references followed and unions opened."""
    if "$ref" in node:
        return _options(schema, schema["$defs"][node["$ref"].rsplit("/", 1)[1]])
    found: list[Schema] = []
    for word in ("anyOf", "oneOf"):
        for option in node.get(word, ()):
            found += _options(schema, option)
    return found or [node]


def _step(schema: Schema, nodes: list[Schema], step: str) -> list[Schema]:
    found: list[Schema] = []
    for node in nodes:
        if step.isdigit():
            items = node.get("prefixItems") or [node.get("items") or {}]
            found += _options(schema, items[min(int(step), len(items) - 1)])
        elif step in node.get("properties", {}):
            found += _options(schema, node["properties"][step])
    return found


def range_in(schema: Schema, path: str) -> tuple[float, float] | None:
    """(lowest, highest) of the number field at a path such as `lights[0].position[2]` of a JSON Schema, or None."""
    nodes = _options(schema, schema)
    for step in re.findall(r"[^.\[\]]+", path):
        nodes = _step(schema, nodes, step)
    for node in nodes:
        if "minimum" in node and "maximum" in node:
            return float(node["minimum"]), float(node["maximum"])
    return None

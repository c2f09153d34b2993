"""The allowed range of any number field of the plan, read off the models themselves."""

from __future__ import annotations

import re
from functools import cache
from typing import Any

from .document import Plan


@cache
def _schema() -> dict[str, Any]:
    return Plan.model_json_schema()


def _options(node: dict[str, Any]) -> list[dict[str, Any]]:
    """A schema node with references followed and unions opened."""
    if "$ref" in node:
        return _options(_schema()["$defs"][node["$ref"].rsplit("/", 1)[1]])
    found: list[dict[str, Any]] = []
    for word in ("anyOf", "oneOf"):
        for option in node.get(word, ()):
            found += _options(option)
    return found or [node]


def _step(nodes: list[dict[str, Any]], step: str) -> list[dict[str, Any]]:
    found: list[dict[str, Any]] = []
    for node in nodes:
        if step.isdigit():
            items = node.get("prefixItems") or [node.get("items") or {}]
            found += _options(items[min(int(step), len(items) - 1)])
        elif step in node.get("properties", {}):
            found += _options(node["properties"][step])
    return found


def range_at(path: str) -> tuple[float, float] | None:
    """(lowest, highest) of the number field at a path such as `lights[0].position[2]`, or None."""
    nodes = _options(_schema())
    for step in re.findall(r"[^.\[\]]+", path):
        nodes = _step(nodes, step)
    for node in nodes:
        if "minimum" in node and "maximum" in node:
            return float(node["minimum"]), float(node["maximum"])
    return None

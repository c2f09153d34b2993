"""Results as plain data: what JSON can say of a frozen record, infinities as null."""

from __future__ import annotations

import json
from typing import Any

from pydantic import TypeAdapter

_ADAPTERS: dict[type, TypeAdapter[Any]] = {}
"""One for each kind of record: making one costs more than using it."""


def plain(record: Any) -> Any:
    """Dicts, lists, numbers and words of a dataclass of the core, as its JSON has them."""
    kind = type(record)
    if kind not in _ADAPTERS:
        _ADAPTERS[kind] = TypeAdapter(kind)
    return json.loads(_ADAPTERS[kind].dump_json(record))

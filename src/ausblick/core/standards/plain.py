"""Results as plain data and back: what JSON can say of a frozen record, infinities as null."""

from __future__ import annotations

from typing import Any, TypeVar

import orjson
from pydantic import TypeAdapter

T = TypeVar("T")
_ADAPTERS: dict[type, TypeAdapter[Any]] = {}
"""One for each kind of record that is read again: making one costs more than using it, and than all of `plain`."""


def plain(record: Any) -> Any:
    """Dicts, lists, numbers and words of a dataclass of the core, as its JSON has them."""
    return orjson.loads(orjson.dumps(record, option=orjson.OPT_SERIALIZE_NUMPY))


def unplain(kind: type[T], data: Any) -> T:
    """The record that plain data is of: what was kept, read again. Raises pydantic's ValidationError."""
    found: T = _adapter(kind).validate_python(data)
    return found


def _adapter(kind: type) -> TypeAdapter[Any]:
    if kind not in _ADAPTERS:
        _ADAPTERS[kind] = TypeAdapter(kind)
    return _ADAPTERS[kind]

"""Groups of routes, which collect their own description for whom writes it down (scripts/write_docs.py).

The schemas of every answer of every route are more than half of what a start of the server costs, and nobody reads
them there.
"""

from __future__ import annotations

import os

from flask_openapi3.blueprint import APIBlueprint
from flask_openapi3.models.tag import Tag

from .schemas import REFUSALS

DESCRIBED = os.environ.get("AUSBLICK_DESCRIBED") == "1"


def group(name: str, tag: str, prefix: str = "/api") -> APIBlueprint:
    """A group of routes under a prefix, told under a tag."""
    return APIBlueprint(
        name, __name__, url_prefix=prefix, abp_tags=[Tag(name=tag)], abp_responses=REFUSALS, doc_ui=DESCRIBED
    )

"""What is told: every sentence exists, has what its words ask for, and is said the same here and on the page."""

from __future__ import annotations

import ast
import json
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest

import ausblick.core
from ausblick.core.sentences import Sentence, few, say, tell
from ausblick.core.sentences.findings_told import FINDINGS
from ausblick.core.sentences.say import KINDS, PLACE
from ausblick.core.sentences.table import SENTENCES

CASES = json.loads((Path(__file__).parent.parent / "say_cases.json").read_text("utf-8"))


def sentence(data: Any) -> Any:
    """A case's plain data as the sentence that it is of."""
    if isinstance(data, dict):
        return Sentence(data["id"], {name: sentence(value) for name, value in data["parameters"].items()})
    return tuple(sentence(one) for one in data) if isinstance(data, list) else data


@pytest.mark.parametrize("case", CASES, ids=lambda case: case["metric"][:40])
def test_a_sentence_in_metric_words(case: dict[str, Any]) -> None:
    assert say(sentence(case["sentence"])) == case["metric"]


@pytest.mark.parametrize("case", CASES, ids=lambda case: case["feet"][:40])
def test_a_sentence_in_feet_and_quarter_inches(case: dict[str, Any]) -> None:
    assert say(sentence(case["sentence"]), "ft") == case["feet"]


def told() -> Iterator[tuple[str, ast.Call]]:
    """Every call of `tell` in the core, with each id that it may have."""
    for file in Path(ausblick.core.__file__).parent.rglob("*.py"):
        for node in ast.walk(ast.parse(file.read_text("utf-8"))):
            if isinstance(node, ast.Call) and getattr(node.func, "id", "") == "tell":
                for ident in _ids(node.args[0]):
                    yield ident, node


def _ids(node: ast.expr) -> list[str]:
    if isinstance(node, ast.Constant):
        return [str(node.value)]
    if isinstance(node, ast.IfExp):
        return [*_ids(node.body), *_ids(node.orelse)]
    return []


def test_every_sentence_that_is_told_is_in_the_table_with_its_parameters() -> None:
    calls = list(told())
    assert len(calls) > 150
    for ident, call in calls:
        wanted = {match[1] for match in PLACE.finditer(SENTENCES[ident])}
        given = {word.arg for word in call.keywords}
        assert None in given or wanted == given, ident


def test_every_sentence_of_the_table_is_told_somewhere() -> None:
    """By its id, or by the beginning of one that is put together (`do/black-{side}`)."""
    code = "".join(
        p.read_text("utf-8") for p in Path(ausblick.core.__file__).parent.rglob("*.py") if "_told" not in p.name
    )
    unheard = [ident for ident in SENTENCES if f'"{ident}"' not in code]
    begun = ("do/less-action/", "do/black-", "do/screen-lamps-", "light.level/", "light.shadow/", "subject.hair/")
    begun += (
        "day.minor/",
        "take.settings/",
        "recording.log/",
        "recording.noise-reduction/",
        "ledger/short-",
        "key.",
        "none/",
        "light.mixed-colour/",
        "light.heat/",
    )
    assert [ident for ident in unheard if not ident.startswith(begun)] == []


def test_a_finding_is_said_in_fourteen_words() -> None:
    long = {ident: len(words.split()) for ident, words in FINDINGS.items() if len(words.split()) > 14}
    assert long == {}


def test_every_kind_of_number_is_known() -> None:
    for ident, words in SENTENCES.items():
        for match in PLACE.finditer(words):
            assert match[2] is None or match[2].isdigit() or match[2] in KINDS, ident


def test_a_number_without_bound_is_a_dash() -> None:
    assert say(tell("space.gap", away=float("inf"))) == "The mark is – m from the screen"
    assert say(tell("cost/stops", by=float("-inf"))) == "costs – stops of light"


def test_a_missing_parameter_is_an_error_and_not_an_empty_place() -> None:
    with pytest.raises(KeyError):
        say(tell("space.gap"))


def test_many_are_told_by_the_first_and_how_many_more() -> None:
    some, many = few(("key", "fill", "tube")), few(("key", "fill", "tube", "back", "hair light"))
    assert say(tell("space.in-picture/action", lamps=some)).endswith(": key, fill, tube")
    assert say(tell("space.in-picture/action", lamps=many)).endswith(": key, fill, 3 more")

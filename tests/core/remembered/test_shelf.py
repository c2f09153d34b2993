"""What is remembered is bounded in number and in bytes: a day of dragging must not fill a laptop's memory."""

from __future__ import annotations

from functools import partial

import numpy as np
import pytest

from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.geometry.vectors import Floats
from ausblick.core.light import basis
from ausblick.core.light.basis import BasisStore
from ausblick.core.matte.capture import capture_of
from ausblick.core.matte.key_windows import overview_window
from ausblick.core.matte.render import draw
from ausblick.core.plan import Change, apply_changes
from ausblick.core.remembered.shelf import Shelf, let_go_of_older, remembered
from tests.conftest import MakePlan, lamp


def test_the_oldest_goes_when_bytes_run_out() -> None:
    shelf: Shelf[Floats] = Shelf(100, 1000, size=lambda made: made.nbytes)
    for name in "abc":
        shelf.get(name, lambda: np.zeros(50))
    assert [shelf.known(name) is not None for name in "abc"] == [False, True, True]
    shelf.get("b", lambda: np.zeros(1))
    shelf.get("d", lambda: np.zeros(50))
    assert [shelf.known(name) is not None for name in "bcd"] == [True, False, True]


def test_what_is_larger_than_all_of_it_is_still_given() -> None:
    shelf: Shelf[Floats] = Shelf(100, 1000, size=lambda made: made.nbytes)
    shelf.get("small", lambda: np.zeros(10))
    assert len(shelf.get("large", lambda: np.zeros(500))) == 500
    assert shelf.known("small") is None
    shelf.get("next", lambda: np.zeros(10))
    assert shelf.known("large") is None


def test_numbers_are_the_same_where_little_can_be_remembered(make: MakePlan, monkeypatch: pytest.MonkeyPatch) -> None:
    plan = make(lights=[lamp(id="a", position=[1.0, 2.0, 3.0], aim=[0.0, 1.2, 0.0], flux_lm=5000)])
    moved = [apply_changes(plan, [Change("lights[0].position", [1.0, 2.0, 3.0 + 0.1 * i])]) for i in range(4)]
    whole = BasisStore()
    wanted = [evaluate(one, whole).screen for one in moved]
    monkeypatch.setattr(basis, "MOST_BYTES", 50_000)
    little = BasisStore()
    for _ in range(2):
        assert [evaluate(one, little).screen for one in moved] == wanted
    assert sum(one.nbytes for one in little._maps._kept.values()) <= 50_000


def test_where_room_is_needed_what_was_asked_for_last_stays() -> None:
    maps: Shelf[Floats] = Shelf(100, 1600, size=lambda made: made.nbytes)
    answers: Shelf[int] = Shelf(8, lasts=True)
    for number in range(4):
        maps.get(number, lambda: np.zeros(50))
        answers.get(number, partial(int, number))
    maps.get(1, lambda: np.zeros(50))
    let_go_of_older()
    assert [maps.known(number) is not None for number in range(4)] == [False, True, False, False]
    assert [answers.known(number) for number in range(4)] == [0, 1, 2, 3]
    for number in range(9):
        maps.get(number, lambda: np.zeros(50))
    assert [maps.known(number) is not None for number in range(9)] == [False] * 5 + [True] * 4


def test_what_a_function_made_is_made_again_only_where_room_was_needed() -> None:
    made = []

    @remembered(8)
    def squares(count: int) -> Floats:
        made.append(count)
        return np.arange(float(count)) ** 2

    for count in (3, 5, 3):
        assert squares(count)[-1] == (count - 1) ** 2
    assert made == [3, 5]
    let_go_of_older()
    squares(3)
    squares(5)
    assert made == [3, 5, 5]


def test_numbers_and_picture_are_the_same_after_older_set_ups_are_forgotten(make: MakePlan) -> None:
    plan = make(lights=[lamp(id="a", position=[1.0, 2.0, 3.0], aim=[0.0, 1.2, 0.0], flux_lm=5000)])
    store = BasisStore()
    wanted = evaluate(plan, store)
    pictured = draw(capture_of(wanted, store), overview_window(plan, 96)).frame
    let_go_of_older()
    again = evaluate(plan, store)
    assert again.screen == wanted.screen
    assert np.array_equal(draw(capture_of(again, store), overview_window(plan, 96)).frame, pictured)

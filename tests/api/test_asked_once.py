"""What numbers and picture of one plan both need is worked out once, however both are asked for."""

from __future__ import annotations

from concurrent.futures import ThreadPoolExecutor
from threading import Event

import pytest

from ausblick.app.asked_once import AskedOnce
from ausblick.app.wanted import NoLongerWanted, wanted_until

SOON = 10.0


def test_who_asks_while_it_is_under_way_gets_the_same_and_nothing_is_done_twice() -> None:
    once, begun, go_on, made = AskedOnce[object](2), Event(), Event(), []

    def make() -> object:
        begun.set()
        assert go_on.wait(SOON)
        made.append(object())
        return made[-1]

    with ThreadPoolExecutor(2) as both:
        first = both.submit(once.get, "plan", make)
        assert begun.wait(SOON)
        second = both.submit(once.get, "plan", make)
        go_on.set()
        assert first.result(SOON) is second.result(SOON)
    assert once.get("plan", object) is made[0]
    assert len(made) == 1


def test_who_waited_for_one_that_was_called_off_makes_it_anew() -> None:
    once, begun, go_on = AskedOnce[str](2), Event(), Event()

    def called_off() -> str:
        begun.set()
        assert go_on.wait(SOON)
        raise RuntimeError("nobody waits")

    with ThreadPoolExecutor(2) as both:
        first = both.submit(once.get, "plan", called_off)
        assert begun.wait(SOON)
        second = both.submit(once.get, "plan", lambda: "made")
        go_on.set()
        assert second.result(SOON) == "made"
        with pytest.raises(RuntimeError):
            first.result(SOON)


def test_who_waits_and_is_called_off_does_not_wait_on() -> None:
    once, begun, go_on, left = AskedOnce[str](2), Event(), Event(), Event()

    def slow() -> str:
        begun.set()
        assert go_on.wait(SOON)
        return "made"

    def waiting() -> str:
        with wanted_until(left):
            return once.get("plan", slow)

    with ThreadPoolExecutor(2) as both:
        first = both.submit(once.get, "plan", slow)
        assert begun.wait(SOON)
        second = both.submit(waiting)
        left.set()
        with pytest.raises(NoLongerWanted):
            second.result(SOON)
        assert not first.done(), "the other's goes on"
        go_on.set()
        assert first.result(SOON) == "made"


def test_only_the_last_few_are_kept() -> None:
    once = AskedOnce[int](2)
    for key in range(3):
        once.get(key, lambda: 1)
    assert [once.get(key, lambda: 2) for key in (2, 1, 0)] == [1, 1, 2]

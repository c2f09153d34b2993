"""The server as clients meet it that are slow, large, many, or leave: with real connections."""

from __future__ import annotations

import http.client
import json
import os
import socket
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from pathlib import Path
from threading import Event, Thread
from typing import Any

import pytest

from ausblick.app.turns import Busy, Turns
from ausblick.core.plan import dump_plan
from ausblick.demo.fern_house import scree
from ausblick.web.app import create_app
from ausblick.web.heavy import HEAVY
from ausblick.web.serving import beside, patience


@pytest.fixture(scope="module")
def address(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    with beside(tmp_path_factory.mktemp("serving")) as where:
        yield where


def host_of(address: str) -> tuple[str, int]:
    host, port = address.removeprefix("http://").split(":")
    return host, int(port)


def asked(address: str, path: str, body: Any = None) -> tuple[int, dict[str, Any], dict[str, str]]:
    data = None if body is None else json.dumps(body).encode()
    request = urllib.request.Request(address + path, data=data, headers={"Content-Type": "application/json"})
    try:
        with urllib.request.urlopen(request, timeout=120) as response:
            return response.status, json.load(response), {k.lower(): v for k, v in response.headers.items()}
    except urllib.error.HTTPError as err:
        return err.code, json.load(err), {k.lower(): v for k, v in err.headers.items()}


def test_a_large_body_is_refused_and_the_answer_is_read(address: str) -> None:
    status, said, _ = asked(address, "/api/evaluate", {"plan": {"title": "x" * 7_000_000}})
    assert (status, said["title"]) == (413, "Too large")
    assert "6 MB" in said["detail"]


def test_a_body_of_unknown_length_is_counted(address: str) -> None:
    connection = http.client.HTTPConnection(*host_of(address), timeout=30)
    pieces = (b"x" * 100_000 for _ in range(70))
    connection.request("POST", "/api/evaluate", pieces, {"Content-Type": "application/json"}, encode_chunked=True)
    assert connection.getresponse().status == 413


def test_answers_on_a_kept_connection_do_not_wait_for_the_readers_word(address: str) -> None:
    """Head and body are sent apart: a system that holds the body back until the head is confirmed, 40 ms later, would
    take a second and a half for forty."""
    connection = http.client.HTTPConnection(*host_of(address), timeout=30)
    begun = time.monotonic()
    for _ in range(40):
        connection.request("GET", "/api/glossary")
        assert b"terms" in connection.getresponse().read()
    assert time.monotonic() - begun < 1.2


def test_half_sent_requests_are_closed_and_hold_nobody_up(address: str, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(patience, "PATIENCE", 1.0)
    where = host_of(address)
    standing = [socket.create_connection(where) for _ in range(200)]
    for connection in standing:
        connection.sendall(b"GET /api/glossary HTTP/1.1\r\nHost: local")
    begun = time.monotonic()
    assert asked(address, "/api/glossary")[0] == 200
    assert time.monotonic() - begun < 1.0
    standing[0].settimeout(10)
    assert standing[0].recv(10) == b""
    for connection in standing:
        connection.close()


@pytest.mark.torture
def test_light_answers_come_while_heavy_work_is_done_and_the_line_is_bounded(address: str) -> None:
    plan = {"format": "ausblick-plan", "version": 1, "lights": [{"position": [-2.0, 1.4, 2.0]}]}
    found: list[tuple[int, dict[str, str]]] = []

    def work() -> None:
        status, _, headers = asked(address, "/api/ledger", {"plan": plan, "locked": []})
        found.append((status, headers))

    crowd = [Thread(target=work) for _ in range(20)]
    for one in crowd:
        one.start()
    waits = []
    while any(one.is_alive() for one in crowd):
        begun = time.monotonic()
        assert asked(address, "/api/glossary")[0] == 200
        waits.append(time.monotonic() - begun)
        time.sleep(0.02)
    refused = [headers for status, headers in found if status == 429]
    assert 1 <= len(refused) <= 10
    assert all(int(headers["retry-after"]) >= 1 for headers in refused)
    assert max(waits) < 2.0


def test_work_ends_when_its_reader_leaves(address: str) -> None:
    connection = http.client.HTTPConnection(*host_of(address), timeout=30)
    body = json.dumps({"plan": dump_plan(scree())}).encode()
    connection.request("POST", "/api/distances", body, {"Content-Type": "application/json"})
    time.sleep(0.6)
    connection.close()
    time.sleep(0.6)
    before = os.times()
    time.sleep(1.0)
    after = os.times()
    assert after.user + after.system - before.user - before.system < 0.3


def test_the_line_is_kept_in_order_and_says_when_to_come_again() -> None:
    turns, go, order, done = Turns(1, 2, usual=3.0), Event(), [], []

    def work(name: str) -> None:
        with turns.taken():
            order.append(name)
            done.append(time.monotonic())
            # Nobody leaves before the line was seen full, however slow the machine is.
            go.wait(10)
            time.sleep(0.1)

    threads = []
    for name in "abc":
        threads.append(Thread(target=work, args=(name,)))
        threads[-1].start()
        time.sleep(0.1)
    with pytest.raises(Busy) as told, turns.taken():
        pass
    assert told.value.again == 9
    go.set()
    for thread in threads:
        thread.join()
    assert order == ["a", "b", "c"]
    assert done[1] - done[0] >= 0.09


def test_the_bound_holds_however_many_come_at_once() -> None:
    turns, go, refused, done = Turns(2, 3), Event(), [], []

    def work() -> None:
        try:
            with turns.taken():
                go.wait(10)
                done.append(1)
        except Busy:
            refused.append(1)

    crowd = [Thread(target=work) for _ in range(40)]
    for one in crowd:
        one.start()
    time.sleep(0.3)
    assert len(refused) == 35
    go.set()
    for one in crowd:
        one.join()
    assert len(done) == 5


def test_inside_a_turn_there_is_no_other_to_wait_for() -> None:
    turns = Turns(1, 0)
    with turns.taken(), turns.taken():
        pass
    with turns.taken():
        pass


def test_every_heavy_endpoint_is_one(tmp_path: Path) -> None:
    assert set(HEAVY) <= {rule.endpoint for rule in create_app(tmp_path).url_map.iter_rules()}


@pytest.mark.parametrize("site", ["cross-site", "same-site"])
def test_a_page_elsewhere_gets_no_answer(address: str, site: str) -> None:
    request = urllib.request.Request(address + "/api/setups", headers={"Sec-Fetch-Site": site})
    with pytest.raises(urllib.error.HTTPError) as refused:
        urllib.request.urlopen(request, timeout=10)
    assert refused.value.code == 403

"""Devices on the set's network: who gets in, what they may, how they are put out; over real TLS connections."""

from __future__ import annotations

import http.client
import json
import socket
import ssl
import stat
import subprocess
import sys
import time
from collections.abc import Iterator
from pathlib import Path
from threading import Thread
from typing import Any

import pytest
from cryptography import x509

from ausblick.app.change_feed import Changed
from ausblick.app.door import Door, Role, Slower
from ausblick.web.app import create_app, services_of
from ausblick.web.guard import HEADERS
from ausblick.web.lan import network as lan
from ausblick.web.lan.certificate import certificate
from ausblick.web.serving import beside, patience


class Clock:
    def __init__(self) -> None:
        self.now = 0.0

    def __call__(self) -> float:
        return self.now


def test_a_closed_door_lets_nobody_in_and_an_open_one_by_role() -> None:
    door = Door()
    assert door.enter("", "phone", "10.0.0.7") is None
    door.open()
    for role, code in door.codes.items():
        secret = door.enter(f" {code[:4].lower()}-{code[4:]} ", "phone", "10.0.0.7")
        assert secret is not None
        device = door.device(secret)
        assert device is not None
        assert device.role == role
    door.close()
    assert door.devices() == []
    assert door.codes == {}


def test_wrong_passcodes_are_slowed_for_one_address_and_limited_for_all() -> None:
    clock = Clock()
    door = Door(clock)
    door.open()
    for _ in range(3):
        assert door.enter("WRONG", "x", "10.0.0.7") is None
    with pytest.raises(Slower):
        door.enter(door.codes["all"], "x", "10.0.0.7")
    assert door.enter(door.codes["all"], "x", "10.0.0.8") is not None
    waits = []
    for _ in range(8):
        with pytest.raises(Slower) as told:
            door.enter("WRONG", "x", "10.0.0.7")
        waits.append(told.value.again)
        clock.now += told.value.again + 0.1
        assert door.enter("WRONG", "x", "10.0.0.7") is None
    assert waits == sorted(waits)
    assert waits[-1] >= 100
    clock.now += 1000.0
    for n in range(60):
        door.enter("WRONG", "x", f"10.0.1.{n}")
    with pytest.raises(Slower):
        door.enter(door.codes["all"], "x", "10.0.2.1")


def test_the_certificate_names_the_addresses_is_kept_and_its_key_is_private(tmp_path: Path) -> None:
    cert, key = certificate(tmp_path, ["192.168.7.3"])
    assert stat.S_IMODE(key.stat().st_mode) == 0o600
    before = cert.read_bytes()
    assert certificate(tmp_path, ["192.168.7.3"])[0].read_bytes() == before
    named = x509.load_pem_x509_certificate(certificate(tmp_path, ["192.168.7.4"])[0].read_bytes())
    assert "192.168.7.4" in str(named.extensions.get_extension_for_class(x509.SubjectAlternativeName).value)


@pytest.fixture(scope="module")
def owner(tmp_path_factory: pytest.TempPathFactory) -> Iterator[str]:
    patch = pytest.MonkeyPatch()
    patch.setattr(lan, "addresses", lambda: ["127.0.0.1"])
    with beside(tmp_path_factory.mktemp("lan")) as where:
        yield where
    patch.undo()


def plain(address: str, method: str, path: str, body: Any = None) -> Any:
    connection = http.client.HTTPConnection(address.removeprefix("http://"), timeout=20)
    connection.request(method, path, None if body is None else json.dumps(body), {"Content-Type": "application/json"})
    return json.loads(connection.getresponse().read())


class Client:
    """A device: its own connection, cookie and token."""

    def __init__(self, state: dict[str, Any]) -> None:
        self.host = state["urls"][0].removeprefix("https://").rstrip("/")
        self.cookie, self.csrf = "", ""
        self.trust = ssl.create_default_context()
        self.trust.check_hostname, self.trust.verify_mode = False, ssl.CERT_NONE

    def ask(self, method: str, path: str, body: Any = None, **headers: str) -> tuple[int, Any, Any]:
        connection = http.client.HTTPSConnection(self.host, timeout=20, context=self.trust)
        sent = {"Content-Type": "application/json", "Cookie": self.cookie, "X-CSRF": self.csrf, **headers}
        connection.request(method, path, None if body is None else json.dumps(body), sent)
        response = connection.getresponse()
        content = response.read()
        return response.status, json.loads(content) if content[:1] in (b"{", b"[") else content, response.headers

    def enter(self, passcode: str) -> tuple[int, Any, Any]:
        status, said, headers = self.ask("POST", "/api/door", {"passcode": passcode, "name": "Tablet"})
        if status == 200:
            self.cookie, self.csrf = headers["Set-Cookie"].split(";")[0], said["csrf"]
        return status, said, headers


@pytest.fixture
def opened(owner: str) -> Iterator[dict[str, Any]]:
    yield plain(owner, "PUT", "/api/network", {"open": True})
    plain(owner, "PUT", "/api/network", {"open": False})


def code(state: dict[str, Any], role: Role) -> str:
    return str(next(one["passcode"] for one in state["codes"] if one["role"] == role))


def test_off_by_default_and_a_stranger_gets_the_page_and_nothing_else(owner: str) -> None:
    assert plain(owner, "GET", "/api/network")["open"] is False
    state = plain(owner, "PUT", "/api/network", {"open": True})
    stranger = Client(state)
    assert stranger.ask("GET", "/")[0] == 200
    for path in ("/api/me", "/api/setups", "/api/network", "/api/events", "/api/setups/1/frames"):
        assert stranger.ask("GET", path)[0] == 401, path
    assert stranger.ask("POST", "/api/setups", {"title": "x"})[0] == 401
    plain(owner, "PUT", "/api/network", {"open": False})
    with pytest.raises(OSError, match=r".*"):
        stranger.ask("GET", "/")


@pytest.mark.parametrize(("role", "creates", "logs"), [("look", 403, 403), ("log", 403, 200), ("all", 201, 200)])
def test_each_role_may_what_it_says(owner: str, opened: dict[str, Any], role: Role, creates: int, logs: int) -> None:
    setup = plain(owner, "POST", "/api/setups", {"title": "Vault"})
    device = Client(opened)
    status, _, headers = device.enter(code(opened, role))
    assert status == 200
    cookie = headers["Set-Cookie"]
    assert all(word in cookie for word in ("HttpOnly", "Secure", "SameSite=Strict"))
    assert device.ask("GET", "/api/setups")[0] == 200
    assert device.ask("POST", "/api/evaluate", {"plan": setup["plan"], "remedies": False})[0] == 200
    assert device.ask("POST", "/api/picture", {"plan": setup["plan"]})[0] == 200
    assert device.ask("POST", "/api/setups", {"title": "Mine"})[0] == creates
    assert device.ask("PUT", f"/api/setups/{setup['id']}/lists/slate", {"ticked": True})[0] == logs
    for method, path in (
        ("GET", "/api/network"),
        ("PUT", "/api/network"),
        ("PUT", f"/api/setups/{setup['id']}/watch"),
    ):
        assert device.ask(method, path, {"open": True, "folder": "/tmp"})[0] == 403


def test_without_its_token_or_under_another_name_nothing_is_changed(opened: dict[str, Any]) -> None:
    device = Client(opened)
    device.enter(code(opened, "all"))
    token, device.csrf = device.csrf, ""
    assert device.ask("POST", "/api/setups", {"title": "x"})[0] == 403
    device.csrf = token
    assert device.ask("POST", "/api/setups", {"title": "x"}, Origin="https://elsewhere.example")[0] == 403
    assert device.ask("GET", "/api/setups", Host="elsewhere.example")[0] == 403
    assert device.ask("POST", "/api/setups", {"title": "x"})[0] == 201


def test_the_owner_sees_who_is_in_and_puts_one_out(owner: str, opened: dict[str, Any]) -> None:
    device = Client(opened)
    assert device.enter("WRONG-ONE")[0] == 403
    device.enter(code(opened, "look"))
    [listed] = plain(owner, "GET", "/api/network")["devices"]
    assert (listed["name"], listed["role"]) == ("Tablet", "look")
    assert plain(owner, "DELETE", f"/api/network/devices/{listed['id']}")["devices"] == []
    assert device.ask("GET", "/api/setups")[0] == 401


def test_what_one_changes_another_hears_within_a_second(owner: str, opened: dict[str, Any]) -> None:
    setup = plain(owner, "POST", "/api/setups", {"title": "Heard"})
    device = Client(opened)
    device.enter(code(opened, "look"))
    connection = http.client.HTTPSConnection(device.host, timeout=20, context=device.trust)
    connection.request("GET", "/api/events", headers={"Cookie": device.cookie})
    stream = connection.getresponse()
    assert stream.status == 200
    heard: list[tuple[float, dict[str, Any]]] = []

    def listen() -> None:
        for line in stream:
            if line.startswith(b"data: "):
                heard.append((time.monotonic(), json.loads(line[6:])))
                return

    listening = Thread(target=listen)
    listening.start()
    time.sleep(0.3)
    begun = time.monotonic()
    plain(owner, "PATCH", f"/api/setups/{setup['id']}", {"title": "Heard of"})
    listening.join(10)
    assert heard[0][1] == {"what": "setups", "setup": setup["id"], "by": ""}
    assert heard[0][0] - begun < 1.0
    # Who is put out hears nothing more: the stream ends.
    [listed] = plain(owner, "GET", "/api/network")["devices"]
    plain(owner, "DELETE", f"/api/network/devices/{listed['id']}")
    begun = time.monotonic()
    assert b"data" not in stream.read().replace(b'"devices"', b"").replace(b"data: ", b"", 1)
    assert time.monotonic() - begun < 2.0


def test_a_code_for_a_phone_s_camera(owner: str, opened: dict[str, Any]) -> None:
    connection = http.client.HTTPConnection(owner.removeprefix("http://"), timeout=20)
    connection.request("GET", "/api/network/qr.svg")
    assert connection.getresponse().read().count(b"http://www.w3.org/2000/svg") == 1
    assert opened["urls"][0].startswith("https://127.0.0.1:")
    assert len(opened["fingerprint"].split(":")) == 32


def test_a_handshake_that_stalls_is_closed_as_a_half_sent_request_is(
    tmp_path: Path, monkeypatch: pytest.MonkeyPatch
) -> None:
    monkeypatch.setattr(patience, "PATIENCE", 1.0)
    monkeypatch.setattr(lan, "addresses", lambda: ["127.0.0.1"])
    with beside(tmp_path) as where:
        state = plain(where, "PUT", "/api/network", {"open": True})
        host, port = state["urls"][0].removeprefix("https://").rstrip("/").split(":")
        with socket.create_connection((host, int(port))) as standing:
            standing.settimeout(10)
            assert standing.recv(10) == b""


@pytest.mark.torture
def test_a_certificate_that_can_t_be_used_is_told_and_nothing_is_opened(tmp_path: Path) -> None:
    for name in ("cert.pem", "key.pem"):
        (tmp_path / name).write_text("no certificate")
    words = [sys.executable, "-m", "ausblick", "serve", "--data", tmp_path / "data", "--port", "0", "--lan"]
    words += ["--cert", tmp_path / "cert.pem", "--key", tmp_path / "key.pem"]
    done = subprocess.run(words, capture_output=True, text=True, timeout=60, check=False)
    assert (done.returncode, done.stdout) == (2, "")
    assert done.stderr.startswith("ausblick: --lan: the certificate or its key can't be used")
    assert len(done.stderr.splitlines()) == 1


def test_a_refusal_before_the_application_carries_the_same_headers(opened: dict[str, Any]) -> None:
    status, _, headers = Client(opened).ask("GET", "/api/setups")
    assert status == 401
    assert {name: headers[name] for name in HEADERS} == HEADERS


def test_who_did_it_is_named_to_who_listens(tmp_path: Path) -> None:
    app, heard = create_app(tmp_path), []
    with services_of(app).changes.heard_by(heard.append):
        app.test_client().post("/api/setups", json={"title": "x"}, headers={"X-Page": "mine"})
        app.test_client().get("/api/setups")
        app.test_client().post("/api/evaluate", json={"plan": {"format": "ausblick-plan", "version": 1}})
    assert heard == [Changed("setups", None, "mine")]

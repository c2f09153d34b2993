"""What a server goes through in a year: killed in the middle, pulled at by twenty, fed with bombs and full cards."""

from __future__ import annotations

import http.client
import json
import random
import re
import resource
import signal
import subprocess
import sys
import time
import urllib.error
import urllib.request
from pathlib import Path
from threading import Event, Thread
from typing import Any

import numpy as np
import pytest

from ausblick.core.plan import dump_plan, plan_from
from tests.conftest import frame, write_frame
from tests.formats.test_robust import sparse_exr

PLAN = dump_plan(plan_from({"format": "ausblick-plan", "version": 1}))
BOUNDARY = "----------------------------28571"
END = f"\r\n--{BOUNDARY}--\r\n".encode()


class Server:
    """A process of its own, which can be killed."""

    def __init__(self, place: Path, *more: str) -> None:
        words = [sys.executable, "-m", "ausblick", "serve", "--data", str(place), "--port", "0", *more]
        self.process = subprocess.Popen(words, stdout=subprocess.PIPE, text=True, start_new_session=True)
        assert self.process.stdout is not None
        told = re.search(r"http://\S+(?=/)", self.process.stdout.readline())
        assert told is not None
        self.address = told[0]

    def ask(self, method: str, path: str, body: Any = None, file: bytes | None = None) -> Any:
        data, kind = (None, "application/json") if body is None else (json.dumps(body).encode(), "application/json")
        if file is not None:
            head = f'--{BOUNDARY}\r\nContent-Disposition: form-data; name="file"; filename="a.png"\r\n\r\n'
            data, kind = (
                head.encode() + file + f"\r\n--{BOUNDARY}--\r\n".encode(),
                f"multipart/form-data; boundary={BOUNDARY}",
            )
        request = urllib.request.Request(self.address + path, data, {"Content-Type": kind}, method=method)
        with urllib.request.urlopen(request, timeout=60) as response:
            return json.load(response)

    def end(self, how: signal.Signals = signal.SIGKILL) -> None:
        self.process.send_signal(how)
        self.process.wait(60)


def until_killed(server: Server, picture: bytes, killed: Event, saved: list[str], kept: list[int]) -> None:
    """Saves and frames, noted once they are acknowledged."""
    try:
        setup = server.ask("GET", "/api/setups/1")
        while not killed.is_set():
            title = f"state {len(saved)}"
            setup = server.ask("PUT", "/api/setups/1", {"base": setup["revision"], "plan": {**PLAN, "title": title}})
            saved.append(title)
            kept.append(server.ask("POST", "/api/setups/1/frames", file=picture)["id"])
    except (urllib.error.URLError, http.client.HTTPException, OSError, ValueError):
        assert killed.is_set()


@pytest.mark.parametrize("rounds", [1, pytest.param(100, marks=pytest.mark.torture)])
def test_nothing_acknowledged_is_lost_and_no_orphan_stays_when_it_is_killed(tmp_path: Path, rounds: int) -> None:
    chance = random.Random(4)
    picture = write_frame(tmp_path / "a.png", frame(size=(90, 160), figure=True)).read_bytes()
    place, saved, kept = tmp_path / "data", [], []
    server = Server(place)
    server.ask("POST", "/api/setups", {"plan": PLAN})
    for _ in range(rounds):
        killed = Event()
        work = Thread(target=until_killed, args=(server, picture, killed, saved, kept))
        work.start()
        begun = time.monotonic()
        while not kept and time.monotonic() - begun < 60.0:
            time.sleep(0.02)
        time.sleep(chance.uniform(0.0, 1.0))
        killed.set()
        server.end()
        work.join(60)
        server = Server(place)
        frames = {one["id"] for one in server.ask("GET", "/api/setups/1/frames")["frames"]}
        assert set(kept) <= frames
        title = server.ask("GET", "/api/setups/1")["plan"]["title"]
        # The last save may have been written and not yet answered.
        assert not saved or int(title.split()[1]) >= int(saved[-1].split()[1])
        assert len(list((place / "frames").iterdir())) == len(frames)
        assert list((place / "work").iterdir()) == []
    assert saved
    assert kept
    server.end(signal.SIGTERM)


@pytest.mark.torture
def test_twenty_people_drag_for_a_minute(tmp_path: Path) -> None:
    server = Server(tmp_path)
    over, errors, moves = Event(), [], [0]

    def drag(who: int) -> None:
        step = 0
        while not over.is_set():
            lights = [{"position": [-2.0 + 0.01 * step, 1.0 + 0.05 * who, 2.0]}]
            try:
                server.ask("POST", "/api/evaluate", {"plan": {**PLAN, "lights": lights}, "remedies": False})
                moves[0] += 1
            except urllib.error.HTTPError as err:
                if err.code != 429:
                    errors.append(err.code)
                time.sleep(float(err.headers.get("Retry-After", 1)))
            step += 1

    people = [Thread(target=drag, args=(who,)) for who in range(20)]
    for one in people:
        one.start()
    waits, begun = [], time.monotonic()
    while time.monotonic() - begun < 60.0:
        asked = time.monotonic()
        server.ask("GET", "/api/glossary")
        waits.append(time.monotonic() - asked)
        time.sleep(0.1)
    over.set()
    for one in people:
        one.join(60)
    server.end(signal.SIGTERM)
    assert errors == []
    assert moves[0] > 200
    assert float(np.percentile(waits, 95)) < 0.3


READ = """
import sys, time, resource
from pathlib import Path
from ausblick.formats.images import ImageError, read_image
resource.setrlimit(resource.RLIMIT_AS, (4_000_000_000, 4_000_000_000))
begun = time.monotonic()
try:
    sys.exit(f"was read: {read_image(Path(sys.argv[1])).pixels.shape}")
except ImageError:
    print(time.monotonic() - begun, resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024)
"""


@pytest.mark.torture
@pytest.mark.parametrize("bomb", ["wide", "layers", "scans"])
def test_a_bomb_is_refused_in_two_seconds_and_600_mb(tmp_path: Path, bomb: str) -> None:
    from PIL import Image

    if bomb == "scans":
        path = tmp_path / "scans.jpg"
        noise = np.random.default_rng(1).integers(0, 255, (3000, 4000, 3), np.uint8)
        Image.fromarray(noise).save(path, progressive=True, quality=20)
        whole = path.read_bytes()
        path.write_bytes(whole[:-2] + 410 * whole[whole.rindex(b"\xff\xda") : -2][:4000] + b"\xff\xd9")
    else:
        size = (8900, 8900, 3) if bomb == "wide" else (5000, 5000, 16)
        path = sparse_exr(tmp_path / "bomb.exr", *size)
    done = subprocess.run([sys.executable, "-c", READ, path], capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
    seconds, megabytes = map(float, done.stdout.split())
    assert seconds < 2.0
    # The figure of a child counts from what its parent had when it was made.
    assert megabytes < max(600.0, resource.getrusage(resource.RUSAGE_SELF).ru_maxrss / 1024 + 50.0)


@pytest.mark.torture
def test_three_hundred_stills_of_a_watched_folder_stay_under_600_mb(tmp_path: Path) -> None:
    folder = tmp_path / "card"
    folder.mkdir()
    server = Server(tmp_path / "data", "--watch", str(tmp_path))
    server.ask("POST", "/api/setups", {"plan": PLAN})
    server.ask("PUT", "/api/setups/1/watch", {"folder": str(folder)})
    picture = write_frame(tmp_path / "a.jpg", frame(size=(1080, 1920), figure=True)).read_bytes()
    for n in range(300):
        (folder / f"{n:03}.jpg").write_bytes(picture)
    most = 0.0
    for _ in range(1200):
        status = Path(f"/proc/{server.process.pid}/status").read_text("utf-8")
        most = max(most, int(re.findall(r"VmRSS:\s+(\d+)", status)[0]) / 1024)
        if server.ask("GET", "/api/setups/1/watch")["seen"] == 300:
            break
        time.sleep(0.5)
    state = server.ask("GET", "/api/setups/1/watch")
    server.end(signal.SIGTERM)
    assert (state["seen"], state["problem"]) == (300, "")
    assert most < 600.0

from __future__ import annotations

import json
import re
import signal
import subprocess
import sys
import time
import urllib.request
from pathlib import Path
from threading import Thread

import pytest

from ausblick.core.plan import dump_plan
from ausblick.demo.fern_house import seed_vault


def default_signals() -> None:
    """A shell may have started this test with the signals ignored, and children inherit that."""
    signal.signal(signal.SIGINT, signal.SIG_DFL)
    signal.signal(signal.SIGTERM, signal.SIG_DFL)


@pytest.mark.torture
@pytest.mark.parametrize("ending", [signal.SIGTERM, signal.SIGINT])
def test_a_signal_while_a_test_key_is_computed_ends_cleanly(tmp_path: Path, ending: signal.Signals) -> None:
    """A thread left inside compiled code would abort the process (exit code -6) after everything was answered."""
    words = [sys.executable, "-m", "ausblick", "serve", "--data", str(tmp_path), "--port", "0"]
    server = subprocess.Popen(
        words,
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
        preexec_fn=default_signals,
    )
    assert server.stdout is not None
    match = re.search(r"http://\S+/", server.stdout.readline())
    assert match is not None
    body = json.dumps({"plan": dump_plan(seed_vault())}).encode()
    headers = {"Content-Type": "application/json"}
    ask = urllib.request.Request(f"{match[0]}api/test-key", data=body, headers=headers, method="POST")
    with urllib.request.urlopen(ask, timeout=20) as answered:
        assert json.load(answered)["state"] == "running"
    asked = urllib.request.Request(f"{match[0]}api/evaluate", data=body, headers=headers, method="POST")
    answers: list[int] = []
    asking = Thread(target=lambda: answers.append(urllib.request.urlopen(asked, timeout=30).status))
    asking.start()
    time.sleep(0.2)
    begun = time.monotonic()
    server.send_signal(ending)
    _, complaints = server.communicate(timeout=90)
    assert (server.returncode, complaints) == (0, "")
    assert time.monotonic() - begun < 12.0
    asking.join()
    assert answers == [200]

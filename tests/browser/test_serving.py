from __future__ import annotations

import json
import re
import signal
import subprocess
import sys
import urllib.request
from pathlib import Path

from ausblick.core.plan import dump_plan
from ausblick.demo.fern_house import seed_vault


def test_ctrl_c_while_a_test_key_is_computed_ends_cleanly(tmp_path: Path) -> None:
    """A thread left inside compiled code would abort the process (exit code -6) after everything was answered."""
    words = [sys.executable, "-m", "ausblick", "serve", "--data", str(tmp_path), "--port", "0"]
    server = subprocess.Popen(
        words,
        stdout=subprocess.PIPE,
        stderr=subprocess.PIPE,
        text=True,
        # A shell may have started this test with the signal ignored, and children inherit that.
        preexec_fn=lambda: signal.signal(signal.SIGINT, signal.SIG_DFL),
    )
    assert server.stdout is not None
    match = re.search(r"http://\S+/", server.stdout.readline())
    assert match is not None
    body = json.dumps({"plan": dump_plan(seed_vault())}).encode()
    headers = {"Content-Type": "application/json"}
    ask = urllib.request.Request(f"{match[0]}api/test-key", data=body, headers=headers, method="POST")
    with urllib.request.urlopen(ask, timeout=20) as answered:
        assert json.load(answered)["state"] == "running"
    server.send_signal(signal.SIGINT)
    _, complaints = server.communicate(timeout=90)
    assert (server.returncode, complaints) == (0, "")

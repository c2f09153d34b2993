"""The wheel alone, in an empty environment and without Node, serves the demo."""

from __future__ import annotations

import json
import os
import re
import shutil
import signal
import site
import subprocess
import sys
from base64 import b64decode
from pathlib import Path
from urllib.request import Request, urlopen

import pytest

ROOT = Path(__file__).resolve().parent.parent


@pytest.fixture(scope="module")
def installed(tmp_path_factory: pytest.TempPathFactory) -> Path:
    """The bin folder of a new environment with the wheel in it; only what it depends on comes from this one."""
    place = tmp_path_factory.mktemp("wheel")
    source = place / "source"
    shutil.copytree(ROOT / "src", source / "src", ignore=shutil.ignore_patterns("*.egg-info", "__pycache__"))
    for name in ("pyproject.toml", "README.md", "LICENSE"):
        shutil.copy(ROOT / name, source / name)
    pip = [sys.executable, "-m", "pip"]
    quiet = {"check": True, "capture_output": True}
    subprocess.run([*pip, "wheel", "--no-deps", "--no-build-isolation", "-w", place, source], **quiet)  # type: ignore[call-overload]
    subprocess.run([sys.executable, "-m", "venv", "--without-pip", place / "env"], **quiet)  # type: ignore[call-overload]
    (wheel,) = place.glob("*.whl")
    python = place / "env/bin/python"
    subprocess.run([*pip, "--python", python, "install", "--no-deps", wheel], **quiet)  # type: ignore[call-overload]
    (packages,) = (place / "env").glob("lib/*/site-packages")
    # A path in a .pth brings the libraries along, but not the .pth files there, and so not the editable install.
    (packages / "libraries.pth").write_text("\n".join(site.getsitepackages()) + "\n")
    return place / "env/bin"


@pytest.mark.torture
def test_the_demo_runs_from_the_wheel(installed: Path, template: Path, tmp_path: Path) -> None:
    """On the demo's data as they are; what of the wheel draws them draws a picture of one."""
    shutil.copytree(template, tmp_path / "data")
    bare = {"PATH": str(installed), "HOME": str(tmp_path), "OMP_NUM_THREADS": "1"}
    server = subprocess.Popen(
        [installed / "ausblick", "demo", "--data", tmp_path / "data", "--port", "0"],
        stdout=subprocess.PIPE, text=True, env=bare, cwd=tmp_path,
        preexec_fn=lambda: signal.signal(signal.SIGINT, signal.SIG_DFL),
    )  # fmt: skip
    try:
        assert server.stdout is not None
        told = re.search(r"http://127\.0\.0\.1:\d+", server.stdout.readline())
        assert told is not None
        assert b'<div id="app">' in urlopen(told.group()).read()
        assert urlopen(f"{told.group()}/api/setups").read().count(b'"title"') == 8
        plan = json.load(urlopen(f"{told.group()}/api/setups/1"))["plan"]
        ask = Request(
            f"{told.group()}/api/picture", json.dumps({"plan": plan}).encode(), {"Content-Type": "application/json"}
        )
        assert b64decode(json.load(urlopen(ask))["picture"]).startswith(b"\xff\xd8")
        assert urlopen(f"{told.group()}/api/setups/1/export/sheet").read().startswith(b"%PDF-")
        notices = urlopen(f"{told.group()}/assets/third-party-notices.txt").read().decode()
        for words in (
            "SIL OPEN FONT LICENSE",
            "Bitstream Vera Fonts Copyright",
            "GNU General Public License",
            "svelte 5",
            "flask 3",
        ):
            assert words in notices
        files = subprocess.run(
            [installed / "python", "-c", "import ausblick; print(ausblick.__file__)"],
            capture_output=True, text=True, check=True, env=bare,
        )  # fmt: skip
        assert str(installed.parent) in files.stdout
    finally:
        os.kill(server.pid, signal.SIGINT)
        assert server.wait(60) == 0

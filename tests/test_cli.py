from __future__ import annotations

import io
import json
import os
import subprocess
import sys
from contextlib import redirect_stderr, redirect_stdout
from dataclasses import dataclass
from pathlib import Path
from typing import Any

import cv2
import numpy as np
import pytest

from ausblick.cli import main
from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Change, apply_changes, dump_plan
from ausblick.core.standin.as_built import AsBuilt
from ausblick.core.standin.standin_camera import standin_capture, standin_picture
from ausblick.demo.fern_house import scree, seed_vault
from tests.conftest import frame, write_frame
from tests.formats.test_images import bad_files


@dataclass(frozen=True)
class Done:
    returncode: int
    stdout: str
    stderr: str


def run(*words: object) -> Done:
    """The command as a person gives it, in this process: a Python for every call took a third of the suite's time."""
    out, err = io.StringIO(), io.StringIO()
    given, sys.argv = sys.argv, ["ausblick", *map(str, words)]
    try:
        with redirect_stdout(out), redirect_stderr(err), pytest.raises(SystemExit) as ended:
            main()
    finally:
        sys.argv = given
    return Done(int(ended.value.code or 0), out.getvalue(), err.getvalue())


def started(*words: object) -> subprocess.CompletedProcess[str]:
    """The same in a process of its own."""
    return subprocess.run(
        [sys.executable, "-m", "ausblick", *map(str, words)], capture_output=True, text=True, timeout=60, check=False
    )


def answer(*words: object, code: int = 0) -> Any:
    done = run(*words, "--json")
    assert done.returncode == code, done.stderr
    return json.loads(done.stdout)


@pytest.fixture
def plan(tmp_path: Path) -> Path:
    path = tmp_path / "vault.json"
    path.write_text(json.dumps(dump_plan(seed_vault())))
    return path


@pytest.fixture
def short(tmp_path: Path) -> Path:
    """A screen that ends where the action goes on."""
    path = tmp_path / "scree.json"
    path.write_text(json.dumps(dump_plan(scree())))
    return path


def test_check_answers_with_json_and_exit_code_1_for_a_stop(short: Path, plan: Path) -> None:
    report = answer("check", short, code=1)
    assert report["coverage"]["covered"] is False
    assert report["findings"][0]["severity"] == "stop"
    assert report["findings"][0]["remedies"][0]["effect"]
    assert 0.0 < report["predicted"]["quality"] < answer("check", plan)["predicted"]["quality"] < 100.0


def test_a_process_of_its_own_says_the_same(plan: Path) -> None:
    words = ("probe", plan, "--at=0,1.5,2.4", "--facing", "0,0,2")
    done, here = started(*words), run(*words)
    assert (done.returncode, done.stdout) == (0, here.stdout)
    wrong = started("check", plan.parent / "none.json")
    assert wrong.returncode == 2
    assert len(wrong.stderr.splitlines()) == 1


def test_check_prints_a_table_for_people(plan: Path) -> None:
    done = run("check", plan)
    assert done.returncode == 0
    assert "Seed vault, night round" in done.stdout
    assert "→" in done.stdout
    assert "shutter 180 °" in done.stdout


def test_a_still_has_a_shutter_time_and_no_angle(tmp_path: Path) -> None:
    path = tmp_path / "still.json"
    path.write_text(json.dumps({**dump_plan(seed_vault()), "medium": "stills"}))
    done = run("check", path)
    assert "shutter 1/50 s" in done.stdout, done.stdout + done.stderr


def test_the_smallest_plan_can_be_checked(tmp_path: Path) -> None:
    (tmp_path / "p.json").write_text('{"format": "ausblick-plan", "version": 1}')
    assert answer("check", tmp_path / "p.json", code=1)["exposure"]["grey_lux"] == pytest.approx(1000)


def test_probe_and_screen_map(plan: Path) -> None:
    direct = answer("probe", plan, "--at=0,1.5,2.4", "--facing", "0,0,2")["direct"]
    assert len(direct) == 3
    # The lantern key is warm under a 5600 K balance.
    assert direct[0] > direct[2] > 0
    lux_map = answer("screen-map", plan, "--grid", "7x5")
    assert (len(lux_map["x"]), len(lux_map["y"]), len(lux_map["lux"]), len(lux_map["lux"][0])) == (7, 5, 5, 7)
    assert lux_map["y"][0] < lux_map["y"][-1]
    assert "lux; min" in run("screen-map", plan).stdout


@pytest.mark.torture
def test_measure_one_or_several_frames(tmp_path: Path, plan: Path) -> None:
    a = write_frame(tmp_path / "a.png", frame(noise=0.5))
    b = write_frame(tmp_path / "b.jpg", frame(noise=0.5, wall=True))
    one = answer("measure", a)
    assert one["level_luma"]["mean"] == pytest.approx(47.9, abs=0.3)
    several = answer("measure", a, b, "--plan", plan)
    assert [r["hue"] for r in several] == ["green", "green"]
    assert "green screen on" in run("measure", b).stdout
    assert [("since_previous" in r) for r in several] == [False, True]
    darker = write_frame(tmp_path / "c.png", frame(colour=(15.0, 46.0, 21.0), noise=0.5))
    assert "darker than before" in run("measure", a, darker).stdout


@pytest.mark.torture
def test_a_frame_beside_its_plan_names_the_lamp_that_is_wrong(tmp_path: Path) -> None:
    plan = scree()
    (tmp_path / "plan.json").write_text(json.dumps(dump_plan(plan)))
    really = AsBuilt(apply_changes(plan, [Change("lights[1].on", False)]))
    still = standin_picture(standin_capture(really, BasisStore()), 960, 4)
    cv2.imwrite(str(tmp_path / "still.png"), still[..., ::-1])
    found = answer("measure", tmp_path / "still.png", "--plan", tmp_path / "plan.json")
    cause = found["cause"]
    assert set(cause) >= {"story", "lamp", "factor", "moved", "certainty", "says", "cure", "also", "not_judged"}
    assert (cause["story"], cause["lamp"], cause["factor"]) == ("off", "right panel", 0.0)
    assert cause["certainty"] > 0.9
    assert "sky fill" in cause["not_judged"]
    assert found["verdict"]["state"] == "fails"
    assert {row["name"] for row in found["comparison"]} >= {"Screen, luma", "Unevenness"}
    told = run("measure", tmp_path / "still.png", "--plan", tmp_path / "plan.json").stdout
    assert "right panel is off" in told
    assert "this frame cannot tell: " in told
    assert "cause" not in answer("measure", tmp_path / "still.png")


def test_key_writes_the_matte(tmp_path: Path) -> None:
    path = write_frame(tmp_path / "a.png", frame(noise=0.4, figure=True))
    report = answer("key", path, "-o", tmp_path / "matte.png")
    assert report["residue_percent"] < 1.0
    assert report["sample"]["rgb"][1] == pytest.approx(57.7, abs=0.3)
    matte = cv2.imread(str(tmp_path / "matte.png"), cv2.IMREAD_UNCHANGED)
    assert matte is not None
    assert (matte.shape, matte[600, 640]) == ((720, 1280), 65535)


def test_export_lights(tmp_path: Path) -> None:
    (tmp_path / "p.json").write_text(json.dumps(dump_plan(scree())))
    done = run("export", tmp_path / "p.json", "--to", "csv", "-o", tmp_path / "lights.csv")
    assert done.returncode == 0
    assert (tmp_path / "lights.csv").read_text().splitlines()[0].startswith("id,name,role")


def test_export_to_print_to_draw_and_to_build(tmp_path: Path) -> None:
    (tmp_path / "p.json").write_text(json.dumps(dump_plan(scree())))
    for to, begins in (("sheet", b"%PDF-"), ("svg", b"<?xml"), ("gltf", b'{"asset": {"version": "2.0"')):
        done = run("export", tmp_path / "p.json", "--to", to, "--units", "ft", "-o", tmp_path / to)
        assert (done.returncode, done.stderr) == (0, "")
        assert (tmp_path / to).read_bytes().startswith(begins)
    assert run("export", tmp_path / "p.json", "--to", "svg", "-o", tmp_path / "none" / "x").returncode == 2


def test_unknown_fields_are_kept_and_reported(tmp_path: Path) -> None:
    (tmp_path / "p.json").write_text('{"format": "ausblick-plan", "version": 1, "dolly": true}')
    assert "kept, but unknown: dolly" in run("check", tmp_path / "p.json").stderr


def test_bad_input_is_one_line_and_exit_code_2(tmp_path: Path, plan: Path) -> None:
    def written(name: str, text: str) -> Path:
        (tmp_path / name).write_text(text)
        return tmp_path / name

    good = '{"format": "ausblick-plan", "version": 1'
    cases = [
        (["check", tmp_path / "none.json"], "no such file"),
        (["check", tmp_path], "directory"),
        (["check", written("a.json", "{")], "not JSON"),
        (["check", written("b.json", good + ', "screen": {"width": NaN}}')], "screen.width"),
        (["check", written("c.json", good + ', "screen": {"width": 1e9}}')], "allowed: 0.1 to 50"),
        (["check", written("d.json", "[" * 5000)], "deep"),
        (["probe", plan, "--at=0,1", "--facing", "0,0,1"], "--at"),
        (["probe", plan, "--at=0,1,2", "--facing", "0,0,0"], "--facing"),
        (["probe", plan, "--at=nan,1,2", "--facing", "0,0,1"], "--at"),
        (["screen-map", plan, "--grid", "0x9"], "--grid"),
        (["export", plan, "--to", "sketch", "-o", tmp_path / "x"], "--to"),
        (["measure"], "FRAME"),
        (["fly"], "fly"),
        (["key", written("t.png", "text"), "-o", tmp_path / "m.png"], "PNG"),
    ]
    for name, data in bad_files(tmp_path).items():
        (tmp_path / name).write_bytes(data)
        cases.append((["measure", tmp_path / name], name))
    for words, expected in cases:
        done = run(*words, *([] if words[0] in ("export", "fly") else ["--json"]))
        assert done.returncode == 2, (words, done.stdout)
        assert expected in done.stderr, (words, done.stderr)
        # A codec library may add its own remark; ours is one line, and three are the most.
        lines = done.stderr.strip().splitlines()
        assert [line.startswith("ausblick: ") for line in lines].count(True) == 1, done.stderr
        assert len(lines) <= 3, done.stderr
        assert "Traceback" not in done.stderr


def test_a_clean_plate_keys_what_one_sample_can_not(tmp_path: Path) -> None:
    slope = np.linspace(0.45, 1.0, 960)[None, :, None]
    empty = np.broadcast_to(np.array([60.0, 150.0, 75.0]) * slope, (540, 960, 3)).astype(np.uint8)
    taken = empty.copy()
    taken[180:, 400:560] = (150, 115, 95)
    for name, picture in (("empty.png", empty), ("taken.png", taken)):
        cv2.imwrite(str(tmp_path / name), picture[..., ::-1])
    base = ("key", tmp_path / "taken.png", "-o", tmp_path / "m.png")
    plain, clean = answer(*base), answer(*base, "--clean", tmp_path / "empty.png")
    assert plain["residue_percent"] > 20.0
    assert clean["residue_percent"] < 1.0
    assert clean["sample"] == plain["sample"]


@pytest.mark.parametrize(
    ("target", "env", "said"),
    [
        ("> /dev/full", {}, "can't be written: no space left on device"),
        pytest.param(">&-", {}, "no standard output", marks=pytest.mark.torture),
        pytest.param("> /dev/null", {"PYTHONIOENCODING": "ascii"}, "takes only ascii", marks=pytest.mark.torture),
    ],
    ids=["full", "closed", "ascii"],
)
def test_an_output_that_takes_no_more_is_one_line_and_exit_2(
    plan: Path, target: str, env: dict[str, str], said: str
) -> None:
    words = f"{sys.executable} -m ausblick check {plan} {target}"
    done = subprocess.run(
        ["sh", "-c", words], capture_output=True, text=True, timeout=60, check=False, env={**os.environ, **env}
    )
    assert done.returncode == 2
    assert said in done.stderr
    assert len(done.stderr.splitlines()) == 1


def test_a_file_without_end_is_read_to_its_limit() -> None:
    done = run("check", "/dev/zero")
    assert (done.returncode, done.stderr) == (2, "ausblick: /dev/zero: plan: is larger than 4 MB\n")


def test_the_running_order_of_a_production(tmp_path: Path) -> None:
    shots = [
        {"id": name, "plan": dump_plan(plan)} for name, plan in (("a", scree()), ("b", seed_vault()), ("c", scree()))
    ]
    text = json.dumps({"format": "ausblick-production", "version": 1, "shots": shots})
    (tmp_path / "day.json").write_text(text)
    done = run("production", tmp_path / "day.json", "--order", "--json")
    answer = json.loads(done.stdout)
    assert done.returncode == 0
    # The two alike stand beside each other: one change less.
    assert answer["order"] in (["a", "c", "b"], ["b", "a", "c"], ["b", "c", "a"], ["c", "a", "b"])
    assert answer["matrix"][0][2] == 0.0
    assert answer["change_minutes"] == answer["typed_minutes"] / 2
    assert {"at", "minutes", "kind", "shot", "why"} <= set(answer["entries"][0])
    assert "less than as typed in" in run("production", tmp_path / "day.json", "--order").stdout
    assert run("production", tmp_path / "none.json", "--order").returncode == 2
    for to, begins in (("day", b"%PDF-"), ("csv", b"at,minutes,kind,shot"), ("packing", b"kind,what,count")):
        done = run("export", tmp_path / "day.json", "--to", to, "-o", tmp_path / to)
        assert (done.returncode, done.stderr) == (0, "")
        assert (tmp_path / to).read_bytes().startswith(begins)
    # As many clamps as the hungriest shot takes, and not of all together.
    assert "rigging,clamps,32" in (tmp_path / "packing").read_text()
    assert "--to" in run("export", tmp_path / "day.json", "--to", "svg", "-o", tmp_path / "x").stderr

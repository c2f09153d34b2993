"""Small faults put into the code one by one: does a test notice? (make mutants)

Each fault is a line of the code changed as a slip of the hand would change it, with the tests that ought to notice.
The tree is copied first; nothing here touches the one that is worked on.

python scripts/mutants.py [--sample N] [--seed S] [--only PATH]
"""

from __future__ import annotations

import argparse
import os
import random
import shutil
import subprocess
import sys
import tempfile
from concurrent.futures import ThreadPoolExecutor
from dataclasses import dataclass
from pathlib import Path
from threading import local

ROOT = Path(__file__).resolve().parent.parent
CORE = "src/ausblick/core"
WORKERS = 2


@dataclass(frozen=True)
class Fault:
    """In `file` the text `old`, which stands there once, becomes `new`; `tests` are run until one fails."""

    file: str
    old: str
    new: str
    tests: str


LIMITS = f"{CORE}/standards/limits.py", "tests/core/advice/test_limits.py"
SCHOOLS = f"{CORE}/standards/schools.py", "tests/core/advice/test_limits.py tests/core/camera"
RULES, CAMERA, LIGHT, MATTE = "tests/core/advice", "tests/core/camera", "tests/core/light", "tests/core/matte"
KEYS = f"{CORE}/light/keys.py", "tests/core/light/test_never_stale.py"
LAMPS = f"{CORE}/plan/lamps.py", "tests/core/light/test_emission.py"


def _in(place: tuple[str, str], *changes: tuple[str, str]) -> list[Fault]:
    return [Fault(place[0], old, new, place[1]) for old, new in changes]


FAULTS = [
    # Limits and their steps.
    *_in(
        LIMITS,
        ("at=0.25, unit=\"% of the picture's width\",", "at=0.35, unit=\"% of the picture's width\","),
        ('at=1.0 / 3.0, unit="stops",', 'at=0.45, unit="stops",'),
        ('at=0.07, unit="", fix=0.04, stop=0.15', 'at=0.07, unit="", fix=0.06, stop=0.15'),
        ('at=0.05, unit="", fix=0.45, stop=1.45', 'at=0.05, unit="", fix=0.45, stop=1.6'),
        ('at=0.34, unit="stops",', 'at=0.45, unit="stops",'),
        ('at=20.0, unit="mired"', 'at=25.0, unit="mired"'),
        ('at=2.5, unit="px"', 'at=3.0, unit="px"'),
        ('at=12.5, unit="%", fix=25.0', 'at=15.0, unit="%", fix=25.0'),
        ('at=0.02, unit="flashes"', 'at=0.05, unit="flashes"'),
        ('at=80.0, unit="%", fix=20.0, stop=20.0', 'at=80.0, unit="%", fix=20.0, stop=25.0'),
        ('at=0.5, unit="m", fix=0.3, stop=0.3', 'at=0.6, unit="m", fix=0.3, stop=0.3'),
        ("INTRA_BITS = 0.5", "INTRA_BITS = 0.4"),
        ("RIM_MOST = 2.0", "RIM_MOST = 2.5"),
        ('at=1000.0, unit="Mbit/s"', 'at=1100.0, unit="Mbit/s"'),
        ),
    Fault(LIMITS[0], "HELPS = 0.02", "HELPS = -0.5", "tests/core/advice/test_remedies.py"),
    *_in(
        SCHOOLS,
        ("PLATE_SLOPE, PLATE_LEAST, PLATE_MOST = 28.0, 0.35, 30.0, 60.0", "PLATE_SLOPE, PLATE_LEAST, PLATE_MOST = 28.0, 0.3, 30.0, 60.0"),
        ("BELOW_FACE = LevelBand(42.0, 40.0, 45.0)", "BELOW_FACE = LevelBand(42.0, 40.0, 47.0)"),
        ("SHUTTER_LOW, SHUTTER_HIGH = 0.85, 1.18", "SHUTTER_LOW, SHUTTER_HIGH = 0.8, 1.18"),
        ('"2m-plus": 2.0', '"2m-plus": 1.8'),
        ("PLATE_DARK, PLATE_BRIGHT = 30.0, 65.0", "PLATE_DARK, PLATE_BRIGHT = 30.0, 60.0"),
        ("AROUND = 3.0", "AROUND = 4.0"),
    ),
    # Signs and factors of the rules.
    Fault(f"{CORE}/advice/rules/subject_rules.py", "off = max(low - over, over - high, 0.0)", "off = max(low - over, 0.0)", "tests/core/advice/test_limits.py"),
    Fault(f"{CORE}/advice/rules/camera_rules.py", "off = max(low - angle, angle - high, 0.0)", "off = max(low - angle, 0.0)", "tests/core/advice/test_limits.py"),
    Fault(f"{CORE}/advice/rules/recording_rules.py", "(3.0 if long_group and", "(2.0 if long_group and", "tests/core/advice/test_limits.py"),
    Fault(f"{CORE}/advice/rules/spill_rules.py", "(reading.share - reading.lamps) * scale", "(reading.share + reading.lamps) * scale", LIMITS[1]),
    Fault(f"{CORE}/advice/moves/mark_moved.py", 'WITH_THE_MARK = ("key", "fill", "back")', 'WITH_THE_MARK = ("fill", "back")', "tests/core/advice/test_remedies.py"),
    Fault(f"{CORE}/advice/moves/places.py", "STAND_FROM_WALL, STAND_FROM_BACK, LAMP_FROM_CEILING = 0.25, 0.2, 0.2", "STAND_FROM_WALL, STAND_FROM_BACK, LAMP_FROM_CEILING = -0.25, 0.2, 0.2", RULES),
    Fault(f"{CORE}/advice/findings.py", "RANK[judgement.severity] < RANK[self._severity_before(rule_id)]", "RANK[judgement.severity] > RANK[self._severity_before(rule_id)]", "tests/core/advice/test_remedies.py"),
    Fault(f"{CORE}/advice/rule_set.py", "return RuleSet((*RULES, *kit_rules(kit)))", "return RuleSet(RULES)", "tests/core/advice/test_kit_rules.py"),
    # Modifiers and their defaults.
    *_in(
        LAMPS,
        ('"softbox": {"width": 0.9, "height": 0.6, "transmission": 0.55}', '"softbox": {"width": 0.9, "height": 0.6, "transmission": 0.65}'),
        ('"umbrella": {"width": 1.0, "transmission": 0.55}', '"umbrella": {"width": 1.0, "transmission": 0.65}'),
        ('"grid": {"deg": 40.0}', '"grid": {"deg": 45.0}'),
        ('"doors": {"deg": 45.0}', '"doors": {"deg": 60.0}'),
    ),
    Fault(f"{CORE}/light/cloth.py", "GLOSS_EXPONENT = 10.0", "GLOSS_EXPONENT = 14.0", LIGHT),
    # What decides a remembered map.
    *_in(
        KEYS,
        ('ASIDE_OF_LAMP = ("id",', 'ASIDE_OF_LAMP = ("id", "modifier",'),
        ('ASIDE_OF_LAMP = ("id",', 'ASIDE_OF_LAMP = ("id", "aim",'),
        ('ASIDE_OF_SCREEN = ("hue",', 'ASIDE_OF_SCREEN = ("hue", "wing_left",'),
        ('ASIDE_OF_SCREEN = ("hue",', 'ASIDE_OF_SCREEN = ("hue", "reflectance",'),
        ('ASIDE_OF_SCREEN = ("hue",', 'ASIDE_OF_SCREEN = ("hue", "floor_run",'),
        ('ASIDE_OF_ROOM = ("ambient_lux",', 'ASIDE_OF_ROOM = ("reflectance", "ambient_lux",'),
        ('ASIDE_OF_FIXTURE = ("cct",', 'ASIDE_OF_FIXTURE = ("emitter", "cct",'),
        ("tuple(_aside(flag, PLAIN_FLAG, (\"id\", \"reflectance\")) for flag in plan.flags)", "()"),
    ),
    # Light, camera, signal.
    Fault(f"{CORE}/light/mix.py", "if room.kind == \"interior\" else 0.5 * (1.0 + normal[..., 1])", "if True else 0.5 * (1.0 + normal[..., 1])", LIGHT),
    Fault(f"{CORE}/light/figure_shadow.py", "HEAD_RADIUS, HEAD_AT = 0.12, 0.965", "HEAD_RADIUS, HEAD_AT = 0.12, 0.93", LIGHT),
    Fault(f"{CORE}/light/returned.py", "light[screen] += plan.screen.transmittance * plan.screen.behind_lux", "light[screen] -= plan.screen.transmittance * plan.screen.behind_lux", LIGHT),
    Fault(f"{CORE}/light/quadrature.py", "0.5 * (nodes + 1.0), 0.5 * weights", "0.5 * (nodes + 1.0), 0.51 * weights", LIGHT),
    Fault(f"{CORE}/light/spill.py", "1.5 * light[..., key] - 0.5 * light.sum(axis=-1)", "1.5 * light[..., key] - 0.4 * light.sum(axis=-1)", LIGHT),
    Fault(f"{CORE}/plan/people.py", "EYE_HEIGHT = 0.93", "EYE_HEIGHT = 0.9", f"{CAMERA} {LIGHT} tests/core/advice/test_limits.py"),
    Fault(f"{CORE}/colour/rec709.py", "CB_SCALE, CR_SCALE = 1.8556, 1.5748", "CB_SCALE, CR_SCALE = 1.8556, 1.4746", "tests/core/frames tests/formats/test_truth.py"),
    Fault(f"{CORE}/camera/motion.py", "min(0.5, 1.0 - flashes)", "1.0 - flashes", CAMERA),
    Fault(f"{CORE}/camera/focus.py", "SHARP_PX = 2.0", "SHARP_PX = 2.5", CAMERA),
    Fault(f"{CORE}/camera/sensor_noise.py", "READ_E = 3.0", "READ_E = 4.0", f"{CAMERA} tests/core/advice/test_camera_rules.py"),
    Fault(f"{CORE}/camera/exposure.py", "INCIDENT_C = 250.0", "INCIDENT_C = 270.0", CAMERA),
    # Frames, matte, diagnosis.
    Fault(f"{CORE}/damage/scale.py", 'ScaledPart("edge_error", 0.015, 0.09, 0.18)', 'ScaledPart("edge_error", 0.015, 0.12, 0.18)', f"tests/core/damage {MATTE}"),
    Fault(f"{CORE}/diagnosis/checklists.py", 'if side != "bottom"', 'if side != "left"', "tests/core/diagnosis/test_hand_readings_and_lists.py"),
    Fault("src/ausblick/store/migrations/versions/0005_numbers_once.py", "CREATE TABLE frames_new (\n    id INTEGER PRIMARY KEY AUTOINCREMENT NOT NULL", "CREATE TABLE frames_new (\n    id INTEGER PRIMARY KEY NOT NULL", "tests/store"),
    Fault("src/ausblick/store/database.py", '"BEGIN IMMEDIATE" if', '"BEGIN" if', "tests/store/test_many_writers.py"),
]  # fmt: skip


class Trees:
    """A copy of the tree for each thread, made once."""

    def __init__(self, place: Path) -> None:
        self._place, self._own, self._count = place, local(), 0

    def own(self) -> Path:
        if not hasattr(self._own, "tree"):
            self._count += 1
            self._own.tree = self._place / f"tree{self._count}"
            keep = shutil.ignore_patterns("static", "__pycache__", "*.egg-info")
            for part in ("src", "tests"):
                shutil.copytree(ROOT / part, self._own.tree / part, ignore=keep)
            shutil.copy(ROOT / "pyproject.toml", self._own.tree)
        return Path(self._own.tree)


def killed(fault: Fault, trees: Trees) -> bool | None:
    """Does a test fail with the fault in? None where the text no longer stands in the file."""
    tree = trees.own()
    path = tree / fault.file
    text = path.read_text("utf-8")
    if text.count(fault.old) != 1:
        return None
    path.write_text(text.replace(fault.old, fault.new), "utf-8")
    try:
        environment = {**os.environ, "PYTHONPATH": str(tree / "src"), "PYTHONDONTWRITEBYTECODE": "1"}
        command = [sys.executable, "-m", "pytest", "-x", "-q", "--no-header", *fault.tests.split()]
        done = subprocess.run(command, cwd=tree, env=environment, capture_output=True, check=False)
        return done.returncode == 1
    finally:
        path.write_text(text, "utf-8")


def main() -> int:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("--sample", type=int, default=len(FAULTS))
    parser.add_argument("--seed", type=int, default=1)
    parser.add_argument("--only", default="", help="faults in files whose path has this in it")
    asked = parser.parse_args()
    faults = [fault for fault in FAULTS if asked.only in fault.file]
    chosen = random.Random(asked.seed).sample(faults, min(asked.sample, len(faults)))
    with tempfile.TemporaryDirectory() as folder, ThreadPoolExecutor(WORKERS) as pool:
        trees = Trees(Path(folder))
        found = list(zip(chosen, pool.map(lambda fault: killed(fault, trees), chosen), strict=True))
    for fault, dead in found:
        if not dead:
            word = "SURVIVED" if dead is False else "NOT FOUND"
            print(f"{word}  {fault.file}: {fault.old} -> {fault.new}")
    count = sum(dead is True for _, dead in found)
    print(f"{count} of {len(found)} faults noticed")
    return 0 if count >= 0.9 * len(found) else 1


if __name__ == "__main__":
    sys.exit(main())

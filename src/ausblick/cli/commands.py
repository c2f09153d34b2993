"""The command line: the same computation without a browser.

Exit 0 done, 1 done with at least one finding of severity `stop`, 2 bad input (one clear line on
standard error).
"""

from __future__ import annotations

import json
import os
import sys
from dataclasses import replace
from itertools import pairwise
from pathlib import Path
from typing import Any, NamedTuple

import click
import numpy as np

from ausblick.core.light.basis import BasisStore
from ausblick.core.plan import Plan, PlanError, read_plan, unknown_fields
from ausblick.core.plan.document import MAX_BYTES

FILE = click.Path(path_type=Path)
plan_argument = click.argument("plan_file", metavar="PLAN.json", type=FILE)
as_json_option = click.option("--json", "as_json", is_flag=True, help="Answer with JSON instead of a table.")


@click.group(no_args_is_help=True)
def app() -> None:
    """Plans and checks a green screen set so that the footage keys cleanly."""


class BadInput(Exception):
    """Ends the command with exit code 2 and this one line."""


def main() -> None:
    """Run the command; every bad input ends in one clear line, and so does an output that takes no more."""
    try:
        code = app.main(standalone_mode=False) or 0
        # Closed at once, so that what can't be written is told and not lost at the end of the process.
        sys.stdout.flush()
        sys.exit(code)
    except BrokenPipeError:
        _drop_output()
        sys.exit(0)
    except UnicodeEncodeError as err:
        fail(f"the output takes only {err.encoding}, and this needs more: set PYTHONIOENCODING=utf-8")
    except click.ClickException as err:
        fail(err.format_message())
    except (BadInput, PlanError) as err:
        fail(str(err))
    except (click.Abort, KeyboardInterrupt):
        sys.exit(130)
    except OSError as err:
        _drop_output()
        fail(f"the output can't be written: {(err.strerror or str(err)).lower()}")
    except (ValueError, AttributeError):
        # Python has no standard output at all where it was closed before the start.
        if sys.stdout is not None and not sys.stdout.closed:
            raise
        fail("there is no standard output to write to")


def _drop_output() -> None:
    """Nothing more goes to an output that failed, not even Python's own last flush."""
    os.dup2(os.open(os.devnull, os.O_WRONLY), sys.stdout.fileno())


def fail(line: str) -> None:
    print("ausblick: " + " ".join(line.split()), file=sys.stderr)
    sys.exit(2)


def load_plan(path: Path) -> Plan:
    """The plan in a file, with the file's name in front of whatever is wrong with it."""
    try:
        # What is no plain file may go on without end and say no size.
        with path.open("rb") as file:
            plan = read_plan(file.read(MAX_BYTES + 1))
    except OSError as err:
        raise BadInput(f"{path}: {(err.strerror or 'cannot be opened').lower()}") from None
    except PlanError as err:
        raise BadInput(f"{path}: {err}") from None
    unknown = unknown_fields(plan)
    if unknown:
        print(f"ausblick: {path}: kept, but unknown: {', '.join(unknown[:8])}", file=sys.stderr)
    return plan


def say(data: Any) -> None:
    print(json.dumps(data, allow_nan=False, indent=1))


@app.command()
@plan_argument
@as_json_option
def check(plan_file: Path, as_json: bool) -> int:
    """Evaluate a whole plan: coverage, screen, exposure, blur, findings with remedies."""
    from ausblick.cli.printing import check_table
    from ausblick.core.advice.check_report import check_report
    from ausblick.core.advice.findings import find
    from ausblick.core.standards.plain import plain

    evaluation, findings = find(load_plan(plan_file), BasisStore())
    report = plain(check_report(evaluation, findings))
    if as_json:
        say(report)
    else:
        print(check_table(evaluation.plan, report))
    return 1 if any(finding.judgement.severity == "stop" for finding in findings) else 0


def numbers(text: str, option: str) -> np.ndarray[Any, np.dtype[np.float64]]:
    """Three finite numbers from X,Y,Z."""
    try:
        found = np.array([float(part) for part in text.split(",")])
    except ValueError:
        found = np.array([])
    if found.shape != (3,) or not np.isfinite(found).all() or np.abs(found).max() > 1e6:
        raise BadInput(f"{option}: give three numbers as X,Y,Z (got {text[:40]!r})")
    return found


@app.command()
@plan_argument
@click.option("--at", required=True, metavar="X,Y,Z", help="Place in metres.")
@click.option("--facing", required=True, metavar="NX,NY,NZ", help="Direction the surface faces.")
@as_json_option
def probe(plan_file: Path, at: str, facing: str, as_json: bool) -> int:
    """Light arriving at a small surface, in lux, R G B: from lamps, all of it, first-hand from the screen."""
    from ausblick.core.light.returned import probe_all, scene_light

    place, normal = numbers(at, "--at"), numbers(facing, "--facing")
    if not float(np.linalg.norm(normal)) > 0.0:
        raise BadInput("--facing: must not be of length zero")
    plan, store = load_plan(plan_file), BasisStore()
    light = probe_all(plan, place, normal, scene_light(plan, store), store)
    parts = {"direct": light.direct, "total": light.total, "from_screen": light.from_screen}
    if as_json:
        say({name: rgb.tolist() for name, rgb in parts.items()})
    else:
        for name, rgb in parts.items():
            print("{:12} R {:10.2f}   G {:10.2f}   B {:10.2f} lx".format(name.replace("_", " "), *rgb))
    return 0


@app.command("screen-map")
@plan_argument
@click.option("--grid", default="61x41", show_default=True, metavar="WxH", help="Columns and rows.")
@as_json_option
def screen_map(plan_file: Path, grid: str, as_json: bool) -> int:
    """Illuminance over the screen at the centres of a W x H division, rows from the lower edge up."""
    from ausblick.cli.printing import map_table
    from ausblick.core.camera.screen_grid import screen_grid
    from ausblick.core.evaluation.screen_light import map_lux

    sides = grid.lower().split("x")
    if len(sides) != 2 or not all(side.isascii() and side.isdigit() and 1 <= int(side) <= 500 for side in sides):
        raise BadInput(f"--grid: give columns and rows as WxH, 1 to 500 each (got {grid[:40]!r})")
    plan = load_plan(plan_file)
    cells = screen_grid(plan.screen, int(sides[0]), int(sides[1]))
    lux = map_lux(plan, cells, BasisStore())
    if as_json:
        maps = {"lux": lux.direct, "shadowed_lux": lux.shadowed, "total_lux": lux.total}
        say({"x": cells.x.tolist(), "y": cells.y.tolist(), **{name: rows.tolist() for name, rows in maps.items()}})
    else:
        print(map_table(cells.x, cells.y, lux.total))
    return 0


@app.command("test-key")
@plan_argument
@click.option("-o", "--out", "out", type=click.Path(path_type=Path), required=True, metavar="DIR", help="For PNGs.")
@click.option("--levers/--no-levers", default=True, show_default=True, help="Try one change each.")
@click.option("--seed", type=click.IntRange(0, 2**31 - 1), default=7, show_default=True)
@as_json_option
def test_key(plan_file: Path, out: Path, levers: bool, seed: int, as_json: bool) -> int:
    """Simulate the recording, key it, compare with the true matte; pictures go to DIR."""
    from ausblick.app.spare_memory import give_back
    from ausblick.cli.printing import simulated_table
    from ausblick.core.matte.key_report import test_key_report, with_levers
    from ausblick.core.matte.levers import levers_of
    from ausblick.core.matte.simulation import simulate
    from ausblick.core.matte.window_shot import NoScreen
    from ausblick.core.standards.plain import plain
    from ausblick.formats.recording import through
    from ausblick.formats.testkey_pictures import write_pictures

    plan, store = load_plan(plan_file), BasisStore()
    try:
        key = simulate(plan, store, through, seed, step=lambda _: give_back())
    except NoScreen as err:
        raise BadInput(f"{plan_file}: {err}") from None
    try:
        out.mkdir(parents=True, exist_ok=True)
        written = write_pictures(key, out)
    except OSError as err:
        raise BadInput(f"{out}: can't be written: {err.strerror}") from None
    told = test_key_report(key)
    # Its pictures are written; what a change makes of the key needs the room.
    del key
    if levers:
        tried = levers_of(plan, told.quality, store, through, lambda _: give_back(), seed=seed)
        told = with_levers(told, tried)
    report = plain(told)
    if as_json:
        say({**report, "pictures": [path.name for path in written]})
    else:
        print(simulated_table(plan.title, report))
        print("pictures: " + ", ".join(str(path) for path in written))
    return 0


@app.command()
@click.argument("frames", metavar="FRAME...", type=FILE, nargs=-1, required=True)
@click.option("--plan", "plan_file", type=FILE, metavar="PLAN.json", help="The plan that the frame was shot to.")
@click.option("--inside", metavar="X,Y,X,Y", help="Where the screen is, in parts of the frame: two opposite corners.")
@as_json_option
def measure(frames: tuple[Path, ...], plan_file: Path | None, inside: str | None, as_json: bool) -> int:
    """Read camera frames (PNG, JPEG, HEIC, TIFF, EXR, DPX, raw) and clips (MP4, MOV, MKV, MXF, AVI, MTS): screen,
    levels, spots, noise; of several also what has drifted since the one before; with a plan what differs from it, and
    which lamp it is."""
    from ausblick.cli.printing import frame_table
    from ausblick.core.diagnosis.beside_plan import beside_plan
    from ausblick.core.frames.frame_report import drift_between
    from ausblick.core.light.basis import BasisStore
    from ausblick.core.standards.plain import plain

    plan, store = load_plan(plan_file) if plan_file else None, BasisStore()
    region = _region(inside) if inside else ()
    measured = [_measured(path, plan, region) for path in frames]
    reports = [{**plain(one.still), **({} if one.clip is None else plain(one.clip))} for one in measured]
    for (before, now), report in zip(pairwise(one.still for one in measured), reports[1:], strict=True):
        report["since_previous"] = [plain(row) for row in drift_between(before, now)]
    for one, report in zip(measured, reports, strict=True):
        if plan is not None:
            beside = plain(beside_plan(plan, one.frame, one.reading, store))
            report |= {"verdict": beside["verdict"], "comparison": beside["rows"], "cause": beside["cause"]}
    if as_json:
        say(reports[0] if len(reports) == 1 else reports)
    else:
        print("\n\n".join(frame_table(str(path), one) for path, one in zip(frames, reports, strict=True)))
    return 0


@app.command()
@click.argument("frame", metavar="FRAME", type=FILE)
@click.option("-o", "--output", required=True, type=FILE, metavar="MATTE.png", help="Where the matte goes.")
@click.option("--clean", type=FILE, metavar="FRAME", help="The same view without anybody: keyed against it.")
@as_json_option
def key(frame: Path, output: Path, clean: Path | None, as_json: bool) -> int:
    """The plain one-click key of a frame: matte, residue and holes."""
    from ausblick.cli.printing import key_table
    from ausblick.core.diagnosis.trial_key import trial_key, trial_report
    from ausblick.core.frames.reading import read_frame
    from ausblick.core.matte.key_report import key_report
    from ausblick.core.matte.keyer import plain_key
    from ausblick.core.standards.plain import plain
    from ausblick.formats.images import ImageError, write_gray_png

    pixels = _frame(frame)
    try:
        reading = read_frame(pixels)
        result = plain_key(pixels, reading)
        report = key_report(result)
        matte = result.matte
        if clean is not None and (trial := trial_key(pixels, reading, _frame(clean))) is not None:
            report = trial_report(report, trial)
            matte = trial.pulled.matte
        write_gray_png(output, matte)
    except ImageError as err:
        raise BadInput(f"{output}: {err}") from None
    except ValueError as err:
        raise BadInput(f"{frame}: {err}") from None
    if as_json:
        say(plain(report))
    else:
        print(key_table(plain(report), str(output)))
    return 0


class _Measured(NamedTuple):
    """A still's report or that of a clip's middle frame, the clip's own, the pixels and what they read."""

    still: Any
    clip: Any
    frame: Any
    reading: Any


def _region(inside: str) -> tuple[tuple[float, float], ...]:
    """The corners of a rectangle of the frame."""
    try:
        x0, y0, x1, y1 = (float(part) for part in inside.split(","))
    except ValueError:
        raise BadInput(f"--inside {inside}: give four numbers from 0 to 1, as 0.1,0,0.9,1") from None
    if not all(0.0 <= v <= 1.0 for v in (x0, y0, x1, y1)) or x0 == x1 or y0 == y1:
        raise BadInput(f"--inside {inside}: two opposite corners, each from 0 to 1")
    return (x0, y0), (x1, y0), (x1, y1), (x0, y1)


def _measured(path: Path, plan: Any, region: Any) -> _Measured:
    from ausblick.core.frames.frame_report import clip_report, frame_report
    from ausblick.core.frames.reading import read_frame
    from ausblick.formats.clips import LOOKED_AT, is_clip, open_clip
    from ausblick.formats.images import ImageError

    trace, hue = (plan.targets.level_trace, plan.screen.hue) if plan else ("luma", "other")
    try:
        with path.open("rb") as file:
            moving = is_clip(file.read(LOOKED_AT))
    except OSError as err:
        raise BadInput(f"{path}: {(err.strerror or 'cannot be opened').lower()}") from None
    if not moving:
        frame = _frame(path)
        reading = read_frame(frame, trace, region, hue)
        return _Measured(frame_report(reading, colour=frame.colour), None, frame, reading)
    try:
        clip = open_clip(path, trace, camera=None if plan is None else plan.camera)
        read = replace(clip.reading, frame=read_frame(clip.middle, trace, region, hue)) if region else clip.reading
        return _Measured(*clip_report(clip.facts, read), clip.middle, read.frame)
    except ImageError as err:
        raise BadInput(f"{path}: {err}") from None


def _frame(path: Path) -> Any:
    from ausblick.formats.images import ImageError, read_image

    try:
        return read_image(path)
    except ImageError as err:
        raise BadInput(f"{path}: {err}") from None

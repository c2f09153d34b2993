"""Short tables for people at the command line."""

from __future__ import annotations

import textwrap
from typing import Any

import numpy as np

from ausblick.core.plan import Plan
from ausblick.core.sentences import Sentence, say, shutter
from ausblick.core.standards.plain import unplain

MARK = {"stop": "✕ stop", "fix": "✕ fix", "consider": "△ consider", "fine": "○ holds"}
BANDS = ("bands_told", "bands_cure", "bands_not_told")


def _num(value: float | None, unit: str = "", digits: int = 1) -> str:
    return "–" if value is None else f"{value:.{digits}f} {unit}".rstrip()


def _margin(value: float | None) -> str:
    """In m; what is just missing is never "-0.00"."""
    return _num(value if value is None or not -0.01 < value < 0.0 else -0.01, "m", 2)


def _shutter(plan: Plan, angle: float) -> str:
    """A still has a time, and no angle."""
    return shutter(plan.camera.shutter_s) if plan.medium == "stills" else _num(angle, "°", 0)


def check_table(plan: Plan, report: dict[str, Any]) -> str:
    coverage, screen, exposure, blur = (report[k] for k in ("coverage", "screen", "exposure", "blur"))
    lines = [plan.title, ""]
    lines.append(
        f"screen     {'covered' if coverage['covered'] else 'NOT COVERED'}, margin {_margin(coverage['margin_m'])}"
    )
    if screen:
        lines.append(
            f"           luma {_num(screen['level_luma'], '%')}, key channel "
            f"{_num(screen['level_key_channel'], '%')}, spread {_num(screen['spread_stops'], 'stops', 2)}, "
            f"{_num(screen['lux_mean'], 'lx', 0)}"
        )
    lines.append(
        f"subject    {_num(exposure['subject_lux'], 'lx', 0)} against {_num(exposure['grey_lux'], 'lx', 0)} "
        f"for grey, skin {_num(exposure['subject_level'], '%')}"
    )
    lines.append(
        f"camera     smear {_num(blur['motion_px'], 'px')}, screen blur {_num(blur['screen_defocus_px'], 'px')}, "
        f"shutter {_shutter(plan, blur['shutter_angle'])}"
    )
    lines.append("")
    for finding in report["findings"]:
        whose = f"{finding['who']}: " if finding["who"] else ""
        lines.append(f"{MARK[finding['severity']]:11} {whose}{finding['says']}  [{finding['id']}]")
        if finding["severity"] == "fine":
            continue
        lines += textwrap.wrap(finding["why"], 96, initial_indent=" " * 12, subsequent_indent=" " * 12)
        for remedy in finding["remedies"]:
            words = [remedy["cost"]] if remedy["cost"] else []
            if remedy["worsens_words"]:
                words.append(f"worse for {', '.join(remedy['worsens_words'])}")
            if not remedy["gives"]:
                words.append("costs more than it gives")
            cost = f" ({'; '.join(words)})" if words else ""
            lines.append(f"            → {remedy['text']}: {remedy['effect']}{cost}")
        if finding["no_remedy"]:
            lines.append(f"            {finding['no_remedy']}")
    lines += ["", "Not in these numbers: " + "; ".join(report["not_computed"])]
    return "\n".join(lines)


def map_table(x: np.ndarray[Any, Any], y: np.ndarray[Any, Any], lux: np.ndarray[Any, Any]) -> str:
    """Lux at up to 9 columns and 7 rows, upper row first as one sees it."""
    columns = np.unique(np.linspace(0, len(x) - 1, 9).round().astype(int))
    rows = np.unique(np.linspace(0, len(y) - 1, 7).round().astype(int))[::-1]
    head = "y \\ x m " + "".join(f"{x[c]:9.2f}" for c in columns)
    body = [f"{y[r]:7.2f} " + "".join(f"{lux[r, c]:9.1f}" for c in columns) for r in rows]
    return "\n".join([head, *body, f"lux; min {lux.min():.1f}, mean {lux.mean():.1f}, max {lux.max():.1f}"])


def frame_table(name: str, report: dict[str, Any]) -> str:
    lines = [f"{name}  {report['width']} × {report['height']} px"]
    if "container" in report:
        lines += _clip_lines(report)
    lines += _colour_lines(report)
    if report["hue"] is None:
        return "\n".join([*lines, "  no green or blue screen found", *_candidate_lines(report)])
    luma, key = report["level_luma"], report["level_key_channel"]
    lines += [
        f"  {report['hue']} screen on {report['screen_area_percent']:.1f} % of the frame, "
        f"hue {report['hue_deg']:.0f}°, saturation {report['saturation']:.3f}",
        f"  luma {luma['mean']:.1f} % ({luma['p1']:.1f} to {luma['p99']:.1f}), "
        f"key channel {key['mean']:.1f} % ({key['p1']:.1f} to {key['p99']:.1f})",
        f"  band {report['band_percent']:.1f} points, {report['even_percent']:.1f} without noise; "
        f"noise {_num(report['noise_percent'], '%', 2)}; clipped {report['clipped_percent']:.1f} %",
        "  "
        + "\n  ".join("  ".join(f"{'–' if v is None else f'{v:.1f}':>6}" for v in row) for row in report["grid"]),
    ]
    for word, spots in (("hot spot", report["hot_spots"]), ("shadow", report["shadows"])):
        for spot in spots:
            across, down = spot["x"] + spot["w"] / 2, spot["y"] + spot["h"] / 2
            lines.append(
                f"  {word} {spot['delta_percent']:+.1f} points at "
                f"{100 * across:.0f} % across, {100 * down:.0f} % down"
            )
    lines += _candidate_lines(report)
    for place in report["may_be_lost"]:
        across, down = place["x"] + place["w"] / 2, place["y"] + place["h"] / 2
        lines.append(
            f"  part of the figure has nearly the screen's colour and may be lost: {place['area_percent']:.1f} % of "
            f"the frame at {100 * across:.0f} % across, {100 * down:.0f} % down"
        )
    if report["marks"]:
        lines.append(f"  {len(report['marks'])} marks on the screen, kept out of its evenness")
    if report["things_at_edge"]:
        lines.append(f"  a thing at the edge, not the subject: {', '.join(report['things_at_edge'])}")
    if report["edge_contact"]:
        where = sorted({*report["edge_contact_frame"], *report["edge_contact_screen"]})
        lines.append(f"  the subject touches the edge: {', '.join(where)}")
    for row in report.get("since_previous", []):
        if row["means"]:
            lines.append(f"  {row['name'].lower()} {row['difference']:+.1f} {row['unit']}: {row['means']}")
    if "verdict" in report:
        lines += _beside_lines(report)
    return "\n".join(lines)


def _candidate_lines(report: dict[str, Any]) -> list[str]:
    """What else may be the screen, and how to say that it is."""
    lines = []
    for one in report["candidates"]:
        x, y = (sorted(place) for place in zip(*one["corners"], strict=True))
        box = f"{x[0]:.2f},{y[0]:.2f},{x[-1]:.2f},{y[-1]:.2f}"
        lines.append(
            f"  may be a screen, keyed by {one['hue']}: {one['area_percent']:.0f} % of the frame; --inside {box}"
        )
    return lines


def _beside_lines(report: dict[str, Any]) -> list[str]:
    """The frame beside its plan: the verdict, then the cause with how sure it is."""
    lines = [f"  {report['verdict']['state']}: {report['verdict']['says']}"]
    for cause in (report["cause"], report["cause"] and report["cause"]["also"]):
        if cause:
            lines.append(f"  {cause['says']} (certainty {cause['certainty']:.2f})")
            lines += [f"    {cause['cure']}"] if cause["cure"] else []
    if report["cause"] and report["cause"]["not_judged"]:
        lines.append(f"  this frame cannot tell: {', '.join(report['cause']['not_judged'])}")
    if report["cause"] and report["cause"]["decide"]:
        lines.append(f"    {report['cause']['decide']}")
    return lines


def _frames_read(report: dict[str, Any]) -> str:
    """A clip that is cut short says how much of it there was."""
    said = report["frames_said"] or 0
    return (
        f"{report['frames']} frames"
        if said <= report["frames"]
        else f"{report['frames']} of {said} frames, cut short,"
    )


def _colour_lines(report: dict[str, Any]) -> list[str]:
    """How the file's colour was understood, where it is not the usual one or where something was assumed."""
    lines = []
    if (report["primaries"], report["transfer"]) not in (("709", "709"), ("709", "sRGB")):
        lines.append(f"  written in {report['primaries']} primaries, {report['transfer']}; read as Rec.709")
    return lines + ([f"  assumed: {', '.join(report['assumed'])}"] if report["assumed"] else [])


def _clip_lines(report: dict[str, Any]) -> list[str]:
    hertz = f" at {report['flicker_hz']:.1f} Hz" if report["flicker_hz"] else ""
    flicker, drift = f"{report['flicker_percent']:.2f} points{hertz}", f"{report['drift_percent']:+.2f} points"
    chroma = report["chroma"] or report["pix_fmt"]
    return [
        f"  {report['container']}, {report['codec_name']}, {chroma}, {report['bits']} bit, "
        f"{report['mbit_s']:.1f} Mbit/s",
        f"  {_frames_read(report)} at {report['fps']:.2f} a second; flicker {flicker}, drift {drift}",
        *(f"  {say(unplain(Sentence, report[part]))}" for part in BANDS if report.get(part)),
    ]


def key_table(report: dict[str, Any], output: str) -> str:
    rgb = ", ".join(f"{v:.1f}" for v in report["sample"]["rgb"])
    return (
        f"sample  {rgb} % at {100 * report['sample']['x']:.0f} % across, {100 * report['sample']['y']:.0f} % down\n"
        f"residue {report['residue_percent']:.2f} % of the screen; "
        f"holes {_num(report['holes_percent'], '% of the figure', 2)}\n"
        f"clip    {report['black_clip']:.3f} at the sample, {report['needed_clip']:.3f} would hold the whole screen\n"
        f"matte   {output}"
    )


def _whose(report: dict[str, Any]) -> str:
    return "" if report["person"] is None else f": of {report['person']}, whom it costs most"


def simulated_table(title: str, report: dict[str, Any]) -> str:
    """The parts first, the single number last."""
    lines = [title, "", f"{'':18}{'plan':>9}{'ideal':>9}{'border':>9}{'weight':>8}"]
    for part in report["parts"]:
        values = "".join(f"{_num(part[k], '', 3):>9}" for k in ("value", "ideal", "border"))
        lines.append(f"{part['name'].replace('_', ' '):18}{values}{part['weight']:8.2f}")
    residue, holes = _num(report["residue_percent"], "%", 2), _num(report["holes_percent"], "%", 2)
    lines += [f"residue {residue}, holes {holes}", f"quality {report['quality']:.1f} of 100{_whose(report)}"]
    for lever in report["levers"]:
        cost = f"  ({lever['cost']})" if lever["cost"] else ""
        lines.append(f"{lever['gain']:+6.1f}  {lever['change']}{cost}")
    return "\n".join(lines)

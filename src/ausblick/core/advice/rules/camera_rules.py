"""Camera: smear, shutter, flicker, noise, depth of field, sharpening."""

from __future__ import annotations

import math

from ...camera.built_in_lens import lens_is_built_in
from ...camera.focus import f_number_for
from ...camera.motion import flicker_error, safe_shutters
from ...camera.view import focus_distance
from ...evaluation.results import Evaluation
from ...light.basis import BasisStore
from ...plan import Plan, edit, people_of
from ...sentences import tell
from ...standards.limits import LIMITS
from ...standards.schools import FASTER_MOST
from ..rule import Judgement, Proposal, Rule
from ..shutter_school import school_angle
from ..steps import MOST_ND, SHUTTERS, third_stop

SMEAR, FLICKER, ISO, DEPTH, MELTS, FRAME = (
    LIMITS[f"camera.{name}"] for name in ("smear", "flicker", "iso", "depth", "melt", "shutter-frame")
)
THIRD_STOP = 2.0 ** (1.0 / 3.0)


def smear_limit(evaluation: Evaluation) -> float:
    return SMEAR.at / 100.0 * evaluation.plan.camera.sensor.px_w


def _smear(evaluation: Evaluation) -> Judgement | None:
    smear = evaluation.blur.motion_px
    if smear is None:
        return None
    limit = smear_limit(evaluation)
    over = smear / limit - 1.0
    says = tell("camera.smear", smear=smear, shutter=evaluation.plan.camera.shutter_s)
    return Judgement(SMEAR.grade(over), smear, limit, "px", says, max(0.0, over))


def _lamps_flicker(evaluation: Evaluation) -> bool:
    return bool(_flicker_of(evaluation))


def _flicker_of(evaluation: Evaluation) -> set[str]:
    """How the burning lamps flicker, those aside that are known not to."""
    burning = [lamp for lamp in evaluation.plan.lights if lamp.on and not lamp.is_daylight]
    found: set[str] = {lamp.fixture.flicker for lamp in burning if not lamp.fixture.flash_lms}
    return found - {"free"}


def _faster(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    """The slowest shutter that is fast enough, and the fastest that lamps allow; one that is both alone, if there is,
    a third of a stop given. Where the smear is none too long and the key loses the hand all the same, one that is
    open half as long."""
    smear, camera = evaluation.blur.motion_px, evaluation.plan.camera
    if not smear:
        return []
    share = smear_limit(evaluation) / smear
    needed = camera.shutter_s * (share if share < 1.0 else 0.5)
    options = [1.0 / n for n in SHUTTERS if 1.0 / n <= needed][:1]
    if _lamps_flicker(evaluation):
        safe = [t for t in safe_shutters(evaluation.plan.room.mains.hz, camera.fps) if t < camera.shutter_s]
        both = [t for t in safe if t <= needed * THIRD_STOP]
        options = both[-1:] or options + safe[:1]
    return [proposal for t in dict.fromkeys(options) for proposal in _shutter_to(evaluation, t)]


def _shutter_to(evaluation: Evaluation, seconds: float) -> list[Proposal]:
    """The shutter alone, and the shutter with the light given back: by a filter that comes out, by the aperture, or
    by a filter where that is too much for it."""
    camera = evaluation.plan.camera
    if abs(seconds / camera.shutter_s - 1.0) < 0.01:
        return []
    change = edit.camera.shutter_s(round(seconds, 8))
    spent = math.log2(camera.shutter_s / seconds)
    cost = tell("cost/stops" if spent > 0 else "cost/wins-stops", by=spent)
    proposals = [Proposal(tell("do/shutter", to=seconds, was=camera.shutter_s), (change,), cost)]
    freed = min(camera.nd_stops, float(round(spent)))
    if freed >= 1.0:
        text = tell("do/shutter-less-nd", to=seconds, was=camera.shutter_s, stops=freed)
        clear = edit.camera.nd_stops(camera.nd_stops - freed)
        return [*proposals, Proposal(text, (change, clear))]
    f_number = third_stop(camera.f_number * 2.0 ** (-spent / 2.0), up=False)
    turns = camera.widest <= f_number <= 16.0 and not lens_is_built_in(camera)
    if turns and abs(f_number - camera.f_number) > 0.05:
        proposals.append(
            Proposal(
                tell("do/shutter-aperture", to=seconds, was=camera.shutter_s, f_number=f_number),
                (change, edit.camera.f_number(f_number)),
                tell("cost/less-depth") if spent > 0 else None,
            )
        )
    elif spent <= -1.0 and camera.nd_stops + round(-spent) <= MOST_ND:
        dark = edit.camera.nd_stops(camera.nd_stops + round(-spent))
        text = tell("do/shutter-nd", to=seconds, was=camera.shutter_s, stops=float(round(-spent)))
        proposals.append(Proposal(text, (change, dark), tell("cost/nd")))
    return proposals


def _angle(evaluation: Evaluation) -> Judgement | None:
    if evaluation.plan.medium == "stills":
        return None
    low, high = school_angle(evaluation)
    angle = evaluation.blur.shutter_angle
    off = max(low - angle, angle - high, 0.0)
    limit = low if angle < low else high
    school = evaluation.plan.targets.shutter_school
    ident = "camera.shutter-angle/choppy" if angle < FASTER_MOST else "camera.shutter-angle"
    says = tell(ident, angle=angle, school=school, low=low, high=high)
    return Judgement("consider" if off > 0 else "fine", angle, limit, "°", says, off / 100.0)


def _to_school(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    low, high = school_angle(evaluation)
    fps = evaluation.plan.camera.fps
    fitting = [1.0 / n for n in SHUTTERS if low <= 360.0 * fps / n <= high]
    safe = safe_shutters(evaluation.plan.room.mains.hz, fps)
    fitting.sort(key=lambda t: min((abs(t - s) for s in safe), default=0.0))
    return _shutter_to(evaluation, fitting[0]) if fitting else []


def _flicker(evaluation: Evaluation) -> Judgement | None:
    if not _lamps_flicker(evaluation):
        return None
    plan = evaluation.plan
    error = flicker_error(plan.camera.shutter_s, plan.room.mains.hz)
    off = error - FLICKER.at
    ident = "camera.flicker/whole" if off <= 0 else "camera.flicker/cut"
    if off > 0 and _flicker_of(evaluation) == {"unknown"}:
        ident = "camera.flicker/unknown"
    says = tell(ident, shutter=plan.camera.shutter_s, mains=plan.room.mains.hz)
    return Judgement("consider" if off > 0 else "fine", error, FLICKER.at, "flashes", says, max(0.0, off))


def _safe(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    plan = evaluation.plan
    options = safe_shutters(plan.room.mains.hz, plan.camera.fps)
    if not options or plan.medium == "stills":
        return _slower_frames(plan) if not options else _shutter_to(evaluation, options[0])
    nearest = min(options, key=lambda t: abs(math.log(t / plan.camera.shutter_s)))
    return _shutter_to(evaluation, nearest)


def _slower_frames(plan: Plan) -> list[Proposal]:
    """A frame rate into which one flash of the mains fits."""
    fps = 2.0 * plan.room.mains.hz
    changes = (edit.camera.fps(fps), edit.camera.shutter_s(round(1.0 / fps, 8)))
    return [Proposal(tell("do/frame-rate", to=fps), changes, tell("cost/frame-rate"))]


def _frame(evaluation: Evaluation) -> Judgement | None:
    """A shutter that is open longer than a frame lasts is no shutter; stills have no frames to fit into."""
    if evaluation.plan.medium == "stills":
        return None
    angle, camera = evaluation.blur.shutter_angle, evaluation.plan.camera
    over = angle - FRAME.at
    says = tell("camera.shutter-frame/fits", shutter=camera.shutter_s)
    if over > 0.0:
        says = tell("camera.shutter-frame", shutter=camera.shutter_s, fps=camera.fps)
    return Judgement(FRAME.grade(over), angle, FRAME.at, "°", says, max(0.0, over) / 100.0)


def _into_frame(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    camera = evaluation.plan.camera
    return [p for share in (0.5, 1.0) for p in _shutter_to(evaluation, share / camera.fps)[:1]]


def _iso(evaluation: Evaluation) -> Judgement | None:
    camera = evaluation.plan.camera
    over = math.log2(camera.iso / camera.sensor.base_iso)
    says = (
        tell("camera.iso/above", iso=camera.iso, over=over)
        if over > 0.05
        else tell("camera.iso/base", iso=camera.iso)
    )
    return Judgement(ISO.grade(over - ISO.at), over, ISO.at, "stops", says, max(0.0, over - ISO.at))


def _lower_iso(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    camera = evaluation.plan.camera
    base = camera.sensor.base_iso
    over = math.log2(camera.iso / base)
    to_base = edit.camera.iso(base)
    proposals = [Proposal(tell("do/iso", to=base, was=camera.iso), (to_base,), tell("cost/stops", by=over))]
    f_number = third_stop(camera.f_number * 2.0 ** (-over / 2.0), up=False)
    if camera.widest <= f_number < camera.f_number:
        proposals.append(
            Proposal(
                tell("do/iso-aperture", to=base, f_number=f_number),
                (to_base, edit.camera.f_number(f_number)),
                tell("cost/less-depth"),
            )
        )
    return proposals


def sharp_range(evaluation: Evaluation) -> tuple[float, float] | None:
    """Nearest and farthest distance in m from the lens that anybody's action reaches."""
    plan, focus = evaluation.plan, evaluation.focus
    if plan.subject is None or focus is None:
        return None
    away = [(focus_distance(plan.camera, one), one.envelope) for one in people_of(plan)]
    first, last = (min(d - reach.front for d, reach in away), max(d + reach.back for d, reach in away))
    return max(0.05, first), max(0.05, last)


def _depth(evaluation: Evaluation) -> Judgement | None:
    needed, focus = sharp_range(evaluation), evaluation.focus
    if needed is None or focus is None:
        return None
    short = max(focus.near_m - needed[0], needed[1] - focus.far_m, 0.0)
    action = {"near": focus.near_m, "first": needed[0], "last": needed[1]}
    if math.isinf(focus.far_m):
        says = tell("camera.depth/infinity", **action)
    else:
        says = tell("camera.depth", far=focus.far_m, **action)
    over = max(0.0, short - DEPTH.at)
    return Judgement(DEPTH.grade(over), short, DEPTH.at, "m", says, over)


def _stop_down(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    needed, focus, camera = sharp_range(evaluation), evaluation.focus, evaluation.plan.camera
    if needed is None or focus is None:
        return []
    f_number = third_stop(f_number_for(camera, focus.distance_m, *needed))
    if f_number > 22.0 or f_number <= camera.f_number:
        return []
    cost = tell("cost/stops", by=2.0 * math.log2(f_number / camera.f_number))
    text = tell("do/aperture", to=f_number, was=camera.f_number)
    return [Proposal(text, (edit.camera.f_number(f_number),), cost)]


def _melt(evaluation: Evaluation) -> Judgement | None:
    disc, slope = evaluation.blur.screen_defocus_px, evaluation.plan.screen.wrinkle_slope
    if disc is None or slope < 0.02:
        return None
    short = 1.0 - disc / MELTS.at
    says = tell("camera.melt", material=evaluation.plan.screen.material, disc=disc)
    return Judgement("consider" if short > 0 else "fine", disc, MELTS.at, "px", says, max(0.0, short))


def _melt_more(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    camera, disc = evaluation.plan.camera, evaluation.blur.screen_defocus_px
    if not disc:
        return []
    flat = Proposal(tell("do/flatten"), (edit.screen.wrinkle_slope(0.01),), tell("cost/time-on-day"))
    f_number = third_stop(max(1.0, camera.f_number * disc / MELTS.at), up=False)
    if f_number >= camera.f_number:
        # Folds that cost something may be melted as far as this rule asks already.
        return [flat]
    open_up = Proposal(
        tell("do/aperture", to=f_number, was=camera.f_number),
        (edit.camera.f_number(f_number),),
        tell("cost/less-depth-more-light"),
    )
    return [open_up, flat]


def _sharpening(evaluation: Evaluation) -> Judgement | None:
    on = evaluation.plan.camera.sharpening
    says = tell("camera.sharpening/on" if on else "camera.sharpening/off")
    return Judgement("fix" if on else "fine", 1.0 if on else 0.0, 0.0, "", says, 1.0 if on else 0.0)


def _no_sharpening(evaluation: Evaluation, store: BasisStore) -> list[Proposal]:
    return [Proposal(tell("do/sharpening-off"), (edit.camera.sharpening(False),))]


RULES = (
    Rule(
        id="camera.smear",
        stage="camera",
        measure="smear",
        why="A smeared edge is neither subject nor screen, and no key cuts it cleanly.",
        judge=_smear,
        propose=_faster,
        digits=0,
    ),
    Rule(
        id="camera.shutter-frame",
        stage="camera",
        measure="shutter angle",
        why="A frame is over before such a shutter closes: the camera cannot be set to it.",
        judge=_frame,
        propose=_into_frame,
        digits=0,
    ),
    Rule(
        id="camera.shutter-angle",
        stage="camera",
        measure="shutter angle",
        why="The subject should move as the plate moves; a fast shutter looks choppy before a smooth plate.",
        judge=_angle,
        propose=_to_school,
        digits=0,
    ),
    Rule(
        id="camera.flicker",
        stage="camera",
        measure="cut flashes",
        why="Mains lamps flash twice a cycle; a shutter that cuts a flash makes the screen's level pump.",
        judge=_flicker,
        propose=_safe,
    ),
    Rule(
        id="camera.iso",
        stage="camera",
        measure="ISO above base",
        why="Grain is speckle in the matte. Under-exposing and lifting afterwards is no way round it: the same "
        "light is the same noise, whichever knob lifts it; the test key compares both.",
        judge=_iso,
        propose=_lower_iso,
        digits=1,
    ),
    Rule(
        id="camera.depth",
        stage="camera",
        measure="not sharp",
        why="The edge is cut where it is sharp: hair and fingertips must be inside the depth of field.",
        judge=_depth,
        propose=_stop_down,
    ),
    Rule(
        id="camera.melt",
        stage="camera",
        measure="screen blur",
        why="A screen out of focus hides its own wrinkles.",
        judge=_melt,
        propose=_melt_more,
        digits=1,
    ),
    Rule(
        id="camera.sharpening",
        stage="camera",
        measure="sharpening",
        why="Sharpening draws a dark line round the edge, and the key finds that line.",
        judge=_sharpening,
        propose=_no_sharpening,
        digits=0,
    ),
)

"""The limits of what is judged of a day and of its takes, by the ids of those rules."""

from __future__ import annotations

from .limit import Limit

DAY_LIMITS: dict[str, Limit] = {
    "day.test": Limit(
        at=1.0, unit="min", fix=0.0, stop=0.0, source="A minute of test, keyed with one click",
        reason="What a test shows is mended in minutes; what it would have shown is paid for at the edit."),
    "day.people": Limit(
        at=0.0, unit="shots", fix=0.0, stop=0.0, source="The times that people gave",
        reason="Nobody is there twice."),
    "day.late": Limit(
        at=0.0, unit="min", fix=10.0, source="The end that was agreed",
        reason="Ten minutes are lost and won on any day; more has to be decided."),
    "day.outfit": Limit(
        at=98.0, unit="%", fix=4.0, source="Drawn keys, as the rule on screen colour in what is worn",
        reason="A fiftieth of the matte is measured, six in a hundred are seen."),
    "day.minor": Limit(
        at=0.0, unit="things", fix=0.0, source="Local law decides",
        reason="Working times and who comes along are agreed before the day, in writing."),
    "day.plate": Limit(
        at=0.0, unit="shots", source="Habit of the trade",
        reason="Light, lens and height are matched to a picture; without one they are guessed."),
    "day.still-take": Limit(
        at=1.0, unit="takes", source="Habit of the trade",
        reason="A take at rest can be keyed and used where the tracking of the moving one fails."),
    "day.many": Limit(
        at=8.0, unit="shots", source="The production's own number of screen shots a day",
        reason="Each costs hours at the edit, and each may fail; close framing costs a quarter of full length."),
    "day.sound": Limit(
        at=2.0, unit="devices", source="Habit of the trade",
        reason="One microphone rustles or fails unheard; a second, worn or on a boom, saves the take."),
    "day.floor-cloth": Limit(
        at=0.0, unit="m", source="Usual caution", reason="A cloth underfoot slides and its edge trips."),
    "day.wind": Limit(
        at=0.0, unit="shots", source="Usual caution",
        reason="Moving air moves the cloth, and a lamp on a high stand is a sail; outdoors nobody leaves it alone."),
    "day.cables": Limit(
        at=4.0, unit="cables", source="Usual caution",
        reason="Four run along the walls; more cross where people walk."),
    "day.ladder": Limit(
        at=2.2, unit="m", source="As high as an arm reaches",
        reason="What hangs higher is reached from a ladder that somebody holds."),
    "day.fog": Limit(
        at=0.0, unit="shots", source="Usual caution",
        reason="Fog changes the screen from take to take, and air to breathe; hot lamps and detectors react to it."),
    "take.level": Limit(
        at=2.0, unit="%", fix=3.0, source="Points of signal from the reference take",
        reason="Two are read apart beside each other, five need a key of their own."),
    "take.hue": Limit(
        at=2.0, unit="°", fix=3.0, source="Degrees from the reference take",
        reason="As the level: two are seen in the scope, five change the key."),
    "take.white-balance": Limit(
        at=20.0, unit="mired", fix=0.0, source="Mired from the reference take",
        reason="Twenty are a filter's step: an automatic balance or another lamp, and skin is graded take by take."),
    "take.noise": Limit(
        at=1.5, unit="times", source="Noise of the reference take",
        reason="Half as much again asks for half as much more clip."),
    "take.evenness": Limit(
        at=1.0 / 6.0, unit="stops", source="Evenness of the reference take",
        reason="A sixth of a stop is a stand that was pushed or somebody in the light."),
    "take.screen-moved": Limit(
        at=3.0, unit="px", fix=0.0, source="The screen's corners in the reference take",
        reason="A clean plate that is three pixels off leaves edges of itself."),
    "take.camera-turned": Limit(
        at=0.5, unit="°", fix=0.0, source="The camera of the reference take",
        reason="Half a degree is the plate's horizon seen off, and no clean plate fits any more."),
    "take.settings": Limit(
        at=0.0, unit="settings", source="The plan's camera",
        reason="An ISO or a balance left from another job is seen at the edit, and the plan no longer holds."),
    "take.smoke": Limit(
        at=10.0, unit="%", source="Saturation of the take before",
        reason="Smoke changes from take to take, and the key with it: each take needs a key of its own."),
    "take.breach": Limit(
        at=1.0, unit="frames", fix=0.0, source="Frames in which something leaves the screen",
        reason="One is painted by hand; a stretch of them is no key any more: at best a take to keep."),
    "take.clean-plate": Limit(
        at=0.0, unit="plates", fix=0.0, stop=0.5, source="Habit of the trade",
        reason="Without the empty screen of this very light and camera a difference has nothing to differ from."),
    "take.outfit": Limit(
        at=0.0, unit="outfits", source="Habit of the trade",
        reason="What was looked at was the other one: its colours, its shine, what it does to the balance."),
    "take.not-done": Limit(
        at=0.0, unit="takes", fix=0.0, source="Habit of the trade",
        reason="A shot has a good take of every variant, or it is not done."),
}  # fmt: skip

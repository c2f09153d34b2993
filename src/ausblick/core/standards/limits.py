"""The limits of all rules, in the order of the work, by the ids of the rules."""

from __future__ import annotations

from .limit import Limit

LIMITS: dict[str, Limit] = {
    "plate.height": Limit(
        at=3.0, unit="°", fix=7.0, source="Three degrees are seen",
        reason="A viewer finds a wrong eye line from about three degrees without knowing why."),
    "plate.tilt": Limit(
        at=3.0, unit="°", fix=7.0, source="Three degrees are seen",
        reason="The vanishing point moves by as much."),
    "plate.view": Limit(
        at=3.0, unit="°", fix=7.0, source="Three degrees are seen",
        reason="Things shrink with distance by another law than the plate's."),
    "plate.key": Limit(
        at=15.0, unit="°", fix=15.0, source="Fifteen degrees, about what soft shadows hide",
        reason="The penumbra of a usual soft source is as wide."),
    "space.order": Limit(
        at=0.05, unit="m", fix=0.0, stop=0.0, source="Geometry of the set",
        reason="Nearer than a hand to the screen or the lens is no place to stand; ours, because it is certain."),
    "space.walls": Limit(
        at=0.0, unit="m", fix=0.0, stop=0.0, source="The room's measurements", reason="A wall does not give way."),
    "space.gap": Limit(
        at=1.2, unit="m", fix=0.7,
        source="School of distance chosen under Space: 1 m, 1.2 to 2 m, 2 m and more, or 3 m",
        reason="The limit is the school's own; a hand's reach short of it is a shot to be mended."),
    "space.in-picture": Limit(
        at=0.0, unit="", fix=1.0, source="Sight lines from the lens",
        reason="Where the action goes a lamp cuts into it; beside it, it is cropped away."),
    "space.distortion": Limit(
        at=1.2, unit="m", source="1.2 m, where a face begins to look like itself",
        reason="The nose is then less than a tenth nearer than the ears."),
    "screen.covered": Limit(
        at=0.0, unit="m", fix=0.0, stop=0.0, source="The hard rule of both coverage schools",
        reason="What leaves the screen cannot be keyed."),
    "screen.margin": Limit(
        at=0.15, unit="m", source="0.15 m, a hand's breadth",
        reason="A gesture goes further than it was rehearsed."),
    "screen.hue": Limit(
        at=90.0, unit="%", fix=0.0, stop=40.0, source="The colour-difference key under equal light: 90 % of solid",
        reason="Below half of solid a grade no longer brings it back."),
    "subject.hair": Limit(
        at=0.0, unit="", source="All schools: test it first",
        reason="Fair, fine or curly: any of them asks for a test."),
    "subject.props": Limit(
        at=0.0, unit="", source="All schools: test it first",
        reason="What mirrors or lets through asks for a test."),
    "light.evenness": Limit(
        at=1.0 / 3.0, unit="stops", fix=1.0 / 3.0, stop=1.2,
        source="A third of a stop: a thin flat line on a waveform",
        reason="Twice that needs a visibly harder clip; beyond one and a half stops hair is lost."),
    "light.level": Limit(
        at=0.0, unit="%", fix=5.0, stop=25.0, source="School of level chosen under Screen light",
        reason="Counted from the school's band: five points are seen on a scope, twenty-five are another exposure."),
    "light.behind": Limit(
        at=5.0, unit="%", fix=10.0, source="One part in twenty; school: never in front of a bright window",
        reason="Less than a seam or a fold changes the light by."),
    "light.shadow": Limit(
        at=5.0, unit="%", fix=10.0, stop=45.0,
        source="A twentieth of the light, about a point of signal; school: as soon as the shadow is gone it is far "
        "enough",
        reason="Half a stop of shadow has the depth of a second screen."),
    "light.floor-shadow": Limit(
        at=20.0, unit="%", fix=10.0,
        source="The clip a key needs for it: a fifth is measurable, a third is seen; school: feet are keyed with "
        "their shade, or the shade is kept for the plate",
        reason="Whoever stands on the screen shades it: it is never none, and nothing to stop for."),
    "light.two-zones": Limit(
        at=25.0, unit="%", fix=35.0,
        source="A quarter; in small rooms one soft light for both is a school of its own",
        reason="Up to a quarter the zones can still be set one after the other."),
    "light.wrinkles": Limit(
        at=2.0, unit="%", fix=2.0, source="Two points of signal, what noise hides at base ISO",
        reason="Lines of four points ask for a harder clip than the noise does."),
    "light.gloss": Limit(
        at=10.0, unit="%", fix=20.0,
        source="A tenth of the screen's own light; a broad lobe stands for the cloth's sheen",
        reason="A third on top is a white spot in a green screen."),
    "light.mixed-colour": Limit(
        at=3.0, unit="°", fix=4.0, stop=20.0, source="Three degrees of the vectorscope",
        reason="One key setting covers about seven degrees; beyond twenty it is two screens."),
    "light.rendering": Limit(
        at=90.0, unit="", fix=15.0, source="Index 90; below it this is an uncertainty, not a computed error",
        reason="Under 75 the green's own hue may be off by more than its neighbours."),
    "subject.exposure": Limit(
        at=0.5, unit="stops", fix=0.5, stop=2.0,
        source="Half a stop either way; a dark plate allows a stop under, a bright one a stop over",
        reason="A stop is seen beside the plate; two and a half cannot be lifted without noise."),
    "subject.above-screen": Limit(
        at=50.0, unit="%", fix=8.0, source="School below-face: face above 50 %, screen below it",
        reason="Eight points are the width of the school's own band and a little."),
    "subject.edge-gap": Limit(
        at=12.0, unit="%", fix=6.0, source="School away-from-edge: 12 points of luma",
        reason="Half the gap leaves nothing to cut by where the colour is alike."),
    "subject.two-zones": Limit(
        at=25.0, unit="%", fix=35.0, source="A quarter; in white rooms more of it comes back from the walls",
        reason="Beyond three fifths the screen's lamps are the key."),
    "subject.spill-front": Limit(
        at=3.0, unit="%", fix=4.0, stop=25.0,
        source="Excess of the key channel over the others' mean, of the face's light; three in a hundred despill "
        "away",
        reason="Seven are seen on skin after despill; a quarter of the light spoils a face."),
    "subject.spill-edge": Limit(
        at=4.0, unit="%", fix=5.0,
        source="Excess of the key channel at right angles to the view, of the face's light; four in a hundred",
        reason="An edge carries a little more than a face: it is narrow."),
    "subject.spill-under": Limit(
        at=6.0, unit="%", fix=9.0,
        source="Excess of the key channel from below, of the face's light; six in a hundred",
        reason="Undersides are dark and seldom looked at."),
    "light.pane": Limit(
        at=0.0, unit="lamps", fix=0.0,
        source="Mirror geometry: the line from the lens to the lamp's image behind the glass",
        reason="One lamp in the pane is one too many."),
    "subject.mirrors": Limit(
        at=10.0, unit="%", fix=15.0, source="Mirror geometry; a tenth of what is seen of it",
        reason="A quarter of a thing that is screen is keyed away with it."),
    "subject.rim": Limit(
        at=0.25, unit="", fix=1.0, excess_unit="stops",
        source="A quarter to twice the face's light; it must make sense in the plate",
        reason="Less is lost beside the face, more is a lamp of its own."),
    "light.power": Limit(
        at=80.0, unit="%", fix=20.0, stop=20.0,
        source="Usual continuous reserve, counted undimmed; local codes decide",
        reason="Lamps burn for hours; over its rating a circuit is off, or hot."),
    "light.heat": Limit(
        at=0.5, unit="m", fix=0.3, stop=0.3,
        source="1.5 m per kilowatt, at least half a metre; the maker's own distance decides where it is larger",
        reason="Cloth scorches first where it is nearest."),
    "light.overhead": Limit(
        at=2.2, unit="m", source="Usual caution on sets", reason="A tall person's head and a hand above it."),
    "camera.smear": Limit(
        at=0.25, unit="% of the picture's width", fix=1.5, excess_unit="times",
        source="A quarter per cent of the picture's width, 5 px of 1920",
        reason="A key still cuts five pixels as an edge; two and a half times that is a streak."),
    "camera.shutter-frame": Limit(
        at=360.1, unit="°", fix=0.0, stop=0.0, source="One frame is 360°; a tenth of a degree for rounding",
        reason="Nothing is open longer than it lasts."),
    "camera.shutter-angle": Limit(
        at=0.0, unit="°", source="School of shutter chosen under Camera",
        reason="Beyond the school's own band; taste, and it says so."),
    "camera.flicker": Limit(
        at=0.02, unit="flashes",
        source="Multiples of 1/(2 × mains frequency); dimmed LED lamps may flicker otherwise: test them",
        reason="Two hundredths of a flash change the level by less than noise."),
    "camera.iso": Limit(
        at=0.34, unit="stops", fix=1.0, source="A third of a stop above the sensor's base",
        reason="Cameras are set in thirds; a stop and a third shows as speckle."),
    "camera.depth": Limit(
        at=0.0, unit="m", fix=0.15, source="Circle of confusion of 2 recorded pixels",
        reason="A hand's breadth out of focus is a hand."),
    "camera.melt": Limit(
        at=3.0, unit="px", source="Three pixels hide a fold", reason="A fold's line in a usual frame is as wide."),
    "camera.sharpening": Limit(
        at=0.0, unit="", fix=0.0, source="All schools agree", reason="It is on or off."),
    "camera.sync": Limit(
        at=0.0, unit="stops", fix=0.0, stop=0.0, source="The camera's own sync time",
        reason="A part of the picture is not lit at all."),
    "camera.flash-video": Limit(
        at=0.0, unit="", fix=0.0, stop=0.0, source="Nature of a flash", reason="It lights one frame of many."),
    "camera.flash-ghost": Limit(
        at=12.5, unit="%", fix=25.0, source="An eighth, three stops below the flash",
        reason="More than a third of the light draws the movement beside the flash."),
    "camera.flashing": Limit(
        at=0.0, unit="", source="Usual caution on sets; follow local rules", reason="Every flash is said."),
    "camera.diffraction": Limit(
        at=2.5, unit="px", source="Airy disc of two and a half pixels at 550 nm",
        reason="The sharpness that a key edge needs is two pixels."),
    "camera.white-balance": Limit(
        at=20.0, unit="mired", source="Twenty mired, a clearly seen difference",
        reason="Filters are made in steps of about as much."),
    "camera.speed": Limit(
        at=100.0, unit="%", source="Rate of the edit",
        reason="Any other rate is told, because the plate must follow."),
    "recording.chroma": Limit(
        at=0.5, unit="of luma", source="School: 4:2:2 and 10 bit for keys; stills raw",
        reason="The key is colour: a quarter of it gives blocky edges."),
    "recording.rate": Limit(
        at=0.4, unit="bits", fix=0.7, stop=1.0, excess_unit="share",
        source="Habit: 0.4 in long groups, 2 frame by frame; the test key shows what it costs",
        reason="With a third of the rate hair is made of blocks."),
    "recording.log": Limit(at=0.0, unit="", source="All schools agree", reason="It is log or it is not."),
    "recording.noise-reduction": Limit(
        at=0.0, unit="", fix=0.0, source="All schools agree", reason="It is on or off."),
    "recording.playback": Limit(
        at=400.0, unit="Mbit/s", source="400 Mbit/s; 10 bit in long groups counts three times",
        reason="About what a usual edit machine plays without proxies."),
    "kit.screen": Limit(at=0.0, unit="", source="The kit room", reason="What is not owned is rented or made."),
    "kit.lens": Limit(at=0.0, unit="", source="The kit room", reason="What is not owned is rented."),
    "kit.lamps": Limit(at=0.0, unit="", source="The kit room", reason="What is not owned is rented."),
    "kit.stands": Limit(at=0.0, unit="", source="The kit room", reason="What is not owned is rented."),
    "kit.sandbags": Limit(at=0.0, unit="", source="The kit room", reason="What is not owned is bought or filled."),
}  # fmt: skip

INTRA_BITS = 2.0
"""Bits a pixel where every frame stands alone, in place of the 0.4 of long groups: same source."""
RIM_MOST = 2.0
"""Back light over face: the upper end beside the lower one of `subject.rim`."""
LEVEL_CLIPS = 97.0
"""Key-channel level in % from which the screen counts as clipped: three points before white, where curves bend."""
HELPS = 0.02
"""A remedy that takes less than this share off the excess is none. Ours: a setting's own steps are as large."""
MOST_REMEDIES = 4
"""Told of one finding. Ours, because more are not read on a set."""

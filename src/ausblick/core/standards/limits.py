"""The limits of all rules, in the order of the work, by the ids of the rules."""

from __future__ import annotations

from .limit import Limit

LIMITS: dict[str, Limit] = {
    "plate.height": Limit(
        at=3.0, unit="°", source="Three degrees are seen",
        reason="A viewer finds a wrong eye line from about three degrees without knowing why."),
    "plate.tilt": Limit(
        at=3.0, unit="°", source="Three degrees are seen",
        reason="The vanishing point moves by as much."),
    "plate.view": Limit(
        at=3.0, unit="°", source="Three degrees are seen",
        reason="Things shrink with distance by another law than the plate's."),
    "plate.key": Limit(
        at=15.0, unit="°", source="Fifteen degrees, about what soft shadows hide",
        reason="The penumbra of a usual soft source is as wide."),
    "plate.softness": Limit(
        at=0.5, unit="stops", source="Half a stop of the lamp's width as the face sees it",
        reason="A penumbra that is half as wide again is seen beside the plate's own."),
    "space.order": Limit(
        at=0.05, unit="m", fix=0.0, stop=0.0, source="Geometry of the set",
        reason="Nearer than a hand to the screen or the lens is no place to stand; ours, because it is certain."),
    "space.walls": Limit(
        at=0.0, unit="m", fix=0.0, stop=0.0, source="The room's measurements", reason="A wall does not give way."),
    "space.through-wall": Limit(
        at=0.02, unit="m", fix=0.3, source="The room's measurements",
        reason="Two centimetres are a tape's error; beyond a third of a metre it is another place, not a nudge."),
    "space.gap": Limit(
        at=1.2, unit="m",
        source="School of distance chosen under Space: 1 m, 1.2 to 2 m, 2 m and more, or 3 m",
        reason="The limit is the school's own; a hand's reach short of it is a shot to be mended."),
    "space.framed": Limit(
        at=20.0, unit="%", fix=60.0, source="Geometry of the picture",
        reason="A framing is a habit, cut a hand's breadth higher or lower; without the face it is another shot."),
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
    "space.underfoot": Limit(
        at=1.0, unit="m/s", source="Usual caution; follow local rules",
        reason="A cloth underfoot slides and its edge trips whoever steps out on it: a slow walk is 1 m/s."),
    "light.cables": Limit(
        at=4.0, unit="", source="Usual caution; follow local rules",
        reason="Four run along the walls; more cross where people walk."),
    "subject.minor": Limit(
        at=0.0, unit="", source="Local law decides",
        reason="Working times and who comes along are agreed before the day, in writing."),
    "screen.wind": Limit(
        at=3.0, unit="m/s", fix=3.0, stop=7.0,
        source="Ours, by the force on a flat surface; the maker's limit and local rules go before it",
        reason="A breeze moves cloth; at 6 m/s a usual frame needs guys, at 10 it comes down."),
    "screen.hue": Limit(
        at=98.0, unit="%", fix=4.0, stop=13.0,
        source="Drawn keys: a fiftieth of the matte is measured, six in a hundred are seen",
        reason="A garment through which a seventh of the plate is seen takes half of the key's quality."),
    "key.clip": Limit(
        at=0.20, unit="", fix=0.10, stop=0.30, source="Drawn keys (docs/model.md)",
        reason="A clip of 0.2 is seen in hair, of 0.3 in every soft edge; half the matte leaves no edge."),
    "key.clipping": Limit(
        at=5.0, unit="%", fix=28.0, stop=55.0, source="Drawn keys (docs/model.md)",
        reason="Half a stop lost at white takes edges with it; more than a stop leaves no colour to cut by."),
    "key.edge": Limit(
        at=0.07, unit="", fix=0.04, stop=0.15, source="Drawn keys (docs/model.md)",
        reason="Twice what a clean edge of a good recording has is measured, three times is seen."),
    "key.hair": Limit(
        at=0.075, unit="", fix=0.045, stop=0.175, source="Drawn keys (docs/model.md)",
        reason="Twice what loose hair costs in a good recording."),
    "key.motion": Limit(
        at=2.5, unit="cm²", fix=3.5, stop=17.5, source="Drawn keys (docs/model.md)",
        reason="A fingertip, most of a finger, two fingers: such keys have a third of the quality left, at most."),
    "subject.hair": Limit(
        at=0.0, unit="", source="All schools: test it first",
        reason="Fair, fine or curly: any of them asks for a test."),
    "subject.props": Limit(
        at=0.0, unit="", source="All schools: test it first",
        reason="What mirrors or lets through asks for a test."),
    "light.evenness": Limit(
        at=1.0 / 3.0, unit="stops",
        source="A third of a stop: a thin flat line on a waveform",
        reason="Less is not seen on a scope; what it costs is told by the clip that the screen needs."),
    "light.level": Limit(
        at=0.5, unit="stops", source="School of level chosen under Screen light; half a stop beyond its band",
        reason="A habit of light and grade, which the matte does not feel: half a stop is graded unseen."),
    "light.behind": Limit(
        at=5.0, unit="%", source="One part in twenty; school: never in front of a bright window",
        reason="Less than a seam or a fold changes the light by."),
    "light.shadow": Limit(
        at=5.0, unit="%",
        source="A twentieth of the light, about a point of signal; school: as soon as the shadow is gone it is far "
        "enough",
        reason="Less is not seen on a scope; what it costs is told by the clip that the screen needs."),
    "light.floor-shadow": Limit(
        at=20.0, unit="%",
        source="The clip a key needs for it: a fifth is measurable, a third is seen; school: feet are keyed with "
        "their shade, or the shade is kept for the plate",
        reason="Whoever stands on the screen shades it: it is never none."),
    "light.two-zones": Limit(
        at=60.0, unit="%", source="More than half; in small rooms one soft light for both is a school of its own",
        reason="Beyond three fifths the screen is no longer set by its own lamps."),
    "light.wrinkles": Limit(
        at=2.0, unit="%", source="Two points of signal, what noise hides at base ISO",
        reason="Less is lost in the noise."),
    "light.gloss": Limit(
        at=10.0, unit="%",
        source="A tenth of the screen's own light; a broad lobe stands for the cloth's sheen",
        reason="White on top takes no colour difference away until it clips."),
    "light.mixed-colour": Limit(
        at=3.0, unit="°", source="Three degrees of the vectorscope",
        reason="The key feels two colours of light only by the levels they make."),
    "light.rendering": Limit(
        at=90.0, unit="", source="Index 90; below it this is an uncertainty, not a computed error",
        reason="Below it the green's own hue may be off by more than its neighbours."),
    "light.daylight": Limit(
        at=10.0, unit="%", source="Share of the light on screen or face; a cloud takes half of it and more",
        reason="Half of a tenth is less than a tenth of a stop."),
    "subject.exposure": Limit(
        at=1.0, unit="stops", fix=1.5,
        source="A stop either way; a dark plate allows half a stop more under, a bright one over",
        reason="A stop is graded unseen; two and a half are lifted with their noise, or clip."),
    "subject.above-screen": Limit(
        at=42.0, unit="%", source="School below-face: face above 50 %, less the eight points of its own band",
        reason="The school's own number."),
    "subject.edge-gap": Limit(
        at=12.0, unit="%", source="School away-from-edge: 12 points of luma",
        reason="A gap of brightness cuts where the colour is alike."),
    "subject.two-zones": Limit(
        at=60.0, unit="%", source="More than half; in white rooms more of it comes back from the walls",
        reason="Beyond three fifths the screen's lamps are the key."),
    "subject.spill-front": Limit(
        at=3.0, unit="%",
        source="Excess of the key channel over the others' mean, of the face's light; three in a hundred despill "
        "away",
        reason="Three are taken away by despill without a trace."),
    "subject.spill-edge": Limit(
        at=4.0, unit="%",
        source="Excess of the key channel at right angles to the view, of the face's light; four in a hundred",
        reason="An edge carries a little more than a face: it is narrow."),
    "subject.spill-under": Limit(
        at=6.0, unit="%",
        source="Excess of the key channel from below, of the face's light; six in a hundred",
        reason="Undersides are dark and seldom looked at."),
    "subject.balance": Limit(
        at=0.5, unit="stops", source="Half a stop between faces in one picture",
        reason="Half a stop is graded away by one person's window; more is a lamp of its own."),
    "subject.in-light": Limit(
        at=10.0, unit="%", source="A tenth of the face's lamp light",
        reason="A tenth is a seventh of a stop; more has an edge that is seen when somebody moves."),
    "light.pane": Limit(
        at=0.0, unit="lamps", fix=0.0,
        source="Mirror geometry: the line from the lens to the lamp's image behind the glass",
        reason="One lamp in the pane is one too many."),
    "subject.mirrors": Limit(
        at=10.0, unit="%", fix=15.0, source="Mirror geometry; a tenth of what is seen of it",
        reason="A quarter of a thing that is screen is keyed away with it."),
    "subject.rim": Limit(
        at=0.25, unit="",
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
        at=0.25, unit="% of the picture's width",
        source="A quarter per cent of the picture's width, 5 px of 1920",
        reason="A key still cuts five pixels as an edge."),
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
        at=0.34, unit="stops", source="A third of a stop above the sensor's base",
        reason="Cameras are set in thirds."),
    "camera.depth": Limit(
        at=0.15, unit="m", source="Circle of confusion of 2 recorded pixels; a hand's breadth",
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
        at=0.1, unit="bits", source="Drawn keys: from 100 to 8 Mbit/s the edge hardly changes",
        reason="A key feels subsampling, and hardly the rate."),
    "recording.log": Limit(at=0.0, unit="", source="All schools agree", reason="It is recorded so or it is not."),
    "recording.noise-reduction": Limit(
        at=0.0, unit="", fix=0.0, source="All schools agree", reason="It is on or off."),
    "recording.playback": Limit(
        at=1000.0, unit="Mbit/s",
        source="1,000 Mbit/s, about what a usual disk gives; 10 bit in long groups counts three times",
        reason="What stutters is judged on stutter."),
    "kit.screen": Limit(at=0.0, unit="", source="The kit room", reason="What is not owned is rented or made."),
    "kit.lens": Limit(at=0.0, unit="", source="The kit room", reason="What is not owned is rented."),
    "kit.lamps": Limit(at=0.0, unit="", source="The kit room", reason="What is not owned is rented."),
    "kit.stands": Limit(at=0.0, unit="", source="The kit room", reason="What is not owned is rented."),
    "kit.sandbags": Limit(at=0.0, unit="", source="The kit room", reason="What is not owned is bought or filled."),
}  # fmt: skip

INTRA_BITS = 0.5
"""Bits a pixel where every frame stands alone, in place of the 0.1 of long groups: same source."""
RIM_MOST = 2.0
"""Back light over face: the upper end beside the lower one of `subject.rim`."""
KEY_WIDTHS = {"hard": (0.0, 14.0), "medium": (14.0, 28.0), "soft": (28.0, 180.0)}
"""Degrees across that a key is as the face sees it, by the plate's softness: half a metre at two metres is 14, a
metre 28."""
HELPS = 0.02
"""A remedy that takes less than this share off the excess is none. Ours: a setting's own steps are as large."""
MOST_REMEDIES = 4
"""Told of one finding. Ours, because more are not read on a set."""

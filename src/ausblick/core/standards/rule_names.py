"""What each rule judges, in words: ids never reach a reader."""

from __future__ import annotations

NAMES: dict[str, str] = {
    "key.clip": "the clip that the screen needs", "key.clipping": "clipping", "key.edge": "the edge",
    "key.hair": "hair", "key.motion": "the moving hand",
    "plate.height": "the plate's lens height", "plate.tilt": "the plate's tilt", "plate.view": "the plate's view",
    "plate.key": "the plate's light", "plate.softness": "the plate's softness",
    "space.order": "the order of things", "space.walls": "what fits into the room",
    "space.through-wall": "lamps in the wall",
    "space.gap": "the mark's distance", "space.framed": "the framing", "space.in-picture": "lamps in the picture",
    "space.distortion": "a face seen too near",
    "screen.covered": "coverage", "screen.margin": "the spare screen", "screen.hue": "screen colour in what is worn",
    "subject.hair": "loose hair", "subject.props": "props to be tested",
    "light.evenness": "evenness", "light.level": "the screen's level", "light.behind": "light through the cloth",
    "light.shadow": "the shadow on the screen", "light.floor-shadow": "the shade at the feet",
    "light.two-zones": "the subject's light on the screen", "light.wrinkles": "folds", "light.gloss": "shine",
    "light.mixed-colour": "mixed colour", "light.rendering": "colour rendering", "screen.wind": "wind on the screen",
    "space.underfoot": "cloth underfoot", "light.cables": "cables", "subject.minor": "minors",
    "light.daylight": "daylight",
    "subject.exposure": "the face's exposure", "subject.above-screen": "the face above the screen",
    "subject.edge-gap": "the gap at the edge", "subject.two-zones": "the screen's light on the face",
    "subject.spill-front": "spill on the front", "subject.spill-edge": "spill on the edge",
    "subject.balance": "faces lit unlike", "subject.in-light": "one person in another's light",
    "subject.spill-under": "spill from below", "light.pane": "lamps in the pane",
    "subject.mirrors": "the screen in mirrors", "subject.rim": "the back light", "light.power": "the circuits' load",
    "light.heat": "heat near the cloth", "light.overhead": "lamps overhead",
    "camera.smear": "smear", "camera.shutter-frame": "the shutter's length", "camera.shutter-angle": "the shutter's "
    "school", "camera.flicker": "flicker", "camera.iso": "noise", "camera.depth": "depth of field",
    "camera.melt": "sharp folds", "camera.sharpening": "sharpening", "camera.sync": "the sync time",
    "camera.flash-video": "flash on video", "camera.flash-ghost": "ghosts beside the flash",
    "camera.flashing": "flashing light", "camera.diffraction": "diffraction", "camera.white-balance": "white balance",
    "camera.speed": "playback speed", "recording.chroma": "recorded colour", "recording.rate": "the bit rate",
    "recording.log": "the recorded curve", "recording.noise-reduction": "noise reduction",
    "recording.playback": "playback", "kit.screen": "the kit's screens", "kit.lens": "the kit's lenses",
    "kit.lamps": "the kit's lamps", "kit.stands": "the kit's stands", "kit.sandbags": "the kit's sandbags",
}  # fmt: skip

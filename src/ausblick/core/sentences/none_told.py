"""Why nothing in the plan mends a finding, and what it would take."""

from __future__ import annotations

NONE = {
    "none/any": "No single change of this plan mends it: look at what else is open first.",
    "none/key.clip": "No single change evens it: try several at once by Even the screen, or add a lamp.",
    "none/key.clipping": "No lamp of the screen can be dimmed and no aperture closed: less light from outside.",
    "none/key.edge": "What adds to it is not in the plan's hands: another recorder or cloth.",
    "none/key.hair": "What adds to it is not in the plan's hands: test the person's own hair.",
    "none/key.motion": "No shutter the light allows is fast enough: more light, or slower movement.",
    "none/screen.hue": "Neither colour of screen keeps it: wear or hold something else.",
    "none/screen.covered": "Neither more screen nor another lens or place covers it: frame tighter, move less.",
    "none/light.level": "No lamp that is on is meant for the screen: put one there.",
    "none/subject.exposure": "No lamp lights the face, and no setting alone does: put a key there.",
    "none/subject.mirrors": "What mirrors the screen is dulled, turned or replaced; the plan cannot.",
    "none/screen.wind": "Wait, shelter it, or take it down: no plan calms the wind.",
    "none/light.power": "Every circuit is full: another circuit, and a competent person to say so.",
    "none/camera.flash-video": "A flash lights one frame: take continuous light.",
}

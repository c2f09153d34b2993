"""What findings say: ids are the rule's, and after a slash what is so."""

from __future__ import annotations

PLATE = {
    "plate.tilt": "Tilt {have:1}°, the plate's {wanted:1}°",
    "plate.view": "Angle of view {have:1}°, the plate's {wanted:1}°",
    "plate.height": "Lens above the eyes by {have:1}°, the plate's {wanted:1}°",
    "plate.key": "{lamp} comes from {off:0}° beside the plate's light",
}
SPACE = {
    "space.order/holds": "Screen, subject and camera stand in order",
    "space.order/wrong": "The subject stands behind the camera or behind the screen",
    "space.walls/inside": "Everything stands inside the room",
    "space.walls/one": "{name} is {far:m} outside the room",
    "space.walls/more": "{name} is {far:m} outside the room, and {others:0} more",
    "space.gap": "The mark is {away:m} from the screen",
    "space.in-picture/none": "No lamp stands in the picture",
    "space.in-picture/action": "{lamps} stands before the screen where the action goes",
    "space.in-picture/beside": "{lamps} is in the picture, beside the action: crop it, or cut it off by a "
    "garbage matte",
    "space.distortion": "The lens is {away:m} from the face",
}
SCREEN = {
    "screen.covered/unseen": "The camera does not look at the screen",
    "screen.covered/holds": "Screen behind everything that needs it",
    "screen.covered/missing": "{missing:m} of screen is missing where the action goes",
    "screen.margin": "{margin:m} to spare at the nearest edge",
    "screen.hue/clear": "Nothing worn or held shares the {hue} screen's colour",
    "screen.hue/shared": "{name} has the screen's colour in it: it keys at {solid:0} % of solid",
}
LIGHT = {
    "light.evenness": "The needed screen varies by {spread:2} stops",
    "light.evenness/on": "The needed screen varies by {spread:2} stops, most on the {surface}",
    "light.evenness/between": "The needed screen varies by {spread:2} stops: darkest on the {darkest}, brightest on "
    "the {brightest}",
    "light.level/luma": "Screen at {level:0} % luma, wanted {low:0} to {high:0} %",
    "light.level/key-channel": "Screen at {level:0} % key channel, wanted {low:0} to {high:0} %",
    "light.level/dark": "No light on the screen: no lamp that is on reaches it",
    "light.level/clips": "Screen clips: {level:0} % in the key channel",
    "light.behind": "{share:0} % of the screen's light comes through it from behind",
    "light.shadow/none": "No shadow where the screen is needed",
    "light.shadow/of": "Shadow of {lamp}: {deepest:0} % of the light lost, on {area:0} % of the needed screen",
    "light.shadow/of-left": "Shadow of {lamp}: {deepest:0} % of the light lost, on {area:0} % of the needed screen, "
    "{aside:m1} to the left, {high:m1} high",
    "light.shadow/of-right": "Shadow of {lamp}: {deepest:0} % of the light lost, on {area:0} % of the needed screen, "
    "{aside:m1} to the right, {high:m1} high",
    "light.shadow/nobody": "Shadow: {deepest:0} % of the light lost, on {area:0} % of the needed screen",
    "light.shadow/nobody-left": "Shadow: {deepest:0} % of the light lost, on {area:0} % of the needed screen, "
    "{aside:m1} to the left, {high:m1} high",
    "light.shadow/nobody-right": "Shadow: {deepest:0} % of the light lost, on {area:0} % of the needed screen, "
    "{aside:m1} to the right, {high:m1} high",
    "light.floor-shadow/of": "The figure's shade on the {surface} takes {deepest:0} % of the light, most from {lamp}",
    "light.floor-shadow/nobody": "The figure's shade on the {surface} takes {deepest:0} % of the light",
    "light.two-zones": "{share:0} % of the screen's light comes from the subject's lamps",
    "light.wrinkles": "Folds draw lines of {points:1} points in the screen",
    "light.gloss/none": "No lamp shines in the cloth",
    "light.gloss/shines": "{lamp} shines in the cloth: {share:0} % on top at {across:m1} across, {high:m1} high",
    "light.gloss/on": "{lamp} shines on the {surface}: {share:0} % on top as the camera sees it",
    "light.gloss/somebody": "A lamp shines in the cloth: {share:0} % on top at {across:m1} across, {high:m1} high",
    "light.mixed-colour": "The screen's hue varies by {spread:1}° of the vectorscope",
    "light.rendering/well": "Every lamp renders colours well",
    "light.rendering/poor": "{lamp} renders colours at {cri:0}: hues computed here may be off",
    "light.pane/none": "No lamp is mirrored in the pane",
    "light.pane/seen": "{lamps} seen in the window pane",
    "light.power/unrated": "Circuit {circuit} carries {watts:0} W and its rating is not in the plan",
    "light.power/load": "Circuit {circuit}: {watts:0} W, {amps:1} of {rated:g} A",
    "light.heat": "{lamp} is a hot lamp {away:m} from the cloth",
    "light.overhead": "{lamps} over people's heads: second fixing, and a competent rigger",
}
SUBJECT = {
    "subject.exposure/dark": "No light on the face",
    "subject.exposure/over": "Face {stops:stops} over grey, skin at {level:0} %",
    "subject.exposure/under": "Face {stops:stops} under grey, skin at {level:0} %",
    "subject.above-screen": "Face at {face:0} %, screen at {screen:0} %",
    "subject.edge-gap": "{name} at {level:0} % is {gap:0} points from the screen's {screen:0} %",
    "subject.two-zones": "{share:0} % of the face's light comes from the screen's lamps",
    "subject.spill": "Screen colour on the {place}: {share:1} % of the face's light",
    "subject.spill/from": "Screen colour on the {place}: {share:1} % of the face's light, from {senders}",
    "subject.spill/sender": "{surface} {share:1}",
    "subject.mirrors/seen": "{name} mirrors the screen in {share:0} % of what is seen of it",
    "subject.mirrors/turns": "{name} mirrors the screen over {share:0} % of its turns to either side",
    "subject.rim": "Back light is {ratio:1} of the face's light on the edge",
    "subject.hair/plain": "Hair is dark and smooth",
    "subject.hair/fair": "Hair is fair: test it before the day",
    "subject.hair/fine": "Hair is fine: test it before the day",
    "subject.hair/curly": "Hair is curly: test it before the day",
    "subject.hair/fair-fine": "Hair is fair and fine: test it before the day",
    "subject.hair/fair-curly": "Hair is fair and curly: test it before the day",
    "subject.props/none": "Nothing mirrors or lets the screen through",
    "subject.props/test": "Test before the day: {things}",
    "subject.props/prop": "{name} ({kind})",
    "subject.props/garment": "{name} (shiny)",
}
CAMERA = {
    "camera.smear": "The fastest movement smears {smear:0} px at {shutter:shutter}",
    "camera.shutter-frame": "{shutter:shutter} does not fit into a frame at {fps:g} a second",
    "camera.shutter-frame/fits": "{shutter:shutter} fits into a frame",
    "camera.shutter-angle": "Shutter angle {angle:0}°, the school '{school}' says {low:0} to {high:0}°",
    "camera.shutter-angle/choppy": "Shutter angle {angle:0}°, the school '{school}' says {low:0} to {high:0}°; "
    "movement will look choppy, the more the smoother the plate moves",
    "camera.flicker/whole": "{shutter:shutter} holds whole flashes at {mains:0} Hz",
    "camera.flicker/cut": "{shutter:shutter} cuts through the flashes of {mains:0} Hz lamps",
    "camera.iso/above": "ISO {iso:0}, {over:stops} above base",
    "camera.iso/base": "ISO {iso:0}, at base",
    "camera.depth": "Sharp from {near:m} to {far:m}, the action reaches {first:m} to {last:m}",
    "camera.depth/infinity": "Sharp from {near:m} to infinity, the action reaches {first:m} to {last:m}",
    "camera.melt": "Folds of the {material} blur over {disc:1} px",
    "camera.sharpening/on": "Sharpening is on in the camera",
    "camera.sharpening/off": "Sharpening is off in the camera",
    "camera.diffraction": "Diffraction at f/{f_number:g} spreads a point over {disc:1} px",
    "camera.white-balance/off": "The face's lamps are {lamps:0} K, the camera stands at {camera:0} K",
    "camera.white-balance/holds": "The face's lamps are {lamps:0} K, the camera stands at {camera:0} K; lock it, and "
    "shoot a grey card under the key",
    "camera.speed/real": "Shot at the speed it is shown at",
    "camera.speed/slow": "Shown at {share:0} % of its speed; {stops:1} stops less light at the same shutter angle; "
    "the plate must be too",
    "camera.speed/fast": "Shown at {share:0} % of its speed; {stops:1} stops more light at the same shutter angle; "
    "the plate must be too",
    "camera.sync/within": "{shutter:shutter} is within the sync time of {sync:shutter}",
    "camera.sync/short": "{shutter:shutter} is shorter than the sync time: a part of the picture stays dark",
    "camera.flash-video": "A flash lights one frame of a take, not the take",
    "camera.flash-ghost": "{share:0} % of the face's light is not flash",
    "camera.flashing/one": "1 flash on the set: warn everybody, ask about photosensitivity",
    "camera.flashing/more": "{count:0} flashes on the set: warn everybody, ask about photosensitivity",
}
RECORDING = {
    "recording.chroma/stills-raw": "Stills are raw",
    "recording.chroma/stills": "Stills are {chroma}, {bits:0} bit, not raw",
    "recording.chroma/every": "{chroma}, {bits:0} bit: colour at every pixel",
    "recording.chroma/share": "{chroma}, {bits:0} bit: colour at {share:0} % of the pixels",
    "recording.rate": "{rate:g} Mbit/s are {bits:2} bits a pixel",
    "recording.log/cube": "Recorded in the curve of the table: note the curve with every take",
    "recording.log/hlg": "Recorded in HLG: note the curve with every take",
    "recording.log/acescct": "Recorded in ACEScct: note the curve with every take",
    "recording.noise-reduction/on": "Noise reduction is on in the camera",
    "recording.noise-reduction/off": "Noise reduction is off in the camera",
    "recording.playback/plays": "Plays back like {load:0} Mbit/s",
    "recording.playback/heavy": "Plays back like {load:0} Mbit/s: make proxies for the edit",
}
KIT = {
    "kit.screen/fits": "A {hue} screen of {size:size} is in the kit",
    "kit.screen/none": "No {hue} screen of {size:size} in the kit",
    "kit.lens/fits": "{focal:0} mm is in the kit",
    "kit.lens/none": "No {focal:0} mm lens in the kit",
    "kit.lamps": "{need:0} lamps planned, {have:0} in the kit",
    "kit.stands": "{need:0} stands needed, {have:0} in the kit",
    "kit.sandbags": "{need:0} sandbags needed, {have:0} in the kit",
}
FINDINGS: dict[str, str] = {**PLATE, **SPACE, **SCREEN, **LIGHT, **SUBJECT, **CAMERA, **RECORDING, **KIT}

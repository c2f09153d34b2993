"""What the searches tell: evening the screen, framing by lens, whole set-ups, the ledger of stops."""

from __future__ import annotations

EVEN = {
    "even/lamp": "{lamp}: {parts}",
    "even/back": "{by:m} back from the screen",
    "even/nearer": "{by:m} nearer to the screen",
    "even/right": "{by:m} to the right",
    "even/left": "{by:m} to the left",
    "even/up": "{by:m} up",
    "even/down": "{by:m} down",
    "even/aimed": "aimed at {across:m} across, {high:m} high",
    "even/dimmer": "{percent:0} %",
    "even/no-better": "no better place was found with these freedoms",
    "even/already": "it is even already",
    "even/others": "the other lamps alone give {share:0} % of the wanted level: evened at the level it has",
    "even/short": "the lamps at full give {short:1} stops less than the level wants",
    "even/foreign": "light that is not the screen's own falls on it unevenly: grid or move the other lamps",
    "even/one-lamp": "one lamp alone can't even a screen",
    "even/as-far": "as far as these lamps go with these freedoms: more distance to the cloth, or more lamps",
    "even/shadow": "a shadow of the figure lies on it",
    "even/no-screen": "the camera sees no screen that is needed",
    "even/face": "Every more even place of this lamp lights the face worse.",
    "even/no-lamps": "no screen lamp is on",
    "even/no-light": "the screen's lamps give no light there",
}
ROOM = {
    "room/too-short": "the camera would stand {missing:m1} behind the back wall",
    "room/no-screen": "there is no screen in the kit",
    "room/too-high": "{screen} is {size:m1} high, the room {room:m1}",
    "room/too-wide": "{screen} is {size:m1} wide, the room {room:m1}",
    "room/no-floor": "feet are seen, and {screen} has no floor piece",
    "room/unseen": "the camera does not see the screen",
    "room/short-height": "needs {needs:m1} of screen height, {screen} has {has:m1}",
    "room/short-width": "needs {needs:m1} of screen width, {screen} has {has:m1}",
    "room/short-floor": "the floor piece of {screen} ends {missing:m1} too early",
    "room/near": "only {gap:m1} to the screen",
    "room/margin": "only {margin:m} of screen to spare",
    "room/face": "the lens is {away:m1} from the face and distorts it",
    "room/tight": "{worries:list}",
    "room/fits": "{gap:m1} to the screen, {margin:m} to spare",
}
SET_UP = {
    "set-up/says": "{lens} from {away:m1}, mark {gap:m1} before the {screen}; {lamps}; f/{f_number:g}, "
    "{shutter:shutter}, ISO {iso:0}",
    "set-up/says-turned": "{lens} from {away:m1}, camera turned on its side, mark {gap:m1} before the {screen}; "
    "{lamps}; f/{f_number:g}, {shutter:shutter}, ISO {iso:0}",
    "set-up/one-lamp": "one lamp",
    "set-up/lamps": "{count:0} lamps",
    "set-up/no-figure": "There is no figure in this plan to set up for.",
    "set-up/no-lamp": "There is no lamp in the kit, and no other light in the room.",
    "set-up/no-lens": "There is no lens in the kit.",
    "set-up/no-screen": "There is no screen in the kit.",
    "set-up/cell": "{lens}: {why}",
    "set-up/deeper": "It would take a deeper room, a shorter lens, or a tighter framing.",
    "set-up/larger": "It would take a larger screen, a floor piece where feet are seen, or less reach of the action.",
    "set-up/fitting": "It would take a screen that fits between floor, ceiling and walls.",
    "set-up/instead": "This room and this kit do: {framings:list}",
    "set-up/framing": "{framing} with {lens} from {away:m1}",
    "set-up/lamps-before": "screen lamps stand before the mark: the room leaves no other place",
    "set-up/lamps-near": "screen lamps stand before the mark: behind it they would be too near the screen",
    "set-up/other-hue": "the kit has no {asked} screen: this one is {has}",
    "set-up/missing": "{missing:1} stops of light are missing: more or stronger lamps, or nearer ones",
    "set-up/quicker": "Shutter {shutter:shutter}, not {was:shutter} of the school: the hand would be lost",
    "set-up/quicker/stills": "Shutter {shutter:shutter}, not the usual {was:shutter}: the hand would be lost",
    "set-up/iso": "ISO {over:1} stops above base",
    "set-up/second-cloth": "a second cloth hangs behind the screen: a window shines through it",
    "set-up/blackout": "a blackout sheet hangs behind the screen: a window shines through it",
    "set-up/few-lamps": "with so few lamps the screen can't be lit evenly and by itself: a pair on the screen would "
    "do it",
}
LEDGER = {
    "ledger/solved": "Screen and face reach their levels.",
    "ledger/too-much": "{over:1} stops too much are left: the other zone's lamps give them; dim or grid those",
    "ledger/short-screen": "{missing:1} stops are missing on the screen: its lamps at {nearer:0} % of their distance",
    "ledger/short-screen-open": "{missing:1} stops are missing on the screen: its lamps at {nearer:0} % of their "
    "distance, or f/{f_number:g}",
    "ledger/short-face": "{missing:1} stops are missing on the face: its lamps at {nearer:0} % of their distance",
    "ledger/short-face-open": "{missing:1} stops are missing on the face: its lamps at {nearer:0} % of their "
    "distance, or f/{f_number:g}",
}
SEARCHES: dict[str, str] = {**EVEN, **ROOM, **SET_UP, **LEDGER}

"""The screen as the camera sees it: half of an evaluation, which some of what is tried does not get past."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from ..camera.coverage import Coverage, coverage_of
from ..camera.view import View, view_of
from ..damage.keyed_screen import KeyedScreen, keyed_screen
from ..damage.screen_signal import ScreenPatch
from ..light.basis import BasisStore
from ..light.keys import framing_key
from ..plan import Plan
from .exposed_time import blur_of, flash_of
from .lit_set import LitSet, lit_set
from .results import Blur, Flash, ScreenMap, ScreenReading
from .screen_light import patches_of, screen_maps_of
from .screen_reading import screen_reading


@dataclass(frozen=True, eq=False)
class SeenScreen:
    """Of a plan: what is in the picture, the light that all of the set gives, and the screen lit by it. `flash` and
    `blur` are the subject's, whom the lens is focused on."""

    plan: Plan
    view: View
    coverage: Coverage
    lit: LitSet
    flash: Flash | None
    blur: Blur
    maps: tuple[ScreenMap, ...]
    patches: tuple[ScreenPatch, ...]

    @cached_property
    def reading(self) -> ScreenReading | None:
        """None where no needed screen is in view."""
        return screen_reading(self.plan, self.maps)

    @cached_property
    def keyed(self) -> KeyedScreen | None:
        """None where no needed screen is lit."""
        return keyed_screen(self.plan, self.patches)


def seen_screen(plan: Plan, store: BasisStore) -> SeenScreen:
    """Companions are in the picture, but only its subject is looked at."""
    view = view_of(plan.camera, plan.subject)
    coverage = store.record(("coverage", framing_key(plan)), lambda: coverage_of(plan, view))
    lit = lit_set(plan, coverage, view, store)
    flash = flash_of(plan, lit.face)
    blur = blur_of(plan, flash)
    maps = screen_maps_of(plan, lit.screen, view, blur, store)
    patches = tuple(patches_of(plan, view, maps, store))
    return SeenScreen(plan, view, coverage, lit, flash, blur, maps, patches)

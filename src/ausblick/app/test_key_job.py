"""The simulated test key as a job: first picture at once, then crops, quality, levers.

A key of a set-up's own plan is kept with it when it is done.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from ausblick.core.camera.turned import side_turns, upright
from ausblick.core.frames.frame import Frame
from ausblick.core.matte.key_report import test_key_report, with_levers
from ausblick.core.matte.levers import levers_of
from ausblick.core.matte.render import Drawn
from ausblick.core.matte.simulation import quick, simulate
from ausblick.core.plan import Plan, Recording
from ausblick.core.standards.plain import plain
from ausblick.formats.images import read_image
from ausblick.formats.recording import through
from ausblick.formats.testkey_pictures import all_views, shown
from ausblick.store.setups import NotFound

from .jobs import Job
from .services import Services
from .shown_picture import ShownPicture
from .spare_memory import make_room

Pictures = dict[str, dict[str, ShownPicture]]


@dataclass(frozen=True)
class TestKeyJob:
    """Everything a job needs, gathered while the request is there."""

    services: Services
    plan: Plan
    setup_id: int | None
    levers: bool
    plate: Frame | None
    recorders: list[tuple[str, Recording]]

    def __call__(self, job: Job) -> None:
        job.at("overview")
        make_room()
        basis = self.services.basis

        def first_look(drawn: Drawn) -> None:
            clean = upright(shown(drawn.frame), side_turns(self.plan.camera))
            job.result = {"pictures": {"whole": {"clean": ShownPicture(clean)}}, "report": {}}

        def step(name: str) -> None:
            make_room()
            job.at(name)

        first = quick(self.plan, basis, through, drawn=first_look)
        key = simulate(self.plan, basis, through, step=step, overview=first)
        make_room()
        views = all_views(key, self.plate)
        pictures = {part: {name: ShownPicture(view) for name, view in own.items()} for part, own in views.items()}
        told = test_key_report(key)
        job.result = {"pictures": pictures, "report": plain(told)}
        # What is shown of them is drawn; what a change makes of the key needs the room.
        del first, key, views
        files = {f"{part}-{view}.png": one.png() for part, own in pictures.items() for view, one in own.items()}
        if self.levers:
            tried = levers_of(self.plan, told.quality, basis, through, step, self.recorders)
            job.result = {"pictures": pictures, "report": plain(with_levers(told, tried))}
        self._keep(job, pictures, files)
        make_room()

    def _keep(self, job: Job, pictures: Pictures, files: dict[str, bytes]) -> None:
        job.at("keeping it")
        if self.setup_id is None:
            return
        report = {**job.result["report"], "windows": windows_of(pictures)}
        try:
            self.services.test_keys.add(self.setup_id, self.plan, report, files)
        except NotFound:
            # The set-up was deleted meanwhile: its key goes with it.
            return


def test_key_job(services: Services, plan: Plan, setup_id: int | None, levers: bool) -> TestKeyJob:
    """With the set-up's plate and the kit's recorders. Raises NotFound for a set-up that is not there."""
    plate = None
    if setup_id is not None:
        services.setups.get(setup_id)
        file = services.plates.file(setup_id)
        plate = read_image(file) if file.is_file() else None
    recorders = [(camera.name, camera.recording) for camera in services.kits.get().kit.cameras]
    return TestKeyJob(services, plan, setup_id, levers, plate, recorders)


def windows_of(pictures: Pictures) -> list[dict[str, Any]]:
    """Size and views of each part of the picture."""
    found = []
    for name, own in pictures.items():
        any_view = next(iter(own.values()))
        found.append({"name": name, "width": any_view.width, "height": any_view.height, "views": list(own)})
    return found

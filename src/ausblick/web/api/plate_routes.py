"""Plates: what a picture tells, what marks on it tell, the lighting brief; and the picture, kept with its set-up."""

from __future__ import annotations

import tempfile
from pathlib import Path

from flask import Response, send_file

from ausblick.app.frame_import import scaled
from ausblick.core.advice.search.lighting_brief import lighting_brief
from ausblick.core.evaluation.evaluate import evaluate
from ausblick.core.plan import plan_from
from ausblick.core.plate.plate_camera import MarkError, Marks, plate_camera, plate_light
from ausblick.core.plate.plate_picture import read_plate
from ausblick.core.plate.sun import sun_for
from ausblick.formats.images import jpeg_bytes, read_image

from ..context import answer, services
from ..described import group
from ..kit_schemas import PlanBody
from ..plate_schemas import (
    BriefModel,
    MarksBody,
    MarksModel,
    PlateForm,
    PlateLightModel,
    PlateReadingModel,
    SunBody,
)
from ..problems import problem
from ..schemas import SetupPath

PLATE = 1920
api = group("plate", "plate")


@api.post("/plate/read", operation_id="readPlate", responses={200: PlateReadingModel})
def post_read(form: PlateForm) -> Response:
    """Levels, colour of the light and sharpness of a plate: any picture that is read as field `file`."""
    with tempfile.TemporaryDirectory(dir=services().work) as folder:
        target = Path(folder) / "plate"
        form.file.save(target)
        return answer(PlateReadingModel(read_plate(read_image(target))))


@api.put("/setups/<int:setup_id>/plate", operation_id="keepPlate", responses={200: PlateReadingModel})
def put_plate(path: SetupPath, form: PlateForm) -> Response:
    """Keep the plate's picture with the set-up, at most 1920 px a side, and read it."""
    services().setups.get(path.setup_id)
    with tempfile.TemporaryDirectory(dir=services().work) as folder:
        target = Path(folder) / "plate"
        form.file.save(target)
        frame = read_image(target)
    reading = read_plate(frame)
    services().plates.put(path.setup_id, jpeg_bytes(scaled(frame, PLATE).pixels))
    return answer(PlateReadingModel(reading))


@api.get("/setups/<int:setup_id>/plate", operation_id="getPlate", responses={200: PlateReadingModel, 204: None})
def get_plate(path: SetupPath) -> Response:
    """What the kept picture tells; nothing where none is kept."""
    services().setups.get(path.setup_id)
    file = services().plates.file(path.setup_id)
    if not file.is_file():
        return Response(status=204)
    return answer(PlateReadingModel(read_plate(read_image(file))))


@api.get("/setups/<int:setup_id>/plate.jpg", operation_id="getPlatePicture", responses={200: None})
def get_plate_picture(path: SetupPath) -> Response:
    services().setups.get(path.setup_id)
    file = services().plates.file(path.setup_id)
    return send_file(file, mimetype="image/jpeg", max_age=0) if file.is_file() else _no_plate()


@api.delete("/setups/<int:setup_id>/plate", operation_id="dropPlate", responses={204: None})
def delete_plate(path: SetupPath) -> Response:
    services().setups.get(path.setup_id)
    services().plates.delete(path.setup_id)
    return Response(status=204)


@api.post("/setups/<int:setup_id>/plate/restore", operation_id="restorePlate", responses={200: PlateReadingModel})
def restore_plate(path: SetupPath) -> Response:
    """The picture that was there before it was replaced or dropped."""
    services().setups.get(path.setup_id)
    services().plates.restore(path.setup_id)
    file = services().plates.file(path.setup_id)
    return answer(PlateReadingModel(read_plate(read_image(file)))) if file.is_file() else _no_plate()


def _no_plate() -> Response:
    return problem(404, "No plate is kept", "Open a picture of the plate under Plate.")


@api.post("/plate/marks", operation_id="readMarks", responses={200: MarksModel})
def post_marks(body: MarksBody) -> Response:
    """The plate's camera from marks, and its light where a shadow is marked."""
    fields = {name: getattr(body, name) for name in ("horizon", "first", "second", "foot", "top", "tip")}
    marks = Marks(**fields)
    try:
        camera = plate_camera(marks, body.width, body.height, body.focal_mm_ff)
    except MarkError as err:
        return problem(422, "The marks can't be read", str(err), "marks")
    light, why = None, None
    if marks.foot is not None:
        try:
            light = plate_light(marks, camera, body.width, body.height)
        except MarkError as err:
            why = str(err)
    return answer(MarksModel.model_validate({"camera": camera, "light": light, "light_problem": why}))


@api.post("/sun", operation_id="sunDirection", responses={200: PlateLightModel})
def post_sun(body: SunBody) -> Response:
    """The sun's direction relative to a camera that looks along a compass heading."""
    light = sun_for(body.latitude, body.longitude, body.when, body.heading)
    return answer(PlateLightModel(light))


@api.post("/brief", operation_id="lightingBrief", responses={200: BriefModel})
def post_brief(body: PlanBody) -> Response:
    """What the plan's plate asks of the lamps."""
    brief = lighting_brief(evaluate(plan_from(body.plan), services().basis))
    return answer(BriefModel(brief))

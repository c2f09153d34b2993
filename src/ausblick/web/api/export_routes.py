"""A set-up taken along: plan document, set sheet to print, drawing, 3-D scene, lights, and all for who keys."""

from __future__ import annotations

from urllib.parse import quote

from flask import Response

from ausblick.app.bundle import bundle_zip
from ausblick.app.handed_over import setup_part
from ausblick.app.plan_exports import export_plan, file_name

from ..context import services
from ..described import group
from ..export_schemas import ExportPath, ExportQuery

api = group("exports", "exports", "/api/setups")


@api.get("/<int:setup_id>/export/<to>", operation_id="exportSetup", responses={200: None})
def get_export(path: ExportPath, query: ExportQuery) -> Response:
    """A file. A sheet and a drawing are shown by the browser, the others are saved."""
    plan = services().setups.get(path.setup_id).plan
    if path.to == "bundle":
        with services().turns.taken():
            data = bundle_zip([setup_part(services(), path.setup_id)], query.units, query.paper, services().basis)
        named = f"attachment; filename*=UTF-8''{quote(file_name(plan.title))}.zip"
        return Response(data, mimetype="application/zip", headers={"Content-Disposition": named})
    judged = services().findings(plan, with_remedies=False) if path.to == "sheet" else None
    made = export_plan(plan, path.to, query.units, query.paper, judged)
    how = "inline" if path.to in ("sheet", "svg") else "attachment"
    named = f"{how}; filename*=UTF-8''{quote(made.name)}"
    return Response(made.data, mimetype=made.media_type, headers={"Content-Disposition": named})

"""The door on the set's network: the owner opens it and sees who is in; a device enters by its passcode."""

from __future__ import annotations

import time

from flask import Response, current_app, g, request

from ausblick.app.change_feed import Changed
from ausblick.app.door import Device, Slower

from ..context import NETWORK, answer, services
from ..described import group
from ..guard import COOKIE
from ..lan.network import NetworkError, qr_svg
from ..network_schemas import (
    CodeModel,
    DeviceModel,
    DevicePath,
    EnterBody,
    MeModel,
    NetworkBody,
    NetworkModel,
)
from ..problems import problem

api = group("network", "network")


@api.get("/me", operation_id="whoAmI", responses={200: MeModel})
def get_me() -> Response:
    """Who asks: the owner at the machine, or a device that was let in; 401 before that."""
    if isinstance(g.who, Device):
        return answer(MeModel(who="device", role=g.who.role, csrf=g.who.csrf))
    if g.who == "stranger":
        return problem(401, "Not let in", "type the passcode that the owner of this program shows")
    return answer(MeModel(who="owner", role="all", csrf=""))


@api.post("/door", operation_id="enter", responses={200: MeModel})
def post_door(body: EnterBody) -> Response:
    door = services().door
    try:
        secret = door.enter(body.passcode, body.name, request.remote_addr or "")
    except Slower as err:
        response = problem(429, "Too many wrong passcodes", f"Try again in {err.again} s.")
        response.headers["Retry-After"] = str(err.again)
        return response
    if secret is None:
        return problem(403, "Not the passcode", "That is none of the passcodes that the owner's page shows.")
    services().changes.tell(Changed("devices"))
    device = door.device(secret)
    assert device is not None
    response = answer(MeModel(who="device", role=device.role, csrf=device.csrf))
    response.set_cookie(COOKIE, secret, httponly=True, secure=True, samesite="Strict", path="/")
    return response


@api.get("/network", operation_id="getNetwork", responses={200: NetworkModel})
def get_network() -> Response:
    return answer(_model())


@api.put("/network", operation_id="setNetwork", responses={200: NetworkModel})
def put_network(body: NetworkBody) -> Response:
    """Open the door to the set's network, with new passcodes, or close it: then everybody is out."""
    network = current_app.extensions.get(NETWORK)
    if network is None:
        return problem(409, "Not served", "There is no server here whose door could be opened.")
    try:
        if body.open:
            network.open()
        else:
            network.close()
    except NetworkError as err:
        return problem(409, "The door can't be opened", str(err))
    return answer(_model())


@api.delete("/network/devices/<device_id>", operation_id="putOut", responses={200: NetworkModel})
def delete_device(path: DevicePath) -> Response:
    if not services().door.put_out(path.device_id):
        return problem(404, "Not found", f"there is no device {path.device_id}")
    services().changes.tell(Changed("devices"))
    return answer(_model())


@api.get("/network/qr.svg", operation_id="getNetworkCode", responses={200: None})
def get_qr() -> Response:
    """The first address as a code for a phone's camera."""
    network = current_app.extensions.get(NETWORK)
    if network is None or network.state is None:
        return problem(404, "Not open", "the door to the network is closed")
    return Response(qr_svg(network.state.urls[0]), mimetype="image/svg+xml")


def _model() -> NetworkModel:
    network, door, now = current_app.extensions.get(NETWORK), services().door, time.monotonic()
    state = network.state if network is not None else None
    return NetworkModel(
        served=network is not None,
        open=state is not None,
        urls=list(state.urls) if state else [],
        fingerprint=state.fingerprint if state else "",
        codes=[CodeModel(role=role, passcode=f"{code[:4]}-{code[4:]}") for role, code in door.codes.items()],
        devices=[
            DeviceModel(id=d.id, name=d.name, role=d.role, address=d.address, seen_s=max(0.0, now - d.seen))
            for d in door.devices()
        ],
    )

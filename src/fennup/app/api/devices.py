"""Phones: the door for them, codes, who was let in. All of it at the desk alone but coming in."""

from typing import Any

import segno
from flask import Response, abort, current_app, g, request
from flask_openapi3 import APIBlueprint

from fennup.app.api.answers import json_of
from fennup.app.api.problems import problem
from fennup.app.api.sessions import reading, writing
from fennup.app.schemas.api import Nothing, Problem
from fennup.app.schemas.devices import CodeOut, DeviceOut, DevicePath, MeOut, PairIn, ShareChange, ShareOut
from fennup.app.services import devices
from fennup.app.services.pairing import GOOD_SECONDS, TooSoon, WrongCode
from fennup.app.sharing import SHARED, Share

api = APIBlueprint("devices", __name__, url_prefix="/api", abp_responses={403: Problem, 404: Problem, 422: Problem, 429: Problem})
COOKIE = "fennup_device"
KEPT_SECONDS = 400 * 24 * 3600
WRONG = "This code is not good: it was mistyped, used already, or is older than two minutes. The desk can show a new one."
CERTIFICATE: dict[Any, Any] = {
    200: {"content": {"application/x-x509-ca-cert": {"schema": {"type": "string", "format": "binary"}}}}
}


def share() -> Share:
    """The door."""
    found: Share | None = current_app.config.get("SHARE")
    if found is None:
        abort(404, "This Fennup has no door for phones: it was not started by `./fennup`.")
    return found


def _out() -> Response:
    door = share()
    with reading() as session:
        known = [DeviceOut.model_validate(device, from_attributes=True) for device in devices.devices(session)]
    print_ = door.certificates.fingerprint if door.certificates else ""
    return json_of(ShareOut(on=door.is_open, url=door.url, fingerprint=print_, trouble=door.trouble, devices=known))


@api.get("/share", responses={200: ShareOut})
def read_share() -> Response:
    """The door for phones and who was let in."""
    return _out()


@api.post("/share", responses={200: ShareOut})
def open_or_close(body: ShareChange) -> Response:
    """Open or close the door; it stays so when Fennup is started again."""
    door = share()
    if body.on:
        door.open()
    else:
        door.close()
    with writing() as session:
        devices.set_to(session, devices.SHARE, "on" if door.is_open else "")
    return _out()


@api.post("/share/code", responses={200: CodeOut})
def show_code(body: Nothing) -> Response:
    """A code for the next phone."""
    door = share()
    if not door.is_open:
        abort(403, "Let phones in first.")
    code = door.pairing.new_code()
    url = f"{door.url}/pair#{code}"
    rows = ["".join("1" if dark else "0" for dark in row) for row in segno.make(url, micro=False).matrix]
    return json_of(CodeOut(code=code, url=f"{door.url}/pair", seconds=int(GOOD_SECONDS), qr=rows))


@api.get("/share/certificate", responses=CERTIFICATE)
def read_certificate() -> Response:
    """The certificate that a phone is told to trust."""
    door = share()
    if door.certificates is None:
        abort(404, "There is none before phones are let in.")
    headers = {"Content-Disposition": 'attachment; filename="fennup.crt"'}
    return Response(door.certificates.authority.read_bytes(), content_type="application/x-x509-ca-cert", headers=headers)


@api.post("/pair", responses={200: MeOut})
def pair(body: PairIn) -> Response:
    """Come in with a code: the device gets a name, and a token in a cookie that no script reads."""
    try:
        share().pairing.use(body.code.replace(" ", ""))
    except TooSoon as refused:
        response = problem(429, f"Too many wrong codes: try again in {refused.seconds:.0f} seconds.")
        response.headers["Retry-After"] = str(int(refused.seconds) + 1)
        return response
    except WrongCode:
        return problem(403, WRONG)
    with writing() as session:
        device, token = devices.let_in(session, body.name)
        name = device.name
    response = json_of(MeOut(desk=False, name=name))
    response.set_cookie(COOKIE, token, max_age=KEPT_SECONDS, secure=True, httponly=True, samesite="Strict")
    return response


@api.get("/me", responses={200: MeOut})
def who_am_i() -> Response:
    """Who is asking."""
    return json_of(MeOut(desk=not request.environ.get(SHARED), name=g.get("device_name", "")))


@api.delete("/devices/<string:device_id>", responses={200: ShareOut})
def send_away(path: DevicePath, body: Nothing) -> Response:
    """A device is let in no more."""
    with writing() as session:
        if not devices.send_away(session, path.device_id):
            abort(404, "There is no such device: it was removed already.")
    return _out()

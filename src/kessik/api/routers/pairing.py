"""Pairing devices of the local network."""

import io
from typing import Annotated

import segno
from fastapi import APIRouter, Depends, Form, Request
from fastapi.responses import HTMLResponse, RedirectResponse, Response
from pydantic import Field

from kessik.api.dependencies import Gatekeeper, at_home, only_with
from kessik.api.gate import COOKIE
from kessik.api.pair_page import pair_page
from kessik.api.schemas.common import Id, Wire
from kessik.core.devices import Grant
from kessik.core.errors import OutOfRangeError, TooOftenError
from kessik.services.devices.pairing import CODE_LASTS_S

router = APIRouter(tags=["pairing"], dependencies=[Depends(only_with("let_in"))])
pages = APIRouter(include_in_schema=False)
_A_YEAR_S = 365 * 24 * 3600


class DeviceOut(Wire):
    """A device that was let in."""

    id: str
    name: str
    paired_utc: str
    grants: list[Grant]


class GrantsBody(Wire):
    """What a device may do besides counting, noting and reading."""

    grants: list[Grant] = Field(max_length=5)


class DevicesOut(Wire):
    """Whether the local network can reach this bench, and who was let in."""

    open_to_network: bool
    devices: list[DeviceOut]


class CodeOut(Wire):
    """A code to pair one device with, the address to open, and both as a QR picture."""

    code: str
    address: str
    lasts_s: float
    qr_svg: str


@router.get("/pairing")
def get_devices(pairing: Gatekeeper) -> DevicesOut:
    """Who was let in."""
    devices = [
        DeviceOut(id=d.id, name=d.name, paired_utc=d.paired_utc, grants=list(d.grants))
        for d in pairing.devices()
    ]
    return DevicesOut(open_to_network=pairing.address is not None, devices=devices)


@router.post("/pairing/code")
def post_code(pairing: Gatekeeper, request: Request) -> CodeOut:
    """A fresh code; the one before it no longer works."""
    code = pairing.new_code()
    port = f":{request.url.port}" if request.url.port else ""
    address = f"http://{pairing.address}{port}/pair"
    drawn = io.BytesIO()
    segno.make(f"{address}?code={code}", error="m").save(
        drawn,
        kind="svg",
        xmldecl=False,
        svgns=True,
        border=2,
        dark="#17212b",
        light="#ffffff",
        omitsize=True,
    )
    return CodeOut(
        code=code, address=address, lasts_s=CODE_LASTS_S, qr_svg=drawn.getvalue().decode()
    )


@router.put("/pairing/devices/{device_id}/grants", dependencies=[Depends(at_home)])
def put_grants(device_id: Id, body: GrantsBody, pairing: Gatekeeper) -> DevicesOut:
    """Say what a device may do; only on this machine itself."""
    pairing.grant(device_id, body.grants)
    return get_devices(pairing)


@router.delete("/pairing/devices/{device_id}", status_code=204)
def delete_device(device_id: Id, pairing: Gatekeeper) -> None:
    """Shut a device out again."""
    pairing.delete_device(device_id)


@pages.get("/pair")
def get_pair_page(code: str = "") -> HTMLResponse:
    """Where a device names its code; reading the page uses nothing up."""
    return HTMLResponse(pair_page(code[:20]))


@pages.post("/pair")
def post_pair(
    pairing: Gatekeeper,
    request: Request,
    code: Annotated[str, Form()] = "",
    name: Annotated[str, Form()] = "",
) -> Response:
    """Let the device in, and lead it to the bench."""
    try:
        token = pairing.pair(code[:40], name, request.client.host if request.client else "")
    except TooOftenError as wrong:
        page = pair_page(code[:20], name[:60], _sentence(wrong.message))
        return HTMLResponse(page, status_code=429, headers={"Retry-After": str(wrong.wait_s)})
    except OutOfRangeError as wrong:
        return HTMLResponse(
            pair_page(code[:20], name[:60], _sentence(wrong.message)), status_code=422
        )
    answer = RedirectResponse("/", status_code=303)
    answer.set_cookie(COOKIE, token, max_age=_A_YEAR_S, httponly=True, samesite="strict", path="/")
    return answer


def _sentence(words: str) -> str:
    return f"{words[:1].upper()}{words[1:]}."

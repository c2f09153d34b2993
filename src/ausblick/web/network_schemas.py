"""What the API says of the door on the set's network, and of who asks."""

from __future__ import annotations

from typing import Literal

from pydantic import BaseModel, Field

from ausblick.app.door import Role

from .answers import Answer


class MeModel(Answer):
    """`csrf` goes with everything that changes something; the owner at the machine needs none."""

    who: Literal["owner", "device"]
    role: Role
    csrf: str


class EnterBody(BaseModel):
    passcode: str = Field(min_length=1, max_length=40)
    name: str = Field(default="", max_length=60, description="What the owner reads in the list of devices.")


class CodeModel(Answer):
    role: Role
    passcode: str


class DeviceModel(Answer):
    """`seen_s`: seconds since it last asked for something."""

    id: str
    name: str
    role: Role
    address: str
    seen_s: float


class NetworkModel(Answer):
    """`served`: False where no server stands behind the application, so that nothing can be opened."""

    served: bool
    open: bool
    urls: list[str]
    fingerprint: str
    codes: list[CodeModel]
    devices: list[DeviceModel]


class NetworkBody(BaseModel):
    open: bool


class DevicePath(BaseModel):
    device_id: str = Field(min_length=1, max_length=20)

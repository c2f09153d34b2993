"""The door for devices on the set's network: passcodes by role, sessions, and attempts that are slowed and limited.

Closed at first, and closed again when the program ends: passcodes and sessions are never written down.
"""

from __future__ import annotations

import hmac
import secrets
import time
from collections.abc import Callable
from dataclasses import dataclass, field, replace
from threading import Lock
from typing import Literal

Role = Literal["look", "log", "all"]
ROLES: tuple[Role, ...] = ("look", "log", "all")
LETTERS = "23456789ABCDEFGHJKLMNPQRSTUVWXYZ"
"""No figure that looks like a letter."""
LENGTH = 8
"""32 ** 8 codes; with the limits below, guessing one takes longer than the universe is old."""
FREE, LONGEST = 3, 300.0
"""Wrong attempts of one address before it has to wait, twice as long each time, and the longest wait in s."""
MOST_WRONG, WITHIN = 60, 600.0
"""Wrong attempts of all addresses together within so many s; then nobody gets in for that long."""
MOST_DEVICES = 40


class Slower(Exception):
    """Too many wrong attempts. `again`: in how many seconds one may try."""

    def __init__(self, again: float) -> None:
        super().__init__(f"too many wrong passcodes; try again in {again:.0f} s")
        self.again = max(1, round(again))


@dataclass(frozen=True)
class Device:
    """A browser that was let in. `csrf` must come with everything that changes something."""

    id: str
    name: str
    role: Role
    address: str
    since: float
    seen: float
    csrf: str = field(repr=False)


@dataclass
class _Wrong:
    count: int = 0
    until: float = 0.0


class Door:
    """`clock`: seconds that only go forward."""

    def __init__(self, clock: Callable[[], float] = time.monotonic) -> None:
        self._clock, self._lock = clock, Lock()
        self._codes: dict[Role, str] = {}
        self._devices: dict[str, Device] = {}
        self._wrong: dict[str, _Wrong] = {}
        self._lately: list[float] = []

    @property
    def codes(self) -> dict[Role, str]:
        """For the owner's eyes; empty while the door is closed."""
        return dict(self._codes)

    def open(self) -> None:
        """With new passcodes; whoever was in is out."""
        with self._lock:
            self._codes = {role: "".join(secrets.choice(LETTERS) for _ in range(LENGTH)) for role in ROLES}
            self._devices.clear()
            self._wrong.clear()
            self._lately.clear()

    def close(self) -> None:
        with self._lock:
            self._codes = {}
            self._devices.clear()

    def enter(self, passcode: str, name: str, address: str) -> str | None:
        """A session's secret for the right passcode, None for a wrong one. Raises Slower."""
        given = "".join(passcode.upper().split()).replace("-", "").encode()
        with self._lock:
            self._slow(address)
            # All are compared, so that the time tells nothing of which was near.
            matches = [role for role, code in self._codes.items() if hmac.compare_digest(code.encode(), given)]
            if not matches:
                self._note_wrong(address)
                return None
            self._wrong.pop(address, None)
            secret, now = secrets.token_urlsafe(32), self._clock()
            if len(self._devices) >= MOST_DEVICES:
                del self._devices[min(self._devices, key=lambda key: self._devices[key].seen)]
            self._devices[secret] = Device(
                secrets.token_hex(4),
                name[:60] or "a device",
                matches[0],
                address,
                now,
                now,
                secrets.token_urlsafe(24),
            )
            return secret

    def _slow(self, address: str) -> None:
        now = self._clock()
        self._lately = [then for then in self._lately if now - then < WITHIN]
        if len(self._lately) >= MOST_WRONG:
            raise Slower(WITHIN - (now - self._lately[0]))
        wrong = self._wrong.get(address)
        if wrong is not None and now < wrong.until:
            raise Slower(wrong.until - now)

    def _note_wrong(self, address: str) -> None:
        now = self._clock()
        self._lately.append(now)
        wrong = self._wrong.setdefault(address, _Wrong())
        wrong.count += 1
        if wrong.count >= FREE:
            wrong.until = now + min(LONGEST, 2.0 ** (wrong.count - FREE + 1))

    def device(self, secret: str) -> Device | None:
        """Whose session this is; it is seen now."""
        with self._lock:
            found = self._devices.get(secret)
            if found is not None:
                self._devices[secret] = found = replace(found, seen=self._clock())
            return found

    def devices(self) -> list[Device]:
        with self._lock:
            return sorted(self._devices.values(), key=lambda device: device.since)

    def put_out(self, ident: str) -> bool:
        with self._lock:
            found = [secret for secret, device in self._devices.items() if device.id == ident]
            for secret in found:
                del self._devices[secret]
            return bool(found)

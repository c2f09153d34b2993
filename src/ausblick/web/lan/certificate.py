"""A certificate of one's own for the set's network, made on first use and kept beside the data.

It names the machine's addresses, so it is made anew when they change. No authority stands behind it: browsers warn
once, and the words about that are on the owner's page.
"""

from __future__ import annotations

import ipaddress
import os
import socket
from contextlib import closing, suppress
from datetime import UTC, datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import NameOID

DAYS = 397
"""Browsers refuse certificates that are valid for longer."""
RENEW = timedelta(days=14)


def addresses() -> list[str]:
    """IPv4 addresses under which others on the network reach this machine; nothing is sent to find them."""
    found: dict[str, None] = {}
    with closing(socket.socket(socket.AF_INET, socket.SOCK_DGRAM)) as probe, suppress(OSError):
        # A datagram socket that is connected sends nothing; it only says which way it would go.
        probe.connect(("10.255.255.255", 1))
        found[probe.getsockname()[0]] = None
    with suppress(OSError):
        for *_, where in socket.getaddrinfo(socket.gethostname(), None, socket.AF_INET):
            found[str(where[0])] = None
    return [address for address in found if not ipaddress.ip_address(address).is_loopback]


def certificate(place: Path, names: list[str]) -> tuple[Path, Path]:
    """(certificate, key) for these addresses: the kept ones where they still hold, else new ones."""
    cert_file, key_file = place / "network-certificate.pem", place / "network-key.pem"
    if not _holds(cert_file, key_file, names):
        _make(cert_file, key_file, names)
    return cert_file, key_file


def _holds(cert_file: Path, key_file: Path, names: list[str]) -> bool:
    try:
        cert = x509.load_pem_x509_certificate(cert_file.read_bytes())
    except (OSError, ValueError):
        return False
    alternatives = cert.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    named = {str(address) for address in alternatives.get_values_for_type(x509.IPAddress)}
    return key_file.is_file() and set(names) <= named and cert.not_valid_after_utc - RENEW > datetime.now(UTC)


def _make(cert_file: Path, key_file: Path, names: list[str]) -> None:
    key = ec.generate_private_key(ec.SECP256R1())
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Ausblick on this machine")])
    now = datetime.now(UTC)
    cert = (
        x509.CertificateBuilder()
        .subject_name(name)
        .issuer_name(name)
        .public_key(key.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(hours=1))
        .not_valid_after(now + timedelta(days=DAYS))
        .add_extension(x509.SubjectAlternativeName([x509.IPAddress(ipaddress.ip_address(n)) for n in names]), False)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), True)
        .add_extension(x509.ExtendedKeyUsage([x509.oid.ExtendedKeyUsageOID.SERVER_AUTH]), False)
        .sign(key, hashes.SHA256())
    )
    secret = key.private_bytes(
        serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
    )
    with open(os.open(key_file, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600), "wb") as file:
        file.write(secret)
    cert_file.write_bytes(cert.public_bytes(serialization.Encoding.PEM))


def fingerprint(cert_file: Path) -> str:
    """SHA-256 as browsers show it, to compare by eye."""
    cert = x509.load_pem_x509_certificate(cert_file.read_bytes())
    return cert.fingerprint(hashes.SHA256()).hex(":").upper()

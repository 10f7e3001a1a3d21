"""A certificate of this installation: for the studio's network, made once, kept, renewed late.

Nobody vouches for it, so a phone warns once; whoever compares the fingerprint knows it is ours.
"""

import os
from datetime import UTC, datetime, timedelta
from ipaddress import ip_address
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

LASTS = timedelta(days=397)
"""The longest that phones accept of a server's certificate since 2020 (common practice)."""
LEFT = timedelta(days=14)


def kept(folder: Path, addresses: list[str], now: datetime | None = None) -> tuple[Path, Path, str]:
    """Certificate, key, and why it was made anew (empty when the kept one still holds)."""
    now = now or datetime.now(UTC)
    cert, key = folder / "certificate.pem", folder / "key.pem"
    why = _why_not(cert, key, addresses, now)
    if why:
        folder.mkdir(mode=0o700, parents=True, exist_ok=True)
        private = ec.generate_private_key(ec.SECP256R1())
        _put(key, private.private_bytes(
            serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8,
            serialization.NoEncryption(),
        ))  # fmt: skip
        made = _made(private, addresses, now)
        _put(cert, made.public_bytes(serialization.Encoding.PEM))
    return cert, key, why


def fingerprint(cert: Path) -> str:
    """The SHA-256 of a certificate as browsers show it."""
    digest = x509.load_pem_x509_certificate(cert.read_bytes()).fingerprint(hashes.SHA256())
    return ":".join(f"{b:02X}" for b in digest)


def _why_not(cert: Path, key: Path, addresses: list[str], now: datetime) -> str:
    if not (cert.is_file() and key.is_file()):
        return "there was none yet"
    try:
        old = x509.load_pem_x509_certificate(cert.read_bytes())
        private = serialization.load_pem_private_key(key.read_bytes(), None)
        names = old.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    except (ValueError, TypeError, x509.ExtensionNotFound):
        return "the kept one cannot be read"
    if private.public_key() != old.public_key():
        return "its key is another's"
    if not set(addresses) <= {str(a) for a in names.get_values_for_type(x509.IPAddress)}:
        return "this computer has another address now"
    if old.not_valid_after_utc - LEFT < now:
        return "the kept one ends soon"
    return ""


def _made(
    private: ec.EllipticCurvePrivateKey, addresses: list[str], now: datetime
) -> x509.Certificate:
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Ringside on this network")])
    names = [x509.IPAddress(ip_address(a)) for a in addresses]
    return (
        x509.CertificateBuilder()
        .subject_name(name)
        .issuer_name(name)
        .public_key(private.public_key())
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - timedelta(days=1))
        .not_valid_after(now - timedelta(days=1) + LASTS)
        .add_extension(x509.SubjectAlternativeName(names), critical=False)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .sign(private, hashes.SHA256())
    )


def _put(file: Path, data: bytes) -> None:
    """Whole or not at all, and its owner's only."""
    fresh = file.with_name(f"{file.name}.{os.getpid()}")
    handle = os.open(fresh, os.O_WRONLY | os.O_CREAT | os.O_TRUNC, 0o600)
    with os.fdopen(handle, "wb") as out:
        out.write(data)
        out.flush()
        os.fsync(out.fileno())
    fresh.replace(file)

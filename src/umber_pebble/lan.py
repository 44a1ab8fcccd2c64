"""The kitchen's network: this machine's addresses there, and a certificate from an authority made on the spot."""

import contextlib
import ipaddress
import socket
from datetime import UTC, datetime, timedelta
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

AUTHORITY_DAYS, SERVER_DAYS = 3650, 397
# an address that is never reached: only the route to it is asked for
SOMEWHERE = ("192.0.2.1", 9)


def own_addresses() -> tuple[str, ...]:
    """Addresses and names by which the kitchen's other devices reach this machine."""
    found: list[str] = []
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe, contextlib.suppress(OSError):
        probe.connect(SOMEWHERE)
        found.append(probe.getsockname()[0])
    name = socket.gethostname()
    with contextlib.suppress(OSError):
        found += socket.gethostbyname_ex(name)[2]
    reachable = [a for a in found if not ipaddress.ip_address(a).is_loopback]
    return tuple(dict.fromkeys([*reachable, name, f"{name}.local"]))


def certificate(folder: Path, names: tuple[str, ...]) -> tuple[Path, Path, Path]:
    """Authority, server certificate and key for these names; made anew when a name is missing or it runs out."""
    folder.mkdir(parents=True, exist_ok=True)
    authority, server, key = folder / "authority.pem", folder / "server.pem", folder / "server.key"
    if not _still_good(server, key, names):
        ca_key, ca = _authority(folder, authority)
        own = ec.generate_private_key(ec.SECP256R1())
        made = _signed("Umber Pebble", own, ca.subject, ca_key, SERVER_DAYS, _server_extensions(names))
        server.write_bytes(made.public_bytes(serialization.Encoding.PEM))
        _write_key(key, own)
    return authority, server, key


def _still_good(server: Path, key: Path, names: tuple[str, ...]) -> bool:
    if not server.exists() or not key.exists():
        return False
    known = x509.load_pem_x509_certificate(server.read_bytes())
    alternatives = known.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    have = {str(n.value) for n in alternatives}
    return set(names) <= have and known.not_valid_after_utc > datetime.now(UTC) + timedelta(days=7)


def _authority(folder: Path, file: Path) -> tuple[ec.EllipticCurvePrivateKey, x509.Certificate]:
    key_file = folder / "authority.key"
    if file.exists() and key_file.exists():
        key = serialization.load_pem_private_key(key_file.read_bytes(), None)
        assert isinstance(key, ec.EllipticCurvePrivateKey)
        return key, x509.load_pem_x509_certificate(file.read_bytes())
    key = ec.generate_private_key(ec.SECP256R1())
    name = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, f"Umber Pebble on {socket.gethostname()}"[:64])])
    made = _signed(
        name,
        key,
        name,
        key,
        AUTHORITY_DAYS,
        [(x509.BasicConstraints(ca=True, path_length=0), True), (_usage(ca=True), True)],
    )
    file.write_bytes(made.public_bytes(serialization.Encoding.PEM))
    _write_key(key_file, key)
    return key, made


def _signed(
    subject: str | x509.Name,
    key: ec.EllipticCurvePrivateKey,
    issuer: x509.Name,
    by: ec.EllipticCurvePrivateKey,
    days: int,
    extensions: list[tuple[x509.ExtensionType, bool]],
) -> x509.Certificate:
    now = datetime.now(UTC)
    name = (
        subject
        if isinstance(subject, x509.Name)
        else x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, subject)])
    )
    builder = x509.CertificateBuilder().subject_name(name).issuer_name(issuer).public_key(key.public_key())
    builder = builder.serial_number(x509.random_serial_number())
    builder = builder.not_valid_before(now - timedelta(days=1)).not_valid_after(now + timedelta(days=days))
    identifiers = [
        (x509.SubjectKeyIdentifier.from_public_key(key.public_key()), False),
        (x509.AuthorityKeyIdentifier.from_issuer_public_key(by.public_key()), False),
    ]
    for extension, critical in [*extensions, *identifiers]:
        builder = builder.add_extension(extension, critical)
    return builder.sign(by, hashes.SHA256())


def _server_extensions(names: tuple[str, ...]) -> list[tuple[x509.ExtensionType, bool]]:
    return [
        (x509.SubjectAlternativeName([_alternative(name) for name in names]), False),
        (x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), False),
        (x509.BasicConstraints(ca=False, path_length=None), True),
        (_usage(ca=False), True),
    ]


def _usage(ca: bool) -> x509.KeyUsage:
    """An authority signs certificates and nothing else; a server signs its handshakes."""
    return x509.KeyUsage(
        digital_signature=not ca,
        content_commitment=False,
        key_encipherment=False,
        data_encipherment=False,
        key_agreement=False,
        key_cert_sign=ca,
        crl_sign=ca,
        encipher_only=False,
        decipher_only=False,
    )


def _alternative(name: str) -> x509.GeneralName:
    try:
        return x509.IPAddress(ipaddress.ip_address(name))
    except ValueError:
        return x509.DNSName(name)


def _write_key(file: Path, key: ec.EllipticCurvePrivateKey) -> None:
    file.touch(mode=0o600)
    file.write_bytes(
        key.private_bytes(
            serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, serialization.NoEncryption()
        )
    )

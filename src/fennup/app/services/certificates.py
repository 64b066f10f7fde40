"""The certificates that a phone trusts: an authority of this machine alone, which can speak for nothing but private addresses and this machine's
name, and what it has signed for the addresses of today."""

from dataclasses import dataclass
from datetime import UTC, datetime, timedelta
from ipaddress import IPv4Address, IPv4Network
from pathlib import Path

from cryptography import x509
from cryptography.hazmat.primitives import hashes, serialization
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.x509.oid import ExtendedKeyUsageOID, NameOID

AUTHORITY_DAYS, SERVER_DAYS, RENEW_DAYS = 3650, 397, 30
PRIVATE = ("10.0.0.0/8", "172.16.0.0/12", "192.168.0.0/16", "169.254.0.0/16", "127.0.0.0/8")
_SKEW = timedelta(days=1)  # a phone's clock may be behind


@dataclass(frozen=True)
class Certificates:
    """Where they lie; the authority's fingerprint, as a phone shows it."""

    authority: Path
    server: Path
    key: Path
    fingerprint: str


def certificates_in(folder: Path, names: tuple[str, ...], addresses: tuple[str, ...]) -> Certificates:
    """The certificates for these names and addresses, made where they are missing, run out, or are for others. OSError."""
    folder.mkdir(mode=0o700, parents=True, exist_ok=True)
    found = Certificates(folder / "authority.pem", folder / "server.pem", folder / "server-key.pem", "")
    authority_key = folder / "authority-key.pem"
    if not (found.authority.exists() and authority_key.exists()):
        _make_authority(found.authority, authority_key, names)
        found.server.unlink(missing_ok=True)
    authority = x509.load_pem_x509_certificate(found.authority.read_bytes())
    if not _serves(found.server, found.key, names, addresses):
        signer = serialization.load_pem_private_key(authority_key.read_bytes(), None)
        assert isinstance(signer, ec.EllipticCurvePrivateKey)
        _sign(found, authority, signer, names, addresses)
    digest = authority.fingerprint(hashes.SHA256())
    return Certificates(found.authority, found.server, found.key, ":".join(f"{byte:02X}" for byte in digest))


def _serves(file: Path, key: Path, names: tuple[str, ...], addresses: tuple[str, ...]) -> bool:
    """Whether there is one that is good for all of them, for a while yet."""
    if not (file.exists() and key.exists()):
        return False
    made = x509.load_pem_x509_certificates(file.read_bytes())[0]
    alternatives = made.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    known = {str(a) for a in alternatives.get_values_for_type(x509.IPAddress)}
    called = set(alternatives.get_values_for_type(x509.DNSName))
    lasts = made.not_valid_after_utc > datetime.now(UTC) + timedelta(days=RENEW_DAYS)
    return lasts and set(addresses) <= known and set(names) <= called


def _make_authority(file: Path, key_file: Path, names: tuple[str, ...]) -> None:
    key = ec.generate_private_key(ec.SECP256R1())
    called = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, f"Fennup on {names[0]}")])
    only = [*(x509.IPAddress(IPv4Network(net)) for net in PRIVATE), *(x509.DNSName(name) for name in names)]
    built = (
        _begun(called, called, AUTHORITY_DAYS)
        .public_key(key.public_key())
        .add_extension(x509.BasicConstraints(ca=True, path_length=0), critical=True)
        .add_extension(x509.NameConstraints(permitted_subtrees=only, excluded_subtrees=None), critical=True)
        .add_extension(x509.SubjectKeyIdentifier.from_public_key(key.public_key()), critical=False)
        .add_extension(
            x509.KeyUsage(
                digital_signature=False, content_commitment=False, key_encipherment=False, data_encipherment=False,
                key_agreement=False, key_cert_sign=True, crl_sign=True, encipher_only=False, decipher_only=False,
            ),
            critical=True,
        )
        .sign(key, hashes.SHA256())
    )  # fmt: skip
    _write_key(key_file, key)
    file.write_bytes(built.public_bytes(serialization.Encoding.PEM))


def _sign(
    to: Certificates,
    authority: x509.Certificate,
    signer: ec.EllipticCurvePrivateKey,
    names: tuple[str, ...],
    addresses: tuple[str, ...],
) -> None:
    """A new key and what the authority says of it."""
    key = ec.generate_private_key(ec.SECP256R1())
    called = x509.Name([x509.NameAttribute(NameOID.COMMON_NAME, "Fennup")])
    good_for = [*(x509.DNSName(name) for name in names), *(x509.IPAddress(IPv4Address(a)) for a in addresses)]
    built = (
        _begun(called, authority.subject, SERVER_DAYS)
        .public_key(key.public_key())
        .add_extension(x509.SubjectAlternativeName(good_for), critical=False)
        .add_extension(x509.BasicConstraints(ca=False, path_length=None), critical=True)
        .add_extension(x509.ExtendedKeyUsage([ExtendedKeyUsageOID.SERVER_AUTH]), critical=False)
        .add_extension(x509.AuthorityKeyIdentifier.from_issuer_public_key(signer.public_key()), critical=False)
        .sign(signer, hashes.SHA256())
    )
    _write_key(to.key, key)
    to.server.write_bytes(b"".join(c.public_bytes(serialization.Encoding.PEM) for c in (built, authority)))


def _begun(subject: x509.Name, issuer: x509.Name, days: int) -> x509.CertificateBuilder:
    now = datetime.now(UTC)
    return (
        x509.CertificateBuilder()
        .subject_name(subject)
        .issuer_name(issuer)
        .serial_number(x509.random_serial_number())
        .not_valid_before(now - _SKEW)
        .not_valid_after(now + timedelta(days=days))
    )


def _write_key(file: Path, key: ec.EllipticCurvePrivateKey) -> None:
    """For its owner's eyes alone, from the first byte on."""
    file.unlink(missing_ok=True)
    file.touch(mode=0o600)
    plain = serialization.NoEncryption()
    file.write_bytes(key.private_bytes(serialization.Encoding.PEM, serialization.PrivateFormat.PKCS8, plain))

"""The door for phones: the same application over TLS on the local network, opened and closed while it runs."""

import socket
import ssl
import threading
from collections.abc import Callable, Iterable
from contextlib import suppress
from dataclasses import dataclass, field
from ipaddress import IPv4Address
from pathlib import Path
from typing import Any

from cheroot.ssl.builtin import BuiltinSSLAdapter
from cheroot.wsgi import Server

from fennup.app.services.certificates import Certificates, certificates_in
from fennup.app.services.pairing import Pairing

SHARED = "fennup.shared"  # set in the environment of every request that comes through this door
EVERYWHERE = "0.0.0.0"
NOWHERE_IN_PARTICULAR = ("192.0.2.1", 9)  # no packet is sent: it only asks which address one would be sent from
LARGEST_REQUEST = 65 * 1024 * 1024
THREADS = 8
SILENT_SECONDS = 20  # one that says nothing is let go soon, so that it keeps no place
Wsgi = Callable[[dict[str, Any], Callable[..., Any]], Iterable[bytes]]


class _Quiet(Server):
    """A server to which a phone that hangs up in the middle is no news."""

    def error_log(self, msg: str = "", level: int = 20, traceback: bool = False) -> None:
        """Not told."""


@dataclass
class Share:
    """The door. `at`: on which of this machine's addresses it listens."""

    app: Wsgi
    folder: Path
    at: str = EVERYWHERE
    port: int = 8443
    trouble: str = ""
    pairing: Pairing = field(default_factory=Pairing)
    certificates: Certificates | None = None
    addresses: tuple[str, ...] = ()
    _server: Any = None

    @property
    def is_open(self) -> bool:
        """Whether anybody can come in."""
        return self._server is not None

    @property
    def url(self) -> str:
        """Where a phone finds it."""
        return f"https://{self.addresses[0]}:{self.port}" if self.is_open else ""

    @property
    def names(self) -> tuple[str, ...]:
        """What this machine is called in its network."""
        name = socket.gethostname().split(".")[0].lower()
        plain = "".join(c for c in name if c.isalnum() or c == "-") or "fennup"
        return (f"{plain}.local", plain, "localhost")

    @property
    def hosts(self) -> set[str]:
        """What a request may call it."""
        return {*self.addresses, *self.names}

    def open(self) -> None:
        """Listen; `trouble` says why it cannot."""
        if self.is_open:
            return
        self.addresses = (self.at,) if self.at != EVERYWHERE else own_addresses()
        if not self.addresses:
            self.trouble = "This machine is in no network that a phone could be in."
            return
        try:
            self.certificates = certificates_in(self.folder, self.names, self.addresses)
            server = _Quiet((self.at, self.port), _marked(self.app), numthreads=THREADS, timeout=SILENT_SECONDS)
            server.ssl_adapter = BuiltinSSLAdapter(str(self.certificates.server), str(self.certificates.key))
            server.ssl_adapter.context.minimum_version = ssl.TLSVersion.TLSv1_2
            server.max_request_body_size = LARGEST_REQUEST
            server.prepare()
        except OSError as error:
            self.trouble = f"Port {self.port} cannot be listened at: {error.strerror or error}."
            return
        self.port = server.bind_addr[1]
        self.trouble, self._server = "", server
        threading.Thread(target=server.serve, name="share", daemon=True).start()

    def close(self) -> None:
        """Let nobody in any more."""
        if self._server is not None:
            self._server.stop()
            self._server = None


def own_addresses() -> tuple[str, ...]:
    """This machine's addresses in private networks, the one that leads outside first."""
    found: list[str] = []
    with socket.socket(socket.AF_INET, socket.SOCK_DGRAM) as probe, suppress(OSError):
        probe.connect(NOWHERE_IN_PARTICULAR)
        found.append(probe.getsockname()[0])
    with suppress(OSError):
        found += socket.gethostbyname_ex(socket.gethostname())[2]
    return tuple(a for a in dict.fromkeys(found) if IPv4Address(a).is_private and not IPv4Address(a).is_loopback)


def _marked(app: Wsgi) -> Wsgi:
    """The application, told of every request that it comes from the network."""

    def shared(environment: dict[str, Any], start: Callable[..., Any]) -> Iterable[bytes]:
        return app({**environment, SHARED: True}, start)

    return shared

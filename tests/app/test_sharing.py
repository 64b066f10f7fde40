"""Phones: paired over TLS on the loopback address, slowed down where they guess, sent away again; and the simulated instruments."""

import json
import os
import re
import signal
import ssl
import subprocess
import sys
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from http.cookiejar import CookieJar
from pathlib import Path
from typing import Any
from unittest import TestCase, mock
from urllib.error import HTTPError, URLError
from urllib.request import HTTPCookieProcessor, HTTPSHandler, OpenerDirector, Request, build_opener, urlopen

from cryptography import x509

from fennup.app.services import certificates, devices
from fennup.app.services.instruments import instruments_at, readings_of, zero_told
from fennup.app.services.pairing import GOOD_SECONDS, MOST_WRONG, Pairing, TooSoon, WrongCode
from fennup.app.sharing import Share
from fennup.instruments.server import open_instruments
from tests.app.test_api import Api
from tests.core.frames import rectangle

ROOT = Path(__file__).resolve().parent.parent.parent


class Phone:
    """A device in the network: it trusts the machine's certificate and keeps its cookie."""

    def __init__(self, share: Share) -> None:
        assert share.certificates
        trusting = ssl.create_default_context(cafile=str(share.certificates.authority))
        self.opener: OpenerDirector = build_opener(HTTPSHandler(context=trusting), HTTPCookieProcessor(CookieJar()))
        self.url = share.url

    def ask(self, path: str, body: Any = None, method: str | None = None, **headers: str) -> tuple[int, Any]:
        data = None if body is None else json.dumps(body).encode()
        request = Request(self.url + path, data, {"Content-Type": "application/json", **headers}, method=method)
        try:
            with self.opener.open(request, timeout=10) as answer:
                return answer.status, json.loads(answer.read() or b"null")
        except HTTPError as refused:
            return refused.code, json.loads(refused.read())


class Paired(Api):
    def setUp(self) -> None:
        super().setUp()
        self.share = Share(self.app.wsgi_app, Path(self.folder.name) / "share", "127.0.0.1", 0)
        self.app.config["SHARE"] = self.share
        self.addCleanup(self.share.close)

    def open(self) -> Phone:
        self.assertEqual(self.client.post("/api/share", json={"on": True}).json["on"], True)
        return Phone(self.share)

    def code(self) -> str:
        return str(self.client.post("/api/share/code", json={}).json["code"])

    def test_a_phone_comes_in_once_with_a_code_and_goes_when_it_is_removed(self) -> None:
        self.assertEqual(self.client.post("/api/share/code", json={}).status_code, 403)
        phone, other = self.open(), Phone(self.share)
        self.assertEqual(phone.ask("/api/projects")[0], 401)
        shown = self.client.post("/api/share/code", json={}).json
        self.assertEqual(len({len(row) for row in shown["qr"]} | {len(shown["qr"])}), 1)
        self.assertEqual(
            phone.ask("/api/pair", {"code": shown["code"], "name": "Phone"}), (200, {"desk": False, "name": "Phone"})
        )
        self.assertEqual(other.ask("/api/pair", {"code": shown["code"]})[0], 403)  # used already
        self.assertEqual((phone.ask("/api/projects")[0], other.ask("/api/projects")[0]), (200, 401))
        self.assertEqual(phone.ask("/api/me")[1]["name"], "Phone")
        # What a phone measures is recorded as any other; what belongs to the desk stays there.
        project = self.new(spec=rectangle("outside", 600.0, 400.0, 60.0))
        record = {"id": "00000001-0000-4000-8000-000000000000", "key": "m1/A left:0", "type": "cut", "device": "Phone",
                  "device_time": "2026-11-20T10:00:00+01:00", "body": {}}  # fmt: skip
        self.assertEqual(phone.ask(f"/api/projects/{project['id']}/records", record)[0], 200)
        for path, body in (("/api/share", {"on": False}), ("/api/share/code", {}), ("/api/backup", {}), ("/api/import", {})):
            self.assertEqual(phone.ask(path, body)[0], 403, path)
        (device,) = self.client.get("/api/share").json["devices"]
        self.client.delete(f"/api/devices/{device['id']}", json={})
        self.assertEqual(phone.ask("/api/projects")[0], 401)
        self.assertEqual(self.client.delete(f"/api/devices/{device['id']}", json={}).status_code, 404)

    def test_another_name_for_this_machine_or_another_page_gets_nothing(self) -> None:
        phone = self.open()
        self.assertEqual(phone.ask("/api/me", Host="elsewhere.example")[0], 403)
        self.assertEqual(phone.ask("/api/pair", {"code": self.code()}, Origin="https://elsewhere.example")[0], 403)
        plain = build_opener(HTTPSHandler(context=ssl.create_default_context()))
        with self.assertRaises(URLError):  # a certificate that nobody has told it to trust
            plain.open(self.share.url, timeout=5)

    def test_closed_it_stays_closed_and_open_it_is_opened_again(self) -> None:
        phone = self.open()
        with self.app.config["STORE"].reading() as session:
            self.assertEqual(devices.setting(session, devices.SHARE), "on")
        self.client.post("/api/share", json={"on": False})
        with self.assertRaises(URLError):
            phone.ask("/api/me")
        with self.app.config["STORE"].reading() as session:
            self.assertEqual(devices.setting(session, devices.SHARE), "")

    def test_the_authority_lasts_and_speaks_for_private_addresses_alone(self) -> None:
        folder = Path(self.folder.name) / "certificates"
        first = certificates.certificates_in(folder, ("bench.local",), ("192.168.7.5",))
        self.assertEqual((first.key.stat().st_mode & 0o777, folder.stat().st_mode & 0o777), (0o600, 0o700))
        before = first.server.read_bytes()
        again = certificates.certificates_in(folder, ("bench.local",), ("192.168.7.5",))
        self.assertEqual(again.server.read_bytes(), before)
        moved = certificates.certificates_in(folder, ("bench.local",), ("10.0.0.9",))
        self.assertEqual(moved.fingerprint, first.fingerprint)
        served = x509.load_pem_x509_certificates(moved.server.read_bytes())[0]
        names = served.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
        self.assertEqual([str(a) for a in names.get_values_for_type(x509.IPAddress)], ["10.0.0.9"])
        authority = x509.load_pem_x509_certificate(moved.authority.read_bytes())
        served.verify_directly_issued_by(authority)
        only = authority.extensions.get_extension_for_class(x509.NameConstraints)
        permitted = only.value.permitted_subtrees or []
        self.assertTrue(only.critical)
        self.assertTrue(all(net.value.is_private for net in permitted if isinstance(net, x509.IPAddress)))

    def test_without_share_nothing_listens_beyond_this_machine(self) -> None:
        environment = {**os.environ, "PYTHONPATH": str(ROOT / "src")}
        command = [
            sys.executable,
            "-m",
            "fennup.app.cli",
            "serve",
            "--port",
            "0",
            "--database",
            str(Path(self.folder.name) / "own.db"),
        ]
        with subprocess.Popen(command, env=environment, stdout=subprocess.PIPE, stderr=subprocess.DEVNULL, text=True) as server:
            assert server.stdout
            self.assertIn("Fennup is at http://127.0.0.1", server.stdout.readline())
            own = {os.readlink(fd) for fd in Path(f"/proc/{server.pid}/fd").iterdir() if fd.is_symlink()}
            listening = [
                line.split()
                for name in ("tcp", "tcp6")
                for line in Path(f"/proc/{server.pid}/net/{name}").read_text().splitlines()[1:]
            ]
            found = [entry[1] for entry in listening if entry[3] == "0A" and f"socket:[{entry[9]}]" in own]
            server.send_signal(signal.SIGTERM)
        self.assertEqual([address.split(":")[0] for address in found], ["0100007F"])


class Codes(TestCase):
    def test_wrong_codes_are_slowed_down_and_in_the_end_none_is_good(self) -> None:
        now = [0.0]
        pairing = Pairing(lambda: now[0])
        code = pairing.new_code()
        wrong = "0" if code != "0" else "1"
        waited = []
        for _ in range(MOST_WRONG):
            with self.assertRaises(WrongCode):
                pairing.use(wrong)
            with self.assertRaises(TooSoon) as refused:  # even the right one must wait
                pairing.use(code)
            waited.append(refused.exception.seconds)
            now[0] += refused.exception.seconds
        self.assertEqual(waited, [1.0, 2.0, 4.0, 8.0, 16.0, 32.0])
        with self.assertRaises(WrongCode):
            pairing.use(code)

    def test_a_code_is_good_for_two_minutes_and_once(self) -> None:
        now = [0.0]
        pairing = Pairing(lambda: now[0])
        old = pairing.new_code()
        self.assertRegex(old, r"^\d{6}$")
        now[0] = GOOD_SECONDS
        with self.assertRaises(WrongCode):
            pairing.use(old)
        now[0] += 1.0
        code = pairing.new_code()
        pairing.use(code)
        with self.assertRaises(WrongCode):
            pairing.use(code)


class Instruments(TestCase):
    @contextmanager
    def there(self, *, steady: bool = True) -> Iterator[tuple[str, Any]]:
        server = open_instruments(0, steady=steady)
        threading.Thread(target=server.serve_forever, daemon=True).start()
        url = f"http://127.0.0.1:{server.server_address[1]}"
        yield url, server.RequestHandlerClass.instruments  # type: ignore[attr-defined]
        server.shutdown()
        server.server_close()

    def test_a_reading_is_told_and_meant_when_its_key_is_pressed(self) -> None:
        with self.there() as (url, own):
            self.assertEqual([(i.id, i.unit) for i in instruments_at(url).instruments], [("gauge", "deg"), ("caliper", "mm")])
            own["gauge"].held = 57.7
            readings = readings_of(url, "gauge", 5.0)
            self.assertEqual([(r.text, r.sent) for r in (next(readings), next(readings))], [("57.7", False)] * 2)
            body = json.dumps({"press": "send"}).encode()
            urlopen(Request(f"{url}/v1/instruments/gauge", body), timeout=5).close()
            self.assertTrue(any(next(readings).sent for _ in range(4)))
            own["caliper"].held = 19.05
            self.assertEqual(next(readings_of(url, "caliper", 5.0)).text, "19.05 mm")

    def test_a_wrong_zero_shows_when_it_is_turned_end_for_end(self) -> None:
        with self.there(steady=False) as (url, own):
            gauge = own["gauge"]
            off = gauge.zero
            self.assertGreater(abs(off), 0.15)
            gauge.held = 1.3  # a table that is not level is none of the gauge's faults
            first = next(readings_of(url, "gauge", 5.0)).value
            gauge.over = True
            turned = next(readings_of(url, "gauge", 5.0)).value
            assert first is not None and turned is not None
            self.assertAlmostEqual((first + turned) / 2, off, delta=0.1)
            told = zero_told(first, turned)
            self.assertFalse(told.is_true)
            self.assertIn(f"too {'much' if off > 0 else 'little'}", told.text)
        self.assertTrue(zero_told(1.3, -1.25).is_true)

    def test_nonsense_a_flood_silence_and_a_lost_connection_are_said_and_hold_nobody_up(self) -> None:
        with self.there() as (url, own):
            own["gauge"].misbehaves = "nonsense"
            told = next(readings_of(url, "gauge", 5.0))
            self.assertEqual((told.value, "no reading" in told.trouble), (None, True))
            own["gauge"].misbehaves = "flood"
            began = time.monotonic()
            flood = [reading for reading in readings_of(url, "gauge", 1.0)]
            self.assertLess(len(flood), 10)
            self.assertLess(time.monotonic() - began, 4.0)
            own["gauge"].misbehaves = "silent"
            with mock.patch("fennup.app.services.instruments.SECONDS", 0.3):
                self.assertIn("lost", next(readings_of(url, "gauge", 5.0)).trouble)
            own["gauge"].misbehaves, own["gauge"].battery = "", 0.1
            self.assertIn("battery", next(readings_of(url, "gauge", 5.0)).trouble)
            own["gauge"].battery = 0.0
            self.assertIn("lost", next(readings_of(url, "gauge", 5.0)).trouble)
        self.assertRegex(instruments_at(url).notice, re.compile("^No instrument answers"))

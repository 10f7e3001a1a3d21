"""The studio's network: which addresses, a certificate that is kept, and the door itself."""

import http.client
import json
import os
import ssl
import subprocess
import uuid
from contextlib import closing
from datetime import UTC, datetime, timedelta
from http.cookies import SimpleCookie

import pytest
from cryptography import x509

from ops import certificate, lan
from ops.cluster import free_port
from ops.lan import Door
from ops.paths import DEMO_PASSWORD, ROOT
from ops.processes import MARK
from ops.serve import environment, wait_for, watch_command
from tests.databases import with_demo

NOW = datetime(2026, 5, 2, tzinfo=UTC)
ELSEWHERE = "127.0.0.5"
"""An address of this machine that is not its own name: to the server as good as another machine."""


def test_a_certificate_is_kept_for_its_owner_alone_and_names_every_address(tmp_path):
    cert, key, why = certificate.kept(tmp_path / "lan", ["192.0.2.7", "192.0.2.8"], NOW)
    assert why == "there was none yet"
    first = certificate.fingerprint(cert)
    assert (cert.stat().st_mode & 0o777, key.stat().st_mode & 0o777) == (0o600, 0o600)
    assert certificate.kept(tmp_path / "lan", ["192.0.2.8"], NOW)[2] == ""
    assert certificate.fingerprint(cert) == first
    assert len(first.split(":")) == 32
    made = x509.load_pem_x509_certificate(cert.read_bytes())
    assert made.not_valid_after_utc - made.not_valid_before_utc <= timedelta(days=398)
    # A key that leaks must not vouch for the rest of the world.
    assert not made.extensions.get_extension_for_class(x509.BasicConstraints).value.ca


@pytest.mark.parametrize(("days", "address", "why"), [
    (0, "192.0.2.9", "this computer has another address now"),
    (380, "192.0.2.7", ""), (384, "192.0.2.7", "the kept one ends soon"),
])  # fmt: skip
def test_it_is_made_anew_for_another_address_or_near_its_end(tmp_path, days, address, why):
    cert, _, _ = certificate.kept(tmp_path, ["192.0.2.7"], NOW)
    before = certificate.fingerprint(cert)
    assert certificate.kept(tmp_path, [address], NOW + timedelta(days=days))[2] == why
    assert (certificate.fingerprint(cert) == before) == (why == "")


@pytest.mark.parametrize("name", ["certificate.pem", "key.pem"])
def test_one_that_a_crash_or_a_hand_spoiled_is_made_anew(tmp_path, name):
    certificate.kept(tmp_path, ["192.0.2.7"], NOW)
    (tmp_path / name).write_text("-----BEGIN")
    assert certificate.kept(tmp_path, ["192.0.2.7"], NOW)[2] == "the kept one cannot be read"
    assert certificate.kept(tmp_path, ["192.0.2.7"], NOW)[2] == ""
    certificate.kept(tmp_path / "other", ["192.0.2.7"], NOW)
    (tmp_path / "other" / "key.pem").replace(tmp_path / "key.pem")
    assert certificate.kept(tmp_path, ["192.0.2.7"], NOW)[2] == "its key is another's"


@pytest.mark.parametrize(("address", "ours"), [
    ("192.168.1.4", True), ("10.0.0.9", True), ("172.16.3.3", True), ("169.254.1.1", True),
    ("127.0.0.1", False), ("8.8.8.8", False), ("172.32.0.1", False), ("0.0.0.0", False),
])  # fmt: skip
def test_only_addresses_of_a_network_of_ones_own_are_opened(address, ours):
    assert lan._private(address) is ours


def test_the_door_is_told_to_every_process_and_an_address_of_another_is_refused(tmp_path, capsys):
    door = lan.opened_door(tmp_path, 8322, ELSEWHERE)
    assert Door.read(door.line()) == door
    assert door.environment() == {"RINGSIDE_LAN_ADDRESSES": f"https://{ELSEWHERE}:8322"}
    assert door.own_environment()["RINGSIDE_HOSTS"] == ELSEWHERE
    assert lan.main(["door", str(tmp_path), "8322", "192.0.2.250"]) == 2
    assert "192.0.2.250 is no address of this computer" in capsys.readouterr().out


def test_a_machine_without_a_network_is_told_what_to_do(tmp_path, monkeypatch, capsys):
    monkeypatch.setattr(lan, "own_addresses", list)
    assert lan.main(["door", str(tmp_path), "8322"]) == 2
    assert "--lan ADDRESS" in capsys.readouterr().out


# --- the door itself -----------------------------------------------------------------------


@pytest.fixture(scope="module")
def served(tmp_path_factory):
    """A whole server with its door open, and the demo in it."""
    name = f"lan_{uuid.uuid4().hex[:8]}"
    with_demo(name)
    home = tmp_path_factory.mktemp("lan")
    door = lan.opened_door(home, free_port(), ELSEWHERE)
    env = {**os.environ, "RINGSIDE_DB_NAME": name}
    env = {**environment({**env, **door.environment()}), "RINGSIDE_HOME": str(home)}
    port = free_port()
    process = subprocess.Popen(
        watch_command(port, web=1, door=door), env={**env, MARK: str(home)}, cwd=ROOT
    )
    wait_for(port, process, home / "log", door)
    yield port, door
    process.terminate()
    process.wait(20)


class Visitor:
    """A browser without a screen: it keeps cookies and sends the token."""

    def __init__(self, link, origin):
        self.link, self.origin, self.cookies = link, origin, SimpleCookie()
        self("GET", "/sign-in")

    def __call__(self, method, path, body=None):
        headers = {"Cookie": "; ".join(f"{k}={m.value}" for k, m in self.cookies.items())}
        if body is not None:
            token = self.cookies["csrftoken"].value
            headers |= {"X-CSRFToken": token, "Origin": self.origin,
                        "Content-Type": "application/json"}  # fmt: skip
        self.link.request(method, path, body and json.dumps(body), headers)
        answer = self.link.getresponse()
        for cookie in answer.headers.get_all("Set-Cookie") or []:
            self.cookies.load(cookie)
        said = answer.read()
        self.headers = answer.headers
        return answer.status, json.loads(said) if path.startswith("/api") and said else said


def test_over_the_door_a_link_lets_in_and_the_published_password_does_not(served):
    port, door = served
    trust = ssl.create_default_context(cafile=door.cert)
    link = http.client.HTTPSConnection(ELSEWHERE, door.port, timeout=20, context=trust)
    here = http.client.HTTPConnection("127.0.0.1", port, timeout=20)
    with closing(link), closing(here):
        _lets_in(Visitor(link, door.urls[0]), Visitor(here, f"http://127.0.0.1:{port}"), door)


def _lets_in(phone, computer, door):
    demo = {"username": "demo", "password": DEMO_PASSWORD}
    assert phone("POST", "/api/account/sign-in", demo)[0] == 403
    assert "Strict-Transport-Security" not in phone.headers
    assert computer("POST", "/api/account/sign-in", demo)[0] == 200
    layout = computer("GET", "/api/sessions")[1][0]["layouts"][0]["id"]
    status, made = computer("POST", "/api/account/phone-links", {"layout": layout})
    assert (status, made["ways"][0]["origin"]) == (201, door.urls[0])
    word = {"word": made["ways"][0]["url"].split("#")[1]}
    status, opened = phone("POST", "/api/account/phone", word)
    assert (status, opened["leads_to"]) == (200, f"/layouts/{layout}/tape")
    assert phone.cookies["sessionid"]["secure"]
    assert phone("GET", f"/api/layouts/{layout}/at-kit")[0] == 200
    assert phone("POST", "/api/account/phone", word)[0] == 410


def test_a_line_is_refused_at_the_door_at_once_and_requests_go_on(served):
    """hypercorn hands none over: a page behind it asks by requests."""
    _, door = served
    trust = ssl.create_default_context(cafile=door.cert)
    opening = {
        "Connection": "Upgrade", "Upgrade": "websocket", "Sec-WebSocket-Version": "13",
        "Sec-WebSocket-Key": "dGhlIHNhbXBsZSBub25jZQ==", "Origin": door.urls[0],
    }  # fmt: skip
    for headers, status in ((opening, 403), ({}, 401)):
        link = http.client.HTTPSConnection(ELSEWHERE, door.port, timeout=20, context=trust)
        with closing(link):
            link.request("GET", "/api/hand", headers=headers)
            assert link.getresponse().status == status


def test_the_door_knows_no_other_name_and_speaks_no_plain_http(served):
    _, door = served
    trust = ssl.create_default_context(cafile=door.cert)
    link = http.client.HTTPSConnection(ELSEWHERE, door.port, timeout=20, context=trust)
    link.request("GET", "/sign-in", headers={"Host": "localhost"})
    assert link.getresponse().status == 400
    link.close()
    plain = http.client.HTTPConnection(ELSEWHERE, door.port, timeout=5)
    plain.request("GET", "/sign-in")
    with pytest.raises((http.client.HTTPException, OSError)):
        plain.getresponse()
    plain.close()

"""The doors: this machine's own, and that to the kitchen's network, where a device must be paired."""

import ssl
from collections.abc import Iterator
from pathlib import Path
from typing import Any

import pytest
from cryptography import x509
from cryptography.x509.verification import PolicyBuilder, Store
from flask import Flask
from flask.testing import FlaskClient

from umber_pebble.api.guard import LAN_DOOR
from umber_pebble.app import Lan, create_app
from umber_pebble.lan import certificate
from umber_pebble.services import access as access_module
from umber_pebble.services.workshop import Workshop

ADDRESS = "192.168.7.20"
OUTSIDE = {LAN_DOOR: True}


@pytest.fixture
def app(workshop: Workshop, tmp_path: Path) -> Iterator[Flask]:
    authority, _, _ = certificate(tmp_path / "tls", (ADDRESS, "kitchen.local"))
    yield create_app(workshop, None, Lan((ADDRESS, "kitchen.local"), 8724, authority))


def ask(client: FlaskClient, method: str, path: str, *, host: str = f"https://{ADDRESS}:8724", **more: Any) -> Any:
    return client.open(path, method=method, base_url=host, environ_overrides=OUTSIDE, **more)


def shown_code(app: Flask) -> str:
    return str(app.test_client().post("/api/devices/code", json={}).get_json()["code"])


def paired(app: Flask, name: str = "Tablet") -> FlaskClient:
    client = app.test_client()
    answer = ask(client, "POST", "/api/devices/pair", json={"code": shown_code(app), "name": name})
    assert answer.status_code == 200
    cookie = answer.headers["Set-Cookie"]
    assert all(word in cookie for word in ("HttpOnly", "SameSite=Strict", "Secure"))
    return client


def test_a_stranger_sees_the_pairing_and_nothing_else(app: Flask) -> None:
    stranger = app.test_client()
    assert ask(stranger, "GET", "/api/kitchen").get_json()["code"] == "not_paired"
    for path in ("/api/stream", "/api/workshop", "/api/openapi.json", "/api/devices"):
        assert ask(stranger, "GET", path).status_code == 401, path
    assert ask(stranger, "POST", "/api/devices/code", json={}).status_code == 401
    assert ask(stranger, "GET", "/").status_code in (200, 503)
    assert b"BEGIN CERTIFICATE" in ask(stranger, "GET", "/api/authority").data


def test_a_paired_device_is_answered_until_it_is_dropped(app: Flask) -> None:
    tablet = paired(app)
    assert ask(tablet, "GET", "/api/kitchen").status_code == 200
    own = app.test_client()
    [device] = own.get("/api/devices").get_json()["items"]
    assert device["name"] == "Tablet"
    assert (
        own.post(f"/api/devices/{device['id']}/name", json={"name": "At the stove"}).get_json()["items"][0]["name"]
        == "At the stove"
    )
    # what pairs and drops is this machine alone
    assert ask(tablet, "POST", "/api/devices/code", json={}).get_json()["code"] == "local_only"
    assert ask(tablet, "DELETE", f"/api/devices/{device['id']}", json={}).get_json()["code"] == "local_only"
    assert own.delete(f"/api/devices/{device['id']}", json={}).get_json()["items"] == []
    assert ask(tablet, "GET", "/api/kitchen").get_json()["code"] == "not_paired"


def test_a_code_counts_once_and_guessing_is_stopped(app: Flask, monkeypatch: pytest.MonkeyPatch) -> None:
    code = shown_code(app)
    client = app.test_client()
    assert ask(client, "POST", "/api/devices/pair", json={"code": code, "name": "a"}).status_code == 200
    assert (
        ask(client, "POST", "/api/devices/pair", json={"code": code, "name": "b"}).get_json()["code"]
        == "wrong_code"
    )
    right = shown_code(app)
    wrong = f"{(int(right) + 1) % 10**6:06d}"
    tries = [
        ask(client, "POST", "/api/devices/pair", json={"code": wrong, "name": "c"}).status_code for _ in range(6)
    ]
    assert tries[0] == 403
    assert tries[-1] == 429
    # even the right one waits then
    assert ask(client, "POST", "/api/devices/pair", json={"code": right, "name": "c"}).status_code == 429
    later = access_module.time.monotonic() + access_module.CODE_LASTS_S + 1
    monkeypatch.setattr(access_module.time, "monotonic", lambda: later)
    assert (
        ask(client, "POST", "/api/devices/pair", json={"code": right, "name": "c"}).get_json()["code"]
        == "wrong_code"
    )
    assert ask(client, "POST", "/api/devices/pair", json={"code": "", "name": "c"}).status_code == 403


@pytest.mark.parametrize("host", ["https://evil.example:8724", "https://localhost:8724", "https://127.0.0.1:8724"])
def test_a_wrong_host_is_refused_at_the_network_door(app: Flask, host: str) -> None:
    assert ask(paired(app), "GET", "/api/kitchen", host=host).get_json()["code"] == "foreign_host"


def test_another_origin_is_refused_even_with_the_cookie(app: Flask) -> None:
    tablet = paired(app)
    answer = ask(
        tablet,
        "POST",
        "/api/devices/pair",
        headers={"Origin": "https://evil.example"},
        json={"code": "1", "name": "x"},
    )
    assert answer.get_json()["code"] == "foreign_origin"
    assert (
        app.test_client().get("/api/kitchen", base_url=f"http://{ADDRESS}:8722").get_json()["code"]
        == "foreign_host"
    )


def test_the_certificate_names_this_machine_and_is_vouched_for(tmp_path: Path) -> None:
    names = (ADDRESS, "kitchen.local")
    authority, server, key = certificate(tmp_path, names)
    made, by = (x509.load_pem_x509_certificate(f.read_bytes()) for f in (server, authority))
    # a verifier that follows the rules for public web servers to the letter
    strict = PolicyBuilder().store(Store([by])).build_server_verifier(x509.DNSName("kitchen.local"))
    assert strict.verify(made, [])[-1] == by
    made.verify_directly_issued_by(by)
    alternatives = made.extensions.get_extension_for_class(x509.SubjectAlternativeName).value
    assert {str(n.value) for n in alternatives} == set(names)
    ssl.SSLContext(ssl.PROTOCOL_TLS_SERVER).load_cert_chain(server, key)
    assert key.stat().st_mode & 0o077 == 0
    before = server.read_bytes()
    assert certificate(tmp_path, names)[1].read_bytes() == before
    assert certificate(tmp_path, (*names, "10.0.0.9"))[1].read_bytes() != before
    # a new address does not need the authority to be trusted again
    assert authority.read_bytes() == by.public_bytes(access_encoding())


def access_encoding() -> Any:
    from cryptography.hazmat.primitives.serialization import Encoding

    return Encoding.PEM

"""What a server says to browsers beside its answers. Sources: OWASP ASVS 4.0.3, 14.4 and 14.5; RFC 6797 (HSTS)."""

from dataclasses import replace

import pytest

from nuntius.settings import Settings
from nuntius.web.app import create_app
from tests.help import Client, Desk

EXPECTED = {
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
}


@pytest.mark.parametrize("path", ["/", "/api/health", "/api/session", "/api/meetings", "/api/meetings/none", "/none"])
def test_every_answer_has_them(desk: Desk, path: str) -> None:
    headers = desk.client.get(path).headers
    assert {name: headers.get(name) for name in EXPECTED} == EXPECTED
    assert "frame-ancestors 'none'" in headers["Content-Security-Policy"]
    assert "microphone=(self)" in headers["Permissions-Policy"]
    assert "Strict-Transport-Security" not in headers


def test_behind_https_browsers_are_to_ask_by_it_alone(settings: Settings) -> None:
    client = create_app(replace(settings, secure_cookies=True)).test_client()
    cookie = client.get("/api/session").headers["Set-Cookie"]  # RFC 6265bis, 4.1.3.2: Secure, Path=/, and no Domain
    assert cookie.startswith("__Host-nuntius=") and "Secure" in cookie and "Path=/" in cookie and "Domain" not in cookie
    assert "max-age=31536000" in client.get("/api/health").headers["Strict-Transport-Security"]


@pytest.mark.parametrize(
    ("host", "status"),
    [
        ("nuntius.saltmarsh.example", 200),
        ("localhost:8750", 200),
        ("127.0.0.1", 200),
        ("evil.example", 400),
        ("nuntius.saltmarsh.example.evil.example", 400),
        ("", 400),
    ],
)
@pytest.mark.parametrize(
    "given", [{"hosts": ("nuntius.saltmarsh.example",)}, {"url": "https://nuntius.saltmarsh.example"}]
)
def test_other_names_are_refused_where_a_name_is_set(
    settings: Settings, given: dict[str, str], host: str, status: int
) -> None:
    client = create_app(replace(settings, **given)).test_client()  # type: ignore[arg-type]
    answer = client.get("/api/session", headers={"Host": host})
    assert answer.status_code == status
    if status == 400:
        assert answer.content_type == "application/problem+json"


def test_without_one_any_name_is_fine(desk: Desk) -> None:
    assert Client(desk.app.test_client()).get("/api/session", headers={"Host": "any.example"}).status_code == 200

"""The gateway: complete bodies, answers in pieces, clients that are slow or leave. Its contract is PEP 3333."""

import http.client
import socket
import threading
from collections.abc import Callable, Iterator
from typing import Any
from wsgiref.validate import validator

import pytest

from nuntius.web.gateway import PIECE, THREADS
from tests.serving import gateway_on, plain

Start = Callable[[str, list[tuple[str, str]]], Any]


def ask(port: int, method: str = "GET", path: str = "/", body: Any = None, **headers: str) -> http.client.HTTPResponse:
    connection = http.client.HTTPConnection("127.0.0.1", port, timeout=10)
    connection.request(method, path, body=body, headers=headers, encode_chunked="Transfer-Encoding" in headers)
    return connection.getresponse()


def echo(environ: dict[str, Any], start: Start) -> list[bytes]:
    """Answers with what was asked."""
    body = environ["wsgi.input"].read(int(environ.get("CONTENT_LENGTH") or 0))
    start("200 OK", [("Content-Type", "text/plain"), ("X-Path", environ["PATH_INFO"])])
    return [body, str(environ.get("HTTP_X_TOKEN")).encode()]


def test_it_keeps_to_the_standard() -> None:
    """Checked by the validator that Python carries (PEP 3333)."""
    with gateway_on(plain(validator(echo))) as port:
        assert ask(port, "POST", "/a", b"hello").read() == b"helloNone"


def test_body_path_and_headers_arrive() -> None:
    with gateway_on(plain(echo)) as port:
        answer = ask(port, "PUT", "/caf%C3%A9/%2e", b"x" * 900, **{"X-Token": "t"})
        assert (answer.read(), answer.headers["X-Path"]) == (b"x" * 900 + b"t", "/cafÃ©/.")
        chunked = ask(port, "POST", "/", iter([b"ab", b"cd"]), **{"Transfer-Encoding": "chunked"})
        assert chunked.read() == b"abcdNone"


def test_a_header_with_an_underscore_is_not_taken_for_one_with_a_dash() -> None:
    with gateway_on(plain(echo)) as port:
        assert ask(port, **{"X_Token": "forged"}).read() == b"None"


def test_a_body_that_is_too_long_is_not_read_to_its_end() -> None:
    seen: list[int] = []

    def refuse(environ: dict[str, Any], start: Start) -> list[bytes]:
        seen.append(len(environ["wsgi.input"].read()))
        start("413 Too Large", [])
        return [b""]

    with gateway_on(plain(refuse, most=10)) as port:
        assert ask(port, "POST", "/", b"x" * 5000).status == 413
    assert seen == [11]


def test_a_fault_of_the_application_is_an_answer() -> None:
    def fail(environ: dict[str, Any], start: Start) -> list[bytes]:
        raise ValueError("no")

    with gateway_on(plain(fail)) as port:
        assert ask(port).status == 500
        assert ask(port).status == 500  # and the server goes on


class Slow:
    """An application that answers with many pieces, and notes how far it got and whether it was closed."""

    def __init__(self, pieces: int) -> None:
        self.pieces, self.made, self.closed = pieces, 0, threading.Event()

    def __call__(self, environ: dict[str, Any], start: Start) -> "Slow":
        start("200 OK", [])
        return self

    def __iter__(self) -> Iterator[bytes]:
        for _ in range(self.pieces):
            self.made += 1
            yield b"x" * PIECE

    def close(self) -> None:
        self.closed.set()


def test_an_answer_comes_whole_and_is_closed() -> None:
    app = Slow(20)
    with gateway_on(plain(app)) as port:
        assert len(ask(port).read()) == 20 * PIECE
        assert app.closed.wait(5)


def test_an_answer_to_a_client_that_leaves_is_closed_early() -> None:
    app = Slow(100_000)
    with gateway_on(plain(app)) as port:
        answer = ask(port)
        answer.read(10)
        answer.close()
        assert app.closed.wait(5)
    assert app.made < 100_000


@pytest.mark.parametrize("sent", [b"POST / HTTP/1.1\r\nHost: x\r\nContent-Length: 9\r\n\r\nhalf", b"GET / HT"])
def test_clients_that_send_slowly_hold_no_thread(sent: bytes) -> None:
    with gateway_on(plain(echo)) as port:
        slow = [socket.create_connection(("127.0.0.1", port)) for _ in range(THREADS + 10)]
        for each in slow:
            each.sendall(sent)
        assert ask(port).status == 200
        for each in slow:
            each.close()


def test_clients_that_read_slowly_hold_no_thread() -> None:
    with gateway_on(plain(Slow(1000))) as port:
        slow = [socket.create_connection(("127.0.0.1", port)) for _ in range(THREADS + 10)]
        for each in slow:
            each.sendall(b"GET / HTTP/1.1\r\nHost: x\r\n\r\n")
            assert each.recv(10)
        assert ask(port).read(10)
        for each in slow:
            each.close()

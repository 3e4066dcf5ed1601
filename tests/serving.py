"""The application behind its real server, on a port of its own, and clients that read streams."""

import http.client
import threading
import time
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass
from typing import Any

import uvicorn

from nuntius.demonstration import free_port
from nuntius.web.app import BODY
from nuntius.web.gateway import Gateway, WsgiApp
from tests.help import Client


@contextmanager
def served(app: Any) -> Iterator[int]:
    """The port on which a Nuntius application is served, streams included."""
    hub = app.extensions["nuntius_hub"]
    with gateway_on(Gateway(app, BODY, hub.begin, hub.end)) as port:
        try:
            yield port
        finally:
            hub.end()


@contextmanager
def gateway_on(gateway: Gateway) -> Iterator[int]:
    """The port on which a gateway is served."""
    port = free_port()
    config = uvicorn.Config(gateway, port=port, http="h11", proxy_headers=False, log_config=None, access_log=False)
    server = uvicorn.Server(config)
    thread = threading.Thread(target=server.run)
    thread.start()
    while not server.started:
        assert thread.is_alive()
        time.sleep(0.01)
    try:
        yield port
    finally:
        server.should_exit = True
        thread.join(10)
        assert not thread.is_alive()


def plain(app: WsgiApp, most: int = 1000) -> Gateway:
    """A gateway before an application without streams."""
    return Gateway(app, most, lambda: None, lambda: None)


@dataclass
class Stream:
    """An open stream of events."""

    response: http.client.HTTPResponse

    def until(self, text: str) -> str:
        """What comes up to the first event that holds `text`."""
        read = ""
        while text not in read or not read.endswith("\n\n"):
            line = self.response.readline().decode()
            assert line, f"the stream has ended behind {read!r}"
            read += line
        return read

    def rest(self) -> str:
        """What comes until the stream ends."""
        return self.response.read().decode()

    def close(self) -> None:
        self.response.close()


def listen(port: int, client: Client, path: str) -> Stream:
    """Opens a stream as the page of `client` does."""
    connection = http.client.HTTPConnection("127.0.0.1", port, timeout=30)
    cookie = client.raw.get_cookie("nuntius")
    assert cookie is not None
    connection.request("GET", path, headers={"Cookie": f"nuntius={cookie.value}"})
    return Stream(connection.getresponse())

"""The gateway: runs the WSGI application on an asynchronous server, so that no slow client holds a thread.

A request's body is complete before a thread is taken for it, and a long answer takes a thread piece by piece, only as
fast as the client reads. An answer that goes on with news (`web.streams`) holds none.
"""

import asyncio
import contextvars
import logging
import sys
from collections.abc import Awaitable, Callable, Iterator
from concurrent.futures import ThreadPoolExecutor
from tempfile import SpooledTemporaryFile
from typing import IO, Any, TypeAlias, TypeVar
from urllib.parse import unquote_to_bytes

from nuntius.web.streams import SUBSCRIBE, Subscription

log = logging.getLogger(__name__)

THREADS = 48  # requests that are answered at once
IN_MEMORY = 256 * 1024  # bytes of a body; a longer one goes to a file
PIECE = 64 * 1024  # bytes of an answer, at least, that are made in one turn of a thread
PATIENCE = 60.0  # seconds without a byte after which a request is given up

Message: TypeAlias = dict[str, Any]
Receive: TypeAlias = Callable[[], Awaitable[Message]]
Send: TypeAlias = Callable[[Message], Awaitable[None]]
WsgiApp: TypeAlias = Callable[[dict[str, Any], Callable[..., Any]], Any]
T = TypeVar("T")


class ClientGone(Exception):
    """The client has closed the connection, or sends nothing more."""


class Gateway:
    """An ASGI application that answers with a WSGI application.

    `most` is the longest body in bytes that the application accepts; what is longer is cut off one byte later, so that
    the application can refuse it. `begun` and `ended` are called when the server begins and ends.
    """

    def __init__(self, app: WsgiApp, most: int, begun: Callable[[], None], ended: Callable[[], None]) -> None:
        self._app, self._most, self._begun, self._ended = app, most, begun, ended
        self._threads = ThreadPoolExecutor(THREADS, thread_name_prefix="request")

    async def __call__(self, scope: Message, receive: Receive, send: Send) -> None:
        if scope["type"] == "lifespan":
            await self._live(receive, send)
        elif scope["type"] == "http":
            try:
                await self._answer(scope, receive, send)
            except ClientGone:
                log.info("the client left before it was answered")
        else:
            await send({"type": "websocket.close", "code": 1000})

    async def _live(self, receive: Receive, send: Send) -> None:
        while (message := await receive())["type"] != "lifespan.shutdown":
            self._begun()
            await send({"type": f"{message['type']}.complete"})
        self._ended()
        await send({"type": "lifespan.shutdown.complete"})

    async def _answer(self, scope: Message, receive: Receive, send: Send) -> None:
        with SpooledTemporaryFile(max_size=IN_MEMORY) as body:
            size = await _read(receive, body, self._most + 1)
            response = _Response(self._app, _environ(scope, body, size))
            gone = asyncio.ensure_future(receive())  # the only thing that can still come is the end
            try:
                await self._send(response, send, gone)
            finally:
                gone.cancel()
                if not response.closed:
                    await self._in_thread(response.close)

    async def _send(self, response: "_Response", send: Send, gone: "asyncio.Future[Message]") -> None:
        piece = await self._in_thread(response.begin)
        await send({"type": "http.response.start", "status": response.status, "headers": response.headers})
        while not response.ended and not gone.done():
            await send({"type": "http.response.body", "body": piece, "more_body": True})
            piece = await self._in_thread(response.piece)
        subscribe = response.environ.get(SUBSCRIBE)
        if subscribe is not None:
            await send({"type": "http.response.body", "body": piece, "more_body": True})
            piece = b""
            await _go_on(subscribe(), send, gone)
        await send({"type": "http.response.body", "body": piece, "more_body": False})

    async def _in_thread(self, function: Callable[[], T]) -> T:
        return await asyncio.get_running_loop().run_in_executor(self._threads, function)


async def _go_on(subscription: Subscription, send: Send, gone: "asyncio.Future[Message]") -> None:
    """Sends what a subscription gets, until it ends or the client has gone."""
    gone.add_done_callback(lambda _: subscription.end())
    try:
        async for piece in subscription:
            await send({"type": "http.response.body", "body": piece, "more_body": True})
    finally:
        subscription.cancel()


async def _read(receive: Receive, body: IO[bytes], most: int) -> int:
    """Reads a request's body into `body`; how many bytes there are, at most `most`. Raises ClientGone."""
    size, more = 0, True
    while more and size < most:
        try:
            message = await asyncio.wait_for(receive(), PATIENCE)
        except TimeoutError:
            raise ClientGone() from None
        if message["type"] == "http.disconnect":
            raise ClientGone()
        size += body.write(message.get("body", b"")[: most - size])
        more = message.get("more_body", False)
    body.seek(0)
    return size


class _Response:
    """The answer of the application, made piece by piece, each in whatever thread is free."""

    def __init__(self, app: WsgiApp, environ: dict[str, Any]) -> None:
        self._app, self.environ = app, environ
        self._context = contextvars.copy_context()  # the same for all pieces: what made one is known to the next
        self._iterable: Any = ()
        self._pieces: Iterator[bytes] = iter(())
        self.status = 500
        self.headers: list[tuple[bytes, bytes]] = []
        self.ended = self.closed = False

    def begin(self) -> bytes:
        """Asks the application; its first piece."""
        self._iterable = self._context.run(self._app, self.environ, self._start)
        self._pieces = iter(self._iterable)
        return self.piece()

    def piece(self) -> bytes:
        """The next piece; `ended` says whether it is the last. The application is closed behind the last one."""
        made: list[bytes] = []
        size = 0
        while size < PIECE and not self.ended:
            chunk = self._context.run(next, self._pieces, None)
            if chunk is None:
                self.ended = True
            else:
                made.append(chunk)
                size += len(chunk)
        if self.ended:
            self.close()
        return b"".join(made)

    def close(self) -> None:
        self.closed = True
        close = getattr(self._iterable, "close", None)
        if close is not None:
            self._context.run(close)

    def _start(self, status: str, headers: list[tuple[str, str]], exc_info: Any = None) -> Callable[[bytes], None]:
        self.status = int(status.split(" ", 1)[0])
        self.headers = [(name.lower().encode("latin1"), value.encode("latin1")) for name, value in headers]
        return _written


def _written(_: bytes) -> None:
    raise NotImplementedError("the application answers with an iterable (PEP 3333)")


def _environ(scope: Message, body: IO[bytes], size: int) -> dict[str, Any]:
    """The request as PEP 3333 wants it. `size` is the length of the body in bytes as it was read."""
    host, port = scope.get("server") or ("localhost", 80)
    client = scope.get("client") or ("", 0)
    environ: dict[str, Any] = {
        "REQUEST_METHOD": scope["method"],
        "SCRIPT_NAME": "",
        "PATH_INFO": unquote_to_bytes(scope["raw_path"]).decode("latin1"),
        "QUERY_STRING": scope["query_string"].decode("latin1"),
        "SERVER_NAME": host,
        "SERVER_PORT": str(port),
        "SERVER_PROTOCOL": f"HTTP/{scope['http_version']}",
        "REMOTE_ADDR": client[0],
        "REMOTE_PORT": str(client[1]),
        "wsgi.version": (1, 0),
        "wsgi.url_scheme": scope["scheme"],
        "wsgi.input": body,
        "wsgi.input_terminated": True,
        "wsgi.errors": sys.stderr,
        "wsgi.multithread": True,
        "wsgi.multiprocess": False,
        "wsgi.run_once": False,
    }
    for raw, value in scope["headers"]:
        name = raw.decode("latin1").upper()
        if "_" in name:  # it would be taken for the same name with a dash, which a proxy in front may have checked
            continue
        key = name.replace("-", "_")
        key = key if key in ("CONTENT_TYPE", "CONTENT_LENGTH") else f"HTTP_{key}"
        joint = "; " if key == "HTTP_COOKIE" else ","
        text = value.decode("latin1")
        environ[key] = f"{environ[key]}{joint}{text}" if key in environ else text
    if "HTTP_TRANSFER_ENCODING" in environ:
        environ["CONTENT_LENGTH"] = str(size)
    return environ

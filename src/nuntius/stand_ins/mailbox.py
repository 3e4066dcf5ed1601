"""A simulated mail server: takes in any message through SMTP and shows it on a page of its own; nothing leaves."""

import html
import re
from collections import deque
from datetime import datetime
from email import message_from_bytes, policy
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer
from threading import Event, Thread
from typing import Any

from aiosmtpd.controller import Controller
from aiosmtpd.smtp import Envelope

KEPT = 200  # messages
LARGEST = 10 * 1024 * 1024  # bytes of a message
LINK = re.compile(r"https?://[^\s<>\"]+")
PAGE = """<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<meta http-equiv="refresh" content="5"><title>Simulated mailbox</title>
<style>body{font:16px/1.5 system-ui,sans-serif;max-width:720px;margin:2rem auto;padding:0 1rem;color:#1e2a2f;background:#fbfaf6}
h1{font-size:1.4rem;margin:0}h2{font-size:1.05rem;margin:0}article{border:1px solid #dad7cc;border-radius:5px;padding:1rem;margin-top:1rem;background:#fff}
pre{white-space:pre-wrap;overflow-wrap:anywhere;font:inherit;margin:.6rem 0 0}small{color:#56646a}a{color:#1f7a6c}</style>
<h1>Simulated mailbox</h1>
<p>This is no real mail server. It belongs to the demo and shows every message that Nuntius sends, whoever it is for. Nothing leaves this computer.</p>
<main>%s</main></html>"""


class Mailbox:
    """The messages that came in, the newest first; both servers run in threads until `stop`."""

    def __init__(self, host: str, port: int, page_port: int | None = None) -> None:
        self.messages: deque[Any] = deque(maxlen=KEPT)
        self._smtp = Controller(self, hostname=host, port=port, data_size_limit=LARGEST)
        self._pages = ThreadingHTTPServer((host, page_port or port + 1), self._handler())

    def start(self) -> None:
        self._smtp.start()
        Thread(target=self._pages.serve_forever, daemon=True).start()

    def stop(self) -> None:
        self._smtp.stop()
        self._pages.shutdown()
        self._pages.server_close()

    async def handle_DATA(self, server: object, session: object, envelope: Envelope) -> str:
        """Takes a message in."""
        self.messages.appendleft(
            (datetime.now(), message_from_bytes(envelope.original_content or b"", policy=policy.default))
        )
        return "250 Message accepted"

    def page(self) -> bytes:
        """All messages as a page."""
        shown = "".join(_article(at, message) for at, message in list(self.messages)) or "<p>No messages yet.</p>"
        return (PAGE % shown).encode()

    def _handler(self) -> type[BaseHTTPRequestHandler]:
        box = self

        class Page(BaseHTTPRequestHandler):
            def do_GET(self) -> None:
                body = box.page()
                self.send_response(200)
                self.send_header("Content-Type", "text/html; charset=utf-8")
                self.send_header("Content-Security-Policy", "default-src 'none'; style-src 'unsafe-inline'")
                self.send_header("Content-Length", str(len(body)))
                self.end_headers()
                self.wfile.write(body)

            def log_message(self, format: str, *args: object) -> None:
                """Nothing: the page asks every five seconds."""

        return Page


def _article(at: datetime, message: Any) -> str:
    body = message.get_body(("plain",))
    text = html.escape(body.get_content() if body else "")
    linked = LINK.sub(lambda found: f'<a href="{found[0]}">{found[0]}</a>', text)
    head = f"<h2>{html.escape(str(message['Subject'] or ''))}</h2><small>to {html.escape(str(message['To'] or ''))}, {at:%H:%M:%S}</small>"
    return f"<article>{head}<pre>{linked}</pre></article>"


def run(host: str, port: int) -> None:
    """Takes messages in until the process ends."""
    Mailbox(host, port).start()
    Event().wait()

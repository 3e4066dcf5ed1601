"""Answers that go on with news as they happen (server-sent events), without holding a thread.

A route checks who asks, as any other, and answers with `stream`; the gateway goes on with what the subscription gets.
One thread looks for all of them, and only where something was committed.
"""

import asyncio
import logging
import time
from collections.abc import Callable, Sequence
from datetime import timedelta
from functools import partial
from threading import Event, Lock, Thread
from typing import Protocol

from flask import Response, current_app, request
from sqlalchemy.orm import Session

from nuntius.core.errors import Fault
from nuntius.store import sessions
from nuntius.store.database import CommitWatch
from nuntius.store.errors import TooManyStreams
from nuntius.store.installation import Installation
from nuntius.store.models import User
from nuntius.web.security import my_session

log = logging.getLogger(__name__)

LOOK = 0.1  # seconds between two looks
SESSION = 5.0  # seconds between two looks whether the sessions still last: a stream ends with its session
QUIET = 10.0  # seconds without news after which a comment is sent, so that a lost connection is noticed
MOST = 6  # streams of one person: as many connections as a browser opens to one server
BACKLOG = 200  # events that wait for a slow client; with more its stream ends, and it comes back for the whole state
SUBSCRIBE = "nuntius.subscribe"  # where the gateway finds how an answer goes on
BEGIN = "retry: 1000\n\n"  # milliseconds after which a browser comes back


class Subscription:
    """What one listener gets, in order, until it ends. `sent` is for the feed: what it sent last, by name of the event."""

    def __init__(self, user: User, token: str, topic: str, cancel: Callable[["Subscription"], None]) -> None:
        self.user, self.token, self.topic = user, token, topic
        self.sent: dict[str, str] = {}
        self.fresh = True  # until the feed has sent the whole state
        self._cancel = partial(cancel, self)
        self._loop = asyncio.get_running_loop()
        self._waiting: asyncio.Queue[str | None] = asyncio.Queue()

    def offer(self, event: str, data: str) -> None:
        """Sends an event, from any thread."""
        self._put(f"event: {event}\ndata: {data}\n\n")

    def end(self) -> None:
        """Ends the stream behind what was offered, from any thread."""
        self._put(None)

    def cancel(self) -> None:
        """Nobody listens any more."""
        self._cancel()

    def _put(self, text: str | None) -> None:
        try:
            self._loop.call_soon_threadsafe(self._add, text)
        except RuntimeError:
            log.debug("the server has ended")

    def _add(self, text: str | None) -> None:
        """Keeps an event until it is sent; nothing more for a client that has stopped reading."""
        if self._waiting.qsize() <= BACKLOG:
            self._waiting.put_nowait(text)

    def __aiter__(self) -> "Subscription":
        return self

    async def __anext__(self) -> bytes:
        if self._waiting.qsize() > BACKLOG:
            raise StopAsyncIteration
        try:
            text = await asyncio.wait_for(self._waiting.get(), QUIET)
        except TimeoutError:
            return b": nothing new\n\n"
        if text is None:
            raise StopAsyncIteration
        return text.encode()


class Feed(Protocol):
    """Finds out what is new to those who listen to it."""

    def look(self, session: Session, listeners: Sequence[Subscription]) -> bool:
        """Offers each listener what is new to it; whether to look again even if nothing is committed."""
        ...


class Hub:
    """All subscriptions, and the thread that looks for them."""

    def __init__(self, store: Installation, feeds: dict[str, Feed]) -> None:
        self._store, self._feeds = store, feeds
        self._listeners: list[tuple[str, Subscription]] = []
        self._lock, self._ended = Lock(), Event()
        self._thread = Thread(target=self._run, name="streams", daemon=True)

    def begin(self) -> None:
        self._thread.start()

    def end(self) -> None:
        """Ends all streams."""
        self._ended.set()
        for _, listener in self._all():
            listener.end()

    def check_room(self, user: User) -> None:
        """Raises TooManyStreams where `user` listens as often as is allowed already."""
        if sum(listener.user.id == user.id for _, listener in self._all()) >= MOST:
            raise TooManyStreams()

    def subscribe(self, feed: str, user: User, token: str, topic: str) -> Subscription:
        """A new listener to `feed`; to be called where the event loop runs."""
        subscription = Subscription(user, token, topic, self._drop)
        with self._lock:
            self._listeners.append((feed, subscription))
        return subscription

    def _drop(self, subscription: Subscription) -> None:
        with self._lock:
            self._listeners = [each for each in self._listeners if each[1] is not subscription]

    def _all(self) -> list[tuple[str, Subscription]]:
        with self._lock:
            return list(self._listeners)

    def _run(self) -> None:
        watch, again, checked = CommitWatch(self._store.database.path), False, time.monotonic()
        while not self._ended.wait(LOOK):
            listeners = self._all()
            if not listeners:
                continue
            try:
                if time.monotonic() - checked > SESSION:
                    checked = time.monotonic()
                    self._end_signed_out([listener for _, listener in listeners])
                if watch.moved() or again or any(listener.fresh for _, listener in listeners):
                    again = self._look(listeners)
            except Fault as fault:  # a busy database: the next look finds what this one has missed
                log.warning("streams wait", extra={"fault": type(fault).__name__})
                again = True
            except Exception:
                log.exception("streams failed to look")
                again = True

    def _look(self, listeners: list[tuple[str, Subscription]]) -> bool:
        again = False
        for name, feed in self._feeds.items():
            with self._store.database.read() as session:
                again |= feed.look(session, [listener for of, listener in listeners if of == name])
        return again

    def _end_signed_out(self, listeners: list[Subscription]) -> None:
        settings = self._store.settings
        limits = timedelta(hours=settings.idle_hours), timedelta(days=settings.session_days)
        with self._store.database.read() as session:
            lasting = sessions.lasting(session, {listener.token for listener in listeners}, *limits)
        for listener in listeners:
            if listener.token not in lasting:
                listener.end()


def stream(feed: str, topic: str = "") -> Response:
    """The answer to whoever is signed in that goes on with the news of `feed` about `topic`. Raises TooManyStreams."""
    hub: Hub = current_app.extensions["nuntius_hub"]
    who = my_session()
    hub.check_room(who.user)
    request.environ[SUBSCRIBE] = lambda: hub.subscribe(feed, who.user, who.get_id(), topic)
    headers = {"Cache-Control": "no-store", "X-Accel-Buffering": "no"}
    return Response(iter([BEGIN]), content_type="text/event-stream", headers=headers)

"""Whether the present thread is inside a database session: work on files, models and the network must not be."""

from collections.abc import Iterator
from contextlib import contextmanager
from contextvars import ContextVar

_held: ContextVar[str] = ContextVar("held", default="")


class SlowInsideTransaction(AssertionError):
    """Work that may take long was begun while a transaction is open: everybody else would wait for it."""


@contextmanager
def marked(kind: str) -> Iterator[None]:
    """Marks what runs inside as part of a transaction of this kind: `read` or `write`."""
    token = _held.set(kind)
    try:
        yield
    finally:
        _held.reset(token)


def outside(what: str) -> None:
    """Raises SlowInsideTransaction where a transaction is open; `what` names the work."""
    if _held.get():
        raise SlowInsideTransaction(f"{what} inside a {_held.get()} transaction")

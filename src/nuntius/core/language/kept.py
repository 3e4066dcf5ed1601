"""Results kept by their text, the ones used last: a meeting that grows is not read anew from its beginning."""

from collections.abc import Callable, Sequence
from threading import Lock
from typing import Generic, TypeVar

T = TypeVar("T")


class Kept(Generic[T]):
    """At most `most` results by text; the longest unused go first. Safe between threads."""

    def __init__(self, most: int) -> None:
        self._most, self._lock = most, Lock()
        self._results: dict[str, T] = {}

    def __call__(self, texts: Sequence[str], make: Callable[[list[str]], Sequence[T]]) -> list[T]:
        """The result of each text; `make` is asked once for all those that are not kept."""
        with self._lock:
            found = {text: self._results.pop(text) for text in dict.fromkeys(texts) if text in self._results}
            self._results.update(found)
        missing = [text for text in dict.fromkeys(texts) if text not in found]
        made = dict(zip(missing, make(missing), strict=True)) if missing else {}
        with self._lock:
            self._results.update(made)
            for old in list(self._results)[: max(0, len(self._results) - self._most)]:
                del self._results[old]
        found.update(made)
        return [found[text] for text in texts]

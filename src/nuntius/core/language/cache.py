"""Results kept by what they are of, the ones used last: a meeting that grows is not read again from its beginning."""

from collections.abc import Callable, Hashable, Sequence
from threading import Lock
from typing import Generic, TypeVar

K = TypeVar("K", bound=Hashable)  # what a result is of, such as a text
T = TypeVar("T")


class Kept(Generic[K, T]):
    """At most `most` results by what they are of; the longest unused go first. Safe between threads."""

    def __init__(self, most: int) -> None:
        self._most, self._lock = most, Lock()
        self._results: dict[K, T] = {}

    def __call__(self, of: Sequence[K], make: Callable[[list[K]], Sequence[T]]) -> list[T]:
        """The result of each; `make` is asked once for all those that are not kept."""
        with self._lock:
            found = {each: self._results.pop(each) for each in dict.fromkeys(of) if each in self._results}
            self._results.update(found)
        missing = [each for each in dict.fromkeys(of) if each not in found]
        made = dict(zip(missing, make(missing), strict=True)) if missing else {}
        with self._lock:
            self._results.update(made)
            for old in list(self._results)[: max(0, len(self._results) - self._most)]:
                del self._results[old]
        found.update(made)
        return [found[each] for each in of]

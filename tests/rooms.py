"""A room over the API, and a page that records in it."""

import hashlib
from dataclasses import dataclass
from typing import Any, cast

import numpy as np

from nuntius.core.audio.decode import RATE
from nuntius.core.live.line import LiveLine
from nuntius.store.capture import breaks_of, joined, pieces
from nuntius.store.live import add_lines
from nuntius.store.rooms import room_of
from tests.help import Answer, Client, Desk, tone

PART = RATE  # bytes: half a second of 16-bit samples
ME = "recorder-of-maren"


@dataclass
class RoomDesk:
    """A room and a page that records in it."""

    desk: Desk
    client: Client
    meeting: str
    recorder: str = ME
    run: int = 0

    @property
    def base(self) -> str:
        return f"/api/meetings/{self.meeting}/room"

    def board(self) -> dict[str, Any]:
        return self.client.get(self.base).json["board"]  # type: ignore[no-any-return]

    def announce(self) -> None:
        assert self.client.put(f"{self.base}/announced", {"announced": True}).status_code == 200

    def begin(self, **more: Any) -> Answer:
        answer = self.client.post(f"{self.base}/runs", {"recorder": self.recorder, "source": "microphone", **more})
        self.run = answer.json.get("number", self.run)
        return answer

    def put(
        self,
        number: int,
        data: bytes,
        digest: str | None = None,
        begun: float | None = None,
        earliest: int | str | None = None,
    ) -> Answer:
        headers = {
            "X-CSRF-Token": self.client.token,
            "X-Recorder": self.recorder,
            "X-Part-SHA256": digest or hashlib.sha256(data).hexdigest(),
            **({} if begun is None else {"X-Begun": str(begun)}),
            **({} if earliest is None else {"X-Earliest": str(earliest).encode().decode("latin-1")}),
        }
        path = f"{self.base}/runs/{self.run}/parts/{number}"
        return cast(Answer, self.client.raw.put(path, data=data, headers=headers))

    def send(self, parts: int, begun: float = 1000.0, first: int = 0) -> None:
        for number in range(first, first + parts):
            assert self.put(number, sound(number), begun=begun if number == 0 else None).status_code == 200

    def end(self, how: str, parts: int) -> Answer:
        return self.client.post(f"{self.base}/runs/{self.run}/{how}", {"recorder": self.recorder, "parts": parts})

    def held(self) -> np.ndarray:
        with self.desk.installation.database.read() as session:
            room = room_of(session, self.meeting)
            assert room is not None
            parts = pieces(session, room)
        return np.frombuffer(b"".join(joined(self.desk.installation.files, parts)), "<i2")

    def breaks(self) -> list[tuple[str, float, float | None]]:
        with self.desk.installation.database.read() as session:
            return [(b.kind, b.at, b.seconds) for b in breaks_of(session, self.meeting)]

    def hear(self, *lines: tuple[float, float, str]) -> None:
        """Lines as the listener would write them."""
        with self.desk.installation.database.write() as session:
            room = room_of(session, self.meeting)
            assert room is not None
            add_lines(session, room, [LiveLine(*line) for line in lines])


def sound(number: int) -> bytes:
    """Half a second that can be told from every other part."""
    return bytes((tone(0.5, 200 + 20 * number) * 32767).astype("<i2").tobytes())

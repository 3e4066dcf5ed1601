"""Makers of sound and talk for tests, and a desk: server, client and worker in one process."""

import hashlib
import json
import wave
from collections.abc import Sequence
from datetime import date, time
from pathlib import Path
from typing import Any, cast

import numpy as np
from flask.testing import FlaskClient
from huey import MemoryHuey
from numpy.typing import NDArray
from werkzeug.test import TestResponse

from nuntius.core.jobs import Lane
from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.line import Line, MeetingFacts
from nuntius.core.rights import Role
from nuntius.core.transcript.transcript import Transcript, in_order
from nuntius.core.transcript.turn import Turn
from nuntius.core.transcript.word import spread
from nuntius.jobs.queue import Queue
from nuntius.settings import Settings
from nuntius.store.accounts import create_account, create_workspace, give_account
from nuntius.store.installation import Installation
from nuntius.store.people import named_person
from nuntius.web.app import create_app

ROOT = Path(__file__).parents[1]  # of the repository
MAREN, PASSWORD = "maren@saltmarsh.example", "low water at noon"
VOICES = {"A": "Ann Lowe", "B": "Ben Hart", "C": "Cleo Dunn", "D": "Joan Pike"}  # of short exchanges


def tone(seconds: float, hertz: float = 440.0, rate: int = 16_000, level: float = 0.3) -> NDArray[np.float32]:
    """A sine of `seconds` at `level` of full scale."""
    at = np.arange(round(seconds * rate)) / rate
    return (level * np.sin(2 * np.pi * hertz * at)).astype(np.float32)


def write_wav(path: Path, samples: NDArray[np.float32], rate: int, channels: int = 1) -> None:
    with wave.open(str(path), "wb") as file:
        file.setnchannels(channels)
        file.setsampwidth(2)
        file.setframerate(rate)
        file.writeframes((samples * 32767).astype("<i2").tobytes())


def talk(*rows: tuple[str, str], pace: float = 2.5, gap: float = 0.4) -> Transcript:
    """A transcript of (speaker, words) rows at `pace` words a second."""
    turns, clock = [], 0.0
    for speaker, words in rows:
        end = clock + len(words.split()) / pace
        turns.append(Turn(speaker, spread(words, clock, end)))
        clock = end + gap
    return in_order(turns)


def exchanges(name: str) -> list[str]:
    """The short exchanges of a file beside the tests of the core, one behind another between `--`."""
    return (ROOT / "tests/core/minutes" / name).read_text().strip().split("\n--\n")


def lines_of(rows: Sequence[str], kind: str) -> list[Line]:
    """Standing lines of the minutes of an exchange (`A: Could you ring him?`), said on Wednesday 6 May 2026 at two."""
    facts = MeetingFacts(date(2026, 5, 6), tuple(VOICES.values()), begun=time(14, 0))
    lines = make_minutes(talk(*((VOICES[row[0]], row[3:]) for row in rows)), facts).lines
    return [line for line in lines if line.kind == kind and line.state != "superseded"]


def four_hours() -> Transcript:
    """Four hours of talk: 3,000 turns, 36,000 words."""
    words = "the slipway needs new rails before the winter boats come again"
    turns = [Turn(f"Voice {'ABCDE'[i % 5]}", spread(f"{words} {i}", i * 4.8, i * 4.8 + 4.2)) for i in range(3000)]
    return in_order(turns)


def in_memory(_: Settings, lane: Lane) -> MemoryHuey:
    """A queue that is worked off by `Desk.work`."""
    return MemoryHuey(lane)


class Answer(TestResponse):
    """What the server answers; a test looks into its JSON without asking first whether there is any."""

    @property
    def json(self) -> Any:
        return super().json


class Desk:
    """A server, a client signed in as Maren, and a worker that runs when asked."""

    def __init__(self, installation: Installation, queue: Queue) -> None:
        self.installation, self.queue = installation, queue
        self.app = create_app(installation.settings, queue)
        with installation.database.write() as session:
            self.workspace = create_workspace(session, "Saltmarsh Ferry Cooperative", "Europe/London")
            create_account(session, self.workspace, "Maren Tull", MAREN, PASSWORD, Role.ADMINISTRATOR)
        self.client = self.sign_in(MAREN, PASSWORD)

    def stranger(self) -> "Client":
        return Client(self.app.test_client())

    def sign_in(self, email: str, password: str) -> "Client":
        client = self.stranger()
        response = client.post("/api/session", {"email": email, "password": password})
        assert response.status_code == 200, response.text
        client.token = response.json["csrf"]
        return client

    def account(self, name: str, email: str) -> "Client":
        """Another account of the same workspace, a member's, signed in; of the person of this name, where there is one."""
        with self.installation.database.write() as session:
            person = named_person(session, self.workspace.id, name)
            give_account(session, person, email, PASSWORD, Role.MEMBER)
        return self.sign_in(email, PASSWORD)

    def work(self) -> None:
        """Works off what waits in the queue, as the worker would."""
        for lane in Lane:
            self.work_off(lane)

    def work_off(self, lane: Lane) -> None:
        """Works off what waits in one lane."""
        queue = self.queue.lanes[lane]
        while (task := queue.dequeue()) is not None:
            queue.execute(task)

    def bring_in(
        self,
        path: Path,
        title: str = "Winter timetable",
        people: tuple[str, ...] = (),
        client: "Client | None" = None,
        beside: dict[Path, str] | None = None,
        sent: int | None = None,
    ) -> str:
        """Uploads a file as the pages do; the meeting's identifier. The work is queued, not done.

        `beside` are files that go with it, by what they are; with `sent` only so many files arrive, and nothing begins.
        """
        client = client or self.client
        files = [path, *(beside or {})]
        uploads = [
            self._upload(client, each, number < (len(files) if sent is None else sent))
            for number, each in enumerate(files)
        ]
        meeting = client.post(
            "/api/meetings",
            {
                "title": title,
                "kind": "committee",
                "starts_at": "2026-10-06T09:30:00",
                "time_zone": "Europe/London",
                "people": list(people),
                "upload_id": uploads[0],
                "beside": [
                    {"upload_id": u, "role": r} for u, r in zip(uploads[1:], (beside or {}).values(), strict=True)
                ],
            },
        ).json
        if sent is None:
            assert client.post(f"/api/meetings/{meeting['id']}/begin").status_code == 200
        return str(meeting["id"])

    def _upload(self, client: "Client", path: Path, send: bool) -> str:
        data = path.read_bytes()
        body = {"name": path.name, "size": len(data), "fingerprint": fingerprint(data)}
        upload = client.post("/api/uploads", body).json
        for number, part in enumerate(parts(data, upload["part_size"]) if send else ()):
            assert client.put_part(upload["id"], number, part).status_code == 200
        return str(upload["id"])

    def export(self, path: str, body: dict[str, Any]) -> Answer:
        """Asks for a file, lets the worker make it, and fetches it; the answer that refuses it where it is refused."""
        ordered = self.client.post(path, body)
        if ordered.status_code != 200:
            return ordered
        self.work()
        return self.client.get(f"/api/exports/{ordered.json['id']}/file")

    def ask(self, path: str, question: str | None = None) -> dict[str, Any]:
        """What the worker makes of a question, or of the wish for a brief."""
        ordered = self.client.post(path, {"question": question} if question else {})
        assert ordered.status_code == 200, ordered.text
        self.work_off(Lane.ANSWER)
        what = "reply" if question else "brief"
        answer = self.client.get(f"/api/exports/{ordered.json['id']}/{what}")
        assert answer.status_code == 200, self.client.get(f"/api/exports/{ordered.json['id']}").text
        return answer.json  # type: ignore[no-any-return]

    def misheard(self, meeting_id: str) -> list[dict[str, Any]]:
        """What the worker finds that may be misheard."""
        ordered = self.client.post(f"/api/meetings/{meeting_id}/misheard/search")
        self.work_off(Lane.ANSWER)
        return self.client.get(f"/api/exports/{ordered.json['id']}/misheard").json["found"]  # type: ignore[no-any-return]

    def remade(self, meeting_id: str, **choices: Any) -> dict[str, Any]:
        """The record after its minutes were written again."""
        ordered = self.client.post(f"/api/meetings/{meeting_id}/minutes", choices)
        assert ordered.status_code == 200, ordered.text
        self.work()
        return self.record(meeting_id)

    def record(self, meeting_id: str) -> dict[str, Any]:
        return self.client.get(f"/api/meetings/{meeting_id}").json  # type: ignore[no-any-return]


class Client:
    """The test client with the token that every change needs."""

    def __init__(self, client: FlaskClient) -> None:
        self.raw = client
        self.token = self.get("/api/session").json["csrf"]

    def get(self, path: str, **more: Any) -> Answer:
        return cast(Answer, self.raw.get(path, **more))

    def send(self, method: str, path: str, body: object = None, **headers: str) -> Answer:
        sent = {"X-CSRF-Token": self.token, **headers}
        return cast(Answer, self.raw.open(path, method=method, json=body, headers=sent))

    def post(self, path: str, body: object = None) -> Answer:
        return self.send("POST", path, body)

    def put(self, path: str, body: object) -> Answer:
        return self.send("PUT", path, body)

    def put_part(self, upload: str, number: int, data: bytes, digest: str | None = None) -> Answer:
        headers = {"X-CSRF-Token": self.token, "X-Part-SHA256": digest or hashlib.sha256(data).hexdigest()}
        return cast(Answer, self.raw.put(f"/api/uploads/{upload}/parts/{number}", data=data, headers=headers))


def parts(data: bytes, size: int) -> list[bytes]:
    return [data[i : i + size] for i in range(0, len(data), size)]


def fingerprint(data: bytes, size: int = 4 * 1024 * 1024) -> str:
    """SHA-256 over the hex digests of the parts, as the page computes it."""
    return hashlib.sha256("".join(hashlib.sha256(p).hexdigest() for p in parts(data, size)).encode()).hexdigest()


def script(path: Path, *rows: tuple[str, float, float, str]) -> None:
    """A script for the scripted recogniser: (speaker, start, end, words) rows."""
    turns = [{"speaker": s, "start": a, "end": b, "text": t} for s, a, b, t in rows]
    path.write_text(json.dumps({"turns": turns}))

"""Measures a meeting being recorded: how soon words appear, what it costs, and how soon minutes follow.

    python bench/room.py [--minutes N] [--rooms N] [--after M]

The demo's meetings, of which every word's time is known, are sent as a browser would send them, in real time. With
`--after M` the first M minutes are sent at once and listened to as fast as possible; the rest is then measured in
real time, as it is at minute M of a long meeting.
"""

import argparse
import hashlib
import http.cookiejar
import json
import os
import subprocess
import sys
import threading
import time
import urllib.error
import urllib.request
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field, replace
from difflib import SequenceMatcher
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

import numpy as np

HERE = Path(__file__).parent
sys.path[:0] = [str(HERE.parent), str(HERE)]

from run import DEMO, Figure  # noqa: E402

from nuntius.core.audio.decode import RATE, Samples, load  # noqa: E402
from nuntius.core.audio.pcm import to_bytes  # noqa: E402
from nuntius.core.transcript.word import Word, spread  # noqa: E402
from nuntius.demonstration import EMAIL, PASSWORD, free_port, seed, wait_for  # noqa: E402
from nuntius.settings import Settings  # noqa: E402
from nuntius.store.installation import Installation  # noqa: E402

PART = 0.5  # seconds of a part
NAMES = ("winter-timetable", "engine-room", "ticket-machine")


class Client:
    """A person who is signed in, as plain requests."""

    def __init__(self, address: str) -> None:
        self.address, self.token = address, ""
        self._open = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(http.cookiejar.CookieJar())).open
        self.token = self.get("/api/session")["csrf"]
        self.token = self.send("POST", "/api/session", {"email": EMAIL, "password": PASSWORD})["csrf"]

    def get(self, path: str) -> Any:
        return json.load(self._open(self.address + path))

    def send(self, method: str, path: str, body: object = None) -> Any:
        return self.raw(method, path, json.dumps(body).encode(), {"Content-Type": "application/json"})

    def raw(self, method: str, path: str, data: bytes, headers: dict[str, str]) -> Any:
        headers = {"X-CSRF-Token": self.token, "Content-Type": "application/octet-stream", **headers}
        return json.load(self._open(urllib.request.Request(self.address + path, data, headers, method=method)))

    def events(self, path: str) -> Iterator[tuple[str, Any]]:
        """Events as they come, again and again."""
        while True:
            name = ""
            try:
                for raw in self._open(self.address + path):
                    line = raw.decode().rstrip("\n")
                    if line.startswith("event: "):
                        name = line[7:]
                    elif line.startswith("data: "):
                        yield name, json.loads(line[6:])
            except OSError:
                time.sleep(0.5)


def brief(client: Client, meeting: str) -> None:
    """Asks for a brief and waits until it is there."""
    ordered = client.send("POST", f"/api/meetings/{meeting}/room/brief", {})
    while client.get(f"/api/exports/{ordered['id']}")["state"] in ("waiting", "working"):
        time.sleep(0.02)
    client.get(f"/api/exports/{ordered['id']}/brief")


@dataclass
class Talk:
    """Sound with the true time of each word."""

    sound: Samples
    words: list[Word] = field(default_factory=list)


def talk(seconds: float) -> Talk:
    """The demo's meetings one after the other, again and again, up to `seconds`."""
    parts: list[Samples] = []
    words: list[Word] = []
    at = 0.0
    while at < seconds:
        for name in NAMES:
            sound = load(DEMO / f"{name}.ogg")
            for turn in json.loads((DEMO / f"{name}.truth.json").read_text())["turns"]:
                words += spread(turn["text"], at + turn["start"], at + turn["end"])
            parts.append(sound)
            at += len(sound) / RATE
    sound = np.concatenate(parts)[: round(seconds * RATE)]
    return Talk(sound, [word for word in words if word.end < seconds])


@dataclass
class Watched:
    """What a watcher saw, with the clock's time of each sight."""

    shown: list[tuple[float, int]] = field(default_factory=list)  # moment, words on the page
    settled: list[tuple[float, int]] = field(default_factory=list)  # moment, words in settled lines
    lines: dict[int, tuple[float, str]] = field(default_factory=dict)  # number: start, text
    behind: float = 0.0

    def follow(self, client: Client, meeting: str) -> None:
        partial = ""
        for name, body in client.events(f"/api/meetings/{meeting}/room/events"):
            moment = time.time()
            if name == "lines":
                self.lines.update({line["number"]: (line["start"], line["text"]) for line in body})
            elif name == "speech":
                partial, self.behind = body["partial"], max(self.behind, body["behind"])
                if body["state"] == "stopped":
                    return
            words = sum(len(text.split()) for _, text in self.lines.values())
            self.settled.append((moment, words))
            self.shown.append((moment, words + len(partial.split())))


def record(client: Client, meeting: str, sound: Samples, after: float) -> tuple[float, float]:
    """Sends sound as a browser does; the clock's time at which its first sample was, or would have been, spoken.

    The first `after` seconds go at once; the rest goes in real time when they have been listened to.
    """
    client.send("PUT", f"/api/meetings/{meeting}/room/announced", {"announced": True})
    body = {"recorder": "bench-recorder", "source": "microphone"}
    run = client.send("POST", f"/api/meetings/{meeting}/room/runs", body)["number"]
    begun, size = time.time(), round(PART * RATE)
    count = -(-len(sound) // size)
    for number in range(count):
        data = to_bytes(sound[number * size : (number + 1) * size])
        if number * PART == after > 0:
            while client.get(f"/api/meetings/{meeting}/room")["speech"]["behind"] > 1:
                time.sleep(1)
            begun = time.time() - after
        if number * PART >= after:
            time.sleep(max(0.0, begun + (number + 1) * PART - time.time()))
        headers = {
            "X-Recorder": "bench-recorder",
            "X-Part-SHA256": hashlib.sha256(data).hexdigest(),
            "X-Begun": str(begun),
        }
        client.raw("PUT", f"/api/meetings/{meeting}/room/runs/{run}/parts/{number}", data, headers)
    client.send("POST", f"/api/meetings/{meeting}/room/runs/{run}/stop", {"recorder": "bench-recorder", "parts": count})
    return begun, time.time()


def latencies(watched: Watched, truth: list[Word], begun: float, after: float) -> tuple[list[float], list[float]]:
    """Seconds from the true end of a word to its first sight, and from the end of a line to its settling.

    Of what was said from `after` seconds on.
    """
    ordered = sorted(watched.lines.values())
    early = sum(len(text.split()) for start, text in ordered if start < after)
    lines = [text.split() for start, text in ordered if start >= after]
    truth = [word for word in truth if word.end >= after - 5]
    plain = [word.lower().strip(".,?!") for line in lines for word in line]
    blocks = SequenceMatcher(None, plain, [w.text.lower().strip(".,?!") for w in truth], autojunk=False)
    true_end = {b.a + i: truth[b.b + i].end for b in blocks.get_matching_blocks() for i in range(b.size)}
    late = {at: end for at, end in true_end.items() if end > after + 2}
    words = [seen - begun - end for at, end in late.items() if (seen := first(watched.shown, early + at + 1))]
    ends = np.cumsum([len(line) for line in lines]) - 1
    settled = [
        seen - begun - late[at] for at in ends if at in late and (seen := first(watched.settled, early + at + 1))
    ]
    return words, settled


def first(series: list[tuple[float, int]], count: int) -> float | None:
    """The moment at which so many words were there for the first time."""
    return next((moment for moment, words in series if words >= count), None)


@contextmanager
def site() -> Iterator[tuple[str, dict[str, subprocess.Popen[bytes]]]]:
    """A server, a worker and a listener with the demo's data."""
    with TemporaryDirectory() as folder:
        settings = replace(Settings.from_environment({}), data=Path(folder), port=free_port())
        installation = Installation(settings)
        seed(installation)
        installation.database.close()
        environment = {**os.environ, "NUNTIUS_DATA": folder, "NUNTIUS_PORT": str(settings.port)}
        log = (HERE / "out" / "room.log").open("w")
        made = {
            part: subprocess.Popen([sys.executable, "-m", "nuntius", part], env=environment, stderr=log)
            for part in ("serve", "listen")
        }
        address = f"http://127.0.0.1:{settings.port}"
        try:
            wait_for(f"{address}/api/health")
            yield address, made
        finally:
            for process in made.values():
                process.terminate()
            for process in made.values():
                process.wait()


def used(process: subprocess.Popen[bytes]) -> tuple[float, float]:
    """Processor seconds and megabytes at the peak of a process and its children."""
    seconds, peak = 0.0, 0.0
    for pid in [process.pid, *children(process.pid)]:
        try:
            stat = Path(f"/proc/{pid}/stat").read_text().rsplit(")", 1)[1].split()
            status = Path(f"/proc/{pid}/status").read_text()
        except OSError:
            continue
        seconds += (int(stat[11]) + int(stat[12])) / os.sysconf("SC_CLK_TCK")
        peak += int(next(line for line in status.splitlines() if line.startswith("VmHWM")).split()[1]) / 1024
    return seconds, peak


def children(pid: int) -> list[int]:
    listed = Path(f"/proc/{pid}/task/{pid}/children")
    return [int(child) for child in listed.read_text().split()] if listed.exists() else []


def caught_up(client: Client, meeting: str) -> float:
    """Seconds that have been listened to."""
    speech = client.get(f"/api/meetings/{meeting}/room")["speech"]
    return float(speech["duration"] - speech["behind"])


def share(values: list[float], of: float) -> float:
    return float(np.percentile(values, of)) if values else float("nan")


def main() -> None:
    arguments = argparse.ArgumentParser()
    arguments.add_argument("--minutes", type=float, default=3.3)
    arguments.add_argument("--rooms", type=int, default=1)
    arguments.add_argument("--after", type=float, default=0.0)
    chosen = arguments.parse_args()
    (HERE / "out").mkdir(exist_ok=True)
    spoken = talk(chosen.minutes * 60)
    with site() as (address, processes):
        client = Client(address)
        meetings = [
            client.send("POST", "/api/rooms", {"title": f"Bench {i}", "people": ["Ines Carvell"]})["board"]["meeting"][
                "id"
            ]
            for i in range(chosen.rooms)
        ]
        watched = [Watched() for _ in meetings]
        for meeting, each in zip(meetings, watched, strict=True):
            threading.Thread(target=each.follow, args=(client, meeting), daemon=True).start()
        after = chosen.after * 60
        times: list[tuple[float, float]] = []  # of each meeting: when it began, when it was stopped
        threads = [
            threading.Thread(target=lambda m=m: times.append(record(client, m, spoken.sound, after))) for m in meetings
        ]
        briefs: list[float] = []
        for thread in threads:
            thread.start()
        while after and any(caught_up(client, m) < after for m in meetings):
            time.sleep(2)
        for each in watched:
            each.behind = 0.0
        before, clock = {name: used(process)[0] for name, process in processes.items()}, time.time()
        while alive := [thread for thread in threads if thread.is_alive()]:
            alive[0].join(20)
            if alive[0].is_alive():
                asked = time.time()
                brief(client, meetings[0])
                briefs.append(time.time() - asked)
        begun, stopped = times[0]
        while not client.get(f"/api/meetings/{meetings[0]}")["minutes"]:
            time.sleep(0.1)
        ready = time.time() - stopped
        spent = {name: (used(process)[0] - before[name], used(process)[1]) for name, process in processes.items()}
        for each in watched:
            words, lines = latencies(each, spoken.words, begun, after)
            print(Figure("a word from its end to the page, median", share(words, 50)))
            print(Figure("a word from its end to the page, p95", share(words, 95), most=2.0))
            print(Figure("a line from its end to settled, median", share(lines, 50)))
            print(Figure("a line from its end to settled, p95", share(lines, 95), most=3.0))
            print(Figure("live text behind, at most", each.behind))
        print(Figure("minutes after the stop", ready, most=5.0))
        print(Figure("brief, slowest", max(briefs, default=0.0), most=2.0))
        for name, (seconds, peak) in spent.items():
            print(Figure(f"{name}: processors on average", seconds / (time.time() - clock), "core", 1.0))
            print(Figure(f"{name}: peak of memory", peak, "MB"))


if __name__ == "__main__":
    main()

"""The demo: the Saltmarsh Ferry Cooperative, its people and three meetings, and one command to run it all."""

import json
import os
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.request
from collections.abc import Callable
from contextlib import ExitStack
from datetime import datetime
from pathlib import Path
from zoneinfo import ZoneInfo

from sqlalchemy.orm import Session

from nuntius.core.errors import PortTaken
from nuntius.core.jobs import JobState
from nuntius.core.live.agenda import AgendaItem
from nuntius.core.rights import Role
from nuntius.core.rooms import CallState
from nuntius.core.transcript.transcript import in_order
from nuntius.core.transcript.turn import Turn
from nuntius.jobs import steps
from nuntius.settings import Settings
from nuntius.store.accounts import any_account, create_account, create_workspace
from nuntius.store.changes import name_voice
from nuntius.store.installation import Installation
from nuntius.store.jobs import create_job
from nuntius.store.meetings import create_meeting
from nuntius.store.models import Meeting, Recording, Room, User, now
from nuntius.store.people import named_person
from nuntius.store.rooms import open_room, touch
from nuntius.store.templates import save_template
from nuntius.store.transcripts import load_transcript, save_transcript, speakers_of, unpacked
from nuntius.store.vocabulary import add_term

FILES = Path(__file__).parents[2] / "demo"
EMAIL, PASSWORD = "maren@saltmarsh.example", "low water at noon"
ZONE = "Europe/London"
CAST = {
    "Maren": "Maren Tull",
    "Tobias": "Tobias Pryce",
    "Ines": "Ines Carvell",
    "Douglas": "Douglas Hale",
    "Priya": "Priya Nand",
}
PARTS = ("serve", "worker", "listen", "bridge", "mailbox")
PLAYED = "winter-timetable"  # the meeting that is played through the bridge
AGENDA = (("Winter timetable", 70), ("Slipway", 80), ("School contract", 60))  # titles, planned seconds
NAMED = ("winter-timetable",)  # where the voices have been named already; the others wait for the visitor
TERMS = ("Heron", "Curlew", "Hollin Bay")  # the boats, and where they go
OWN_TEMPLATE = {
    "name": "crew meeting",
    "sections": [
        {"title": "Decisions", "kinds": ["decision"]},
        {"title": "Actions", "kinds": ["action"]},
        {"title": "The boats", "words": ["heron", "curlew", "engine", "slipway"], "most": 12},
        {"title": "Still open", "kinds": ["open_question"]},
        {"title": "What was said", "kinds": ["key_point", "risk", "question"], "group": "chapter"},
    ],
    "labels": ["decided", "boat", "worry"],
    "agenda": ["Since the last time", "The boats", "The crew"],
    "questions": ["Which boat is out of service?", "What is left for me to do?"],
}


def seed(installation: Installation, say: Callable[[str], None] = lambda _: None) -> None:
    """Fills an empty installation with the demo; leaves any other as it is."""
    with installation.database.read() as session:
        if any_account(session):
            return
    with installation.database.write() as session:
        workspace = create_workspace(session, "Saltmarsh Ferry Cooperative", ZONE)
        user = create_account(session, workspace, CAST["Maren"], EMAIL, PASSWORD, Role.ADMINISTRATOR)
        for name in CAST.values():
            named_person(session, workspace.id, name)
        for term in TERMS:
            add_term(session, user, term, [])
        save_template(session, user, None, OWN_TEMPLATE)
    for path in sorted((FILES / "worked").glob("*.json")):
        say(f"Preparing the demo meeting “{path.stem}” …")
        _meeting(installation, user, path.stem)


def play(session: Session, user: User, settings: Settings) -> Room:
    """A room whose listening line joins the demo meeting that the bridge plays."""
    title = heading(PLAYED)[0]
    names = [CAST[name] for name in dict.fromkeys(speakers(PLAYED))]
    agenda = [AgendaItem(item, float(planned)) for item, planned in AGENDA]
    room = open_room(session, user, f"{title} (played)", "committee", now(), ZONE, names, agenda)
    room.line_link, room.line_state = f"{settings.bridge}/call/{PLAYED}", CallState.CALLING
    touch(room)
    return room


def heading(name: str) -> tuple[str, str, str]:
    """Title, kind and start of a demo meeting."""
    title, kind, start = (FILES / f"scripts/{name}.txt").read_text().splitlines()[0].removeprefix("#").split("|")
    return title.strip(), kind.strip(), start.strip()


def speakers(name: str) -> list[str]:
    """First names of those who speak, turn by turn."""
    rows = (FILES / f"scripts/{name}.txt").read_text().splitlines()[1:]
    return [row.split(":")[0] for row in rows if ":" in row]


def _meeting(installation: Installation, user: User, name: str) -> None:
    """One meeting from its script's heading, its sound, and what the real engines made of it."""
    title, kind, start = heading(name)
    people = [CAST[first] for first in dict.fromkeys(speakers(name))]
    with installation.files.scratch(".ogg") as copy:
        shutil.copyfile(FILES / f"{name}.ogg", copy)
        digest = installation.files.keep(copy)
    worked = json.loads((FILES / f"worked/{name}.json").read_text())
    with installation.database.write() as session:
        begun = datetime.fromisoformat(start).replace(tzinfo=ZoneInfo(ZONE))
        meeting = create_meeting(session, user, title, kind, begun, ZONE, people)
        recording = Recording(meeting_id=meeting.id, name=f"{name}.ogg", digest=digest, spans=worked["spans"])
        session.add(recording)
        turns = [Turn(turn["voice"], unpacked(turn["words"])) for turn in worked["turns"]]
        save_transcript(session, meeting.id, in_order(turns))
    task = steps.Task(installation, meeting.id, None)
    steps.prepare_sound(task, lambda _: None)
    if name in NAMED:
        _name_voices(installation, user, meeting, name)
    steps.write_minutes(task, lambda _: None)
    with installation.database.write() as session:
        job = create_job(session, meeting.id, None)
        job.state, job.progress = JobState.DONE, 1.0


def _name_voices(installation: Installation, user: User, meeting: Meeting, name: str) -> None:
    """Gives each voice the person who speaks most of its words in the script, as a visitor would by ear."""
    truth = json.loads((FILES / f"{name}.truth.json").read_text())["turns"]
    with installation.database.write() as session:
        transcript = load_transcript(session, meeting.id)
        for speaker in speakers_of(session, meeting.id):
            heard = [word.middle for turn in transcript.turns if turn.speaker == speaker.label for word in turn.words]
            said = [t["speaker"] for middle in heard for t in truth if t["start"] <= middle <= t["end"]]
            if said:
                name_voice(
                    session,
                    user,
                    session.get_one(Meeting, meeting.id),
                    speaker.id,
                    CAST[max(set(said), key=said.count)],
                )


def run(settings: Settings, say: Callable[[str], None] = print) -> None:
    """Seeds, then runs server, worker, listener and the simulated calls together until asked to end. Raises PortTaken."""
    check_ports(settings)
    seed(Installation(settings), say)
    smtp = settings.smtp or f"smtp://127.0.0.1:{settings.mailbox}"
    environment = {**os.environ, "NUNTIUS_DATA": str(settings.data), "NUNTIUS_DEMO": "1", "NUNTIUS_SMTP": smtp}
    command = [sys.executable, "-m", "nuntius"]
    processes = [subprocess.Popen([*command, part], env=environment) for part in PARTS]
    address = f"http://{settings.host}:{settings.port}"
    try:
        wait_for(f"{address}/api/health")
        say(f"\nNuntius is ready: {address}\nSign in as {EMAIL} with the password “{PASSWORD}”.")
        say(f"Mail is shown at http://127.0.0.1:{settings.mailbox + 1} (simulated).")
        say(f"Something to bring in: {FILES / 'bring-me-in.ogg'}\nEnd with Ctrl-C.")
        signal.signal(signal.SIGTERM, lambda *_: sys.exit(0))
        while all(process.poll() is None for process in processes):
            time.sleep(0.5)
    except KeyboardInterrupt:
        say("Ending.")
    finally:
        for process in processes:
            process.terminate()
        for process in processes:
            process.wait(timeout=15)


def check_ports(settings: Settings) -> None:
    """Raises PortTaken where another program listens already, or the bridge is to have the server's own port."""
    box = "NUNTIUS_MAILBOX_PORT"
    wanted = (
        ((settings.host, settings.port), "NUNTIUS_PORT"),
        (settings.bridge_at, "NUNTIUS_BRIDGE"),
        (("127.0.0.1", settings.mailbox), box),
        (("127.0.0.1", settings.mailbox + 1), box),
    )
    with ExitStack() as held:  # both at once, so that the second one finds the first
        for address, setting in wanted:
            try:
                held.enter_context(socket.create_server(address))
            except OSError:
                raise PortTaken(address[1], setting) from None


def wait_for(address: str, seconds: float = 60) -> None:
    """Returns when the address answers. Raises TimeoutError."""
    end = time.monotonic() + seconds
    while time.monotonic() < end:
        try:
            with urllib.request.urlopen(address, timeout=2):
                return
        except OSError:
            time.sleep(0.2)
    raise TimeoutError(f"{address} did not answer within {seconds:.0f} seconds")


def free_port() -> int:
    """A port of this computer that nobody listens on."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])

"""The command line: `nuntius transcribe`, `minutes`, `inquire`, and running the application."""

import json
import os
import sys
from collections.abc import Callable, Iterable
from datetime import date, time
from pathlib import Path

import click

from nuntius.core.errors import Fault
from nuntius.core.minutes.line import Length, MeetingFacts
from nuntius.core.transcript.transcript import Transcript


class _Commands(click.Group):
    """Faults end a command with their sentence and status 1."""

    def invoke(self, context: click.Context) -> object:
        try:
            return super().invoke(context)
        except Fault as fault:
            click.echo(fault.sentence, err=True)
            context.exit(1)


@click.group(cls=_Commands)
def main() -> None:
    """Nuntius: meetings in, minutes that hold up out."""
    os.umask(0o077)  # what is kept is for nobody else on this machine


def _facts(day: date | None, attendees: str, start: time | None) -> MeetingFacts:
    people = tuple(name.strip() for name in attendees.split(";") if name.strip())
    return MeetingFacts(day or date.today(), people, begun=start)


def _named(transcript: Transcript, facts: MeetingFacts) -> Transcript:
    """Gives labelled voices the names of those who were there, where the talk leaves little doubt."""
    from nuntius.core.naming import renamed, sure_names

    return renamed(transcript, sure_names(transcript, facts.people))


def _reads(form: Callable[[str], object], example: str) -> Callable[..., object]:
    """Makes a day or time of what is given."""

    def read(_context: click.Context, _option: click.Parameter, given: str | None) -> object:
        try:
            return None if given is None else form(given)
        except ValueError:
            raise click.BadParameter(f"“{given}” cannot be read; write it like {example}.") from None

    return read


_DATE = click.option(
    "--date", "day", help="Day of the meeting, YYYY-MM-DD.", callback=_reads(date.fromisoformat, "2026-10-08")
)
_START = click.option("--start", help="Time at which it began, HH:MM.", callback=_reads(time.fromisoformat, "19:00"))
_ATTENDEES = click.option("--attendees", default="", help="Who was there: “A B;C D”.")
_JSON = click.option("--json", "as_json", is_flag=True, help="Print JSON.")
_FILE = click.argument("file", type=click.Path(exists=True, dir_okay=False, path_type=Path))


@main.command()
@_FILE
@_DATE
@_START
@_ATTENDEES
@click.option("--template", default="general meeting", help="Kind of meeting; another word means the general one.")
@click.option("--length", type=click.Choice(Length, case_sensitive=False), default=Length.STANDARD)
@_JSON
def minutes(
    file: Path, day: date | None, start: time | None, attendees: str, template: str, length: Length, as_json: bool
) -> None:
    """Minutes of a transcript (VTT, SRT or text)."""
    from nuntius.core.formats.json_ import minutes_json
    from nuntius.core.formats.reading import read_transcript
    from nuntius.core.minutes.build import make_minutes
    from nuntius.core.templates.shipped import shipped

    facts = _facts(day, attendees, start)
    transcript = _named(read_transcript(file.read_bytes()), facts)
    made = make_minutes(transcript, facts, length, shipped(template))
    if as_json:
        click.echo(json.dumps(minutes_json(transcript, made), ensure_ascii=False, indent=1))
    else:
        from nuntius.core.formats.markdown import write_markdown
        from nuntius.core.formats.written import written

        click.echo("".join(write_markdown(written(file.stem, (), transcript, made))), nl=False)


@main.command()
@_FILE
@click.argument("question")
@_DATE
@_START
@_ATTENDEES
@_JSON
def inquire(file: Path, question: str, day: date | None, start: time | None, attendees: str, as_json: bool) -> None:
    """An answer from a transcript, with the passages it was made from."""
    from nuntius.core.formats.json_ import reply_json
    from nuntius.core.formats.reading import read_transcript
    from nuntius.core.inquiry.from_minutes import answered

    facts = _facts(day, attendees, start)
    transcript = _named(read_transcript(file.read_bytes()), facts)
    reply = answered(transcript, facts, question)
    if as_json:
        click.echo(json.dumps(reply_json(transcript, reply), ensure_ascii=False, indent=1))
    else:
        click.echo(reply.text if reply.found else "The record does not hold that.")


@main.command()
@_FILE
@click.option("--people", type=click.IntRange(1, 20), help="How many people spoke, where it is known.")
@click.option("--json", "form", flag_value="json", default="text")
@click.option("--vtt", "form", flag_value="vtt")
@click.option("--rttm", "form", flag_value="rttm")
def transcribe(file: Path, people: int | None, form: str) -> None:
    """Who said what and when in a recording."""
    from nuntius.core.formats.json_ import transcript_json
    from nuntius.core.formats.rttm import write_rttm
    from nuntius.core.formats.text import write_text
    from nuntius.core.formats.webvtt import write_webvtt
    from nuntius.core.speech.transcribe import transcribe as work
    from nuntius.jobs.engines import diarizer, recogniser, voice_prints
    from nuntius.settings import Settings

    settings = Settings.from_environment()
    transcript, spans = work(file, recogniser(settings, file), diarizer(settings), voice_prints(settings), people)
    writers: dict[str, Callable[[], Iterable[str]]] = {
        "json": lambda: [json.dumps(transcript_json(transcript), ensure_ascii=False) + "\n"],
        "vtt": lambda: write_webvtt(transcript),
        "rttm": lambda: write_rttm(spans, file.stem),
        "text": lambda: write_text(transcript),
    }
    sys.stdout.writelines(writers[form]())


@main.command()
def serve() -> None:
    """Serve the pages and the API."""
    from nuntius.web.server import serve as run

    run()


@main.command()
def worker() -> None:
    """Work on recordings until asked to end."""
    from nuntius.jobs.queue import Queue
    from nuntius.log import to_lines
    from nuntius.settings import Settings
    from nuntius.store.installation import Installation

    to_lines()
    Queue(Installation(Settings.from_environment())).run()


@main.command()
def listen() -> None:
    """Follow meetings while they are recorded, until asked to end."""
    import signal

    from nuntius.jobs.listener import Listener
    from nuntius.jobs.queue import Queue
    from nuntius.log import to_lines
    from nuntius.settings import Settings
    from nuntius.store.installation import Installation

    to_lines()
    installation = Installation(Settings.from_environment())
    installation.database.migrate()
    listener = Listener(installation, Queue(installation).put)
    signal.signal(signal.SIGTERM, lambda *_: listener.end())
    listener.run()
    listener.stop()
    os._exit(0)  # the threads of loaded models do not outlive the interpreter's own tidying up


@main.command()
def bridge() -> None:
    """Play the demo's meetings as simulated calls."""
    from nuntius.demonstration import FILES
    from nuntius.log import to_lines
    from nuntius.settings import Settings
    from nuntius.stand_ins.bridge import run

    to_lines()
    run(FILES, *Settings.from_environment().bridge_at)


@main.command()
def mailbox() -> None:
    """Take in the demo's mail and show it: a simulated mail server."""
    from nuntius.settings import Settings
    from nuntius.stand_ins.mailbox import run

    run("127.0.0.1", Settings.from_environment().mailbox)


@main.command()
@click.argument("folder", type=click.Path(path_type=Path))
def backup(folder: Path) -> None:
    """Back up everything into a new folder, while Nuntius runs."""
    from nuntius.settings import Settings
    from nuntius.store.backup import back_up
    from nuntius.store.installation import Installation

    copied = back_up(Installation(Settings.from_environment()), folder)
    click.echo(
        f"{len(copied)} files ({sum(each.size for each in copied) / 1e6:.1f} MB) are in {folder}, each verified."
    )


@main.command()
@click.argument("folder", type=click.Path(exists=True, file_okay=False, path_type=Path))
def restore(folder: Path) -> None:
    """Put a backup into the data folder (NUNTIUS_DATA), which must be new or empty."""
    from nuntius.settings import Settings
    from nuntius.store.backup import restore as put_back

    settings = Settings.from_environment()
    copied = put_back(folder, settings.data)
    click.echo(f"{len(copied)} files are in {settings.data}, each verified. Start Nuntius with it.")


@main.command()
@click.option("--restore", "name", help="Put the copy of this name in place of the database.")
def copies(name: str | None) -> None:
    """List the copies of the database that were made before upgrades, or restore one."""
    from nuntius.settings import Settings
    from nuntius.store.installation import database_of
    from nuntius.store.upgrade import copies as kept_copies
    from nuntius.store.upgrade import restore_copy

    path = database_of(Settings.from_environment())
    if name is None:
        for each in kept_copies(path):
            click.echo(f"{each.name}  {each.stat().st_size / 1e6:.1f} MB")
    else:
        replaced = restore_copy(path, name)
        click.echo(f"{name} is in place. What stood there before is kept as {replaced.name}.")


@main.command()
@click.argument("target", type=click.Path(dir_okay=False, path_type=Path))
def openapi(target: Path) -> None:
    """Write the OpenAPI file."""
    from nuntius.web.openapi import write

    write(target)


@main.command()
def demo() -> None:
    """Run server and worker with the demo data."""
    from nuntius.demonstration import run
    from nuntius.settings import Settings

    run(Settings.from_environment(), click.echo)

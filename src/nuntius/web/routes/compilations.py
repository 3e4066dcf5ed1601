"""Compilations: put together, heard, downloaded; and the listening digest of a meeting."""

from flask import Response, make_response
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core.formats.chapters import Stretch, write_chapters_vtt
from nuntius.core.formats.compiled import write_captions_vtt, write_compiled_text
from nuntius.core.montage.spoken import can_speak
from nuntius.core.montage.write import Montage
from nuntius.service.exports import EMPTY
from nuntius.store import compilations as store
from nuntius.store.errors import Conflict
from nuntius.store.meetings import get_meeting, open_to
from nuntius.store.models import Compilation, Meeting
from nuntius.web import compilation_schemas as c
from nuntius.web.answers import answer
from nuntius.web.exports import note_export
from nuntius.web.schemas import MeetingPath
from nuntius.web.security import installation, me

api = APIBlueprint("compilations", __name__, url_prefix="/api", abp_tags=[Tag(name="compilations")])


@api.get("/compilations", operation_id="getCompilations", responses={200: c.CompilationsOut})
def get_all() -> Response:
    """One's own compilations, the newest first."""
    with installation().database.read() as db:
        return answer(c.CompilationsOut(compilations=[_fact(row) for row in store.compilations_of(db, me())]))


@api.post("/compilations", operation_id="makeCompilation", responses={200: c.CompilationOut})
def make(body: c.CompilationIn) -> Response:
    """A new compilation."""
    with installation().database.write() as db:
        return answer(_out(db, store.keep_compilation(db, me(), None, body.title, body.spoken, _wanted(body))))


@api.get("/compilations/<int:compilation_id>", operation_id="getCompilation", responses={200: c.CompilationOut})
def get_one(path: c.CompilationPath) -> Response:
    """One compilation."""
    with installation().database.read() as db:
        return answer(_out(db, store.get_compilation(db, me(), path.compilation_id)))


@api.put("/compilations/<int:compilation_id>", operation_id="keepCompilation", responses={200: c.CompilationOut})
def keep(path: c.CompilationPath, body: c.CompilationIn) -> Response:
    """Writes a compilation again."""
    with installation().database.write() as db:
        kept = store.keep_compilation(db, me(), path.compilation_id, body.title, body.spoken, _wanted(body))
        return answer(_out(db, kept))


@api.delete("/compilations/<int:compilation_id>", operation_id="removeCompilation", responses={200: c.CompilationsOut})
def remove(path: c.CompilationPath) -> Response:
    """Takes a compilation away."""
    with installation().database.write() as db:
        store.remove_compilation(db, me(), path.compilation_id)
        db.flush()
        return answer(c.CompilationsOut(compilations=[_fact(row) for row in store.compilations_of(db, me())]))


@api.post("/meetings/<meeting_id>/digest", operation_id="makeDigest", responses={200: c.CompilationOut})
def make_digest(path: MeetingPath, body: c.DigestIn) -> Response:
    """A compilation of a meeting's most important passages."""
    with installation().database.write() as db:
        meeting = get_meeting(db, me(), path.meeting_id)
        return answer(_out(db, store.make_digest(db, me(), meeting, body.minutes)))


@api.get("/compilations/<int:compilation_id>/captions", operation_id="getCaptions", responses={200: c.CaptionsOut})
def get_captions(path: c.CompilationPath) -> Response:
    """What is said when in the whole."""
    said = _montage(path.compilation_id).captions
    return answer(
        c.CaptionsOut(captions=[c.CaptionOut(speaker=s.speaker, start=s.start, end=s.end, text=s.text) for s in said])
    )


@api.get("/compilations/<int:compilation_id>/files/<form>", operation_id="getCompiledFile")
def get_file(path: c.CompiledFilePath) -> Response:
    """Captions of the whole, its chapters, or all of it as a text; sound and picture are exports."""
    made = _montage(path.compilation_id)
    note_export(f"compilation {path.compilation_id}", path.form)
    name = f"{made.title}.{path.form}"
    response = make_response("".join(_text(made, path.form)))
    response.content_type = f"text/{'vtt' if path.form.endswith('vtt') else 'plain'}; charset=utf-8"
    response.headers.set("Content-Disposition", "attachment", filename=name.encode("ascii", "replace").decode())
    response.headers["Cache-Control"] = "no-store"
    return response


def _text(made: Montage, form: str) -> list[str]:
    if form == "captions.vtt":
        return list(write_captions_vtt(made.captions))
    if form == "chapters.vtt":
        return list(write_chapters_vtt([Stretch(*each) for each in made.chapters]))
    return list(write_compiled_text(made.title, made.parts))


def _montage(compilation_id: int) -> Montage:
    """Raises NotFound, Conflict where it holds nothing."""
    stored = installation()
    with stored.database.read() as db:
        row = store.get_compilation(db, me(), compilation_id)
        parts, title, spoken = store.parts_of(db, stored.files, me(), row), row.title, row.spoken
    if not parts:
        raise Conflict(EMPTY)
    return Montage(title, parts, spoken)


def _wanted(body: c.CompilationIn) -> list[store.WantedSection]:
    return [
        store.WantedSection(
            section.title, tuple(store.Wanted(p.meeting_id, p.title, p.start, p.end) for p in section.passages)
        )
        for section in body.sections
    ]


def _seconds(row: Compilation) -> float:
    return round(sum(each.end - each.start for each in row.passages), 2)


def _fact(row: Compilation) -> c.CompilationFact:
    return c.CompilationFact(id=row.id, title=row.title, seconds=_seconds(row), passages=len(row.passages))


def _out(db: Session, row: Compilation) -> c.CompilationOut:
    ids = {each.meeting_id for each in row.passages}
    meetings = {m.id: m for m in db.scalars(select(Meeting).where(Meeting.id.in_(ids)))}
    opened = set(db.scalars(open_to(me()).where(Meeting.id.in_(ids)).with_only_columns(Meeting.id)))
    sections = [
        c.CompiledSectionOut(
            title=title,
            passages=[
                c.CompiledPassageOut(
                    meeting_id=p.meeting_id,
                    title=p.title if p.meeting_id in opened else "",
                    start=p.start,
                    end=p.end,
                    meeting=meetings[p.meeting_id].title if p.meeting_id in opened else "",
                    day=meetings[p.meeting_id].begun.date(),
                    open=p.meeting_id in opened,
                )
                for p in row.passages
                if p.section == number
            ],
        )
        for number, title in enumerate(row.sections)
    ]
    return c.CompilationOut(
        id=row.id, title=row.title, spoken=row.spoken, can_speak=can_speak(), seconds=_seconds(row), sections=sections
    )

"""Excerpts: passages kept, heard and downloaded."""

from flask import Response, make_response
from flask_openapi3 import APIBlueprint, Tag

from nuntius.core.formats.chapters import Stretch, write_chapters_vtt
from nuntius.core.montage.write import Montage
from nuntius.core.rights import Action, may
from nuntius.store import excerpts
from nuntius.store.excerpt_list import ExcerptFilter, choices_of, excerpts_of
from nuntius.store.listing import voice_names
from nuntius.store.meetings import get_meeting
from nuntius.store.models import Excerpt, Meeting
from nuntius.store.rights import actor_of, meeting_thing
from nuntius.store.transcripts import names_of
from nuntius.web import excerpt_schemas as e
from nuntius.web.answers import answer
from nuntius.web.schemas import MeetingPath, Removed
from nuntius.web.security import installation, me

api = APIBlueprint("excerpts", __name__, url_prefix="/api", abp_tags=[Tag(name="excerpts")])


@api.get("/excerpts", operation_id="getExcerpts", responses={200: e.ExcerptsOut})
def get_all(query: e.ExcerptsQuery) -> Response:
    """The excerpts of all meetings that are open to one, fifty at a time; only those that fit."""
    chosen = ExcerptFilter(query.words, query.meeting, query.person, query.label)
    with installation().database.read() as db:
        page, choices = excerpts_of(db, me(), chosen, query.after), choices_of(db, me())
        names = voice_names(db, {meeting.id for _, meeting in page.found})
        return answer(
            e.ExcerptsOut(
                excerpts=[_out(row, meeting, names.get(meeting.id, {})) for row, meeting in page.found],
                total=page.total,
                after=page.following,
                meetings=[e.MeetingChoice(id=key, title=title) for key, title in choices.meetings],
                people=[e.PersonChoice(id=person.id, name=person.label) for person in choices.people],
                labels=choices.labels,
            )
        )


@api.post("/meetings/<meeting_id>/excerpts", operation_id="keepExcerpt", responses={200: e.ExcerptOut})
def keep(path: MeetingPath, body: e.NewExcerpt) -> Response:
    """Keeps a passage."""
    with installation().database.write() as db:
        meeting = get_meeting(db, me(), path.meeting_id, Action.EDIT)
        kept = excerpts.keep_excerpt(db, me(), meeting, body.start, body.end, body.title, body.note, body.label)
        return answer(_out(kept, meeting, names_of(db, meeting.id)))


@api.put("/excerpts/<int:excerpt_id>", operation_id="changeExcerpt", responses={200: e.ExcerptOut})
def change(path: e.ExcerptPath, body: e.NewExcerpt) -> Response:
    """Gives an excerpt other words about it, or other ends."""
    with installation().database.write() as db:
        kept = excerpts.change_excerpt(
            db, me(), path.excerpt_id, body.start, body.end, body.title, body.note, body.label
        )
        return answer(_out(kept, get_meeting(db, me(), kept.meeting_id), names_of(db, kept.meeting_id)))


@api.delete("/excerpts/<int:excerpt_id>", operation_id="removeExcerpt", responses={200: Removed})
def remove(path: e.ExcerptPath) -> Response:
    """Takes an excerpt away; the record stays as it is."""
    with installation().database.write() as db:
        excerpts.remove_excerpt(db, me(), path.excerpt_id)
    return answer(Removed(id=str(path.excerpt_id)))


@api.get("/excerpts/chapters", operation_id="getExcerptChapters")
def get_chapters(query: e.Chosen) -> Response:
    """Where each excerpt stands in the sound of all, as WebVTT chapters."""
    chapters = [Stretch(*each) for each in _montage(query.numbers).chapters]
    return _file("".join(write_chapters_vtt(chapters)).encode(), "text/vtt; charset=utf-8", "excerpts.vtt")


def _montage(ids: list[int]) -> Montage:
    store = installation()
    with store.database.read() as db:
        return Montage("Excerpts", (excerpts.excerpt_part(db, store.files, me(), ids),), speak=False)


def _file(data: bytes, kind: str, name: str) -> Response:
    response = make_response(data)
    response.content_type = kind
    response.headers["Content-Disposition"] = f'attachment; filename="{name}"'
    response.headers["Cache-Control"] = "no-store"
    return response


def _out(row: Excerpt, meeting: Meeting, names: dict[str, str]) -> e.ExcerptOut:
    return e.ExcerptOut(
        id=row.id,
        meeting_id=meeting.id,
        meeting=meeting.title,
        day=meeting.begun.date(),
        title=row.title,
        note=row.note,
        label=row.label,
        speakers=[names.get(label, label) for label in row.speakers],
        start=row.start,
        end=row.end,
        quote=row.quote,
        may_change=may(actor_of(me()), Action.CHANGE_EXCERPT, meeting_thing(meeting, row.user_id)),
    )

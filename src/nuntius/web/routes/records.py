"""The record of a meeting: read, listened to, set right, downloaded."""

from flask import Response, make_response, request, send_file
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.core.minutes.choices import MinutesChoices
from nuntius.core.rights import Action
from nuntius.service import removing
from nuntius.service.asking import order_answer
from nuntius.service.floor import report_of
from nuntius.service.minutes import order_minutes
from nuntius.store import activity, changes, restructure
from nuntius.store.activity import What
from nuntius.store.errors import NotFound
from nuntius.store.meetings import get_meeting, series_with
from nuntius.store.models import Recording
from nuntius.store.transcripts import speaker_of
from nuntius.web import record_schemas as rec
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.changing import changed
from nuntius.web.downloads import download, read_download
from nuntius.web.export_schemas import ExportOut
from nuntius.web.exports import note_export, put_export, question_of
from nuntius.web.floor import floor_out
from nuntius.web.floor_schemas import FloorOut
from nuntius.web.routes.meetings import queue
from nuntius.web.security import asked_from, installation, me
from nuntius.web.shapes import meeting_out, record_out, suggestions_out, turns_out

api = APIBlueprint("records", __name__, url_prefix="/api/meetings/<meeting_id>", abp_tags=[Tag(name="records")])


@api.get("", operation_id="getRecord", responses={200: rec.RecordOut})
def get_record(path: s.MeetingPath) -> Response:
    """The whole record."""
    with installation().database.read() as db:
        return answer(record_out(db, get_meeting(db, me(), path.meeting_id), me()))


@api.get("/turns", operation_id="getTurns", responses={200: rec.TurnsOut})
def get_turns(path: s.MeetingPath, query: s.FirstTurn) -> Response:
    """Some turns, from a number on."""
    with installation().database.read() as db:
        return answer(turns_out(db, get_meeting(db, me(), path.meeting_id), query.first))


@api.get("/voices/<int:speaker_id>/suggestions", operation_id="getSuggestions", responses={200: rec.SuggestionsOut})
def get_suggestions(path: s.VoicePath) -> Response:
    """Who a voice may be."""
    with installation().database.read() as db:
        meeting = get_meeting(db, me(), path.meeting_id)
        return answer(suggestions_out(db, meeting, speaker_of(db, meeting, path.speaker_id)))


@api.delete("", operation_id="deleteMeeting", responses={200: s.Removed})
def delete(path: s.MeetingPath) -> Response:
    """Removes a meeting with its transcript and minutes; only whoever runs it may."""
    removing.remove(installation(), me(), path.meeting_id)
    with installation().database.write() as db:
        activity.note(db, me(), What.MEETING_REMOVED, f"meeting {path.meeting_id}", asked_from())
    return answer(s.Removed(id=path.meeting_id))


@api.put("/voices/<int:speaker_id>", operation_id="nameVoice", responses={200: rec.ChangedOut})
def name_voice(path: s.VoicePath, body: s.VoiceName) -> Response:
    """Says who a voice is; null takes the name away."""
    return changed(path.meeting_id, lambda db, m: changes.name_voice(db, me(), m, path.speaker_id, body.name))


@api.put("/turns/<int:number>", operation_id="correctTurn", responses={200: rec.ChangedOut})
def correct_turn(path: s.TurnPath, body: s.NewText) -> Response:
    """Puts a person's text in place of a turn's words."""
    return changed(path.meeting_id, lambda db, m: changes.correct_turn(db, me(), m, path.number, body.text, body.was))


@api.put("/turns/<int:number>/voice", operation_id="giveWords", responses={200: rec.ChangedOut})
def give_words(path: s.TurnPath, body: s.GivenWords) -> Response:
    """Gives a turn, or some of its words, to another voice."""
    return changed(
        path.meeting_id,
        lambda db, m: restructure.give_words(db, me(), m, path.number, body.voice, body.first, body.last),
    )


@api.post("/turns/<int:number>/split", operation_id="splitTurn", responses={200: rec.ChangedOut})
def split_turn(path: s.TurnPath, body: s.SplitAt) -> Response:
    """Makes two turns of one."""
    return changed(path.meeting_id, lambda db, m: restructure.split_turn(db, me(), m, path.number, body.at))


@api.post("/turns/<int:number>/join", operation_id="joinTurns", responses={200: rec.ChangedOut})
def join_turns(path: s.TurnPath) -> Response:
    """Makes one turn of a turn and the next."""
    return changed(path.meeting_id, lambda db, m: restructure.join_turns(db, me(), m, path.number))


@api.post("/voices/<int:speaker_id>/merge", operation_id="mergeVoices", responses={200: rec.ChangedOut})
def merge_voices(path: s.VoicePath, body: s.MergedInto) -> Response:
    """Says that two voices are one."""
    return changed(path.meeting_id, lambda db, m: restructure.merge_voices(db, me(), m, path.speaker_id, body.into))


@api.post("/replace", operation_id="replaceWords", responses={200: rec.ReplacedOut})
def replace_words(path: s.MeetingPath, body: s.Replacement) -> Response:
    """Puts other words in place of some, in this meeting or in all of its series; each meeting can take it back."""
    database = installation().database
    with database.read() if body.dry else database.write() as db:  # counted at every letter that is typed
        meeting = get_meeting(db, me(), path.meeting_id, Action.EDIT)
        chosen = series_with(db, me(), meeting) if body.series else [meeting]
        if body.dry:
            counts = [changes.count_words(db, each, body.wanted, body.exactly) for each in chosen]
        else:
            counts = [changes.replace_words(db, me(), m, body.wanted, body.instead, body.exactly)[1] for m in chosen]
    return answer(rec.ReplacedOut(count=sum(counts), meetings=sum(count > 0 for count in counts)))


@api.post("/undo", operation_id="undo", responses={200: rec.ChangedOut})
def undo(path: s.MeetingPath) -> Response:
    """Takes back one's own last change."""
    return changed(path.meeting_id, lambda db, m: changes.undo(db, me(), m))


@api.post("/redo", operation_id="redo", responses={200: rec.ChangedOut})
def redo(path: s.MeetingPath) -> Response:
    """Does the change again that was taken back last."""
    return changed(path.meeting_id, lambda db, m: changes.redo(db, me(), m))


@api.post("/minutes", operation_id="remakeMinutes", responses={200: s.MeetingOut})
def remake(path: s.MeetingPath, body: s.NewShape) -> Response:
    """Asks for the minutes to be written again from the transcript; what a person changed, ticked or threw out stays."""
    choices = MinutesChoices(body.length, None if body.detailed is None else frozenset(body.detailed), body.fine)
    with installation().database.write() as db:
        meeting, job = order_minutes(db, me(), path.meeting_id, body.template, choices)
        db.flush()
        out, job_id = meeting_out(db, meeting, me()), job.id
    queue().put(job_id)
    return answer(out)


@api.post("/cut", operation_id="cutRecord", responses={200: rec.RecordOut})
def cut(path: s.MeetingPath, body: s.Stretch) -> Response:
    """Removes a stretch from sound and text for good; only whoever runs the meeting may. A mark of it stays."""
    store = installation()
    job_id = removing.cut_record(store, me(), path.meeting_id, body.start, body.end)
    queue().put(job_id)
    with store.database.write() as db:
        activity.note(db, me(), What.STRETCH_REMOVED, f"meeting {path.meeting_id}", asked_from())
        return answer(record_out(db, get_meeting(db, me(), path.meeting_id), me()))


@api.post("/inquiry", operation_id="inquire", responses={200: ExportOut})
def ask(path: s.MeetingPath, body: s.Question) -> Response:
    """Asks the record; the answer is fetched when the worker has made it."""
    with installation().database.write() as db:
        made = order_answer(db, me(), path.meeting_id, question_of(body))
    return put_export(made)


def _recording(db: Session, meeting_id: str) -> Recording:
    meeting = get_meeting(db, me(), meeting_id)
    recording = db.scalar(select(Recording).where(Recording.meeting_id == meeting.id))
    if recording is None:
        raise NotFound()
    return recording


@api.get("/sound", operation_id="getSound")
def get_sound(path: s.MeetingPath) -> Response:
    """The playback copy; ranges are answered, so that a player can seek."""
    with installation().database.read() as db:
        recording = _recording(db, path.meeting_id)
    if recording.playback_digest is None:
        raise NotFound()
    kind = "video/mp4" if recording.has_picture else "audio/ogg"
    response = send_file(
        installation().files.path(recording.playback_digest), kind, conditional=True, etag=recording.playback_digest
    )
    response.headers["Cache-Control"] = "private, max-age=3600"
    return response


@api.get("/floor", operation_id="getFloor", responses={200: FloorOut})
def get_floor(path: s.MeetingPath) -> Response:
    """Who had the floor, how often, over whom, how evenly; over time and by chapter."""
    with installation().database.read() as db:
        meeting = get_meeting(db, me(), path.meeting_id)
        return answer(floor_out(meeting.title, report_of(db, meeting)))


@api.get("/peaks", operation_id="getPeaks")
def get_peaks(path: s.MeetingPath) -> Response:
    """The waveform: one byte a tenth of a second."""
    with installation().database.read() as db:
        recording = _recording(db, path.meeting_id)
    if recording.peaks_digest is None:
        raise NotFound()
    response = make_response(installation().files.path(recording.peaks_digest).read_bytes())
    response.content_type = "application/octet-stream"
    response.headers["Cache-Control"] = "private, max-age=3600"
    return response


@api.get("/original", operation_id="getOriginal")
def get_original(path: s.MeetingPath) -> Response:
    """The file as it was brought in."""
    with installation().database.read() as db:
        recording = _recording(db, path.meeting_id)
    if not recording.digest:
        raise NotFound()
    note_export(f"meeting {path.meeting_id}", "the file as brought in")
    return send_file(
        installation().files.path(recording.digest),
        "application/octet-stream",
        as_attachment=True,
        download_name=recording.name,
    )


@api.get("/files/<form>", operation_id="getFile")
def get_file(path: s.FilePath) -> Response:
    """Minutes or transcript as a file."""
    with installation().database.read() as db:
        meeting = get_meeting(db, me(), path.meeting_id)
        title, write = meeting.title, read_download(db, meeting, path.form, f"{request.host_url}meetings/{meeting.id}")
    made = download(write(), title, path.form)
    note_export(f"meeting {path.meeting_id}", path.form)
    return made

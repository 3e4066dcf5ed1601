"""A meeting being recorded: who agrees, what is on, notes, marks, the brief."""

from collections.abc import Callable
from datetime import UTC, datetime
from math import isfinite

from flask import Response, make_response, request
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy.orm import Session

from nuntius.core.audio.decode import RATE
from nuntius.core.live.agenda import AgendaItem
from nuntius.core.rights import Action
from nuntius.core.rooms import NOT_ENDED
from nuntius.core.times import zone
from nuntius.demonstration import play
from nuntius.service import removing
from nuntius.service.asking import order_brief, order_live_answer
from nuntius.store import activity, changes, notes, rooms
from nuntius.store.activity import What
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.live import live_rows
from nuntius.store.models import Meeting, Room, StillPicture, Workspace
from nuntius.store.rights import check_workspace
from nuntius.web import record_schemas as rec
from nuntius.web import room_schemas as r
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.export_schemas import ExportOut
from nuntius.web.exports import put_export, question_of
from nuntius.web.room_facts import note_out
from nuntius.web.room_shapes import board_out, line_out, speech_out, voice_ids
from nuntius.web.security import asked_from, installation, me

api = APIBlueprint("rooms", __name__, url_prefix="/api", abp_tags=[Tag(name="rooms")])
ROOM = "/meetings/<meeting_id>/room"
LONGEST = 24 * 3600.0  # seconds of a recording
LARGEST_PICTURE = 2 * 1024 * 1024  # bytes


def room_out(db: Session, meeting: Meeting, room: Room) -> r.RoomOut:
    rows, voices = live_rows(db, meeting.id), voice_ids(db, meeting.id)
    return r.RoomOut(
        board=board_out(db, meeting, room, me(), rows),
        speech=speech_out(room),
        lines=[line_out(row, voices) for row in rows],
    )


@api.post("/rooms", operation_id="openRoom", responses={200: r.RoomOut})
def open_room(body: r.NewRoom) -> Response:
    """A meeting that is about to be recorded here."""
    agenda = [AgendaItem(item.title, item.planned) for item in body.agenda]
    with installation().database.write() as db:
        zone_name = zone(body.time_zone).key
        key = body.template or body.kind
        room = rooms.open_room(db, me(), body.title, key, datetime.now(UTC), zone_name, body.people, agenda)
        return answer(room_out(db, *rooms.get_room(db, me(), room.meeting_id)))


@api.post("/rooms/demo", operation_id="playDemo", responses={200: r.RoomOut})
def play_demo() -> Response:
    """A room that listens to the demo's meeting, played by the simulated bridge; only in the demo."""
    store = installation()
    if not store.settings.demo:
        raise NotFound()
    with store.database.write() as db:
        room = play(db, me(), store.settings)
        return answer(room_out(db, *rooms.get_room(db, me(), room.meeting_id)))


@api.get(ROOM, operation_id="getRoom", responses={200: r.RoomOut})
def get_room(path: s.MeetingPath) -> Response:
    """The room with all that has been said so far."""
    with installation().database.read() as db:
        return answer(room_out(db, *rooms.get_room(db, me(), path.meeting_id)))


@api.put(f"{ROOM}/announced", operation_id="announce", responses={200: r.Board})
def announce(path: s.MeetingPath, body: r.Announced) -> Response:
    """Says that the recording was announced to all."""
    return _changed(path.meeting_id, lambda db, _, room: rooms.announce(db, me(), room, body.announced), Action.RECORD)


@api.put(f"{ROOM}/consents/<int:person_id>", operation_id="tickConsent", responses={200: r.Board})
def tick_consent(path: r.PersonPath, body: r.Agreed) -> Response:
    """Says that somebody who is there agrees to be recorded."""
    return _changed(
        path.meeting_id, lambda db, m, room: rooms.tick_consent(db, me(), m, room, path.person_id, body.agreed)
    )


@api.post(f"{ROOM}/people", operation_id="addToRoom", responses={200: r.Board})
def add_person(path: s.MeetingPath, body: r.PersonName) -> Response:
    """Somebody has come in."""
    return _changed(path.meeting_id, lambda db, m, room: rooms.add_person(db, m, room, body.name), Action.RUN)


@api.put(f"{ROOM}/agenda", operation_id="writeAgenda", responses={200: r.Board})
def write_agenda(path: s.MeetingPath, body: r.AgendaIn) -> Response:
    """Replaces the agenda."""
    items = [AgendaItem(item.title, item.planned) for item in body.items]
    return _changed(path.meeting_id, lambda db, _, room: rooms.write_agenda(db, room, items))


@api.put(f"{ROOM}/agenda/on", operation_id="turnTo", responses={200: r.Board})
def turn_to(path: s.MeetingPath, body: r.TurnTo) -> Response:
    """Says which item is on now."""
    return _changed(path.meeting_id, lambda db, _, room: rooms.turn_to(db, room, body.number, body.at))


@api.put(f"{ROOM}/choices", operation_id="chooseForRoom", responses={200: r.Board})
def choose(path: s.MeetingPath, body: r.RoomChoices) -> Response:
    """When to stop by itself, and when to show a notice of a long turn."""

    def change(_: Session, __: Meeting, room: Room) -> None:
        room.silence_stop, room.floor_limit = body.silence_stop, body.floor_limit

    return _changed(path.meeting_id, change)


@api.post(f"{ROOM}/keep-on", operation_id="keepOn", responses={200: r.Board})
def keep_on(path: s.MeetingPath) -> Response:
    """Lets a silent recording go on: the silence is counted again."""

    def change(_: Session, __: Meeting, room: Room) -> None:
        room.last_speech = room.heard / RATE

    return _changed(path.meeting_id, change)


@api.post(f"{ROOM}/cut", operation_id="cutOut", responses={200: r.RoomOut})
def cut_out(path: s.MeetingPath, body: s.Stretch) -> Response:
    """Removes a stretch from sound and text for good; a mark of it stays."""
    store = installation()
    removing.cut_room(store, me(), path.meeting_id, body.start, body.end)
    with store.database.write() as db:
        activity.note(db, me(), What.STRETCH_REMOVED, f"meeting {path.meeting_id}", asked_from())
        return answer(room_out(db, *rooms.get_room(db, me(), path.meeting_id)))


@api.put(f"{ROOM}/lines/<int:line>", operation_id="correctLive", responses={200: r.RoomOut})
def correct_live(path: r.LiveLinePath, body: s.NewText) -> Response:
    """Puts a person's text in place of a live line."""
    with installation().database.write() as db:
        meeting, room = rooms.get_room(db, me(), path.meeting_id, Action.EDIT)
        changes.correct_live(db, me(), meeting, path.line, body.text)
        return answer(room_out(db, meeting, room))


@api.put(f"{ROOM}/notes/<note_id>", operation_id="putNote", responses={200: rec.NoteOut})
def put_note(path: r.NotePath, body: r.NoteIn) -> Response:
    """Writes a paragraph of one's own notes, new or again."""
    with installation().database.write() as db:
        meeting, room = rooms.get_room(db, me(), path.meeting_id)
        note = notes.put_note(db, me(), meeting, path.note_id, body.text, body.at, body.position, body.private)
        rooms.touch(room)
        return answer(note_out(note))


@api.delete(f"{ROOM}/notes/<note_id>", operation_id="removeNote", responses={200: r.Board})
def remove_note(path: r.NotePath) -> Response:
    """Takes a paragraph off one's own pad."""
    return _changed(path.meeting_id, lambda db, m, _: notes.remove_note(db, me(), m, path.note_id))


@api.put(f"{ROOM}/marks/<mark_id>", operation_id="putMark", responses={200: r.Board})
def put_mark(path: r.MarkPath, body: r.MarkIn) -> Response:
    """Marks what is being said; the stretch begins with the turn being spoken."""

    def change(db: Session, meeting: Meeting, _: Room) -> None:
        notes.put_mark(db, me(), meeting, path.mark_id, body.label, body.start, body.end, body.text)

    return _changed(path.meeting_id, change)


@api.delete(f"{ROOM}/marks/<mark_id>", operation_id="removeMark", responses={200: r.Board})
def remove_mark(path: r.MarkPath) -> Response:
    """Takes one's own mark away."""
    return _changed(path.meeting_id, lambda db, m, _: notes.remove_mark(db, me(), m, path.mark_id))


@api.post(f"{ROOM}/brief", operation_id="makeBrief", responses={200: ExportOut})
def make_brief(path: s.MeetingPath) -> Response:
    """Asks what has happened so far, for one who has just come in; fetched when the worker has made it."""
    with installation().database.write() as db:
        made = order_brief(db, me(), path.meeting_id)
    return put_export(made)


@api.post(f"{ROOM}/inquiry", operation_id="inquireLive", responses={200: ExportOut})
def ask(path: s.MeetingPath, body: s.Question) -> Response:
    """Asks what has been said so far; the answer is fetched when the worker has made it."""
    with installation().database.write() as db:
        made = order_live_answer(db, me(), path.meeting_id, question_of(body))
    return put_export(made)


@api.post(f"{ROOM}/pictures", operation_id="addPicture", responses={200: rec.PictureOut})
def add_picture(path: s.MeetingPath) -> Response:
    """A still picture (JPEG) of what is shown, with its second in `X-At`."""
    data, store = request.get_data(cache=False), installation()
    with store.database.read() as db:
        _, room = rooms.get_room(db, me(), path.meeting_id, Action.RECORD)
    if not data.startswith(b"\xff\xd8\xff") or len(data) > LARGEST_PICTURE:
        raise Conflict("A still picture is a JPEG of at most 2 MB.")
    if room.state not in NOT_ENDED:  # one that is late was taken while it ran
        raise Conflict("Pictures are kept only while the recording runs.")
    digest = store.files.keep_bytes(data)
    with store.database.write() as db:
        meeting, room = rooms.get_room(db, me(), path.meeting_id, Action.RECORD)
        at = min(max(0.0, _seconds(request.headers.get("X-At", "0"))), LONGEST)
        picture = StillPicture(meeting_id=meeting.id, at=at, digest=digest)
        db.add(picture)
        db.flush()
        rooms.touch(room)
        return answer(rec.PictureOut(id=picture.id, at=picture.at))


@api.get("/meetings/<meeting_id>/pictures/<int:picture_id>", operation_id="getPicture")
def get_picture(path: r.PicturePath) -> Response:
    """A still picture."""
    with installation().database.read() as db:
        meeting, _ = rooms.get_room(db, me(), path.meeting_id)
        picture = db.get(StillPicture, path.picture_id)
    if picture is None or picture.meeting_id != meeting.id:
        raise NotFound()
    response = make_response(installation().files.path(picture.digest).read_bytes())
    response.content_type = "image/jpeg"
    response.headers["Cache-Control"] = "private, max-age=3600"
    return response


@api.get("/workspace", operation_id="getWorkspace", responses={200: r.WorkspaceOut})
def get_workspace() -> Response:
    """What is read out before a recording, and whether consent is needed."""
    with installation().database.read() as db:
        workspace = db.get_one(Workspace, me().workspace_id)
    return answer(r.WorkspaceOut(announcement=workspace.announcement, consent_needed=workspace.consent_needed))


@api.put("/workspace", operation_id="setWorkspace", responses={200: r.WorkspaceOut})
def set_workspace(body: r.WorkspaceIn) -> Response:
    """Changes what is read out, and whether consent is needed."""
    check_workspace(me(), Action.CHANGE_WORKSPACE)
    with installation().database.write() as db:
        activity.note(db, me(), What.WORKSPACE_CHANGED, "announcement and consent", asked_from())
        workspace = db.get_one(Workspace, me().workspace_id)
        workspace.announcement, workspace.consent_needed = body.announcement.strip(), body.consent_needed
    return answer(r.WorkspaceOut(announcement=workspace.announcement, consent_needed=workspace.consent_needed))


def _seconds(text: str) -> float:
    """Seconds of a header. Raises Conflict for anything that is no finite number."""
    try:
        seconds = float(text or 0)
    except ValueError:
        seconds = float("nan")
    if not isfinite(seconds):
        raise Conflict("X-At is a number of seconds.")
    return seconds


def _changed(
    meeting_id: str, change: Callable[[Session, Meeting, Room], None], action: Action = Action.EDIT
) -> Response:
    """Carries out a change and answers with the board."""
    with installation().database.write() as db:
        meeting, room = rooms.get_room(db, me(), meeting_id, action)
        change(db, meeting, room)
        rooms.touch(room)
        db.flush()
        return answer(board_out(db, meeting, room, me(), live_rows(db, meeting.id)))

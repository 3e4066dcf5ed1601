"""Lines of the minutes set right, what became of them, and the minutes as they stood before."""

from typing import Any

from flask import Response
from flask_openapi3 import APIBlueprint, Tag

from nuntius.core.minutes.line import Passage
from nuntius.store import changes, lines, version_changes
from nuntius.store.line_fate import fate_of
from nuntius.store.line_rows import LineValues
from nuntius.store.lines import LineChange, NewLine
from nuntius.store.meetings import get_meeting
from nuntius.store.minutes import written_minutes
from nuntius.store.models import LineRow, MinutesRow, MinutesVersion
from nuntius.store.transcripts import names_of, with_names
from nuntius.store.versions import version_of, versions_of
from nuntius.web import line_schemas as ls
from nuntius.web import record_schemas as rec
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.changing import changed
from nuntius.web.security import installation, me

api = APIBlueprint("lines", __name__, url_prefix="/api/meetings/<meeting_id>", abp_tags=[Tag(name="records")])


@api.post("/lines", operation_id="addLine", responses={200: rec.ChangedOut})
def add_line(path: s.MeetingPath, body: ls.LineNew) -> Response:
    """Adds a line by hand, resting on words of the transcript or on none."""
    values = {name: getattr(body, name) for name in type(body).model_fields}
    new = NewLine(**{**values, "owner": tuple(body.owner), "evidence": _passages(body.evidence)})
    return changed(path.meeting_id, lambda db, m: lines.add_line(db, me(), m, new))


@api.get("/lines/<int:line_id>", operation_id="getLine", responses={200: ls.FateOut})
def get_line(path: s.LinePath) -> Response:
    """What became of a line that an address names."""
    with installation().database.read() as db:
        fate = fate_of(db, get_meeting(db, me(), path.meeting_id), path.line_id)
    return answer(ls.FateOut(now_in=fate.now_in, text=fate.text, until=fate.until, version=fate.version))


@api.put("/lines/<int:line_id>", operation_id="editLine", responses={200: rec.ChangedOut})
def edit_line(path: s.LinePath, body: s.NewText) -> Response:
    """Puts a person's text in place of a line."""
    return changed(path.meeting_id, lambda db, m: changes.edit_line(db, me(), m, path.line_id, body.text, body.was))


@api.patch("/lines/<int:line_id>", operation_id="changeLine", responses={200: rec.ChangedOut})
def change_line(path: s.LinePath, body: ls.LinePatch) -> Response:
    """Sets kind, section, owners, day, progress, remark or evidence of a line, or puts it elsewhere."""
    given: dict[str, Any] = {name: getattr(body, name) for name in body.model_fields_set if name in lines.SET}
    empty = ("due", "due_said")  # null takes these away; of the others it says nothing
    values = {name: value for name, value in given.items() if value is not None or name in empty}
    if "evidence" in values:
        values["evidence"] = _passages(body.evidence or [])
    wanted = LineChange(values, body.text, body.after, body.before)
    return changed(path.meeting_id, lambda db, m: lines.change_line(db, me(), m, path.line_id, wanted))


def _passages(pointed: list[ls.PointedAt]) -> tuple[Passage, ...]:
    return tuple(Passage(each.turn, each.first, each.last) for each in pointed)


@api.put("/lines/<int:line_id>/tick", operation_id="tickLine", responses={200: rec.ChangedOut})
def tick_line(path: s.LinePath, body: s.Tick) -> Response:
    """Marks a line as checked, or not."""
    return changed(path.meeting_id, lambda db, m: changes.tick_line(db, me(), m, path.line_id, body.checked))


@api.put("/lines/<int:line_id>/thrown", operation_id="throwOutLine", responses={200: rec.ChangedOut})
def throw_out_line(path: s.LinePath, body: s.ThrowOut) -> Response:
    """Throws a line out of the minutes, with the reason, or takes it back in."""
    return changed(path.meeting_id, lambda db, m: changes.throw_out(db, me(), m, path.line_id, body.reason))


@api.post("/lines/<int:line_id>/join", operation_id="joinLines", responses={200: rec.ChangedOut})
def join_lines(path: s.LinePath, body: ls.JoinedWith) -> Response:
    """Makes one line of two."""
    return changed(path.meeting_id, lambda db, m: lines.join_lines(db, me(), m, path.line_id, body.other))


@api.post("/lines/<int:line_id>/split", operation_id="splitLine", responses={200: rec.ChangedOut})
def split_line(path: s.LinePath, body: ls.SplitText) -> Response:
    """Makes two lines of one."""
    return changed(path.meeting_id, lambda db, m: lines.split_line(db, me(), m, path.line_id, body.first, body.second))


@api.get("/versions", operation_id="getVersions", responses={200: ls.VersionsOut})
def get_versions(path: s.MeetingPath) -> Response:
    """Earlier minutes, the newest first."""
    with installation().database.read() as db:
        found = versions_of(db, get_meeting(db, me(), path.meeting_id))
        return answer(
            ls.VersionsOut(
                versions=[
                    ls.VersionSummary(
                        id=v.id, made_at=v.made_at, replaced_at=v.replaced_at, length=v.length, lines=len(v.lines)
                    )
                    for v in found
                ]
            )
        )


@api.get("/versions/<int:version_id>", operation_id="getVersion", responses={200: ls.VersionOut})
def get_version(path: ls.VersionPath) -> Response:
    """Minutes as they stood, each line with whether it reads otherwise now."""
    with installation().database.read() as db:
        meeting = get_meeting(db, me(), path.meeting_id)
        version, minutes = version_of(db, meeting, path.version_id), written_minutes(db, meeting)
        names = names_of(db, meeting.id)
        there = {line.id: line for line in minutes.lines}
        out = [_version_line(minutes, version, was, there.get(was["id"]), names) for was in version.lines]
        added = [key for key in there if key not in {was["id"] for was in version.lines}]
        return answer(ls.VersionOut(id=version.id, made_at=version.made_at, lines=out, added=added))


def _version_line(
    minutes: MinutesRow, version: MinutesVersion, was: LineValues, now: LineRow | None, names: dict[str, str]
) -> ls.VersionLine:
    title = version.sections[was["place"]][0] if was["place"] < len(version.sections) else ""
    return ls.VersionLine(
        id=was["id"],
        kind=was["kind"],
        text=was["person_text"] or with_names(was["text"], names),
        owner=[names.get(owner, owner) for owner in was["owner"]],
        due=was["due"],
        progress=was["progress"],
        thrown_out=was["thrown_out"],
        section=title,
        differs=now is not None and version_changes.differs(minutes, version, was, now),
        gone=now is None,
    )


@api.post("/versions/<int:version_id>/restore", operation_id="restoreVersion", responses={200: rec.ChangedOut})
def restore_version(path: ls.VersionPath, body: ls.Restored) -> Response:
    """Takes one line of earlier minutes back, or all of them."""
    if body.line is None:
        return changed(path.meeting_id, lambda db, m: version_changes.take_version_back(db, me(), m, path.version_id))
    line = body.line
    return changed(path.meeting_id, lambda db, m: version_changes.take_line_back(db, me(), m, path.version_id, line))

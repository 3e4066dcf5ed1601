"""Exports: files that the worker makes, asked for, followed, fetched and taken back."""

from collections.abc import Collection

from flask import Response, request, send_file
from flask_openapi3 import APIBlueprint, Tag

from nuntius.core.exports import CONTENT_TYPES, ExportKind
from nuntius.service import exports as service
from nuntius.store.errors import NotFound
from nuntius.store.exports import exports_of, get_export, retry_export
from nuntius.store.models import Export
from nuntius.web import export_schemas as e
from nuntius.web.answers import answer
from nuntius.web.compilation_schemas import CompilationPath
from nuntius.web.export_shapes import export_out, file_name
from nuntius.web.exports import note_export, put_export
from nuntius.web.record_schemas import ReplyOut
from nuntius.web.room_schemas import BriefOut
from nuntius.web.schemas import MeetingPath, Removed
from nuntius.web.security import installation, me
from nuntius.web.setup_schemas import MishearingsOut

api = APIBlueprint("exports", __name__, url_prefix="/api", abp_tags=[Tag(name="exports")])


@api.post("/meetings/<meeting_id>/exports", operation_id="exportMeeting", responses={200: e.ExportOut})
def export_meeting(path: MeetingPath, body: e.MeetingExport) -> Response:
    """Asks for minutes or transcript as PDF, the sound as a small file, or the whole meeting."""
    address = f"{request.host_url}meetings/{path.meeting_id}"
    with installation().database.write() as db:
        made = service.order_of_meeting(db, me(), path.meeting_id, ExportKind(body.kind), address)
    return put_export(made)


@api.post("/excerpts/exports", operation_id="exportExcerpts", responses={200: e.ExportOut})
def export_excerpts(body: e.ExcerptsExport) -> Response:
    """Asks for the sound of excerpts as one Ogg/Opus file, in the order asked for."""
    with installation().database.write() as db:
        made = service.order_of_excerpts(db, me(), body.ids)
    return put_export(made)


@api.post("/compilations/<int:compilation_id>/exports", operation_id="exportCompilation", responses={200: e.ExportOut})
def export_compilation(path: CompilationPath, body: e.CompilationExport) -> Response:
    """Asks for a compilation as one file of sound or picture."""
    with installation().database.write() as db:
        made = service.order_of_compilation(db, me(), path.compilation_id, ExportKind(body.kind))
    return put_export(made)


@api.get("/exports", operation_id="getExports", responses={200: e.ExportsOut})
def get_exports() -> Response:
    """What one has asked for within a day, the newest first."""
    with installation().database.read() as db:
        return answer(e.ExportsOut(exports=[export_out(each) for each in exports_of(db, me())]))


@api.get("/exports/<export_id>", operation_id="getExport", responses={200: e.ExportOut})
def get_one(path: e.ExportPath) -> Response:
    """How far an export is."""
    with installation().database.read() as db:
        return answer(export_out(get_export(db, me(), path.export_id)))


@api.post("/exports/<export_id>/retry", operation_id="retryExport", responses={200: e.ExportOut})
def try_again(path: e.ExportPath) -> Response:
    """Has a file made again that could not be made."""
    with installation().database.write() as db:
        made = retry_export(db, me(), path.export_id)
    return put_export(made)


@api.delete("/exports/<export_id>", operation_id="removeExport", responses={200: Removed})
def remove(path: e.ExportPath) -> Response:
    """Takes an export back, or away when it was fetched."""
    service.remove_export(installation(), me(), path.export_id)
    return answer(Removed(id=path.export_id))


@api.get("/exports/<export_id>/file", operation_id="getExportedFile")
def get_file(path: e.ExportPath) -> Response:
    """The file; 404 until it is there."""
    export, file = service.file_of(installation(), me(), path.export_id)
    note_export(_of(export), export.kind)
    kind = CONTENT_TYPES[ExportKind(export.kind).ending]
    response = send_file(file, kind, as_attachment=True, download_name=file_name(export), conditional=True)
    response.headers["Cache-Control"] = "no-store"
    return response


@api.get("/exports/<export_id>/reply", operation_id="getReply", responses={200: ReplyOut})
def get_reply(path: e.ExportPath) -> Response:
    """The answer to a question; 404 until it is there."""
    made = _answer(path.export_id, (ExportKind.ANSWER, ExportKind.LIVE_ANSWER))
    return answer(ReplyOut.model_validate_json(made))


@api.get("/exports/<export_id>/brief", operation_id="getBrief", responses={200: BriefOut})
def get_brief(path: e.ExportPath) -> Response:
    """A brief; 404 until it is there."""
    return answer(BriefOut.model_validate_json(_answer(path.export_id, (ExportKind.BRIEF,))))


@api.get("/exports/<export_id>/misheard", operation_id="getMisheard", responses={200: MishearingsOut})
def get_misheard(path: e.ExportPath) -> Response:
    """What may be misheard; 404 until it is there."""
    return answer(MishearingsOut.model_validate_json(_answer(path.export_id, (ExportKind.MISHEARD,))))


def _of(export: Export) -> str:
    """What a file holds, by number and never by title."""
    if export.kind.startswith("compilation"):
        return f"compilation {export.targets[0]}"
    return "excerpts" if export.kind == ExportKind.EXCERPTS else f"meeting {export.meetings[0].id}"


def _answer(export_id: str, kinds: Collection[ExportKind]) -> bytes:
    """The JSON of an answer that is there. Raises NotFound."""
    export, file = service.file_of(installation(), me(), export_id)
    if export.kind not in kinds:
        raise NotFound()
    return file.read_bytes()

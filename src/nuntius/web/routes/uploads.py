"""Files arriving in numbered parts."""

from flask import Response, request
from flask_openapi3 import APIBlueprint, Tag
from werkzeug.exceptions import RequestEntityTooLarge

from nuntius.store.uploads import PART_SIZE, begin, check_part, get_upload, note_part, same_file
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.security import installation, me
from nuntius.web.shapes import upload_out

api = APIBlueprint("uploads", __name__, url_prefix="/api/uploads", abp_tags=[Tag(name="uploads")])


@api.post("", operation_id="beginUpload", responses={200: s.UploadOut})
def begin_upload(body: s.NewUpload) -> Response:
    """Begins to bring in a file, or goes on where the same file stopped; says if it is here already."""
    with installation().database.write() as db:
        upload = begin(db, me(), body.name, body.size, body.fingerprint, installation().settings)
        return answer(upload_out(db, upload, same_file(db, me(), body.fingerprint)))


@api.get("/<upload_id>", operation_id="getUpload", responses={200: s.UploadOut})
def get_one(path: s.UploadPath) -> Response:
    """How far a file has arrived."""
    with installation().database.read() as db:
        return answer(upload_out(db, get_upload(db, me(), path.upload_id)))


@api.put("/<upload_id>/parts/<int:number>", operation_id="putPart", responses={200: s.UploadOut})
def put_part(path: s.PartPath) -> Response:
    """One part as raw bytes with its SHA-256 in `X-Part-SHA256`; the same part again is fine."""
    if (request.content_length or 0) > PART_SIZE:
        raise RequestEntityTooLarge()
    data, digest = request.get_data(cache=False), request.headers.get("X-Part-SHA256", "")
    store = installation()
    with store.database.read() as db:
        upload = get_upload(db, me(), path.upload_id)
        is_new = check_part(db, upload, path.number, data, digest)
    if is_new:
        store.files.write_part(upload.id, path.number, data)
        with store.database.write() as db:
            upload = get_upload(db, me(), path.upload_id)
            note_part(db, upload, path.number, digest)
    with store.database.read() as db:
        return answer(upload_out(db, get_upload(db, me(), path.upload_id)))

"""Making a file that somebody has asked for."""

import logging

from nuntius.core.errors import Fault
from nuntius.core.jobs import JobState
from nuntius.jobs.leases import end, pulse
from nuntius.service.exports import read_export
from nuntius.store.installation import Installation
from nuntius.store.leases import claim
from nuntius.store.models import Export
from nuntius.store.removal import drop_unused

log = logging.getLogger(__name__)

FAILED = "Something went wrong on our side, and the file was not made. Try again, and see the log if it happens twice."


def make_export(installation: Installation, export_id: str) -> None:
    """Claims an export and makes its file; does nothing when another worker has it or nobody wants it any more."""
    with installation.database.write() as session:
        export = claim(session, Export, export_id)
        if export is None or export.worker is None:
            return
        holder = export.worker
    try:
        with pulse(installation, Export, export_id, holder):
            digest, size = _made(installation, export_id)
    except Fault as fault:
        end(installation, Export, export_id, holder, state=JobState.FAILED, error=fault.sentence)
        return
    except Exception:
        log.exception("export failed", extra={"export": export_id})
        end(installation, Export, export_id, holder, state=JobState.FAILED, error=FAILED)
        return
    if not end(installation, Export, export_id, holder, state=JobState.DONE, digest=digest, size=size):
        drop_unused(installation.database, installation.files, [digest])  # it was taken back meanwhile


def _made(installation: Installation, export_id: str) -> tuple[str, int]:
    """The digest of the file that was made, and its size in bytes."""
    with installation.database.read() as session:
        export = session.get_one(Export, export_id)
        write, ending = read_export(installation, session, export), export.kind.rsplit(".", 1)[1]
    with installation.files.scratch(f".{ending}") as path:
        write(path)
        size = path.stat().st_size
        return installation.files.keep(path), size

"""Setting right, at the start of the server, what a power cut, a restored copy or an older version left behind."""

import logging

from nuntius.store.capture import folder, parts_without_row, rebuild_rows
from nuntius.store.installation import Installation
from nuntius.store.sealing import seal_old_keys

log = logging.getLogger(__name__)


def recover_sound(installation: Installation) -> int:
    """Takes up parts of recordings that lie on disk and are not in the database; how many."""
    files = installation.files
    with installation.database.read() as session:
        found = [
            (run.id, {number: files.part_path(folder(run), number).stat().st_size for number in numbers})
            for run, numbers in parts_without_row(session, files)
        ]
    for run_id, sizes in found:
        with installation.database.write() as session:
            rebuild_rows(session, run_id, sizes)
        log.warning("sound without rows taken up", extra={"run": run_id, "parts": len(sizes)})
    return sum(len(sizes) for _, sizes in found)


def recover_keys(installation: Installation) -> int:
    """Encrypts keys of second factors that were kept as they are; how many."""
    with installation.database.write() as session:
        return seal_old_keys(session, installation.seal)

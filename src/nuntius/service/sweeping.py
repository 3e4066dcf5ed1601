"""Taking away what was left half done: files that never arrived whole, exports whose day is over, scratch files of processes that ended."""

from nuntius.store import exports, uploads
from nuntius.store.installation import Installation
from nuntius.store.removal import drop_unused

SCRATCH = 24 * 3600.0  # seconds after which a scratch file cannot be in use any more


def sweep_files(store: Installation) -> None:
    """Gives up what has lain for too long: rows first, then the files they stood for."""
    with store.database.write() as session:
        gone, digests = uploads.sweep(session), exports.sweep(session)
    for upload_id in gone:
        store.files.drop_parts(upload_id)
    drop_unused(store.database, store.files, digests)
    store.files.sweep(SCRATCH)

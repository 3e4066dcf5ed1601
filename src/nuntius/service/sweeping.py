"""Taking away what was left half done: files that never arrived whole, scratch files of processes that ended."""

from nuntius.store import uploads
from nuntius.store.installation import Installation

SCRATCH = 24 * 3600.0  # seconds after which a scratch file cannot be in use any more


def sweep_files(store: Installation) -> None:
    """Gives up what has lain for too long: rows first, then the files they stood for."""
    with store.database.write() as session:
        gone = uploads.sweep(session)
    for upload_id in gone:
        store.files.drop_parts(upload_id)
    store.files.sweep(SCRATCH)

"""Backup and restore: the database and every file it names, verified by digest, while everything goes on.

The order makes it consistent without stopping anybody. The database is copied first, then the files that this copy
names. A file that was removed in between is missing; then a newer copy of the database is taken, until one is found
of which every file is there. A backup is a folder that can be looked into: `nuntius.db`, `secret`, `files/` and
`backup.json`, which lists every file with its size in bytes and its SHA-256.
"""

import hashlib
import json
import os
import shutil
import sqlite3
from collections.abc import Iterator
from contextlib import closing
from dataclasses import dataclass
from datetime import UTC, datetime
from pathlib import Path, PurePosixPath
from typing import Any

from nuntius import __version__
from nuntius.store.errors import BackupDamaged, BackupUnfinished, FolderTaken
from nuntius.store.files import FileStore, raise_if_full, sync_folder
from nuntius.store.installation import Installation, database_of
from nuntius.store.upgrade import snapshot

MANIFEST = "backup.json"
DATABASE = "nuntius.db"
TRIES = 20  # copies of the database until one is found that nothing was removed from meanwhile

# Every file that a row names: those kept by digest, and the parts of recordings and uploads that are not joined yet.
_KEPT = (
    "SELECT digest FROM recording UNION SELECT working_digest FROM recording UNION SELECT playback_digest FROM recording "
    "UNION SELECT peaks_digest FROM recording UNION SELECT digest FROM still_picture "
    "UNION SELECT digest FROM upload WHERE role != 'recording'"
)
_PARTS = (
    "SELECT 'run-' || run_id, sound_part.number FROM sound_part JOIN run ON run.id = run_id JOIN room ON room.id = room_id "
    "WHERE NOT EXISTS (SELECT 1 FROM recording WHERE recording.meeting_id = room.meeting_id "
    "AND (recording.digest != '' OR recording.working_digest IS NOT NULL)) "
    "UNION SELECT upload_id, upload_part.number FROM upload_part JOIN upload ON upload.id = upload_id WHERE upload.digest IS NULL"
)


@dataclass(frozen=True, slots=True)
class Copied:
    """A file of a backup: its place in the data folder, its size in bytes, its SHA-256."""

    path: str
    size: int
    digest: str


def back_up(installation: Installation, target: Path) -> list[Copied]:
    """Copies database, keys and files to the new or empty folder `target`; what was copied.

    Raises FolderTaken, StorageFull, BackupUnfinished (files kept being removed), BackupDamaged (a kept file is not what
    its name says).
    """
    _must_be_empty(target)
    target.mkdir(parents=True, exist_ok=True, mode=0o700)
    data = installation.settings.data
    _ = installation.secret
    try:
        for _attempt in range(TRIES):
            snapshot(database_of(installation.settings), target / DATABASE)
            names = list(_named_files(target / DATABASE, installation.files, data))
            if all(_copy(data / name, target / name) for name in names):
                _drop_others(target, names)
                return _finish(installation, target, names)
    except OSError as cause:
        raise_if_full(cause)
        raise
    raise BackupUnfinished(TRIES)


def _finish(installation: Installation, target: Path, names: list[str]) -> list[Copied]:
    """Keys and the list of what is here. Raises BackupDamaged."""
    _copy(installation.settings.data / "secret", target / "secret")
    copied = [_described(target, name) for name in [DATABASE, "secret", *names]]
    for each in copied:
        kept_as = PurePosixPath(each.path).name
        if len(kept_as) == 64 and kept_as != each.digest:
            raise BackupDamaged(each.path)
    manifest = {
        "made_at": datetime.now(UTC).isoformat(timespec="seconds"),
        "version": __version__,
        "files": [[each.path, each.size, each.digest] for each in copied],
    }
    _write(target / MANIFEST, json.dumps(manifest, indent=1).encode())
    return copied


def _named_files(database: Path, files: FileStore, data: Path) -> Iterator[str]:
    """Places in the data folder of the files that a copy of the database names."""
    with closing(sqlite3.connect(database)) as connection:
        for (digest,) in connection.execute(_KEPT):
            if digest:
                yield files.path(digest).relative_to(data).as_posix()
        for folder, number in connection.execute(_PARTS):
            yield files.part_path(folder, number).relative_to(data).as_posix()


def _copy(source: Path, target: Path) -> bool:
    """Copies a file unless it is there already; whether it is there now. Parts may change (a cut): they are copied again."""
    is_part = target.parent.parent.name == "uploads"
    if target.exists() and not is_part:
        return True
    try:
        with source.open("rb") as file:
            _write(target, file)
    except FileNotFoundError:
        return False
    return True


def _write(target: Path, content: Any) -> None:
    """Writes bytes or an open file to `target`, synced and renamed."""
    target.parent.mkdir(parents=True, exist_ok=True, mode=0o700)
    temporary = target.with_name(f"{target.name}.tmp")
    with os.fdopen(os.open(temporary, os.O_CREAT | os.O_WRONLY | os.O_TRUNC, 0o600), "wb") as out:
        if isinstance(content, bytes):
            out.write(content)
        else:
            shutil.copyfileobj(content, out, 1 << 20)
        out.flush()
        os.fsync(out.fileno())
    temporary.replace(target)
    sync_folder(target.parent)


def _drop_others(target: Path, names: list[str]) -> None:
    """Deletes what an earlier attempt copied and the newest copy of the database does not name any more."""
    wanted = {target / name for name in names} | {target / DATABASE}
    for path in list(target.rglob("*")):
        if path.is_file() and path not in wanted:
            path.unlink()


def _described(folder: Path, name: str) -> Copied:
    path = folder / name
    with path.open("rb") as file:
        return Copied(name, path.stat().st_size, hashlib.file_digest(file, "sha256").hexdigest())


# --- restoring ---


def restore(source: Path, data: Path) -> list[Copied]:
    """Puts a backup into the new or empty data folder `data`; what was put there.

    Everything is verified before anything is written. Raises BackupDamaged, FolderTaken, StorageFull.
    """
    files = _listed(source)
    for each in files:
        if not (source / each.path).is_file() or _described(source, each.path) != each:
            raise BackupDamaged(each.path)
    _must_be_empty(data)
    try:
        for each in files:
            _copy(source / each.path, data / each.path)
    except OSError as cause:
        raise_if_full(cause)
        raise
    return files


def _listed(source: Path) -> list[Copied]:
    try:
        rows = json.loads((source / MANIFEST).read_text())["files"]
        files = [Copied(str(path), int(size), str(digest)) for path, size, digest in rows]
    except (OSError, ValueError, KeyError, TypeError) as cause:
        raise BackupDamaged(MANIFEST) from cause
    for each in files:
        path = PurePosixPath(each.path)
        if path.is_absolute() or ".." in path.parts:
            raise BackupDamaged(MANIFEST)
    return files


def _must_be_empty(folder: Path) -> None:
    if folder.exists() and (not folder.is_dir() or any(folder.iterdir())):
        raise FolderTaken(folder)

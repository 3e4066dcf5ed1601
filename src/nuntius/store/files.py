"""Files by their content: each is kept once under its SHA-256."""

import errno
import hashlib
import os
import shutil
import time
from collections.abc import Iterator
from contextlib import contextmanager
from pathlib import Path
from tempfile import NamedTemporaryFile

from nuntius.store.errors import StorageFull
from nuntius.store.transactions import outside

READ = 1 << 20  # bytes a read
LEAST_FREE = (
    64 << 20
)  # bytes; with less than this a disk counts as full: five minutes of sound and its log need as much


class FileStore:
    """A folder of files named by digest, written to a temporary name, synced and renamed."""

    def __init__(self, root: Path) -> None:
        self._root = root
        self._incoming = root / "incoming"
        self._incoming.mkdir(parents=True, exist_ok=True)

    def path(self, digest: str) -> Path:
        """Where the file with this digest lies (whether it does or not)."""
        if len(digest) != 64 or not digest.isalnum():
            raise ValueError(f"no digest: {digest!r}")
        return self._root / digest[:2] / digest

    def keep_bytes(self, data: bytes) -> str:
        """Keeps `data`; its digest."""
        with self.scratch() as path:
            path.write_bytes(data)
            return self.keep(path)

    def keep(self, source: Path) -> str:
        """Moves `source` (a scratch file) into the store; its digest. Raises StorageFull."""
        with source.open("rb") as file:
            digest = hashlib.file_digest(file, "sha256").hexdigest()
            os.fsync(file.fileno())
        target = self.path(digest)
        if not target.exists():
            target.parent.mkdir(exist_ok=True)
            source.replace(target)
            sync_folder(target.parent)
        return digest

    def drop(self, digest: str) -> None:
        """Deletes a kept file for good; none there is fine."""
        outside("a file deleted")
        self.path(digest).unlink(missing_ok=True)

    @contextmanager
    def scratch(self, suffix: str = "") -> Iterator[Path]:
        """A temporary file beside the store, removed unless it was kept."""
        outside("a scratch file")
        with NamedTemporaryFile(dir=self._incoming, suffix=suffix, delete=False) as file:
            path = Path(file.name)
        try:
            yield path
        except OSError as cause:
            raise_if_full(cause)
            raise
        finally:
            path.unlink(missing_ok=True)

    def sweep(self, older: float) -> None:
        """Removes scratch files that a process which ended left behind, untouched for `older` seconds."""
        for path in self._incoming.iterdir():
            if path.stat().st_mtime < time.time() - older:
                path.unlink(missing_ok=True)

    # --- parts of uploads ---

    def write_part(self, upload: str, number: int, data: bytes) -> None:
        """Puts a part on disk for good before it is acknowledged. Raises StorageFull."""
        outside("a part written")
        folder = self._part_folder(upload)
        temporary = folder / f"{number}.{os.getpid()}.tmp"
        try:
            folder.mkdir(parents=True, exist_ok=True)
            with temporary.open("wb") as file:
                file.write(data)
                file.flush()
                os.fsync(file.fileno())
            temporary.replace(folder / str(number))
        except OSError as cause:
            temporary.unlink(missing_ok=True)
            raise_if_full(cause)
            raise
        sync_folder(folder)

    def join_parts(self, upload: str, count: int) -> str:
        """Joins parts 0 to count - 1 into one kept file; its digest. Raises StorageFull, FileNotFoundError."""
        with self.scratch() as path:
            with path.open("wb") as out:
                for number in range(count):
                    with self.part_path(upload, number).open("rb") as part:
                        shutil.copyfileobj(part, out, READ)
                out.flush()
                os.fsync(out.fileno())
            return self.keep(path)

    def read_part(self, upload: str, number: int) -> bytes:
        """The bytes of a part. Raises FileNotFoundError."""
        outside("a part read")
        return self.part_path(upload, number).read_bytes()

    def part_numbers(self, upload: str) -> list[int]:
        """Numbers of the parts that are on disk, in order; none where there is no folder."""
        folder = self._part_folder(upload)
        return sorted(int(each.name) for each in folder.iterdir() if each.name.isdigit()) if folder.exists() else []

    def drop_parts(self, upload: str) -> None:
        """Removes the parts of an upload; none left is fine."""
        outside("parts removed")
        shutil.rmtree(self._part_folder(upload), ignore_errors=True)

    def part_path(self, upload: str, number: int) -> Path:
        """Where a part lies (whether it does or not)."""
        return self._part_folder(upload) / str(number)

    def _part_folder(self, upload: str) -> Path:
        return self._root / "uploads" / upload


def free_space(folder: Path) -> int:
    """Bytes that can still be written to the disk of `folder`, 0 where fewer than LEAST_FREE are left."""
    free = shutil.disk_usage(folder).free
    return free if free >= LEAST_FREE else 0


def raise_if_full(cause: OSError) -> None:
    """Raises StorageFull when the error means that no room is left."""
    if is_full(cause):
        raise StorageFull() from cause


def is_full(cause: OSError) -> bool:
    """Whether the error means that no room is left on the disk."""
    return cause.errno in (errno.ENOSPC, errno.EDQUOT)


def sync_folder(folder: Path) -> None:
    """Puts the names in a folder on disk for good."""
    handle = os.open(folder, os.O_RDONLY)
    try:
        os.fsync(handle)
    finally:
        os.close(handle)

import errno
from pathlib import Path

import pytest

from nuntius.store.errors import StorageFull
from nuntius.store.files import FileStore


def test_the_same_bytes_are_kept_once(tmp_path: Path) -> None:
    files = FileStore(tmp_path)
    assert files.keep_bytes(b"sound") == files.keep_bytes(b"sound")
    kept = [p for p in tmp_path.rglob("*") if p.is_file()]
    assert [p.read_bytes() for p in kept] == [b"sound"]


def test_parts_are_joined_in_order_and_dropped(tmp_path: Path) -> None:
    files = FileStore(tmp_path)
    for number in (2, 0, 1):
        files.write_part("u", number, b"abc"[number : number + 1])
    digest = files.join_parts("u", 3)
    assert files.path(digest).read_bytes() == b"abc"
    files.drop_parts("u")
    with pytest.raises(FileNotFoundError):
        files.join_parts("u", 1)


def test_a_full_disk_is_named_and_leaves_no_half_part(tmp_path: Path, monkeypatch: pytest.MonkeyPatch) -> None:
    files = FileStore(tmp_path)
    files.write_part("u", 0, b"first")

    def full(_: int) -> None:
        raise OSError(errno.ENOSPC, "no room")

    monkeypatch.setattr("os.fsync", full)
    with pytest.raises(StorageFull, match="make room"):
        files.write_part("u", 1, b"second")
    assert [p.name for p in (tmp_path / "uploads" / "u").iterdir()] == ["0"]


@pytest.mark.parametrize("wrong", ["", "../../etc/passwd", "A" * 63 + "/"])
def test_only_digests_name_files(wrong: str, tmp_path: Path) -> None:
    with pytest.raises(ValueError):
        FileStore(tmp_path).path(wrong)

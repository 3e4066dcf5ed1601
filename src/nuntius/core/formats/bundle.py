"""A whole meeting as one ZIP: `nuntius.json`, its schema, the sound and the pictures as they were kept."""

import hashlib
import json
import zipfile
from collections.abc import Mapping
from pathlib import Path

from pydantic import ValidationError

from nuntius.core.errors import Fault
from nuntius.core.formats.bundle_shapes import SCHEMA, Bundle, KeptFile, KeptMinutes
from nuntius.core.minutes.line import LineDoubt, LineKind

MANIFEST, SCHEMA_FILE = "nuntius.json", "schema.json"
LARGEST_MANIFEST = 256 * 1024 * 1024  # bytes unpacked; six hours of talk have about 8 MB
READ = 1 << 20  # bytes a read


class BundleUnreadable(Fault):
    def __init__(self, what: str) -> None:
        super().__init__(
            f"This ZIP cannot be read as a meeting: {what}. "
            "Take the whole meeting from the other Nuntius again (“Files”, “Whole meeting”), and bring that file in."
        )


def write_bundle(bundle: Bundle, files: Mapping[str, Path], target: Path) -> None:
    """Writes a bundle; `files` are the paths of what it names. Sound and pictures are stored, not packed again."""
    with zipfile.ZipFile(target, "w", zipfile.ZIP_DEFLATED) as archive:
        archive.writestr(MANIFEST, bundle.model_dump_json(by_alias=True, indent=1))
        archive.writestr(SCHEMA_FILE, json.dumps(Bundle.model_json_schema(by_alias=True), indent=1))
        for name, path in files.items():
            archive.write(path, name, zipfile.ZIP_STORED)


def is_bundle(path: Path) -> bool:
    """Whether a file is a ZIP that holds a meeting, whole or not."""
    try:
        with zipfile.ZipFile(path) as archive:
            return MANIFEST in archive.namelist()
    except (zipfile.BadZipFile, OSError):
        return False


def read_bundle(path: Path) -> Bundle:
    """What a bundle holds. Raises BundleUnreadable."""
    try:
        with zipfile.ZipFile(path) as archive:
            info = archive.getinfo(MANIFEST)
            if info.file_size > LARGEST_MANIFEST:
                raise BundleUnreadable("what it says of itself is larger than 256 MB")
            data = archive.read(info)
            made = json.loads(data)
    except (zipfile.BadZipFile, KeyError, OSError, EOFError, NotImplementedError, RuntimeError) as cause:
        raise BundleUnreadable("it is damaged or is no such archive") from cause
    except (UnicodeDecodeError, json.JSONDecodeError, RecursionError) as cause:
        raise BundleUnreadable("what it says of itself is no JSON") from cause
    found = made.get("schema") if isinstance(made, dict) else None
    if found != SCHEMA:
        raise BundleUnreadable(f"it is of the kind {str(found)[:60]!r}, and this Nuntius reads {SCHEMA!r}")
    try:
        bundle = Bundle.model_validate_json(data)
    except ValidationError as cause:
        first = cause.errors(include_url=False, include_context=False, include_input=False)[0]
        where = ".".join(str(each) for each in first["loc"])
        raise BundleUnreadable(f"{where} in it is wrong ({first['msg']})") from cause
    _fits(bundle)
    return bundle


def _fits(bundle: Bundle) -> None:
    """Raises BundleUnreadable where one part names what another does not hold."""
    voices = {voice.label for voice in bundle.voices}
    lost = next((turn.voice for turn in bundle.turns if turn.voice not in voices), None)
    if len(voices) < len(bundle.voices) or lost is not None:
        raise BundleUnreadable(
            f"a turn is by a voice that it does not hold ({lost})" if lost else "a voice stands twice"
        )
    if bundle.minutes:
        _minutes_fit(bundle.minutes, len(bundle.turns))


def _minutes_fit(minutes: KeptMinutes, turns: int) -> None:
    """Raises BundleUnreadable where a line or a chapter points to what is not there."""
    for line in minutes.lines:
        where = f"the line “{line.text[:60]}”"
        if line.kind not in set(LineKind):
            raise BundleUnreadable(f"{where} is of a kind that this Nuntius does not know ({line.kind[:40]})")
        if unknown := set(line.doubts) - set(LineDoubt):
            raise BundleUnreadable(f"{where} has a doubt that this Nuntius does not know ({min(unknown)[:40]})")
        if line.place >= len(minutes.sections) or line.chapter >= max(1, len(minutes.chapters)):
            raise BundleUnreadable(f"{where} stands in a section or a chapter that it does not hold")
        if any(each.turn >= turns or each.first > each.last for each in line.evidence):
            raise BundleUnreadable(f"{where} rests on words that it does not hold")
    if any(chapter.first > chapter.last or chapter.last >= turns for chapter in minutes.chapters):
        raise BundleUnreadable("a chapter ends behind the last turn")


def unpack_file(path: Path, kept: KeptFile, target: Path) -> None:
    """Copies one file out of a bundle and holds it against its size and digest. Raises BundleUnreadable."""
    digest, size = hashlib.sha256(), 0
    try:
        with zipfile.ZipFile(path) as archive, archive.open(kept.path) as source, target.open("wb") as out:
            while data := source.read(READ):
                size += len(data)
                if size > kept.size:
                    break
                digest.update(data)
                out.write(data)
    except (zipfile.BadZipFile, KeyError, EOFError, NotImplementedError, RuntimeError) as cause:
        raise BundleUnreadable(f"{kept.path} is missing or damaged") from cause
    if size != kept.size or digest.hexdigest() != kept.sha256:
        raise BundleUnreadable(f"{kept.path} is not what it was when it was downloaded")

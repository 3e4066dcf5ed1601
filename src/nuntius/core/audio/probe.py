"""What a media file holds, before any of it is decoded."""

from dataclasses import dataclass
from pathlib import Path

import av
from av.container import InputContainer
from av.error import FFmpegError

from nuntius.core.errors import NotMedia, SoundEmpty, SoundTooLong, SoundTrackMissing

LONGEST_HOURS = 6.0  # hours of one recording, the product's promise
# What is opened at all. Others are opened by their content, too, and some of them (playlists, lists of files) would
# read what they name: sound of another meeting, or an address.
DEMUXERS = "wav,w64,aiff,caf,flac,mp3,aac,ogg,matroska,webm,mov,mp4,m4a,3gp,avi,mpegts"
OPTIONS = {"format_whitelist": DEMUXERS, "protocol_whitelist": "file"}
STILL_PICTURES = ("_pipe", "image2", "gif", "apng")  # ends of the names of demuxers that hold no sound
TEXT_DEMUXERS = {"webvtt", "srt", "ass", "tty", "microdvd", "mpl2", "jacosub", "subviewer"}


@dataclass(frozen=True, slots=True)
class SoundInfo:
    """Facts of the sound track: `duration` in seconds or None when the file does not say."""

    container: str
    codec: str
    rate: int  # Hz
    channels: int
    duration: float | None
    has_picture: bool


def open_media(path: Path) -> InputContainer:
    """Opens `path` by its content (the name's ending counts for nothing). Raises NotMedia, SoundEmpty."""
    if path.stat().st_size == 0:
        raise SoundEmpty("This file is empty: it holds no bytes at all. Check the file and bring it in again.")
    try:
        container = av.open(str(path), mode="r", metadata_errors="replace", options=OPTIONS)
    except (FFmpegError, OSError, ValueError, ZeroDivisionError, OverflowError) as cause:
        raise NotMedia() from cause
    if container.format.name in TEXT_DEMUXERS or container.format.name.endswith(STILL_PICTURES):
        container.close()
        raise NotMedia()
    return container


def probe(path: Path) -> SoundInfo:
    """Reads the headers of `path`. Raises NotMedia, SoundTrackMissing, SoundEmpty, SoundTooLong."""
    with open_media(path) as container:
        pictures = [s for s in container.streams.video if not _is_cover(s)]
        if not container.streams.audio:
            raise SoundTrackMissing() if pictures else NotMedia()
        stream = container.streams.audio[0]
        context = stream.codec_context
        if context is None or not context.sample_rate or not context.channels:
            raise NotMedia()
        duration = container.duration / av.time_base if container.duration else None
        if duration is not None and duration > LONGEST_HOURS * 3600:
            raise SoundTooLong(duration / 3600, LONGEST_HOURS)
        return SoundInfo(
            container.format.name, context.name, context.sample_rate, context.channels, duration, bool(pictures)
        )


def _is_cover(stream: av.VideoStream) -> bool:
    """A cover picture in a sound file counts as no picture."""
    return bool(stream.disposition & av.stream.Disposition.attached_pic)

"""A compilation as one file: Ogg/Opus, M4A, or MP4 with picture and captions; each with chapters."""

from collections.abc import Iterator
from fractions import Fraction
from pathlib import Path
from typing import Any, Literal

import av
import numpy as np
from av.error import FFmpegError

from nuntius.core.audio.cut import cut
from nuntius.core.audio.decode import RATE, Resampler, Samples
from nuntius.core.audio.encode import AAC_BITS, OPUS_BITS, OPUS_RATE, SoundWriter
from nuntius.core.audio.pcm import WorkingCopy
from nuntius.core.audio.probe import OPTIONS
from nuntius.core.montage.cards import HEIGHT, WIDTH, card
from nuntius.core.montage.montage import Part, Placed, Said, captions, chapters, laid_out
from nuntius.core.montage.spoken import spoken

Form = Literal["ogg", "m4a", "mp4"]
CONTAINERS: dict[Form, str] = {"ogg": "ogg", "m4a": "ipod", "mp4": "mp4"}
TICK = Fraction(1, 1000)  # seconds of chapters, captions and pictures
CARD_EVERY = 1.0  # seconds between two frames of a still card
PICTURE_EVERY = 1 / 12  # seconds between two frames of a picture: talk, not sport
CAPTION_HEADER = (
    b"[Script Info]\nScriptType: v4.00+\n\n[V4+ Styles]\nFormat: Name, Fontname, Fontsize, PrimaryColour, SecondaryColour, "
    b"OutlineColour, BackColour, Bold, Italic, Underline, StrikeOut, ScaleX, ScaleY, Spacing, Angle, BorderStyle, Outline, "
    b"Shadow, Alignment, MarginL, MarginR, MarginV, Encoding\nStyle: Default,Arial,16,&Hffffff,&Hffffff,&H0,&H0,0,0,0,0,100,"
    b"100,0,0,1,1,0,2,10,10,10,0\n\n[Events]\nFormat: Layer, Start, End, Style, Name, MarginL, MarginR, MarginV, Effect, Text\n"
)  # what the MP4 muxer wants to know of captions before it takes any


class Montage:
    """Sections whose headings have been spoken where that was wanted; what is where, and the file of it."""

    def __init__(self, title: str, parts: tuple[Part, ...], speak: bool) -> None:
        self.title, self.parts = title, parts
        self._headings = tuple(spoken(part.title) if speak else np.zeros(0, np.float32) for part in parts)
        self.placed = laid_out(parts, tuple(len(heading) / RATE for heading in self._headings))

    @property
    def captions(self) -> list[Said]:
        return captions(self.parts, self.placed)

    @property
    def chapters(self) -> list[tuple[str, float, float]]:
        return chapters(self.parts, self.placed)

    def write(self, target: Path, form: Form) -> None:
        """Writes the whole as one file."""
        with av.open(str(target), "w", format=CONTAINERS[form]) as out:
            out.metadata["title"] = self.title
            video = _picture_stream(out) if form == "mp4" else None
            sound = SoundWriter(out, "libopus", OPUS_RATE, OPUS_BITS) if form == "ogg" else SoundWriter(out, "aac", OPUS_RATE, AAC_BITS)  # fmt: skip
            text = _caption_stream(out) if form == "mp4" else None
            out.set_chapters(
                [
                    {"id": n, "start": round(a * 1000), "end": round(b * 1000), "time_base": TICK, "metadata": {"title": title}}
                    for n, (title, a, b) in enumerate(self.chapters)
                ]
            )  # fmt: skip
            resampler = Resampler(OPUS_RATE)
            for place, samples in self._sounds():
                if video is not None:
                    _show(out, video, self._frames(place))
                sound.push(resampler.push(_frame(samples)))
            sound.push(resampler.push(None))
            sound.finish()
            if video is not None:
                out.mux(video.encode(None))
            if text is not None:
                _caption(out, text, self.captions)

    def _sounds(self) -> Iterator[tuple[Placed, Samples]]:
        """Each place with its samples, the silence before it in front."""
        copies: dict[Path, WorkingCopy] = {}
        done = 0
        for each in self.placed:
            silence = np.zeros(max(0, round(each.start * RATE) - done), np.float32)
            if each.clip is None:
                samples = self._headings[each.part]
            else:
                copy = copies.setdefault(each.clip.sound, WorkingCopy(each.clip.sound))
                samples = cut(copy, each.clip.start, each.clip.end)
            done += len(silence) + len(samples)
            yield each, np.concatenate([silence, samples])

    def _frames(self, place: Placed) -> Iterator[tuple[float, Any]]:
        """Pictures with the second at which each is shown."""
        section = self.parts[place.part].title
        if place.clip is not None and place.clip.picture is not None:
            yield from _pictures(place.clip.picture, place.clip.start, place.clip.end, place.start)
            return
        clip = place.clip
        still = card(section, clip.title, clip.source) if clip else card("", section, "")
        for at in np.arange(place.start, place.end, CARD_EVERY):
            yield float(at), av.VideoFrame.from_ndarray(still, "rgb24")


def _frame(samples: Samples) -> av.AudioFrame:
    frame = av.AudioFrame.from_ndarray(np.ascontiguousarray(samples[None]), "flt", "mono")
    frame.sample_rate = RATE
    return frame


def _picture_stream(out: av.container.OutputContainer) -> Any:
    stream: Any = out.add_stream("libx264", rate=12, options={"preset": "veryfast", "crf": "28", "tune": "stillimage"})
    stream.width, stream.height, stream.pix_fmt = WIDTH, HEIGHT, "yuv420p"
    stream.codec_context.time_base = TICK
    return stream


def _caption_stream(out: av.container.OutputContainer) -> Any:
    stream: Any = out.add_stream("mov_text")
    stream.codec_context.subtitle_header = CAPTION_HEADER
    return stream


def _show(out: av.container.OutputContainer, stream: Any, frames: Iterator[tuple[float, Any]]) -> None:
    for at, frame in frames:
        fitted = frame.reformat(WIDTH, HEIGHT, "yuv420p")
        fitted.pts, fitted.time_base = round(at * 1000), TICK
        out.mux(stream.encode(fitted))


def _pictures(path: Path, start: float, end: float, place: float) -> Iterator[tuple[float, Any]]:
    """Frames of a film between two seconds, thinned, with the second of the whole at which each is shown."""
    with av.open(str(path), options=OPTIONS) as film:
        film.seek(round(start * av.time_base))
        last = -1.0
        try:
            for frame in film.decode(video=0):
                if frame.time is None or frame.time < start:
                    continue
                if frame.time >= end:
                    return
                if frame.time - last >= PICTURE_EVERY - 0.001:
                    last = frame.time
                    yield place + frame.time - start, frame
        except FFmpegError:
            return  # a damaged film: what could be read is shown


def _caption(out: av.container.OutputContainer, stream: Any, said: list[Said]) -> None:
    """Captions as 3GPP timed text (TS 26.245, section 5.16): two bytes of length, then UTF-8."""
    for each in said:
        data = (f"{each.speaker}: {each.text}" if each.speaker else each.text).encode()[:4000]
        packet: Any = av.Packet(len(data).to_bytes(2, "big") + data)
        packet.stream, packet.time_base = stream, TICK
        packet.pts = packet.dts = round(each.start * 1000)
        packet.duration = round((each.end - each.start) * 1000)
        out.mux(packet)

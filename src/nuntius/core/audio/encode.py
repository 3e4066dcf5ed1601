"""The playback copy: Ogg/Opus for sound, MP4 where the picture is kept. Both seek exactly."""

from collections.abc import Iterable, Iterator
from fractions import Fraction
from pathlib import Path
from typing import cast

import av
import numpy as np
from av.audio.stream import AudioStream
from av.error import FFmpegError
from av.video.stream import VideoStream

from nuntius.core.audio.decode import RATE, Decoding, Resampler, Samples, frames, priming
from nuntius.core.audio.probe import open_media

OPUS_RATE = 48_000  # Hz, the rate Opus works at
OPUS_BITS = 32_000  # bit/s, speech without audible loss; common practice, no source
SMALL_BITS = 16_000  # bit/s, some 7 MB an hour; wide-band speech after RFC 7587, section 3.1.1 (from memory)
SMALL_READ = 2 * RATE * 10  # bytes: ten seconds
AAC_BITS = 64_000  # bit/s
OPUS_OPTIONS = {"compression_level": "3", "application": "audio"}  # a third of the time of level 10
WIDEST = 1280  # pixels; a wider picture that must be encoded again is made smaller


class SoundWriter:
    """Writes mono samples into one stream of an open container."""

    def __init__(self, container: av.container.OutputContainer, codec: str, rate: int, bits: int) -> None:
        options = OPUS_OPTIONS if codec == "libopus" else {}
        self._container, self.rate = container, rate
        self._stream = cast(AudioStream, container.add_stream(codec, rate=rate, layout="mono", options=options))
        self._stream.bit_rate = bits
        self._fifo = av.AudioFifo()
        self._done = 0

    def push(self, samples: Samples) -> None:
        """Takes float samples at `rate` Hz, shape (n,)."""
        if len(samples):
            frame = av.AudioFrame.from_ndarray(np.ascontiguousarray(samples[None]), "flt", "mono")
            frame.sample_rate, frame.pts, frame.time_base = self.rate, self._done, Fraction(1, self.rate)
            self._done += len(samples)
            self._fifo.write(frame)
        self._drain(partial=False)

    def finish(self) -> None:
        self._drain(partial=True)
        self._container.mux(self._stream.encode(None))

    def _drain(self, partial: bool) -> None:
        size = self._stream.codec_context.frame_size or 960
        while (frame := self._fifo.read(size, partial)) is not None:
            self._container.mux(self._stream.encode(frame))


def write_small(working: Path, target: Path) -> None:
    """A small Ogg/Opus file for the ear, of a working copy (raw 16-bit samples at 16 kHz)."""
    resampler = Resampler(OPUS_RATE)
    with av.open(str(target), "w", format="ogg") as out, working.open("rb") as source:
        writer = SoundWriter(out, "libopus", OPUS_RATE, SMALL_BITS)
        while data := source.read(SMALL_READ):
            frame = av.AudioFrame.from_ndarray(np.frombuffer(data, "<i2")[None], "s16", "mono")
            frame.sample_rate = RATE
            writer.push(resampler.push(frame))
        writer.push(resampler.push(None))
        writer.finish()


def write_flac(parts: Iterable[bytes], target: Path) -> None:
    """A FLAC file of raw 16-bit little-endian mono samples at 16 kHz that come in parts; nothing is lost."""
    with av.open(str(target), "w", format="flac") as out:
        stream = out.add_stream("flac", rate=RATE, layout="mono")
        stream.format = "s16"
        fifo = av.AudioFifo()
        done = 0
        for part in parts:
            samples = np.frombuffer(part, "<i2")
            frame = av.AudioFrame.from_ndarray(samples[None], "s16", "mono")
            frame.sample_rate, frame.pts, frame.time_base = RATE, done, Fraction(1, RATE)
            done += len(samples)
            fifo.write(frame)
            _drain_flac(out, stream, fifo, partial=False)
        _drain_flac(out, stream, fifo, partial=True)
        out.mux(stream.encode(None))


def _drain_flac(out: av.container.OutputContainer, stream: AudioStream, fifo: av.AudioFifo, partial: bool) -> None:
    while (frame := fifo.read(stream.codec_context.frame_size or 4096, partial)) is not None:
        out.mux(stream.encode(frame))


def write_picture(source: Path, target: Path) -> None:
    """An MP4 of picture and sound with its index in front, so that a browser can seek in it.

    H.264 is copied as it is; every other picture is encoded again.
    """
    with av.open(str(target), "w", format="mp4", options={"movflags": "+faststart"}) as out:
        with open_media(source) as probe:
            video = probe.streams.video[0]
            copied = video.codec_context.name == "h264"
            stream = out.add_stream_from_template(video) if copied else _picture_stream(out, video)
        sound = SoundWriter(out, "aac", OPUS_RATE, AAC_BITS)
        for packet in _copied_packets(source, stream) if copied else _encoded_packets(source, stream):
            out.mux(packet)
        resampler, state = Resampler(OPUS_RATE, priming(source, OPUS_RATE)), Decoding()
        for frame in frames(source, state):
            sound.push(resampler.push(frame))
        sound.push(resampler.push(None))
        sound.finish()


def _picture_stream(out: av.container.OutputContainer, video: VideoStream) -> VideoStream:
    rate = video.average_rate or Fraction(25)
    stream = out.add_stream("libx264", rate=rate, options={"preset": "veryfast", "crf": "26"})
    scale = min(1.0, WIDEST / video.width)
    stream.width, stream.height = round(video.width * scale / 2) * 2, round(video.height * scale / 2) * 2
    stream.pix_fmt = "yuv420p"
    return stream


def _copied_packets(source: Path, stream: VideoStream) -> Iterator["av.Packet[VideoStream]"]:
    with open_media(source) as container:
        first: int | None = None
        try:
            for packet in container.demux(container.streams.video[0]):
                if packet.dts is None:
                    continue
                first = packet.dts if first is None else first
                packet.pts = packet.pts - first if packet.pts is not None else None
                packet.dts -= first
                packet.stream = stream
                yield packet
        except FFmpegError:
            return


def _encoded_packets(source: Path, stream: VideoStream) -> Iterator["av.Packet[VideoStream]"]:
    with open_media(source) as container:
        try:
            for frame in container.decode(container.streams.video[0]):
                yield from stream.encode(frame.reformat(stream.width, stream.height, "yuv420p"))
        except FFmpegError:
            pass
        yield from stream.encode(None)

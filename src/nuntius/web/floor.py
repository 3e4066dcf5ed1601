"""The figures of the floor as they go over the wire."""

from nuntius.core.floor_report import FloorReport, FloorSlice
from nuntius.web import floor_schemas as s


def floor_out(title: str, report: FloorReport) -> s.FloorOut:
    shares = report.shares
    return s.FloorOut(
        title=title,
        duration=report.duration,
        silence=report.silence,
        overlap=report.overlap,
        evenness=report.evenness,
        silences=list(report.silences),
        voices=[
            s.VoiceFloorOut(
                voice=each.voice,
                share=shares[each.voice],
                seconds=each.seconds,
                turns=each.turns,
                longest=each.longest,
                overlaps=each.overlaps,
                overlapped=each.overlapped,
                words=each.words,
                pace=each.pace,
                questions=each.questions,
            )
            for each in report.voices
        ],
        over_time=[_slice_out(report, each) for each in report.over_time],
        chapters=[_slice_out(report, each) for each in report.chapters],
    )


def _slice_out(report: FloorReport, part: FloorSlice) -> s.FloorSliceOut:
    seconds = [part.seconds.get(voice.voice, 0.0) for voice in report.voices]
    return s.FloorSliceOut(title=part.title, start=part.start, end=part.end, seconds=seconds)

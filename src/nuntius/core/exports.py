"""What is made for somebody in the background, since it may take longer than a request should: files, and answers."""

from enum import StrEnum

from nuntius.core.jobs import Lane


class ExportKind(StrEnum):
    """Named as the file ends: of a meeting, of chosen excerpts, of a compilation; answers are JSON for the page."""

    MINUTES_PDF = "minutes.pdf"
    TRANSCRIPT_PDF = "transcript.pdf"
    SMALL_SOUND = "small.ogg"
    BUNDLE = "whole meeting.zip"
    EXCERPTS = "excerpts.ogg"
    COMPILATION_OGG = "compilation.ogg"
    COMPILATION_M4A = "compilation.m4a"
    COMPILATION_MP4 = "compilation.mp4"
    ANSWER = "answer.json"
    LIVE_ANSWER = "live answer.json"
    BRIEF = "brief.json"
    MISHEARD = "misheard.json"

    @property
    def ending(self) -> str:
        """The file name's ending without the dot."""
        return self.value.rsplit(".", 1)[1]

    @property
    def lane(self) -> Lane:
        """In which line it waits: for an answer a person waits before the page."""
        return Lane.ANSWER if self in ANSWERS else Lane.EXPORT


OF_MEETING = (ExportKind.MINUTES_PDF, ExportKind.TRANSCRIPT_PDF, ExportKind.SMALL_SOUND, ExportKind.BUNDLE)
OF_COMPILATION = (ExportKind.COMPILATION_OGG, ExportKind.COMPILATION_M4A, ExportKind.COMPILATION_MP4)
ANSWERS = (ExportKind.ANSWER, ExportKind.LIVE_ANSWER, ExportKind.BRIEF, ExportKind.MISHEARD)
CONTENT_TYPES = {
    "pdf": "application/pdf",
    "ogg": "audio/ogg",
    "m4a": "audio/mp4",
    "mp4": "video/mp4",
    "zip": "application/zip",
    "json": "application/json",
}

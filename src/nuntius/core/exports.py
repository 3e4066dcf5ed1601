"""What is made as a file in the background, since it may take longer than a request should."""

from enum import StrEnum


class ExportKind(StrEnum):
    """Named as the file ends: of a meeting, of chosen excerpts, of a compilation."""

    MINUTES_PDF = "minutes.pdf"
    TRANSCRIPT_PDF = "transcript.pdf"
    SMALL_SOUND = "small.ogg"
    BUNDLE = "whole meeting.zip"
    EXCERPTS = "excerpts.ogg"
    COMPILATION_OGG = "compilation.ogg"
    COMPILATION_M4A = "compilation.m4a"
    COMPILATION_MP4 = "compilation.mp4"

    @property
    def ending(self) -> str:
        """The file name's ending without the dot."""
        return self.value.rsplit(".", 1)[1]


OF_MEETING = (ExportKind.MINUTES_PDF, ExportKind.TRANSCRIPT_PDF, ExportKind.SMALL_SOUND, ExportKind.BUNDLE)
OF_COMPILATION = (ExportKind.COMPILATION_OGG, ExportKind.COMPILATION_M4A, ExportKind.COMPILATION_MP4)
CONTENT_TYPES = {
    "pdf": "application/pdf",
    "ogg": "audio/ogg",
    "m4a": "audio/mp4",
    "mp4": "video/mp4",
    "zip": "application/zip",
}

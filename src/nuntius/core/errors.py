"""Faults of the job, named after the fact, each with a sentence that a person can act on."""


class Fault(Exception):
    """A fact that stops the work: `sentence` says what is wrong and what to do."""

    sentence = "Something in the input could not be used."

    def __init__(self, sentence: str | None = None) -> None:
        self.sentence = sentence or self.sentence
        super().__init__(self.sentence)


class NotMedia(Fault):
    sentence = (
        "This file is neither sound nor picture that can be read. "
        "Bring in WAV, FLAC, MP3, M4A, Ogg, WebM, MP4 or MOV, or a transcript (VTT, SRT, TTML, DOCX, TXT)."
    )


class SoundTrackMissing(Fault):
    sentence = "This file holds a picture without a sound track. Export it again with its sound."


class SoundEmpty(Fault):
    sentence = "This recording has no length: it holds no sound at all. Check the file and bring it in again."


class SoundSilent(Fault):
    sentence = (
        "Nothing is spoken in this recording: it is silent throughout. "
        "Check that the microphone was on, and bring in another file."
    )


class SoundTooLong(Fault):
    def __init__(self, hours: float, most: float) -> None:
        super().__init__(
            f"This recording is {hours:.1f} hours long; at most {most:.0f} hours can be worked on. "
            "Cut it into parts and bring in each."
        )


class TranscriptEmpty(Fault):
    sentence = "This transcript holds no words. Check the file and bring it in again."


class TranscriptUnreadable(Fault):
    def __init__(self, what: str) -> None:
        super().__init__(
            f"This transcript cannot be read: {what}. Save it as VTT, SRT, DOCX or TXT and bring it in again."
        )


class FileTooCostly(Fault):
    sentence = (
        "This file took more time or memory to read than any transcript or meeting needs, so it was put aside. "
        "It may be damaged: save it again, as VTT, SRT, DOCX or TXT, and bring it in again."
    )


class ModelMissing(Fault):
    def __init__(self, what: str) -> None:
        super().__init__(f"The speech model is not usable: {what}. Install the application's packages again.")


class ScriptMissing(Fault):
    def __init__(self, path: object) -> None:
        super().__init__(f"No script lies beside the sound at {path}. Write one, or choose another recogniser.")


class PortTaken(Fault):
    def __init__(self, port: int, setting: str) -> None:
        super().__init__(
            f"Port {port} is in use already. End the program that has it, or give another one in {setting}."
        )


class TemplateUnusable(Fault):
    """A template that cannot be used; its text says what to change."""


class PrintingMissing(Fault):
    sentence = (
        "PDF files need Debian's packages libpango-1.0-0 and libpangoft2-1.0-0 on the server. "
        "Install them, or take the word-processor file or the page to print."
    )


class NameMissing(Fault):
    sentence = "This name holds nothing that can be seen. Type a name."


class PasswordWeak(Fault):
    def __init__(self, why: str) -> None:
        super().__init__(f"This password is not safe enough: {why}. Take several words that do not belong together.")

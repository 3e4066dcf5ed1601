"""Facts about stored things that stop a request."""

from nuntius.core.errors import Fault


class NotFound(Fault):
    sentence = "There is nothing here, or it is not open to you."


class Conflict(Fault):
    """What was asked for does not fit what is there."""


class ChangedMeanwhile(Conflict):
    """Somebody else wrote where a person was writing; `theirs` is what stands there now."""

    def __init__(self, name: str, theirs: str) -> None:
        self.theirs = theirs
        super().__init__(f"{name} has changed this while you were writing. Nothing is lost: choose which words stay.")


class PartMismatch(Fault):
    sentence = "This part of the file arrived damaged. It is sent again by itself; if that does not help, bring the file in again."


class UploadIncomplete(Fault):
    def __init__(self, missing: int, name: str = "this file") -> None:
        super().__init__(f"{missing} parts of {name} have not arrived yet. Choose the same file again to go on.")


class NothingToUndo(Fault):
    sentence = "There is nothing to take back."


class WrongPassword(Fault):
    sentence = "This e-mail address and this password do not belong together. Check both and try again."


class AccountExists(Fault):
    sentence = "An account with this e-mail address exists already."


class ConsentMissing(Fault):
    sentence = (
        "Recording begins only when it was announced to all, or when everybody there is ticked. "
        "Read the announcement out, then say so."
    )


class RecordedElsewhere(Fault):
    def __init__(self, name: str) -> None:
        super().__init__(f"{name} is recording this meeting on another page. Follow it here, or take it over.")


class PartNotWanted(Fault):
    sentence = "The recording had been paused or ended before this sound, so it was not kept."

"""Facts about stored things that stop a request."""

from nuntius.core.errors import Fault


class NotFound(Fault):
    sentence = "There is nothing here, or it is not open to you."


class NotAllowed(Fault):
    """What was asked for is for others to do."""

    sentence = "This is not open to you."


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


class TooManyExports(Fault):
    def __init__(self, most: int) -> None:
        super().__init__(
            f"{most} files and answers are being made for you already. Wait until one is done, or take one back."
        )


class StorageFull(Fault):
    sentence = (
        "The disk of this machine is full, so this could not be kept. What was kept before stays; make room and go on."
    )


class DatabaseBusy(Fault):
    sentence = "Others are writing just now, so this had to wait too long and was not done. Try again in a moment."


class DatabaseTooNew(Fault):
    def __init__(self, revision: str) -> None:
        super().__init__(
            f"This data folder was written by a newer Nuntius (its tables are of revision {revision}). "
            "Install that one, or restore a copy from before its upgrade with `nuntius copies`."
        )


class UpgradeFailed(Fault):
    def __init__(self, tables: str) -> None:
        super().__init__(
            f"The database was left as it is: after the upgrade, rows of {tables} would have lost what they belong to."
        )


class CopyMissing(Fault):
    def __init__(self, name: str, there: list[str]) -> None:
        super().__init__(
            f"There is no copy named {name}. " + (f"There are: {', '.join(there)}." if there else "None is kept.")
        )


class FolderTaken(Fault):
    def __init__(self, folder: object) -> None:
        super().__init__(f"{folder} holds something already, and nothing is written over. Name a new or empty folder.")


class BackupDamaged(Fault):
    def __init__(self, path: str) -> None:
        super().__init__(
            f"This backup cannot be relied on: {path} is missing or not what it should be. Use another one, or make a new one."
        )


class BackupUnfinished(Fault):
    def __init__(self, tries: int) -> None:
        super().__init__(
            f"Files were being removed all the while, {tries} times, so no complete backup could be made. Try again."
        )


class NameTaken(Fault):
    def __init__(self, name: str) -> None:
        super().__init__(
            f"There is somebody called {name} already. If this is somebody else, add a word that tells them apart "
            "(their office, their address)."
        )


class NameAmbiguous(Fault):
    def __init__(self, name: str, labels: list[str]) -> None:
        super().__init__(f"{len(labels)} people are called {name}. Say which one: {'; '.join(labels)}.")


class LastAdministrator(Fault):
    sentence = "Nobody else administers this workspace. Make somebody else an administrator first."


class HasAccount(Fault):
    def __init__(self, name: str) -> None:
        super().__init__(f"{name} has an account already.")


class LinkSpent(Fault):
    sentence = "This link has been used, withdrawn, or is too old. Ask for a new one."


class WrongCode(Fault):
    sentence = "This code is not right, or was used already. Take the one that the device shows now."


class SealBroken(Fault):
    """An encrypted value and the installation's secret do not belong together."""

    sentence = (
        'What is kept encrypted here cannot be read: the file "secret" in the data folder is not the one it was '
        "encrypted with. Put back the one from the backup of this database."
    )


class TooManyTries(Fault):
    """A pause after failed sign-ins; `seconds` until the next try is looked at."""

    def __init__(self, seconds: float) -> None:
        self.seconds = max(1, round(seconds))
        super().__init__(f"Too many tries failed. Wait {_duration(self.seconds)}, then try again.")


class SpaceUsed(Fault):
    def __init__(self, whose: str, used: float, limit: float, more: float) -> None:
        super().__init__(
            f"{whose} take up {used:.1f} of {limit:.0f} GB, and this file has {more:.1f} GB. Remove meetings that are "
            "not needed any more, or ask whoever runs this machine for more room."
        )


class TooManyStreams(Fault):
    sentence = "Nuntius is open in too many windows of yours to keep them all current. Close one, and this one goes on."


def _duration(seconds: int) -> str:
    return f"{seconds} seconds" if seconds < 90 else f"{round(seconds / 60)} minutes"


class MailMissing(Fault):
    sentence = "No mail server is set up here (NUNTIUS_SMTP). Ask an administrator to pass a link on."


class BothHaveAccounts(Fault):
    def __init__(self, one: str, other: str) -> None:
        super().__init__(f"{one} and {other} both sign in. Remove the account that is no longer used, then merge them.")

"""All tables."""

from nuntius.store.models.base import Base, new_id, now
from nuntius.store.models.compilation import Compilation, CompiledPassage
from nuntius.store.models.excerpt import Excerpt
from nuntius.store.models.meeting import Meeting, attendance
from nuntius.store.models.minutes import EvidenceRow, LineRow, MinutesRow, MinutesVersion
from nuntius.store.models.people import (
    AccessToken,
    Activity,
    Mail,
    Merging,
    Person,
    SignInFailures,
    SignInSession,
    User,
    Workspace,
)
from nuntius.store.models.recording import RecognisedStretch, Recording, Upload, UploadPart
from nuntius.store.models.room import (
    AgendaRow,
    Break,
    Consent,
    LiveLineRow,
    MarkRow,
    NoteRow,
    Room,
    Run,
    SoundPart,
    StillPicture,
)
from nuntius.store.models.setup import ReadyQuestion, TemplateRow, TermRow
from nuntius.store.models.transcript import Speaker, TurnRow
from nuntius.store.models.work import Change, Export, Heartbeat, Job, export_meeting

__all__ = [
    "AccessToken", "Activity", "AgendaRow", "Base", "Break", "Change", "Compilation", "CompiledPassage", "Consent", "EvidenceRow", "Excerpt", "Export", "Heartbeat", "Job", "LineRow", "LiveLineRow",
    "Mail", "MarkRow", "Meeting", "Merging", "MinutesRow", "MinutesVersion", "NoteRow", "Person", "ReadyQuestion", "RecognisedStretch", "Recording", "Room", "Run",
    "SignInFailures", "SignInSession", "SoundPart", "Speaker", "StillPicture", "TemplateRow", "TermRow", "TurnRow", "Upload", "UploadPart", "User", "Workspace", "attendance", "export_meeting",
    "new_id", "now",
]  # fmt: skip

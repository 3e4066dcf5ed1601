"""Exports as they go over the wire."""

from nuntius.core.exports import ANSWERS, OF_MEETING, ExportKind
from nuntius.store.models import Export
from nuntius.web.export_schemas import ExportOut


def file_name(export: Export) -> str:
    """Under which name a file is saved."""
    kind = ExportKind(export.kind)
    return f"{export.title} - {kind}" if kind in (*OF_MEETING, *ANSWERS) else f"{export.title}.{kind.ending}"


def export_out(export: Export) -> ExportOut:
    return ExportOut(
        id=export.id,
        kind=export.kind,
        title=export.title,
        name=file_name(export),
        meeting_id=export.meetings[0].id
        if ExportKind(export.kind) in (*OF_MEETING, *ANSWERS) and export.meetings
        else None,
        state=export.state,
        error=export.error,
        size=export.size,
        created_at=export.created_at,
    )

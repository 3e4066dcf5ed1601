"""Templates: the shipped ones and those of the workspace, and which one a meeting has."""

from dataclasses import dataclass
from typing import Any

from sqlalchemy import func, select
from sqlalchemy.orm import Session

from nuntius.core.templates.shipped import SHIPPED, shipped
from nuntius.core.templates.template import Template, read_template, template_json
from nuntius.store.errors import Conflict, NotFound
from nuntius.store.models import Meeting, TemplateRow, User
from nuntius.store.models.base import now
from nuntius.store.rights import check_shared

MOST = 100  # templates of one workspace


@dataclass(frozen=True, slots=True)
class Choice:
    """A template that can be chosen; `id` is None for one that is shipped."""

    id: int | None
    template: Template
    made_by: int | None = None

    @property
    def key(self) -> str:
        return self.template.name if self.id is None else f"own-{self.id}"


def choices(session: Session, workspace_id: int) -> list[Choice]:
    """All templates of a workspace: the shipped ones, then its own by name."""
    query = select(TemplateRow).where(TemplateRow.workspace_id == workspace_id).order_by(func.lower(TemplateRow.name))
    own = [Choice(row.id, read_template(row.body), row.made_by) for row in session.scalars(query)]
    return [*(Choice(None, each) for each in SHIPPED.values()), *own]


def template_of(session: Session, meeting: Meeting) -> Choice:
    """The template of a meeting: its own choice, else the one of its kind."""
    row = session.get(TemplateRow, meeting.template_id) if meeting.template_id else None
    return Choice(row.id, read_template(row.body), row.made_by) if row else Choice(None, shipped(meeting.kind))


def choose(session: Session, meeting: Meeting, key: str) -> None:
    """Gives a meeting another template. Raises NotFound."""
    found = next((each for each in choices(session, meeting.workspace_id) if each.key == key), None)
    if found is None:
        raise NotFound()
    meeting.template_id = found.id
    if found.id is None:
        meeting.kind = found.template.name


def save_template(session: Session, user: User, template_id: int | None, body: dict[str, Any]) -> Choice:
    """Keeps a template, new or again. Raises TemplateUnusable, Conflict for a name that is taken, NotFound."""
    template = read_template(body)
    own = [each for each in choices(session, user.workspace_id) if each.id != template_id or each.id is None]
    if any(each.template.name.lower() == template.name.lower() for each in own):
        raise Conflict(f"There is a template called “{template.name}” already. Give this one another name.")
    if template_id is None and len(own) >= MOST:
        raise Conflict(f"There are {MOST} templates already. Remove one that is no longer used.")
    row = (
        _own(session, user, template_id)
        if template_id is not None
        else TemplateRow(workspace_id=user.workspace_id, made_by=user.id)
    )
    row.name, row.body, row.changed_by, row.changed_at = template.name, template_json(template), user.id, now()
    session.add(row)
    session.flush()
    return Choice(row.id, template, row.made_by)


def remove_template(session: Session, user: User, template_id: int) -> None:
    """Removes one of the workspace's own; meetings that had it go back to the one of their kind. Raises NotFound."""
    row = _own(session, user, template_id)
    for meeting in session.scalars(select(Meeting).where(Meeting.template_id == row.id)):
        meeting.template_id = None
    session.delete(row)


def _own(session: Session, user: User, template_id: int) -> TemplateRow:
    row = session.get(TemplateRow, template_id)
    if row is None:
        raise NotFound()
    check_shared(user, row.workspace_id, row.made_by)
    return row

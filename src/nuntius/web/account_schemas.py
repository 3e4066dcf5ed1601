"""Shapes of accounts, people and links on the wire."""

from datetime import datetime
from typing import Annotated

from pydantic import BaseModel, Field

from nuntius.core.rights import Role
from nuntius.web.schemas import Email, Id, Name, Number, Wire

Password = Annotated[str, Field(max_length=1000)]
Token = Annotated[str, Field(min_length=20, max_length=100)]
Code = Annotated[str, Field(max_length=60)]
Distinction = Annotated[str, Field(max_length=60)]


class PersonPath(BaseModel):
    person_id: Number


class MergingPath(BaseModel):
    merging_id: Number


class SessionPath(BaseModel):
    session_id: Number


class MeetingPersonPath(BaseModel):
    meeting_id: Id
    person_id: Number


class CodeIn(Wire):
    code: Code


class NewPerson(Wire):
    name: Name
    distinction: Distinction = ""


class PersonName(Wire):
    name: Name


class AccountFact(Wire):
    """Who can sign in as a person."""

    email: str
    role: Role


class PersonOut(Wire):
    """`name` is as shown; `plain` and `distinction` are its parts. `invited_until`: an invitation is on its way."""

    id: int
    name: str
    plain: str
    distinction: str
    account: AccountFact | None
    invited_until: datetime | None
    me: bool


class MergingOut(Wire):
    """A merging that can be taken back until `until`."""

    id: int
    kept: str
    merged: str
    until: datetime


class PeopleOut(Wire):
    people: list[PersonOut]
    mergings: list[MergingOut]


class NewInvitation(Wire):
    email: Email
    role: Role = Role.MEMBER


class InvitationOut(Wire):
    """The link, shown this once, and whether it also goes by mail."""

    link: str
    mailed: bool
    people: PeopleOut


class RoleIn(Wire):
    role: Role


class MergeInto(Wire):
    into: Number


class LinkIn(Wire):
    token: Token


class AcceptIn(Wire):
    token: Token
    password: Password


class InvitationFact(Wire):
    """Whom an invitation is for."""

    name: str
    email: str
    workspace: str


class ForgottenIn(Wire):
    email: Annotated[str, Field(max_length=320)]


class Done(Wire):
    """A sentence that says what was done."""

    detail: str


class BrowserOut(Wire):
    """A browser in which one is signed in."""

    id: int
    agent: str
    address: str
    made_at: datetime
    seen_at: datetime
    this: bool


class SpaceOut(Wire):
    """Bytes; no limit where there is none."""

    used: int
    limit: int | None


class AccountOut(Wire):
    name: str
    email: str
    role: Role
    second_factor: bool
    recovery_left: int
    sessions: list[BrowserOut]
    space: SpaceOut
    workspace_space: SpaceOut


class EmailIn(Wire):
    email: Email
    password: Password


class PasswordIn(Wire):
    present: Password
    password: Password


class ConfirmIn(Wire):
    password: Password


class SecretOut(Wire):
    """A secret for a device: as text, as an address, and as the data URI of an SVG picture (a QR code)."""

    secret: str
    address: str
    picture: str


class SecretIn(Wire):
    secret: Annotated[str, Field(pattern="^[A-Z2-7]{32}$")]
    code: Code
    password: Password


class RecoveryOut(Wire):
    """Recovery codes, shown this once."""

    codes: list[str]
    account: AccountOut


class ActivityOut(Wire):
    id: int
    at: datetime
    by: str
    what: str
    about: str
    address: str


class ActivitiesOut(Wire):
    """The newest first; `more` where earlier ones follow."""

    activities: list[ActivityOut]
    more: bool


class ActivityQuery(BaseModel):
    before: Number | None = None


class AttendeeOut(Wire):
    """Somebody who took part; `account` is the address with which they sign in and may open the meeting."""

    id: int
    name: str
    account: str | None


class AttendeesOut(Wire):
    """`runner`: whether the meeting is run by whoever asks."""

    people: list[AttendeeOut]
    run_by: str
    runner: bool

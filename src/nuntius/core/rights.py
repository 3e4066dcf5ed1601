"""Who may do what: one function decides, on plain facts about the account and the thing."""

from dataclasses import dataclass
from enum import StrEnum


class Role(StrEnum):
    """What an account is to its workspace."""

    ADMINISTRATOR = "administrator"
    MEMBER = "member"


class Action(StrEnum):
    """What somebody may want to do."""

    # on the workspace
    MANAGE_PEOPLE = "manage people"  # invite, give roles, merge, remove
    CHANGE_WORKSPACE = "change the workspace"  # its announcement, whether consent is needed
    SEE_ACTIVITY = "see the activity"
    # on a thing of somebody's in the workspace: a template, a term, a kept question
    CHANGE_SHARED = "change a shared thing"
    # on a meeting
    READ = "read"
    EDIT = "edit"  # set right, tick, note, mark, keep excerpts, make minutes again
    RECORD = "record"  # begin, pause and stop a recording of one's own
    RUN = "run"  # cut, finish, take over, call a line, say who was there, tick another's consent, remove
    # on an excerpt of a meeting
    CHANGE_EXCERPT = "change an excerpt"


@dataclass(frozen=True, slots=True)
class Actor:
    """An account: its number, the person it belongs to, its workspace and role there."""

    user_id: int
    person_id: int
    workspace_id: int
    role: Role


@dataclass(frozen=True, slots=True)
class WorkspaceThing:
    """A workspace, or something that belongs to it; `owner` is the account that made it, None for nobody's."""

    workspace_id: int
    owner: int | None = None


@dataclass(frozen=True, slots=True)
class MeetingThing:
    """A meeting, or an excerpt of it kept by the account `owner`: who runs it, and the people who took part."""

    workspace_id: int
    runner: int
    people: frozenset[int]
    owner: int | None = None


Thing = WorkspaceThing | MeetingThing

_FOR_ADMINISTRATORS = frozenset({Action.MANAGE_PEOPLE, Action.CHANGE_WORKSPACE, Action.SEE_ACTIVITY})
_FOR_TAKING_PART = frozenset({Action.READ, Action.EDIT, Action.RECORD})


def may(actor: Actor, action: Action, thing: Thing) -> bool:
    """Whether `actor` may do `action` with `thing`; never across workspaces.

    An administrator manages the workspace and has no right to any meeting by it.
    """
    if actor.workspace_id != thing.workspace_id:
        return False
    if isinstance(thing, MeetingThing):
        return _may_in_meeting(actor, action, thing)
    if action is Action.CHANGE_SHARED:
        return actor.role is Role.ADMINISTRATOR or thing.owner == actor.user_id
    return action in _FOR_ADMINISTRATORS and actor.role is Role.ADMINISTRATOR


def _may_in_meeting(actor: Actor, action: Action, thing: MeetingThing) -> bool:
    runs = thing.runner == actor.user_id
    takes_part = runs or actor.person_id in thing.people
    if action is Action.CHANGE_EXCERPT:
        return takes_part and (runs or thing.owner == actor.user_id)
    if action is Action.RUN:
        return runs
    return action in _FOR_TAKING_PART and takes_part

"""Rights on what is stored: rows become the plain facts that `core.rights.may` decides on."""

from nuntius.core.rights import Action, Actor, MeetingThing, Role, Thing, WorkspaceThing, may
from nuntius.store.errors import NotAllowed, NotFound
from nuntius.store.models import Meeting, User

SENTENCES = {
    Action.MANAGE_PEOPLE: "Only an administrator of the workspace can do this.",
    Action.CHANGE_WORKSPACE: "Only an administrator changes what holds for the whole workspace.",
    Action.SEE_ACTIVITY: "Only an administrator sees this.",
    Action.CHANGE_SHARED: "Only whoever made this, or an administrator, can change or remove it.",
    Action.RUN: "Only whoever runs this meeting can do this.",
    Action.CHANGE_EXCERPT: "Only whoever kept this excerpt, or runs the meeting, can change or remove it.",
}


def actor_of(user: User) -> Actor:
    """The account as a bearer of rights."""
    return Actor(user.id, user.person.id, user.workspace_id, Role(user.role))


def meeting_thing(meeting: Meeting, owner: int | None = None) -> MeetingThing:
    """A meeting, or with `owner` an excerpt of it, as something to have rights on."""
    people = frozenset(person.id for person in meeting.people)
    return MeetingThing(meeting.workspace_id, meeting.runner_id, people, owner)


def check(user: User, action: Action, thing: Thing) -> None:
    """Raises NotFound for what `user` may not even see, NotAllowed for what others may do with it."""
    actor = actor_of(user)
    if may(actor, action, thing):
        return
    if isinstance(thing, MeetingThing) and not may(actor, Action.READ, thing):
        raise NotFound()
    raise NotAllowed(SENTENCES.get(action))


def check_workspace(user: User, action: Action) -> None:
    """`check` for one's own workspace."""
    check(user, action, WorkspaceThing(user.workspace_id))


def may_change_shared(user: User, made_by: int | None) -> bool:
    """Whether `user` may change or remove something that their workspace shares."""
    return may(actor_of(user), Action.CHANGE_SHARED, WorkspaceThing(user.workspace_id, made_by))


def check_shared(user: User, workspace_id: int, made_by: int | None) -> None:
    """For changing something that the workspace shares. Raises NotFound for another workspace's, NotAllowed."""
    if workspace_id != user.workspace_id:
        raise NotFound()
    check(user, Action.CHANGE_SHARED, WorkspaceThing(workspace_id, made_by))

"""People of the workspace: who they are, and which of them sign in."""

from flask import Response
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy.orm import Session

from nuntius.core.rights import Action, Role
from nuntius.store import activity, links, mail
from nuntius.store.accounts import accounts_of, free_address, give_role
from nuntius.store.activity import What
from nuntius.store.errors import NotFound
from nuntius.store.links import Purpose
from nuntius.store.merging import UNDONE_FOR, merge, mergings_of, take_back
from nuntius.store.models import Person, User, Workspace
from nuntius.store.people import add_person, call, get_person, people_of, remove_person
from nuntius.store.rights import check_workspace
from nuntius.web import account_schemas as a
from nuntius.web.answers import answer
from nuntius.web.security import asked_from, installation, limiter, me

api = APIBlueprint("people", __name__, url_prefix="/api/people", abp_tags=[Tag(name="people")])

INVITATION = (
    "{by} invites you to {workspace} on Nuntius, as {name}.\n\nChoose a password here, within seven days:\n{link}\n\n"
    "The link is for you alone and works once."
)


def _all(db: Session) -> a.PeopleOut:
    accounts, waiting = accounts_of(db, me().workspace_id), links.invited(db, me().workspace_id)

    def out(person: Person) -> a.PersonOut:
        user, link = accounts.get(person.user_id or 0), waiting.get(person.id)
        fact = a.AccountFact(email=user.email, role=user.role) if user else None
        return a.PersonOut(
            id=person.id,
            name=person.label,
            plain=person.name,
            distinction=person.distinction,
            account=fact,
            invited_until=link.expires_at if link else None,
            me=person.id == me().person.id,
        )

    mergings = [
        a.MergingOut(id=row.id, kept=kept.label, merged=merged.label, until=row.made_at + UNDONE_FOR)
        for row, kept, merged in mergings_of(db, me().workspace_id)
    ]
    return a.PeopleOut(people=[out(person) for person in people_of(db, me().workspace_id)], mergings=mergings)


@api.get("", operation_id="getPeople", responses={200: a.PeopleOut})
def get_people() -> Response:
    """Everybody the workspace knows, and which account is whose."""
    with installation().database.read() as db:
        return answer(_all(db))


@api.post("", operation_id="addPerson", responses={200: a.PeopleOut})
def post_person(body: a.NewPerson) -> Response:
    """Adds somebody, who has no account by it; a name that somebody has needs a word that tells them apart."""
    with installation().database.write() as db:
        person = add_person(db, me().workspace_id, body.name, body.distinction)
        activity.note(db, me(), What.PERSON_ADDED, person.label, asked_from())
        return answer(_all(db))


@api.put("/<int:person_id>", operation_id="changePerson", responses={200: a.PeopleOut})
def put_person(path: a.PersonPath, body: a.NewPerson) -> Response:
    """Gives somebody another name, or another word that tells them apart; for administrators."""
    with installation().database.write() as db:
        check_workspace(me(), Action.MANAGE_PEOPLE)
        person = get_person(db, me(), path.person_id)
        call(db, person, body.name, body.distinction)
        activity.note(db, me(), What.PERSON_CHANGED, person.label, asked_from())
        db.flush()
        return answer(_all(db))


@api.delete("/<int:person_id>", operation_id="removePerson", responses={200: a.PeopleOut})
def delete_person(path: a.PersonPath) -> Response:
    """Takes somebody out of what is offered and ends their account; for administrators. What they said stays."""
    with installation().database.write() as db:
        check_workspace(me(), Action.MANAGE_PEOPLE)
        person = get_person(db, me(), path.person_id)
        remove_person(db, person)
        links.end_links(db, person, Purpose.INVITATION)
        activity.note(db, me(), What.PERSON_REMOVED, person.label, asked_from())
        db.flush()
        return answer(_all(db))


@api.post("/<int:person_id>/invitation", operation_id="invite", responses={200: a.InvitationOut})
@limiter.limit("60 per hour")
def invite(path: a.PersonPath, body: a.NewInvitation) -> Response:
    """Makes a link with which exactly this person gets an account; for administrators. It goes by mail where one is set up."""
    store = installation()
    with store.database.write() as db:
        check_workspace(me(), Action.MANAGE_PEOPLE)
        person = get_person(db, me(), path.person_id)
        email = free_address(db, body.email)
        link = f"{store.settings.address}/join/{links.invite(db, me(), person, email, Role(body.role))}"
        if store.settings.smtp:
            workspace = db.get_one(Workspace, me().workspace_id).name
            text = INVITATION.format(by=me().person.label, workspace=workspace, name=person.label, link=link)
            mail.put(db, email, f"{workspace} on Nuntius", text)
        activity.note(db, me(), What.INVITED, f"{person.label}, {email}, {body.role}", asked_from())
        return answer(a.InvitationOut(link=link, mailed=bool(store.settings.smtp), people=_all(db)))


@api.delete("/<int:person_id>/invitation", operation_id="withdrawInvitation", responses={200: a.PeopleOut})
def withdraw(path: a.PersonPath) -> Response:
    """Makes an invitation good for nothing; for administrators."""
    with installation().database.write() as db:
        check_workspace(me(), Action.MANAGE_PEOPLE)
        person = get_person(db, me(), path.person_id)
        links.end_links(db, person, Purpose.INVITATION)
        activity.note(db, me(), What.INVITATION_WITHDRAWN, person.label, asked_from())
        return answer(_all(db))


@api.put("/<int:person_id>/role", operation_id="giveRole", responses={200: a.PeopleOut})
def put_role(path: a.PersonPath, body: a.RoleIn) -> Response:
    """Makes an account an administrator's or a member's; for administrators."""
    with installation().database.write() as db:
        check_workspace(me(), Action.MANAGE_PEOPLE)
        person = get_person(db, me(), path.person_id)
        user = db.get(User, person.user_id) if person.user_id else None
        if user is None:
            raise NotFound()
        give_role(db, user, Role(body.role))
        activity.note(db, me(), What.ROLE_GIVEN, f"{person.label}: {body.role}", asked_from())
        db.flush()
        return answer(_all(db))


@api.post("/<int:person_id>/merge", operation_id="mergePeople", responses={200: a.PeopleOut})
def post_merge(path: a.PersonPath, body: a.MergeInto) -> Response:
    """Says that two people are one; for administrators. Meetings, voices, consents, actions and an account follow."""
    with installation().database.write() as db:
        check_workspace(me(), Action.MANAGE_PEOPLE)
        merged, kept = get_person(db, me(), path.person_id), get_person(db, me(), body.into)
        merge(db, me(), merged, kept)
        activity.note(db, me(), What.PEOPLE_MERGED, f"{merged.label} into {kept.label}", asked_from())
        return answer(_all(db))


@api.delete("/mergings/<int:merging_id>", operation_id="undoMerging", responses={200: a.PeopleOut})
def undo_merging(path: a.MergingPath) -> Response:
    """Makes two people of one again; for administrators, for thirty days."""
    with installation().database.write() as db:
        check_workspace(me(), Action.MANAGE_PEOPLE)
        row = take_back(db, me(), path.merging_id)
        about = f"{db.get_one(Person, row.merged_id).label} from {db.get_one(Person, row.kept_id).label}"
        activity.note(db, me(), What.MERGING_UNDONE, about, asked_from())
        db.flush()
        return answer(_all(db))

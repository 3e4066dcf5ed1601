"""Links that are good for one use: invitations, forgotten passwords. They answer without a session."""

from flask import Response
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy import select

from nuntius.core.rights import Role
from nuntius.service import accounts
from nuntius.store import activity, failures, links, mail, sessions
from nuntius.store.accounts import change_password, give_account
from nuntius.store.activity import What
from nuntius.store.errors import LinkSpent, MailMissing
from nuntius.store.links import Purpose
from nuntius.store.models import User, Workspace
from nuntius.web import account_schemas as a
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.routes.session import enter, state
from nuntius.web.security import TRY_RATE, asked_from, installation, limiter

api = APIBlueprint("links", __name__, url_prefix="/api", abp_tags=[Tag(name="session")])

FORGOTTEN = (
    "Somebody, most likely you, asked for a new password for Nuntius.\n\nChoose it here, within two hours:\n{link}\n\n"
    "If it was not you, nothing needs to be done: the password stays as it is."
)


@api.post("/invitations/look", operation_id="lookAtInvitation", responses={200: a.InvitationFact})
@limiter.limit(TRY_RATE)
def look_at_invitation(body: a.LinkIn) -> Response:
    """Whom an invitation is for."""
    with installation().database.read() as db:
        link, person = links.find(db, Purpose.INVITATION, body.token)
        workspace = db.get_one(Workspace, person.workspace_id)
    return answer(a.InvitationFact(name=person.label, email=link.email, workspace=workspace.name))


@api.post("/invitations/accept", operation_id="acceptInvitation", responses={200: s.SessionState})
@limiter.limit(TRY_RATE)
def accept_invitation(body: a.AcceptIn) -> Response:
    """Makes the account of the person who was invited, and signs in with it."""
    with installation().database.write() as db:
        link, person = links.find(db, Purpose.INVITATION, body.token)
        user = give_account(db, person, link.email, body.password, Role(link.role))
        links.spend(link)
        activity.note(db, user, What.ACCOUNT_MADE, user.email, asked_from())
        enter(db, user)
    return answer(state())


@api.post("/password/forgotten", operation_id="forgotPassword", responses={200: a.Done})
@limiter.limit("10 per minute; 30 per hour")
def forgotten(body: a.ForgottenIn) -> Response:
    """Sends a link to choose a new password. The answer is the same whether there is such an account or not."""
    store = installation()
    if not store.settings.smtp:
        raise MailMissing()
    with store.database.write() as db:
        user = db.scalar(select(User).where(User.email == body.email.strip().lower(), User.ended_at.is_(None)))
        if user is not None:
            link = f"{store.settings.address}/password/{links.forgotten_password(db, user)}"
            mail.put(db, user.email, "A new password for Nuntius", FORGOTTEN.format(link=link))
            activity.note(db, user, What.PASSWORD_FORGOTTEN, address=asked_from())
    return answer(
        a.Done(detail="If there is an account with this address, a link to choose a new password is on its way to it.")
    )


@api.post("/password/choose", operation_id="choosePassword", responses={200: a.Done})
@limiter.limit(TRY_RATE)
def choose_password(body: a.AcceptIn) -> Response:
    """Gives the account of a link a new password; every browser is signed out."""
    with installation().database.write() as db:
        link, person = links.find(db, Purpose.PASSWORD, body.token)
        user = db.scalar(select(User).where(User.id == person.user_id, User.ended_at.is_(None)))
        if user is None:
            raise LinkSpent()
        change_password(user, body.password)
        links.spend(link)
        sessions.end_all(db, user)
        failures.forget(db, user.email, asked_from())
        activity.note(db, user, What.PASSWORD_CHANGED, address=asked_from())
        accounts.notify_owner(db, installation().settings, user, What.PASSWORD_CHANGED)
    return answer(a.Done(detail="The new password holds. Sign in with it."))

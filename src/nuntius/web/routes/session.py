"""Signing in and out, the first account."""

from flask import Response, session
from flask_login import current_user, login_user, logout_user
from flask_openapi3 import APIBlueprint, Tag
from flask_wtf.csrf import generate_csrf

from nuntius.store.accounts import any_account, check_password, create_account, create_workspace, person_of
from nuntius.store.errors import Conflict
from nuntius.store.models import User, Workspace, new_id
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.security import SIGN_IN_RATE, SignedIn, installation, limiter, me

api = APIBlueprint("session", __name__, url_prefix="/api", abp_tags=[Tag(name="session")])


def _state() -> s.SessionState:
    store = installation()
    with store.database.read() as db:
        fresh = not any_account(db)
        if not current_user.is_authenticated:
            return s.SessionState(
                signed_in=False, csrf=generate_csrf(), needs_first_account=fresh, demo=store.settings.demo
            )
        person, workspace = person_of(db, me()), db.get_one(Workspace, me().workspace_id)
        return s.SessionState(
            signed_in=True,
            csrf=generate_csrf(),
            needs_first_account=False,
            demo=store.settings.demo,
            name=person.name,
            workspace=workspace.name,
        )


@api.get("/session", operation_id="getSession", responses={200: s.SessionState})
def get_session() -> Response:
    """Who is signed in, and the token that changes need."""
    return answer(_state())


@api.post("/session", operation_id="signIn", responses={200: s.SessionState})
@limiter.limit(SIGN_IN_RATE)
def sign_in(body: s.SignIn) -> Response:
    """Signs in with e-mail address and password."""
    with installation().database.read() as db:
        user = check_password(db, body.email, body.password)
    _enter(user)
    return answer(_state())


@api.post("/first-account", operation_id="createFirstAccount", responses={200: s.SessionState})
@limiter.limit(SIGN_IN_RATE)
def first_account(body: s.FirstAccount) -> Response:
    """Makes the workspace and its first account; only where there is none."""
    with installation().database.write() as db:
        if any_account(db):
            raise Conflict("This installation has its first account already. Sign in with it.")
        workspace = create_workspace(db, body.workspace, body.time_zone)
        user = create_account(db, workspace, body.name, body.email, body.password)
    _enter(user)
    return answer(_state())


@api.delete("/session", operation_id="signOut", responses={200: s.SessionState})
def sign_out() -> Response:
    """Signs out everywhere: every session of this account ends."""
    with installation().database.write() as db:
        db.get_one(User, me().id).session_key = new_id()
    logout_user()
    session.clear()
    return answer(_state())


def _enter(user: User) -> None:
    session.clear()
    login_user(SignedIn(user))

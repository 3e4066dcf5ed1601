"""Signing in and out, the first account."""

import time
from datetime import timedelta

from flask import Response, request, session
from flask_login import current_user, login_user, logout_user
from flask_openapi3 import APIBlueprint, Tag
from flask_wtf.csrf import generate_csrf
from sqlalchemy.orm import Session

from nuntius.core.rights import Role
from nuntius.store import activity, failures, sessions
from nuntius.store import second_factor as codes
from nuntius.store.accounts import any_account, check_password, create_account, create_workspace
from nuntius.store.activity import What
from nuntius.store.errors import Conflict, WrongCode, WrongPassword
from nuntius.store.models import User, Workspace
from nuntius.web import account_schemas as a
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.security import TRY_RATE, SignedIn, asked_from, installation, limiter, me, my_session

api = APIBlueprint("session", __name__, url_prefix="/api", abp_tags=[Tag(name="session")])

PENDING = "second_factor"  # in the cookie, signed: whose password was right, and when
PATIENCE = 300.0  # seconds between the password and the code


def state() -> s.SessionState:
    """Who is signed in, for the page."""
    store = installation()
    with store.database.read() as db:
        fresh = not any_account(db)
        facts = {"csrf": generate_csrf(), "demo": store.settings.demo}
        if not current_user.is_authenticated:
            waits = _pending() is not None
            return s.SessionState(signed_in=False, needs_first_account=fresh, second_factor=waits, **facts)
        workspace = db.get_one(Workspace, me().workspace_id)
        return s.SessionState(
            signed_in=True,
            needs_first_account=False,
            name=me().person.label,
            workspace=workspace.name,
            person_id=me().person.id,
            administrator=me().role == Role.ADMINISTRATOR,
            mail=bool(store.settings.smtp),
            **facts,
        )


@api.get("/session", operation_id="getSession", responses={200: s.SessionState})
def get_session() -> Response:
    """Who is signed in, and the token that changes need."""
    return answer(state())


@api.post("/session", operation_id="signIn", responses={200: s.SessionState})
@limiter.limit(TRY_RATE)
def sign_in(body: s.SignIn) -> Response:
    """Signs in with e-mail address and password; where a second factor is on, its code is asked for next."""
    database = installation().database
    with database.read() as db:
        failures.check(db, body.email, asked_from())
        try:
            user = check_password(db, body.email, body.password)
        except WrongPassword:
            user = None
    if user is None:
        _failed(body.email)
        raise WrongPassword()
    if user.totp_secret is not None:
        session.clear()
        session[PENDING] = [user.id, time.time()]
        return answer(state())
    with database.write() as db:
        failures.forget(db, body.email, asked_from())
        enter(db, user)
    return answer(state())


@api.post("/session/code", operation_id="giveCode", responses={200: s.SessionState})
@limiter.limit(TRY_RATE)
def second_factor(body: a.CodeIn) -> Response:
    """The second factor: a code of the device, or a recovery code."""
    number, database = _pending(), installation().database
    if number is None:
        raise WrongPassword("Sign in with your password first; it was too long ago.")
    with database.write() as db:
        user = db.get_one(User, number)
        failures.check(db, user.email, asked_from())
        try:
            codes.check(user, installation().seal, body.code)
            right = True
        except WrongCode:
            right = False
        if right:
            failures.forget(db, user.email, asked_from())
            enter(db, user)
    if not right:
        _failed(user.email)
        raise WrongCode()
    return answer(state())


@api.post("/first-account", operation_id="createFirstAccount", responses={200: s.SessionState})
@limiter.limit(TRY_RATE)
def first_account(body: s.FirstAccount) -> Response:
    """Makes the workspace and its first account, which administers it; only where there is none."""
    with installation().database.write() as db:
        if any_account(db):
            raise Conflict("This installation has its first account already. Sign in with it.")
        workspace = create_workspace(db, body.workspace, body.time_zone)
        user = create_account(db, workspace, body.name, body.email, body.password, Role.ADMINISTRATOR)
        activity.note(db, user, What.ACCOUNT_MADE, user.email, asked_from())
        enter(db, user)
    return answer(state())


@api.delete("/session", operation_id="signOut", responses={200: s.SessionState})
def sign_out() -> Response:
    """Signs this browser out, or forgets that its password was right."""
    if current_user.is_authenticated:
        with installation().database.write() as db:
            sessions.end(db, me(), my_session().session_id)
            activity.note(db, me(), What.SIGNED_OUT, address=asked_from())
    logout_user()
    session.clear()
    return answer(state())


def enter(db: Session, user: User) -> None:
    """Signs this browser in as `user`, in a new session."""
    sessions.sweep(db, timedelta(days=installation().settings.session_days))
    token = sessions.begin(db, user, asked_from(), request.headers.get("User-Agent", ""))
    activity.note(db, user, What.SIGNED_IN, address=asked_from())
    db.flush()
    session.clear()
    login_user(SignedIn(user, 0, token))


def _pending() -> int | None:
    """Whose password was right a moment ago."""
    kept = session.get(PENDING)
    return int(kept[0]) if kept and time.time() - float(kept[1]) < PATIENCE else None


def _failed(email: str) -> None:
    with installation().database.write() as db:
        failures.count(db, email, asked_from())
        activity.note_failure(db, email, asked_from())

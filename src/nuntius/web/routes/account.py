"""One's own account: name, address, password, second factor, and where one is signed in."""

import segno
from flask import Response
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy.orm import Session

from nuntius.service import accounts
from nuntius.store import activity, sessions
from nuntius.store import second_factor as codes
from nuntius.store.accounts import change_password, confirm_password, free_address
from nuntius.store.activity import What
from nuntius.store.models import User
from nuntius.store.people import call
from nuntius.store.space import Space, own_space, workspace_space
from nuntius.web import account_schemas as a
from nuntius.web.answers import answer
from nuntius.web.security import TRY_RATE, asked_from, installation, limiter, me, my_session

api = APIBlueprint("account", __name__, url_prefix="/api/account", abp_tags=[Tag(name="account")])


def _note(db: Session, user: User, what: What, detail: str = "", recipient: str = "") -> None:
    """Notes a change of the account, and notifies its owner by mail."""
    activity.note(db, user, what, detail, asked_from())
    accounts.notify_owner(db, installation().settings, user, what, detail, recipient)


def _mine(db: Session) -> User:
    return db.get_one(User, me().id)


def _out(db: Session) -> a.AccountOut:
    user = _mine(db)
    browsers = [
        a.BrowserOut(
            id=row.id,
            agent=row.agent,
            address=row.address,
            made_at=row.made_at,
            seen_at=row.seen_at,
            this=row.id == my_session().session_id,
        )
        for row in sessions.sessions_of(db, user)
    ]
    return a.AccountOut(
        name=user.person.name,
        email=user.email,
        role=user.role,
        second_factor=user.totp_secret is not None,
        recovery_left=len(user.recovery_hashes),
        sessions=browsers,
        space=_space(own_space(db, user, installation().settings)),
        workspace_space=_space(workspace_space(db, user, installation().settings)),
    )


def _space(space: Space) -> a.SpaceOut:
    return a.SpaceOut(used=space.used, limit=space.limit)


@api.get("", operation_id="getAccount", responses={200: a.AccountOut})
def get_account() -> Response:
    """One's own account."""
    with installation().database.read() as db:
        return answer(_out(db))


@api.put("/name", operation_id="changeName", responses={200: a.AccountOut})
def change_name(body: a.PersonName) -> Response:
    """Changes one's own name; the word that tells it from others' stays."""
    with installation().database.write() as db:
        person = _mine(db).person
        call(db, person, body.name, person.distinction)
        activity.note(db, me(), What.PERSON_CHANGED, person.label, asked_from())
        return answer(_out(db))


@api.put("/email", operation_id="changeEmail", responses={200: a.AccountOut})
@limiter.limit(TRY_RATE)
def change_email(body: a.EmailIn) -> Response:
    """Changes the address that one signs in with."""
    with installation().database.write() as db:
        user = _mine(db)
        confirm_password(user, body.password)
        before = user.email
        user.email = free_address(db, body.email, user.id)
        _note(db, user, What.ADDRESS_CHANGED, user.email, before)
        return answer(_out(db))


@api.put("/password", operation_id="changePassword", responses={200: a.AccountOut})
@limiter.limit(TRY_RATE)
def set_password(body: a.PasswordIn) -> Response:
    """Changes the password; every other browser is signed out."""
    with installation().database.write() as db:
        user = _mine(db)
        confirm_password(user, body.present)
        change_password(user, body.password)
        sessions.end_all(db, user, but=my_session().session_id)
        _note(db, user, What.PASSWORD_CHANGED)
        return answer(_out(db))


@api.get("/second-factor", operation_id="newSecret", responses={200: a.SecretOut})
def new_secret() -> Response:
    """A secret for a device; nothing changes until a code of it is given."""
    secret = codes.new_secret()
    address = codes.address(me(), secret)
    picture = segno.make(address, error="m").svg_data_uri(scale=4, border=2, dark="#1e2a2f", light="#ffffff")
    return answer(a.SecretOut(secret=secret, address=address, picture=picture))


@api.post("/second-factor", operation_id="turnOnSecondFactor", responses={200: a.RecoveryOut})
@limiter.limit(TRY_RATE)
def turn_on(body: a.SecretIn) -> Response:
    """Asks for codes of this device from now on; answers with the recovery codes."""
    with installation().database.write() as db:
        user = _mine(db)
        confirm_password(user, body.password)
        made = codes.turn_on(user, installation().seal, body.secret, body.code)
        _note(db, user, What.SECOND_FACTOR_ON)
        return answer(a.RecoveryOut(codes=made, account=_out(db)))


@api.post("/second-factor/recovery", operation_id="newRecoveryCodes", responses={200: a.RecoveryOut})
@limiter.limit(TRY_RATE)
def new_recovery(body: a.ConfirmIn) -> Response:
    """New recovery codes in place of the old ones."""
    with installation().database.write() as db:
        user = _mine(db)
        confirm_password(user, body.password)
        made = codes.new_recovery(user)
        _note(db, user, What.SECOND_FACTOR_ON, "new recovery codes")
        return answer(a.RecoveryOut(codes=made, account=_out(db)))


@api.post("/second-factor/off", operation_id="turnOffSecondFactor", responses={200: a.AccountOut})
@limiter.limit(TRY_RATE)
def turn_off(body: a.ConfirmIn) -> Response:
    """Asks for the password alone from now on."""
    with installation().database.write() as db:
        user = _mine(db)
        confirm_password(user, body.password)
        codes.turn_off(user)
        _note(db, user, What.SECOND_FACTOR_OFF)
        return answer(_out(db))


@api.delete("/sessions/<int:session_id>", operation_id="endSession", responses={200: a.AccountOut})
def end_session(path: a.SessionPath) -> Response:
    """Signs one browser out."""
    with installation().database.write() as db:
        sessions.end(db, me(), path.session_id)
        db.flush()
        return answer(_out(db))


@api.delete("/sessions", operation_id="endOtherSessions", responses={200: a.AccountOut})
def end_others() -> Response:
    """Signs every other browser out."""
    with installation().database.write() as db:
        sessions.end_all(db, me(), but=my_session().session_id)
        return answer(_out(db))

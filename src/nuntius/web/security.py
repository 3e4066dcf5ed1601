"""Who may pass: sessions, forged requests, too many tries, headers."""

from flask import Flask, Response, current_app, g, request
from flask_limiter import Limiter
from flask_limiter.util import get_remote_address
from flask_login import LoginManager, UserMixin, current_user
from flask_wtf.csrf import CSRFProtect
from sqlalchemy import select

from nuntius.store.installation import Installation
from nuntius.store.models import User
from nuntius.web.problems import SENTENCES, problem

OPEN = frozenset(
    {"session.get_session", "session.sign_in", "session.first_account", "system.health", "pages.page"}
)  # endpoints that answer without a session
SIGN_IN_RATE = "8 per minute; 60 per hour"
POLICY = (
    "default-src 'self'; img-src 'self' data: blob:; media-src 'self' blob:; style-src 'self' 'unsafe-inline'; "
    "font-src 'self'; script-src 'self'; connect-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'"
)

csrf = CSRFProtect()
limiter = Limiter(get_remote_address, storage_uri="memory://", headers_enabled=True)


class SignedIn(UserMixin):  # type: ignore[misc]
    """The account behind a session."""

    def __init__(self, user: User) -> None:
        self.user = user

    def get_id(self) -> str:
        return self.user.session_key


def installation() -> Installation:
    """The installation that this application serves."""
    return current_app.extensions["nuntius"]  # type: ignore[no-any-return]


def me() -> User:
    """The account that is signed in; every route but the open ones has one."""
    return current_user.user  # type: ignore[no-any-return]


def install(app: Flask) -> None:
    """Sets up sessions, CSRF protection, the rate limit and the headers."""
    manager = LoginManager(app)
    manager.session_protection = "strong"

    @manager.user_loader
    def _load(key: str) -> SignedIn | None:
        with installation().database.read() as session:
            user = session.scalar(select(User).where(User.session_key == key))
        return SignedIn(user) if user else None

    @app.before_request
    def _wall() -> Response | None:
        """Nothing but the open routes answers without a session; a new route is closed by itself."""
        if request.endpoint in OPEN or request.endpoint is None or current_user.is_authenticated:
            return None
        return problem(401, SENTENCES[401])

    csrf.init_app(app)
    limiter.init_app(app)

    @app.after_request
    def _headers(response: Response) -> Response:
        response.headers.setdefault("Content-Security-Policy", POLICY)
        response.headers.setdefault("X-Content-Type-Options", "nosniff")
        response.headers.setdefault("Referrer-Policy", "same-origin")
        if g.get("private"):
            response.headers["Cache-Control"] = "no-store"
        return response

"""Authentication: sessions, forged requests, too many requests, headers. What may be done is decided in `core.rights`."""

from datetime import timedelta
from urllib.parse import urlsplit

from flask import Flask, Response, current_app, g, request
from flask_limiter import Limiter
from flask_limiter.util import get_remote_address
from flask_login import LoginManager, UserMixin, current_user
from flask_wtf.csrf import CSRFProtect
from werkzeug.middleware.proxy_fix import ProxyFix

from nuntius.core.errors import Fault
from nuntius.settings import Settings
from nuntius.store import sessions
from nuntius.store.installation import Installation
from nuntius.store.models import User, now
from nuntius.web.problems import SENTENCES, problem

OPEN = frozenset(
    {
        "session.get_session",
        "session.sign_in",
        "session.second_factor",
        "session.sign_out",
        "session.first_account",
        "links.look_at_invitation",
        "links.accept_invitation",
        "links.forgotten",
        "links.choose_password",
        "system.health",
        "pages.page",
    }
)  # endpoints that answer without a session
TRY_RATE = "60 per minute"  # of tries with a password, code or link from one address; failures have pauses besides
POLICY = (
    "default-src 'self'; img-src 'self' data: blob:; media-src 'self' blob:; style-src 'self' 'unsafe-inline'; "
    "font-src 'self'; script-src 'self'; connect-src 'self'; frame-ancestors 'none'; base-uri 'none'; form-action 'self'"
)

PERMISSIONS = "camera=(self), microphone=(self), display-capture=(self), geolocation=(), payment=(), usb=()"
HEADERS = {
    "Content-Security-Policy": POLICY,
    "X-Content-Type-Options": "nosniff",
    "Referrer-Policy": "same-origin",
    "Cross-Origin-Opener-Policy": "same-origin",
    "Cross-Origin-Resource-Policy": "same-origin",
    "Permissions-Policy": PERMISSIONS,
}
HTTPS_ONLY = "max-age=31536000"  # seconds for which a browser asks by HTTPS alone; a year is common practice, no source

csrf = CSRFProtect()
limiter = Limiter(get_remote_address, storage_uri="memory://")


class SignedIn(UserMixin):  # type: ignore[misc]
    """The account behind a session, and which session it is."""

    def __init__(self, user: User, session_id: int, token: str) -> None:
        self.user, self.session_id, self._token = user, session_id, token

    def get_id(self) -> str:
        return self._token


def installation() -> Installation:
    """The installation that this application serves."""
    return current_app.extensions["nuntius"]  # type: ignore[no-any-return]


def me() -> User:
    """The account that is signed in; every route but the open ones has one."""
    return current_user.user  # type: ignore[no-any-return]


def my_session() -> SignedIn:
    """The session that the request belongs to."""
    return current_user._get_current_object()  # type: ignore[no-any-return]


def asked_from() -> str:
    """The address that the request came from; behind proxies as far as NUNTIUS_PROXIES believes them."""
    return request.remote_addr or ""


def signed_in(store: Installation, token: str) -> SignedIn | None:
    """Whose session a token is; None when it has ended. Notes now and then that it is used."""
    limits = timedelta(hours=store.settings.idle_hours), timedelta(days=store.settings.session_days)
    with store.database.read() as db:
        found = sessions.find(db, token, *limits)
    if found is None:
        return None
    user, row = found
    if sessions.is_due(row):
        try:
            with store.database.write() as db:
                sessions.seen(db, row.id, now())
        except Fault:
            pass  # a full disk or a busy database signs nobody out
    return SignedIn(user, row.id, token)


def trusted_hosts(settings: Settings) -> list[str] | None:
    """Names by which the pages may be asked for: those that are set, the one of NUNTIUS_URL; None for any."""
    named = {*settings.hosts, urlsplit(settings.url).hostname or ""} - {""}
    return sorted(named | {"localhost", "127.0.0.1", "[::1]", settings.host}) if named else None


def install(app: Flask, settings: Settings) -> None:
    """Sets up sessions, CSRF protection, the rate limit, proxies and the headers."""
    manager = LoginManager(app)
    manager.session_protection = None  # a phone that changes its network stays signed in; each session can be ended
    manager.user_loader(lambda token: signed_in(installation(), token))

    @app.before_request
    def _authenticated() -> Response | None:
        """Nothing but the open routes answers without a session; a new route is closed by itself."""
        if request.endpoint in OPEN or request.endpoint is None or current_user.is_authenticated:
            return None
        return problem(401, SENTENCES[401])

    app.config["TRUSTED_HOSTS"] = trusted_hosts(settings)
    csrf.init_app(app)
    limiter.init_app(app)
    if settings.proxies:
        count = settings.proxies
        app.wsgi_app = ProxyFix(app.wsgi_app, x_for=count, x_proto=count, x_host=count)  # type: ignore[method-assign]

    @app.after_request
    def _headers(response: Response) -> Response:
        for name, value in HEADERS.items():
            response.headers.setdefault(name, value)
        if settings.secure_cookies:
            response.headers["Strict-Transport-Security"] = HTTPS_ONLY
        if g.get("private"):
            response.headers["Cache-Control"] = "no-store"
        return response

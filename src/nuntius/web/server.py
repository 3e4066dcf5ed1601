"""Runs the server: one process, an event loop that serves all connections, and threads that answer."""

import logging
import os
import resource
import signal
from types import FrameType

import uvicorn

from nuntius.log import to_lines
from nuntius.settings import Settings
from nuntius.store.installation import Installation
from nuntius.store.recovery import recover_keys, recover_sound
from nuntius.web.app import BODY, create_app
from nuntius.web.gateway import Gateway
from nuntius.web.streams import Hub

GRACE = 2  # seconds that answers under way have to end


class _Server(uvicorn.Server):
    """Ends its streams as soon as it is asked to end, since they would not by themselves."""

    def __init__(self, config: uvicorn.Config, hub: Hub) -> None:
        super().__init__(config)
        self._hub = hub

    def handle_exit(self, sig: int, frame: FrameType | None) -> None:
        self._hub.end()
        super().handle_exit(sig, frame)


def gateway(settings: Settings) -> tuple[Gateway, Hub]:
    """The whole application as the server runs it, and its streams."""
    app = create_app(settings)
    hub: Hub = app.extensions["nuntius_hub"]
    return Gateway(app, BODY, hub.begin, hub.end), hub


def serve() -> None:
    """Serves until the process is asked to end."""
    to_lines()
    settings = Settings.from_environment()
    installation = Installation(settings)
    recover_sound(installation)
    recover_keys(installation)
    _, most = resource.getrlimit(resource.RLIMIT_NOFILE)
    resource.setrlimit(resource.RLIMIT_NOFILE, (most, most))  # each open page holds a connection
    application, hub = gateway(settings)
    for number in (signal.SIGTERM, signal.SIGINT):
        signal.signal(number, _leave)
    config = uvicorn.Config(
        application,
        host=settings.host,
        port=settings.port,
        http="h11",  # limits the length of headers
        proxy_headers=False,  # whom to believe is decided in `web.security`
        server_header=False,
        access_log=False,
        log_config=None,
        timeout_graceful_shutdown=GRACE,
    )
    _Server(config, hub).run()


def _leave(_number: int, _frame: FrameType | None) -> None:
    """Ends the process at once: the threads of loaded models do not outlive the interpreter's own tidying up."""
    logging.shutdown()
    os._exit(0)

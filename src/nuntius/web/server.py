"""Runs the server: one process, many threads, since each listener to events holds one."""

import logging
import os
from typing import Any

from gunicorn.app.base import BaseApplication

from nuntius.log import to_lines
from nuntius.settings import Settings
from nuntius.store.installation import Installation
from nuntius.store.recovery import recover_sound
from nuntius.web.app import create_app

THREADS = 48


def _leave(server: Any, worker: Any) -> None:
    """Ends the process at once: the threads of loaded models do not outlive the interpreter's own tidying up."""
    logging.shutdown()
    os._exit(0)


class _Server(BaseApplication):  # type: ignore[misc]
    def __init__(self, settings: Settings) -> None:
        self._settings = settings
        super().__init__()

    def load_config(self) -> None:
        options: dict[str, Any] = {
            "bind": f"{self._settings.host}:{self._settings.port}",
            "worker_class": "gthread",
            "workers": 1,
            "threads": THREADS,
            "timeout": 120,
            "graceful_timeout": 2,
            "loglevel": "warning",
            "control_socket_disable": True,
            "worker_exit": _leave,
        }
        for key, value in options.items():
            if key in self.cfg.settings:
                self.cfg.set(key, value)

    def load(self) -> Any:
        recover_sound(Installation(self._settings))
        return create_app(self._settings)


def serve() -> None:
    """Serves until the process is told to end."""
    to_lines()
    _Server(Settings.from_environment()).run()

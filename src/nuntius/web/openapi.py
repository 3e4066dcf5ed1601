"""Writes the OpenAPI file, without touching the data of an installation."""

import json
from dataclasses import replace
from pathlib import Path
from tempfile import TemporaryDirectory

from huey import MemoryHuey

from nuntius.jobs.queue import Queue
from nuntius.settings import Settings
from nuntius.store.installation import Installation
from nuntius.web.app import create_app, openapi_document


def text() -> str:
    """The OpenAPI file as JSON."""
    with TemporaryDirectory() as folder:
        settings = replace(Settings.from_environment({}), data=Path(folder))
        app = create_app(settings, Queue(Installation(settings), lambda _, lane: MemoryHuey(lane)))
        return json.dumps(openapi_document(app), indent=1, sort_keys=True) + "\n"


def write(target: Path) -> None:
    target.write_text(text())

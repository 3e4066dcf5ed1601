"""Requests made from the OpenAPI file: whatever is sent, no answer is 500. `make fuzz` sends more."""

import copy
import json
import os
from pathlib import Path
from typing import Any

import hypothesis
import pytest
import schemathesis
from hypothesis import HealthCheck
from schemathesis.generation import GenerationMode

from nuntius.web.openapi import text
from tests.help import Desk, in_memory

DOCUMENT: dict[str, Any] = json.loads(text())
EXAMPLES = int(os.environ.get("NUNTIUS_FUZZ", "6"))  # requests of each route, and of each kind (valid, invalid)
SIGNS_OUT = {
    ("delete", "/api/session"),
    ("delete", "/api/account/sessions/{session_id}"),
    ("post", "/api/password/choose"),
}
STREAMS = {"/api/events", "/api/meetings/{meeting_id}/room/events"}
OPERATIONS = [
    (method, path)
    for path, item in DOCUMENT["paths"].items()
    for method in item
    if method in ("get", "post", "put", "delete") and path not in STREAMS and (method, path) not in SIGNS_OUT
]


@pytest.fixture(scope="module")
def furnished(tmp_path_factory: pytest.TempPathFactory, migrated: Path) -> tuple[Desk, list[str]]:
    """A desk with a finished record and a room, and their identifiers."""
    import shutil
    from dataclasses import replace

    from nuntius.jobs.queue import Queue
    from nuntius.settings import Settings
    from nuntius.store.installation import Installation, database_of

    folder = tmp_path_factory.mktemp("fuzz")
    settings = replace(Settings.from_environment({"NUNTIUS_RECOGNISER": "scripted"}), data=folder / "data")
    settings.data.mkdir()
    shutil.copyfile(migrated, database_of(settings))
    store = Installation(settings)
    desk = Desk(store, Queue(store, in_memory))
    talk = folder / "talk.txt"
    talk.write_text("Maren: The boat costs 40 pounds to paint.\nInes: I will paint the boat by Friday.\nMaren: Good.")
    record = desk.bring_in(talk, people=("Ines Carvell",))
    desk.work()
    room = desk.client.post("/api/rooms", {"title": "Rota", "people": ["Ines Carvell"]}).json["board"]["meeting"]["id"]
    return desk, [record, room]


def with_known(meetings: list[str]) -> dict[str, Any]:
    """The OpenAPI document, in which identifiers of meetings are mostly those that are there."""
    made = copy.deepcopy(DOCUMENT)
    made["components"] = {key: value for key, value in made["components"].items() if isinstance(value, dict)}
    for item in made["paths"].values():
        for operation in item.values():
            for parameter in operation.get("parameters", []):
                if parameter["in"] == "path" and parameter["name"] == "meeting_id":
                    parameter["schema"] = {"enum": meetings}
    return made


@pytest.mark.parametrize(("method", "path"), OPERATIONS, ids=lambda value: value)
def test_no_answer_is_500(method: str, path: str, furnished: tuple[Desk, list[str]]) -> None:
    desk, meetings = furnished
    schema = schemathesis.openapi.from_dict(with_known(meetings))
    operation = schema[path][method]
    sent = []
    for mode in (GenerationMode.POSITIVE, GenerationMode.NEGATIVE):
        strategy = operation.as_strategy(generation_mode=mode)

        @hypothesis.seed(20260506)
        @hypothesis.settings(
            max_examples=EXAMPLES,
            database=None,
            deadline=None,
            suppress_health_check=list(HealthCheck),
            phases=[hypothesis.Phase.generate],
        )
        @hypothesis.given(case=strategy)
        def send(case: Any) -> None:
            answer = request(desk, case)
            sent.append(answer.status_code)
            assert answer.status_code != 500, (case.formatted_path, case.query, case.body)
            if answer.status_code >= 400:
                assert answer.content_type == "application/problem+json"
                assert {"type", "title", "status", "detail"} <= set(answer.json), answer.json

        try:
            send()
        except hypothesis.errors.Unsatisfiable:
            continue
        except schemathesis.errors.SchemathesisError as cause:
            if "negative" not in str(cause).lower():
                raise
    assert sent


def request(desk: Desk, case: Any) -> Any:
    """Sends a generated request as Maren."""
    given = case.as_transport_kwargs(base_url="http://localhost")
    headers = {"X-CSRF-Token": desk.client.token} | {
        name: value
        for name, value in dict(given.get("headers") or {}).items()
        if name.lower() not in ("cookie", "user-agent")
    }
    body = (
        {"json": given["json"]} if "json" in given else {"data": given["data"]} if given.get("data") is not None else {}
    )
    return desk.client.raw.open(
        given["url"].removeprefix("http://localhost"),
        method=given["method"],
        query_string=given.get("params"),
        headers=headers,
        **body,
    )

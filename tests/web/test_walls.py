"""Nobody gets in without a session, and nobody into a meeting of others."""

from pathlib import Path

import pytest
from flask import Flask
from werkzeug.routing import Rule

from nuntius.web.security import OPEN
from tests.help import MAREN, PASSWORD, Client, Desk


def rules(app: Flask) -> list[Rule]:
    return [rule for rule in app.url_map.iter_rules() if not rule.endpoint.startswith("pages.")]


def address(rule: Rule, meeting: str = "m", line: int = 1, speaker: int = 1) -> str:
    values = {
        "meeting_id": meeting,
        "line_id": line,
        "speaker_id": speaker,
        "number": 0,
        "upload_id": "u",
        "form": next(
            (form for part, form in (("/texts/", "message"), ("/compilations/", "ogg")) if part in rule.rule),
            "minutes.md",
        ),
        "template_id": 1,
        "term_id": 1,
        "question_id": 1,
        "run": 0,
        "part": 0,
        "line": 1,
        "person_id": 1,
        "merging_id": 1,
        "session_id": 1,
        "picture_id": 1,
        "excerpt_id": 1,
        "compilation_id": 1,
        "note_id": "note-one",
        "mark_id": "mark-one",
    }
    _, path = rule.build({k: v for k, v in values.items() if k in rule.arguments}) or ("", "")
    return path


def ask(client: Client, rule: Rule, path: str) -> int:
    method = next(m for m in ("GET", "POST", "PUT", "DELETE") if m in (rule.methods or ()))
    bodies = {
        "/anew": {"people": 2}, "/merge": {"into": 1}, "/split": {"at": 1}, "/join": {}, "/voice": {"voice": 1}, "/replace": {"wanted": "X", "instead": "Y"},
        "/excerpts": {"start": 0, "end": 1}, "/digest": {"minutes": 3},
        "/voices/": {"name": "X"}, "/turns/": {"text": "X"}, "/tick": {"checked": True}, "/thrown": {"reason": None}, "/lines/": {"text": "X"}, "/inquiry": {"question": "X"},
        "/announced": {"announced": True}, "/consents/": {"agreed": True}, "/people": {"name": "X"}, "/agenda/on": {"number": None, "at": 0},
        "/agenda": {"items": []}, "/choices": {"silence_stop": 0, "floor_limit": 0}, "/cut": {"start": 0, "end": 1},
        "/notes/": {"text": "X", "at": 0, "position": 1}, "/marks/": {"label": "X", "start": 0, "end": 1},
        "/pause": {"recorder": "recorder-x", "parts": 0}, "/stop": {"recorder": "recorder-x", "parts": 0},
        "/runs": {"recorder": "recorder-x", "source": "microphone"}, "/room/line": {"link": "ws://x.example/c"},
        "/misheard": {"term": "X", "heard": "Y", "right": True},
    }  # fmt: skip
    body = next((b for part, b in bodies.items() if path.endswith(part) or (part.endswith("s/") and part in path)), {})
    return client.send(method, path, body if method != "GET" else None).status_code


def test_without_a_session_every_route_but_the_open_ones_answers_401(desk: Desk) -> None:
    stranger = desk.stranger()
    answers = {rule.endpoint: ask(stranger, rule, address(rule)) for rule in rules(desk.app)}
    closed = {
        name: status
        for name, status in answers.items()
        if name not in OPEN
    }
    assert len(closed) >= 20
    assert set(closed.values()) == {401}
    assert answers["session.get_session"] == answers["system.health"] == 200


def test_a_meeting_of_others_is_not_found_on_any_route(desk: Desk, wav: Path) -> None:
    tobias = desk.account("Tobias Pryce", "tobias@saltmarsh.example")
    meeting = desk.bring_in(wav, people=("Maren Tull", "Ines Carvell"))
    touched = [rule for rule in rules(desk.app) if "meeting_id" in rule.arguments]
    assert len(touched) >= 15
    assert {rule.endpoint: ask(tobias, rule, address(rule, meeting)) for rule in touched} == {
        rule.endpoint: 404 for rule in touched
    }
    assert tobias.get("/api/meetings").json == {"meetings": []}


def test_those_who_were_there_may_open_it_and_only_the_runner_may_delete_it(desk: Desk, wav: Path) -> None:
    tobias = desk.account("Tobias Pryce", "tobias@saltmarsh.example")
    meeting = desk.bring_in(wav, people=("Tobias Pryce",))
    assert tobias.get(f"/api/meetings/{meeting}").status_code == 200
    assert tobias.send("DELETE", f"/api/meetings/{meeting}").status_code == 403
    assert desk.client.send("DELETE", f"/api/meetings/{meeting}").status_code == 200
    assert desk.client.get(f"/api/meetings/{meeting}").status_code == 404


def test_an_upload_of_others_is_not_found(desk: Desk) -> None:
    tobias = desk.account("Tobias Pryce", "tobias@saltmarsh.example")
    upload = desk.client.post("/api/uploads", {"name": "a", "size": 3, "fingerprint": "0" * 64}).json["id"]
    assert tobias.get(f"/api/uploads/{upload}").status_code == 404
    assert tobias.put_part(upload, 0, b"abc").status_code == 404


def test_a_line_or_voice_of_another_meeting_is_not_found(desk: Desk, tmp_path: Path) -> None:
    meetings = []
    for number in range(2):
        path = tmp_path / f"{number}.txt"
        path.write_text(f"Maren: The boat {number} costs 40 pounds.\nInes: I will paint the boat by Friday.")
        meetings.append(desk.bring_in(path))
    desk.work()
    first, second = (desk.record(meeting) for meeting in meetings)
    line, voice = second["minutes"]["lines"][0]["id"], second["voices"][0]["id"]
    base = f"/api/meetings/{first['meeting']['id']}"
    assert desk.client.put(f"{base}/lines/{line}", {"text": "X"}).status_code == 404
    assert desk.client.put(f"{base}/lines/{line}/tick", {"checked": True}).status_code == 404
    assert desk.client.put(f"{base}/voices/{voice}", {"name": "X"}).status_code == 404


def test_changes_without_the_token_are_refused(desk: Desk) -> None:
    response = desk.client.raw.post("/api/people", json={"name": "X"})
    assert response.status_code == 400
    assert response.content_type == "application/problem+json"


def test_signing_in_is_slowed_down(desk: Desk) -> None:
    stranger = desk.stranger()
    answers = [
        stranger.post("/api/session", {"email": "maren@saltmarsh.example", "password": f"wrong {n}"}).status_code
        for n in range(12)
    ]
    assert answers[0] == 403
    assert answers[-1] == 429


def test_signing_out_ends_this_session_alone(desk: Desk) -> None:
    other = desk.sign_in(MAREN, PASSWORD)
    assert desk.client.send("DELETE", "/api/session").status_code == 200
    assert desk.client.get("/api/meetings").status_code == 401
    assert other.get("/api/meetings").status_code == 200


def test_the_first_account_is_asked_for_once(desk: Desk) -> None:
    body = {"workspace": "W", "name": "N", "email": "n@example.org", "password": "long enough for it"}
    assert desk.stranger().post("/api/first-account", body).status_code == 409
    assert not desk.stranger().get("/api/session").json["needs_first_account"]


def test_pages_carry_the_headers_that_keep_others_out(desk: Desk) -> None:
    headers = desk.stranger().get("/api/health").headers
    assert "default-src 'self'" in headers["Content-Security-Policy"]
    assert headers["X-Content-Type-Options"] == "nosniff"


@pytest.mark.parametrize("path", ["/../../etc/passwd", "/%2e%2e/%2e%2e/app.py", "/api/none"])
def test_no_file_outside_the_pages_is_served(path: str, desk: Desk) -> None:
    response = desk.stranger().get(path)
    assert b"root:" not in response.data
    assert b"create_app" not in response.data


def test_a_spoken_word_never_gets_into_the_log(desk: Desk, tmp_path: Path, caplog: pytest.LogCaptureFixture) -> None:
    path = tmp_path / "talk.txt"
    path.write_text("Maren: The xylophone budget is 40 pounds.\nInes: I will order xylophones by Friday.")
    with caplog.at_level("DEBUG", logger="nuntius"):
        desk.bring_in(path)
        desk.work()
    assert "job ends" in caplog.text
    assert "xylophone" not in caplog.text

"""Nobody gets in without a session, and nobody into a meeting of others."""

from pathlib import Path

import pytest
from flask import Flask
from sqlalchemy import select
from werkzeug.routing import Rule

from nuntius.core.rights import Action, may
from nuntius.store.meetings import open_to
from nuntius.store.models import Meeting, User
from nuntius.store.rights import actor_of, meeting_thing
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
            (form for part, form in (("/texts/", "message"), ("/compilations/", "txt")) if part in rule.rule),
            "minutes.md",
        ),
        "template_id": 1,
        "term_id": 1,
        "question_id": 1,
        "run": 0,
        "part": 0,
        "line": 1,
        "change_id": 1,
        "version_id": 1,
        "person_id": 1,
        "merging_id": 1,
        "session_id": 1,
        "picture_id": 1,
        "excerpt_id": 1,
        "export_id": "export-one",
        "compilation_id": 1,
        "note_id": "note-one",
        "mark_id": "mark-one",
    }
    _, path = rule.build({k: v for k, v in values.items() if k in rule.arguments}) or ("", "")
    return path


def ask(client: Client, rule: Rule, path: str) -> int:
    method = next(m for m in ("GET", "POST", "PUT", "PATCH", "DELETE") if m in (rule.methods or ()))
    bodies = {
        "/lines/1/join": {"other": 2}, "/lines/1/split": {"first": "X", "second": "Y"}, "/restore": {"line": None},
        "/lines": {"kind": "action", "text": "X", "place": 0},
        "excerpts/exports": {"ids": [1]}, "compilations/1/exports": {"kind": "compilation.ogg"}, "/exports": {"kind": "minutes.pdf"},
        "/again": {"people": 2}, "/merge": {"into": 1}, "/split": {"at": 1}, "/join": {}, "/voice": {"voice": 1}, "/replace": {"wanted": "X", "instead": "Y"},
        "/excerpts": {"start": 0, "end": 1}, "/digest": {"minutes": 3},
        "/voices/": {"name": "X"}, "/turns/": {"text": "X"}, "/tick": {"checked": True}, "/thrown": {"reason": None}, "/lines/": {"text": "X"}, "/inquiry": {"question": "X"},
        "/announced": {"announced": True}, "/consents/": {"agreed": True}, "/people": {"name": "X"}, "/agenda/on": {"number": None, "at": 0},
        "/agenda": {"items": []}, "/put-away": {"put_away": True}, "/choices": {"silence_stop": 0, "floor_limit": 0}, "/cut": {"start": 0, "end": 1},
        "/notes/": {"text": "X", "at": 0, "position": 1}, "/marks/": {"label": "X", "start": 0, "end": 1},
        "/pause": {"recorder": "recorder-x", "parts": 0}, "/stop": {"recorder": "recorder-x", "parts": 0},
        "/runs": {"recorder": "recorder-x", "source": "microphone"}, "/room/line": {"link": "ws://x.example/c"},
        "/details": {"title": "X", "starts_at": "2026-10-06T09:30:00"},
        "/misheard": {"term": "X", "heard": "Y", "right": True},
    }  # fmt: skip
    body = next((b for part, b in bodies.items() if path.endswith(part) or (part.endswith("s/") and part in path)), {})
    return client.send(method, path, body if method != "GET" else None).status_code


def test_without_a_session_every_route_but_the_open_ones_answers_401(desk: Desk) -> None:
    stranger = desk.stranger()
    answers = {rule.endpoint: ask(stranger, rule, address(rule)) for rule in rules(desk.app)}
    closed = {name: status for name, status in answers.items() if name not in OPEN}
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
    assert tobias.get("/api/meetings").json == {"meetings": [], "total": 0, "after": None}


RUN = {
    "attendance.add_attendee", "attendance.take_off", "capture.finish", "capture.join_call", "capture.leave_call",
    "keeping.diarize_again", "meetings.begin_work", "meetings.change_details", "meetings.cancel", "meetings.put_work_away", "meetings.try_again", "records.cut", "records.delete",
    "rooms.add_person", "rooms.cut_out",
}  # fmt: skip
ADMINISTER = {
    "activities.get_activity", "people.delete_person", "people.invite", "people.post_merge", "people.put_person",
    "people.put_role", "people.undo_merging", "people.withdraw", "rooms.set_workspace",
}  # fmt: skip


def test_every_route_of_a_meeting_with_every_role(desk: Desk) -> None:
    """Who takes part may do all but what only the runner may; an administrator who was not there finds nothing."""
    runner = desk.account("Tobias Pryce", "tobias@saltmarsh.example")
    present = desk.account("Ines Carvell", "ines@saltmarsh.example")
    absent = desk.account("Priya Nand", "priya@saltmarsh.example")
    body = {"title": "Crew rota", "people": ["Ines Carvell"]}
    meeting = runner.post("/api/rooms", body).json["board"]["meeting"]["id"]
    touched = [rule for rule in rules(desk.app) if "meeting_id" in rule.arguments]

    def answers(client: Client) -> dict[str, int]:
        return {rule.endpoint: ask(client, rule, address(rule, meeting)) for rule in touched}

    assert set(answers(desk.stranger()).values()) == {401}
    assert set(answers(absent).values()) == set(answers(desk.client).values()) == {404}
    assert {name for name, status in answers(present).items() if status == 403} == RUN | {
        "rooms.tick_consent"
    }  # another's
    order = sorted(touched, key=lambda rule: rule.endpoint in ("records.delete", "attendance.take_off"))
    allowed = {rule.endpoint: ask(runner, rule, address(rule, meeting)) for rule in order}
    assert [name for name, status in allowed.items() if status in (401, 403)] == []
    assert allowed["records.delete"] == 200


def test_every_route_of_the_workspace_with_every_role(desk: Desk) -> None:
    member = desk.account("Ines Carvell", "ines@saltmarsh.example")
    here = [rule for rule in rules(desk.app) if "meeting_id" not in rule.arguments and rule.endpoint not in OPEN]
    here = [rule for rule in here if "sign_out" not in rule.endpoint]
    bodies = {
        "people.put_person": {"name": "Ines"}, "people.invite": {"email": "x@saltmarsh.example"},
        "people.put_role": {"role": "administrator"}, "people.post_merge": {"into": 2},
        "rooms.set_workspace": {"announcement": "We record.", "consent_needed": True},
    }  # fmt: skip

    def answered(client: Client, rule: Rule) -> int:
        if rule.endpoint not in bodies:
            return ask(client, rule, address(rule))
        method = next(m for m in ("POST", "PUT") if m in (rule.methods or ()))
        return client.send(method, address(rule), bodies[rule.endpoint]).status_code

    streams = ("events.",)
    walked = [rule for rule in here if not rule.endpoint.startswith(streams)]
    assert {rule.endpoint for rule in walked if answered(member, rule) == 403} == ADMINISTER
    assert [rule.endpoint for rule in walked if answered(desk.client, rule) == 403] == []


def test_what_others_share_is_theirs_to_change(desk: Desk) -> None:
    ines = desk.account("Ines Carvell", "ines@saltmarsh.example")
    tobias = desk.account("Tobias Pryce", "tobias@saltmarsh.example")
    term = ines.post("/api/setup/terms", {"text": "Hollin Bay", "heard": []}).json["terms"][0]
    ines.post("/api/setup/questions", {"text": "What about the boats?"})
    shape = {"name": "crew meeting", "sections": [{"title": "Decisions", "kinds": ["decision"]}]}
    template = ines.post("/api/templates", shape).json
    theirs = {
        f"/api/setup/terms/{term['id']}": "DELETE",
        "/api/setup/questions/1": "DELETE",
        f"/api/templates/{template['id']}": "PUT",
    }
    for path, method in theirs.items():
        assert tobias.send(method, path, shape if method == "PUT" else None).status_code == 403
    assert not tobias.get("/api/setup/terms").json["terms"][0]["may_change"]
    assert ines.send("PUT", f"/api/templates/{template['id']}", shape).status_code == 200
    assert desk.client.send("DELETE", f"/api/templates/{template['id']}").status_code == 200
    for path in list(theirs)[:2]:
        assert ines.send("DELETE", path).status_code == 200


def test_each_ticks_their_own_consent_and_the_runner_everybodys(desk: Desk) -> None:
    ines = desk.account("Ines Carvell", "ines@saltmarsh.example")
    board = desk.client.post("/api/rooms", {"title": "Rota", "people": ["Ines Carvell"]}).json["board"]
    base, ids = f"/api/meetings/{board['meeting']['id']}/room/consents", {p["name"]: p["id"] for p in board["there"]}
    assert ines.put(f"{base}/{ids['Maren Tull']}", {"agreed": True}).status_code == 403
    assert ines.put(f"{base}/{ids['Ines Carvell']}", {"agreed": True}).status_code == 200
    assert desk.client.put(f"{base}/{ids['Ines Carvell']}", {"agreed": False}).status_code == 200


def test_only_the_runner_takes_a_recording_over(desk: Desk) -> None:
    ines = desk.account("Ines Carvell", "ines@saltmarsh.example")
    base = f"/api/meetings/{desk.client.post('/api/rooms', {'title': 'Rota', 'people': ['Ines Carvell']}).json['board']['meeting']['id']}/room"
    desk.client.put(f"{base}/announced", {"announced": True})
    begin = {"recorder": "recorder-of-ines", "source": "microphone"}
    assert ines.post(f"{base}/runs", begin).status_code == 200
    over = {"recorder": "recorder-of-maren", "source": "microphone", "take_over": True}
    assert desk.client.post(f"{base}/runs", over).status_code == 200
    assert ines.post(f"{base}/runs", begin | {"take_over": True}).status_code == 403


def test_lists_agree_with_the_function_that_decides(desk: Desk) -> None:
    clients = [
        desk.client,
        *(desk.account(n, f"{n[:4].lower()}@saltmarsh.example") for n in ("Ines Carvell", "Tobias Pryce")),
    ]
    for number, there in enumerate([[], ["Ines Carvell"], ["Tobias Pryce"], ["Ines Carvell", "Maren Tull"]]):
        clients[number % 3].post("/api/rooms", {"title": f"M{number}", "people": there})
    with desk.installation.database.read() as session:
        everything, users = list(session.scalars(select(Meeting))), list(session.scalars(select(User)))
        for user in users:
            listed = {meeting.id for meeting in session.scalars(open_to(user))}
            assert listed == {m.id for m in everything if may(actor_of(user), Action.READ, meeting_thing(m))}


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


@pytest.mark.parametrize("path", ["/../../etc/passwd", "/%2e%2e/%2e%2e/app.py", "/api/none"])
def test_no_file_outside_the_pages_is_served(path: str, desk: Desk) -> None:
    response = desk.stranger().get(path)
    assert b"root:" not in response.data
    assert b"create_app" not in response.data

"""Lines by hand over the API: added, changed, moved, joined, split; kept on a re-make, taken back, listed in the history."""

from pathlib import Path
from typing import Any

import pytest

from tests.help import Client, Desk

Json = dict[str, Any]


def lines(answer: Json) -> list[Json]:
    made: list[Json] = answer["minutes"]["lines"]
    return made


def of(answer: Json, line_id: int) -> Json:
    return next(line for line in lines(answer) if line["id"] == line_id)


def kinds(answer: Json, kind: str) -> list[Json]:
    return [line for line in lines(answer) if line["kind"] == kind]


def base(meeting: str) -> str:
    return f"/api/meetings/{meeting}/lines"


def changed(client: Client, meeting: str, line_id: int, **what: Any) -> Json:
    response = client.send("PATCH", f"{base(meeting)}/{line_id}", what)
    assert response.status_code == 200, response.text
    made: Json = response.json
    return made


def add(desk: Desk, meeting: str, **what: Any) -> Json:
    """Adds a line; it."""
    there = {line["id"] for line in lines(desk.record(meeting))}
    response = desk.client.post(base(meeting), {"kind": "decision", "text": "Close the slipway.", "place": 0, **what})
    assert response.status_code == 200, response.text
    return next(line for line in lines(response.json) if line["id"] not in there)


def undo(desk: Desk, meeting: str) -> Json:
    made: Json = desk.client.post(f"/api/meetings/{meeting}/undo").json
    return made


def redo(desk: Desk, meeting: str) -> Json:
    made: Json = desk.client.post(f"/api/meetings/{meeting}/redo").json
    return made


def history(desk: Desk, meeting: str) -> list[Json]:
    made: list[Json] = desk.client.get(f"/api/meetings/{meeting}/history").json["changes"]
    return made


def test_a_line_is_added_with_its_words_and_stays_when_minutes_are_made_again(desk: Desk, meeting: str) -> None:
    made = add(desk, meeting, evidence=[{"turn": 2, "first": 4, "last": 8}])
    assert (made["by_hand"], made["why"], made["checked"]) == (True, "added by hand", False)
    assert made["evidence"][0]["quote"] == "seven hundred and fifty pounds"
    assert of(desk.remade(meeting), made["id"]) == made
    gone = undo(desk, meeting)
    assert made["id"] not in [line["id"] for line in lines(gone)]
    assert of(redo(desk, meeting), made["id"]) == made
    assert history(desk, meeting)[0]["what"] == "Added a line"


def test_a_line_may_rest_on_no_words(desk: Desk, meeting: str) -> None:
    made = add(
        desk, meeting, kind="action", text="Ring the yard.", owner=["Ines Carvell"], remark="Agreed at the door."
    )
    assert made["evidence"] == []
    assert (made["owner"], made["remark"]) == (["Ines Carvell"], "Agreed at the door.")
    text = desk.client.get(f"/api/meetings/{meeting}/files/minutes.md").text
    assert "Ring the yard. — Ines Carvell; no date named — Agreed at the door. [added by hand" in text
    assert of(desk.remade(meeting), made["id"])["owner"] == ["Ines Carvell"]


@pytest.mark.parametrize(
    ("said", "day"), [("by Friday", "2026-10-09"), ("14 October", "2026-10-14"), ("2026-11-02", "2026-11-02")]
)
def test_a_day_is_read_as_people_say_it(said: str, day: str, desk: Desk, meeting: str) -> None:
    line = kinds(desk.record(meeting), "action")[0]
    assert of(changed(desk.client, meeting, line["id"], due_said=said), line["id"])["due"] == day


def test_a_day_that_is_none_is_refused_in_words(desk: Desk, meeting: str) -> None:
    line = kinds(desk.record(meeting), "action")[0]
    refused = desk.client.send("PATCH", f"{base(meeting)}/{line['id']}", {"due_said": "when pigs fly"})
    assert refused.status_code == 409
    assert refused.json["detail"].startswith("“when pigs fly” names no day")
    taken = of(changed(desk.client, meeting, line["id"], due=None), line["id"])
    assert (taken["due"], taken["due_said"]) == (None, None)


def test_owner_and_day_that_a_person_set_stay_when_minutes_are_made_again(desk: Desk, meeting: str) -> None:
    line = kinds(desk.record(meeting), "action")[0]
    after = changed(desk.client, meeting, line["id"], owner=["Ines Carvell", "Tobias Pryce"], due="2026-12-24")
    assert of(after, line["id"])["set_by_person"] == ["due", "due_said", "owner"]
    again = of(desk.remade(meeting), line["id"])
    assert (again["owner"], again["due"]) == (["Ines Carvell", "Tobias Pryce"], "2026-12-24")
    assert again["text"] == line["text"]
    back = of(undo(desk, meeting), line["id"])
    assert (back["owner"], back["due"], back["set_by_person"]) == (line["owner"], line["due"], [])


def test_checked_is_not_done(desk: Desk, meeting: str) -> None:
    first, second = desk.client.get("/api/meetings/actions").json["actions"]
    desk.client.put(f"{base(meeting)}/{first['line_id']}/tick", {"checked": True})
    assert desk.client.get("/api/meetings/actions").json["total"] == 2
    changed(desk.client, meeting, first["line_id"], progress="done")
    changed(desk.client, meeting, second["line_id"], progress="dropped")
    assert desk.client.get("/api/meetings/actions").json["total"] == 0
    calendar = desk.client.get(f"/api/meetings/{meeting}/files/actions.ics").text
    assert "STATUS:COMPLETED" in calendar and "STATUS:CANCELLED" in calendar
    assert [each["what"] for each in history(desk, meeting)][:2] == ["Dropped a task", "Said that a task is done"]
    desk.remade(meeting)
    assert desk.client.get("/api/meetings/actions").json["total"] == 0


def test_ones_own_actions_are_found_by_name_and_by_voice(desk: Desk, meeting: str) -> None:
    def mine() -> list[str]:
        return [a["text"] for a in desk.client.get("/api/meetings/actions?mine=true").json["actions"]]

    assert mine() == []
    line = kinds(desk.record(meeting), "action")[0]
    changed(desk.client, meeting, line["id"], owner=["Maren Tull"])
    assert mine() == [line["text"]]
    yard = next(a for a in desk.client.get("/api/meetings/actions").json["actions"] if "yard" in a["text"])
    voices = desk.record(meeting)["voices"]
    third = next(v for v in voices if v["name"] in yard["owner"])
    desk.client.put(f"/api/meetings/{meeting}/voices/{third['id']}", {"name": "Maren Tull"})
    assert len(mine()) == 2


def test_the_calendar_knows_a_task_again(desk: Desk, meeting: str) -> None:
    def uids() -> list[str]:
        text = desk.client.get(f"/api/meetings/{meeting}/files/actions.ics").text
        return [row for row in text.splitlines() if row.startswith("UID:")]

    before = uids()
    assert len(set(before)) == 2
    desk.client.post(f"/api/meetings/{meeting}/minutes", {"length": "full"})
    desk.work()
    assert set(before) <= set(uids())


def test_lines_that_nobody_touched_keep_their_numbers(desk: Desk, meeting: str) -> None:
    before = {line["id"]: line["text"] for line in lines(desk.record(meeting))}
    assert {line["id"]: line["text"] for line in lines(desk.remade(meeting))} == before


def test_lines_are_moved_between_sections_and_beside_each_other(desk: Desk, meeting: str) -> None:
    record = desk.record(meeting)
    one, other = kinds(record, "action")
    titles = [section["title"] for section in record["minutes"]["sections"]]
    moved = changed(desk.client, meeting, other["id"], before=one["id"])
    assert [line["id"] for line in kinds(moved, "action")] == [other["id"], one["id"]]
    assert [line["id"] for line in kinds(desk.remade(meeting), "action")] == [other["id"], one["id"]]
    elsewhere = changed(desk.client, meeting, one["id"], place=len(titles) - 1)
    assert of(elsewhere, one["id"])["place"] == len(titles) - 1
    assert of(desk.remade(meeting), one["id"])["place"] == len(titles) - 1
    undo(desk, meeting)
    assert [line["id"] for line in kinds(undo(desk, meeting), "action")] == [one["id"], other["id"]]


def test_many_lines_find_room_behind_the_same_one(desk: Desk, meeting: str) -> None:
    first = add(desk, meeting, text="First.")
    for number in range(14):
        add(desk, meeting, text=f"Number {number}.", after=first["id"])
    made = [line["text"] for line in lines(desk.record(meeting)) if line["by_hand"]]
    assert made == ["First.", *(f"Number {number}." for number in reversed(range(14)))]


def test_two_lines_become_one_and_two_again(desk: Desk, meeting: str) -> None:
    one, other = kinds(desk.record(meeting), "action")
    joined = desk.client.post(f"{base(meeting)}/{one['id']}/join", {"other": other["id"]}).json
    (line,) = kinds(joined, "action")
    assert line["id"] == one["id"]
    assert set(line["owner"]) == {*one["owner"], *other["owner"]}
    assert {e["quote"] for e in line["evidence"]} == {e["quote"] for e in (*one["evidence"], *other["evidence"])}
    assert [each["text"] for each in kinds(desk.remade(meeting), "action")] == [
        line["text"]
    ]  # the second is part of it
    fate = desk.client.get(f"{base(meeting)}/{other['id']}").json
    assert fate["now_in"] == one["id"]
    assert history(desk, meeting)[0]["what"] == "Joined two lines"
    back = undo(desk, meeting)
    assert [each["id"] for each in kinds(back, "action")] == [one["id"], other["id"]]
    assert kinds(back, "action") == [one, other]


def test_what_was_pointed_at_stays_where_others_speak_at_once(desk: Desk, tmp_path: Path) -> None:
    """A short word said into another's long sentence is found by its turn, not by whose words are more at that time."""
    (tmp_path / "at-once.vtt").write_text(
        "WEBVTT\n\n00:00:01.000 --> 00:00:05.000\n<v Ann>We close the slipway for the whole winter then\n\n"
        "00:00:02.000 --> 00:00:04.000\n<v Ben>Yes please\n"
    )
    meeting = desk.bring_in(tmp_path / "at-once.vtt", people=("Maren Tull",))
    desk.work()
    made = add(desk, meeting, text="Ben agreed.", evidence=[{"turn": 1, "first": 0, "last": 1}])
    assert [(each["turn"], each["quote"]) for each in made["evidence"]] == [(1, "Yes please")]
    again = of(desk.remade(meeting), made["id"])
    assert [(each["turn"], each["quote"]) for each in again["evidence"]] == [(1, "Yes please")]


def test_a_line_is_split(desk: Desk, meeting: str) -> None:
    line = kinds(desk.record(meeting), "action")[0]
    path = f"{base(meeting)}/{line['id']}/split"
    made = kinds(desk.client.post(path, {"first": "Send the times.", "second": "Ring them."}).json, "action")
    assert [each["text"] for each in made[:2]] == ["Send the times.", "Ring them."]
    assert made[0]["id"] == line["id"]
    assert made[1]["owner"] == line["owner"]
    assert [each["text"] for each in kinds(desk.remade(meeting), "action")][:2] == ["Send the times.", "Ring them."]
    assert history(desk, meeting)[0]["what"] == "Split a line"
    assert of(undo(desk, meeting), line["id"])["text"] == line["text"]
    assert desk.client.post(path, {"first": "All of it.", "second": " "}).status_code == 409


def test_evidence_is_pointed_at(desk: Desk, meeting: str) -> None:
    line = kinds(desk.record(meeting), "action")[0]
    after = changed(desk.client, meeting, line["id"], evidence=[{"turn": 0, "first": 0, "last": 1}])
    assert [e["quote"] for e in of(after, line["id"])["evidence"]] == ["Good morning."]
    assert [e["quote"] for e in of(desk.remade(meeting), line["id"])["evidence"]] == ["Good morning."]
    wrong = desk.client.send(
        "PATCH", f"{base(meeting)}/{line['id']}", {"evidence": [{"turn": 99, "first": 0, "last": 0}]}
    )
    assert (wrong.status_code, wrong.json["detail"]) == (
        409,
        "These words are not in the transcript any more. Choose them again.",
    )


def test_what_was_checked_does_not_change_behind_a_persons_back(desk: Desk, meeting: str) -> None:
    line = kinds(desk.record(meeting), "action")[0]
    desk.client.put(f"{base(meeting)}/{line['id']}/tick", {"checked": True})
    desk.client.put(
        f"/api/meetings/{meeting}/details", {"title": "Winter timetable", "starts_at": "2026-10-13T09:30:00"}
    )
    desk.work()
    other = kinds(desk.record(meeting), "action")[1]
    assert of(desk.record(meeting), line["id"])["due"] == line["due"]
    assert other["due"] == "2026-10-16"  # by Friday, counted from the other day


def test_hostile_values_are_refused(desk: Desk, meeting: str) -> None:
    line = kinds(desk.record(meeting), "action")[0]
    path = f"{base(meeting)}/{line['id']}"
    for body, status in (
        ({"place": 900}, 409),
        ({"owner": [f"Name {n}" for n in range(60)]}, 409),
        ({"owner": ["x" * 300]}, 409),
        ({"kind": "rumour"}, 422),
        ({"after": line["id"]}, 409),
        ({"after": 2**31 - 1}, 404),
        ({"remark": "x" * 4500}, 409),
        ({"colour": "red"}, 422),
    ):
        assert desk.client.send("PATCH", path, body).status_code == status, body
    assert desk.client.post(base(meeting), {"kind": "action", "text": " ", "place": 0}).status_code == 409
    assert desk.client.post(f"{path}/join", {"other": line["id"]}).status_code == 409
    assert of(desk.record(meeting), line["id"]) == line


def test_nothing_changes_where_nothing_is_given(desk: Desk, meeting: str) -> None:
    line = kinds(desk.record(meeting), "action")[0]
    changed(desk.client, meeting, line["id"], progress="open", owner=line["owner"])
    assert history(desk, meeting) == []


# --- earlier minutes ---


def versions(desk: Desk, meeting: str) -> list[Json]:
    made: list[Json] = desk.client.get(f"/api/meetings/{meeting}/versions").json["versions"]
    return made


def shorter(desk: Desk, meeting: str) -> Json:
    """Minutes by a template that holds less."""
    desk.client.post(f"/api/meetings/{meeting}/minutes", {"template": "stand-up"})
    desk.work()
    return desk.record(meeting)


def test_minutes_that_read_the_same_leave_no_version(desk: Desk, meeting: str) -> None:
    desk.remade(meeting)
    assert versions(desk, meeting) == []


def test_earlier_minutes_are_looked_at_and_taken_back(desk: Desk, meeting: str) -> None:
    before = desk.record(meeting)
    after = shorter(desk, meeting)
    gone = {line["id"] for line in lines(before)} - {line["id"] for line in lines(after)}
    (version,) = versions(desk, meeting)
    assert version["lines"] == len(lines(before))
    path = f"/api/meetings/{meeting}/versions/{version['id']}"
    seen = desk.client.get(path).json
    assert {line["id"] for line in seen["lines"] if line["gone"]} == gone
    assert gone, "the shorter template leaves a line out"
    lost = gone.pop()
    fate = desk.client.get(f"{base(meeting)}/{lost}").json
    assert (fate["now_in"], fate["version"]) == (None, version["id"])
    assert fate["text"] == of(before, lost)["text"]

    one = desk.client.post(f"{path}/restore", {"line": lost}).json
    assert of(one, lost)["text"] == of(before, lost)["text"]
    assert of(desk.remade(meeting), lost)["text"] == of(before, lost)["text"]
    undo(desk, meeting)
    everything = desk.client.post(f"{path}/restore", {"line": None}).json
    assert {line["id"]: line["text"] for line in lines(everything)} == {
        line["id"]: line["text"] for line in lines(before)
    }
    assert desk.client.post(f"{path}/restore", {"line": None}).status_code == 409
    assert {line["id"] for line in lines(undo(desk, meeting))} == {line["id"] for line in lines(after)}


def test_a_line_that_never_was_is_not_found(desk: Desk, meeting: str) -> None:
    assert desk.client.get(f"{base(meeting)}/9999").status_code == 404
    assert desk.client.get(f"/api/meetings/{meeting}/versions/9999").status_code == 404


# --- the history ---


def test_any_change_is_put_back_from_the_history_unless_it_was_changed_again(desk: Desk, meeting: str) -> None:
    line = kinds(desk.record(meeting), "action")[0]
    path = f"{base(meeting)}/{line['id']}"
    desk.client.put(path, {"text": "Send the times."})
    desk.client.put(f"{path}/tick", {"checked": True})
    changed(desk.client, meeting, line["id"], owner=["Ines Carvell"])
    owner, _, reworded = history(desk, meeting)
    take_back = f"/api/meetings/{meeting}/history/{reworded['id']}/take-back"
    after = desk.client.post(take_back).json
    stands = next(each for each in after["lines"] if each["id"] == line["id"])
    assert (stands["text"], stands["checked"], stands["owner"]) == (line["text"], True, ["Ines Carvell"])
    assert desk.client.post(take_back).status_code == 409
    back = of(desk.client.post(f"/api/meetings/{meeting}/history/{owner['id']}/take-back").json, line["id"])
    assert back["owner"] == line["owner"]
    assert desk.client.post(f"/api/meetings/{meeting}/history/99999/take-back").status_code == 404


def test_whoever_is_named_as_a_voice_joins_the_people(desk: Desk, meeting: str) -> None:
    voice = desk.record(meeting)["voices"][0]["id"]
    desk.client.put(f"/api/meetings/{meeting}/voices/{voice}", {"name": "Ines Carvell"})
    assert "Ines Carvell" in desk.record(meeting)["meeting"]["people"]
    undo(desk, meeting)
    assert "Ines Carvell" not in desk.record(meeting)["meeting"]["people"]
    assert history(desk, meeting)[0]["what"].startswith("Said who ")


def test_only_whoever_runs_a_meeting_opens_it_to_an_account_by_naming_a_voice(desk: Desk, meeting: str) -> None:
    tobias = desk.account("Tobias Pryce", "tobias@saltmarsh.example")
    desk.account("Ines Carvell", "ines@saltmarsh.example")
    voice = desk.record(meeting)["voices"][0]["id"]
    named = tobias.put(f"/api/meetings/{meeting}/voices/{voice}", {"name": "Ines Carvell"})
    assert named.status_code == 200
    assert "Ines Carvell" not in desk.record(meeting)["meeting"]["people"]

"""Compilations over the API: kept, changed, heard, downloaded; the listening digest; what is removed for good is gone from them."""

import io
from pathlib import Path
from typing import Any

import av
import pytest
import webvtt

from tests.help import Desk
from tests.web.test_keeping import bring_both


@pytest.fixture
def meeting(desk: Desk, tmp_path: Path) -> str:
    made = bring_both(desk, tmp_path)
    desk.work()
    return made


def body(meeting: str, **other: Any) -> dict[str, Any]:
    passages = [
        {"meeting_id": meeting, "title": "Who pays", "start": 6.5, "end": 12.0},
        {"meeting_id": meeting, "title": "The price", "start": 12.5, "end": 15.0},
    ]
    sections = [{"title": "Money", "passages": passages[1:]}, {"title": "Questions", "passages": passages[:1]}]
    return {"title": "What the lifts cost", "spoken": False, "sections": sections, **other}


def test_one_is_kept_changed_and_taken_away(desk: Desk, meeting: str) -> None:
    made = desk.client.post("/api/compilations", body(meeting)).json
    assert made["seconds"] == 8.0
    assert [(s["title"], [p["title"] for p in s["passages"]]) for s in made["sections"]] == [
        ("Money", ["The price"]),
        ("Questions", ["Who pays"]),
    ]
    at = f"/api/compilations/{made['id']}"
    changed = body(meeting, title="Shorter")
    changed["sections"] = [*changed["sections"][::-1], {"title": "Empty", "passages": []}]
    assert desk.client.put(at, changed).json["sections"][2] == {"title": "Empty", "passages": []}
    kept = desk.client.get(at).json
    assert (kept["title"], [s["title"] for s in kept["sections"]]) == ("Shorter", ["Questions", "Money", "Empty"])
    assert desk.client.get("/api/compilations").json["compilations"][0]["passages"] == 2
    assert desk.client.send("DELETE", at).json == {"compilations": []}
    assert desk.client.get(at).status_code == 404
    assert desk.record(meeting)["turns"]


def test_it_is_taken_away_as_one_file(desk: Desk, meeting: str, tmp_path: Path) -> None:
    at = f"/api/compilations/{desk.client.post('/api/compilations', body(meeting)).json['id']}"
    for form in ("ogg", "m4a", "mp4"):
        response = desk.export(f"{at}/exports", {"kind": f"compilation.{form}"})
        assert response.status_code == 200, response.text
        with av.open(io.BytesIO(response.data), "r") as file:
            assert [c["metadata"]["title"] for c in file.chapters()] == ["Money", "Questions"]
            assert (file.duration or 0) / av.time_base == pytest.approx(9.0, abs=0.1)
    (tmp_path / "c.vtt").write_bytes(desk.client.get(f"{at}/files/captions.vtt").data)
    cues = list(webvtt.read(tmp_path / "c.vtt"))
    assert (cues[0].voice, cues[0].start) == ("Voice A", "00:00:00.000")
    assert cues[0].text.endswith("The hired lifts cost seven hundred and fifty pounds each.")
    shown = desk.client.get(f"{at}/captions").json["captions"]
    assert shown[0]["speaker"] == "Voice A"
    assert desk.client.get(f"{at}/files/txt").text.startswith("What the lifts cost\n===")


def test_others_cannot_open_it_nor_put_meetings_of_others_into_theirs(desk: Desk, meeting: str) -> None:
    made = desk.client.post("/api/compilations", body(meeting)).json
    tobias = desk.account("Tobias P.", "tobias@saltmarsh.example")
    assert tobias.get(f"/api/compilations/{made['id']}").status_code == 404
    at = f"/api/compilations/{made['id']}"
    assert tobias.post(f"{at}/exports", {"kind": "compilation.ogg"}).status_code == 404
    assert tobias.post("/api/compilations", body(meeting)).status_code == 404
    assert tobias.get("/api/compilations").json == {"compilations": []}


@pytest.mark.parametrize(("start", "end"), [(5.0, 5.0), (9.0, 4.0), (0.0, 4000.0)])
def test_impossible_passages_are_refused(desk: Desk, meeting: str, start: float, end: float) -> None:
    wrong = {"title": "", "passages": [{"meeting_id": meeting, "title": "x", "start": start, "end": end}]}
    assert desk.client.post("/api/compilations", body(meeting, sections=[wrong])).status_code == 409


def test_an_empty_one_says_so(desk: Desk, meeting: str) -> None:
    made = desk.client.post("/api/compilations", body(meeting, sections=[])).json
    answer = desk.export(f"/api/compilations/{made['id']}/exports", {"kind": "compilation.ogg"})
    assert (answer.status_code, "no passage" in answer.json["detail"]) == (409, True)


def test_a_stretch_that_is_removed_for_good_is_gone_from_it(desk: Desk, meeting: str) -> None:
    made = desk.client.post("/api/compilations", body(meeting)).json
    assert desk.client.post(f"/api/meetings/{meeting}/cut", {"start": 12.4, "end": 15.2}).status_code == 200
    desk.work()
    kept = desk.client.get(f"/api/compilations/{made['id']}").json
    assert [[p["title"] for p in s["passages"]] for s in kept["sections"]] == [[], ["Who pays"]]


def test_a_removed_meeting_takes_its_passages_with_it(desk: Desk, meeting: str) -> None:
    made = desk.client.post("/api/compilations", body(meeting)).json
    desk.client.send("DELETE", f"/api/meetings/{meeting}")
    assert [s["passages"] for s in desk.client.get(f"/api/compilations/{made['id']}").json["sections"]] == [[], []]


def test_the_digest_is_a_compilation_by_chapter(desk: Desk, meeting: str) -> None:
    made = desk.client.post(f"/api/meetings/{meeting}/digest", {"minutes": 3}).json
    assert made["title"] == "Listening digest: Winter timetable"
    assert made["spoken"] and made["seconds"] <= 180
    assert {p["meeting"] for s in made["sections"] for p in s["passages"]} == {"Winter timetable"}
    assert desk.client.post(f"/api/meetings/{meeting}/digest", {"minutes": 4}).status_code == 422


def test_without_sound_there_is_nothing_to_hear(desk: Desk, tmp_path: Path) -> None:
    (tmp_path / "talk.txt").write_text("Maren: The lifts cost 750 pounds.\nInes: Agreed, we take them.\n")
    written = desk.bring_in(tmp_path / "talk.txt")
    desk.work()
    made = desk.client.post("/api/compilations", body(written, sections=[{"title": "", "passages": [{"meeting_id": written, "title": "x", "start": 0, "end": 2}]}])).json  # fmt: skip
    answer = desk.export(f"/api/compilations/{made['id']}/exports", {"kind": "compilation.ogg"})
    assert (answer.status_code, "no sound" in answer.json["detail"]) == (409, True)

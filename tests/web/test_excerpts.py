"""Excerpts: kept, found, changed, downloaded as sound that is cut to the word."""

from pathlib import Path
from urllib.parse import quote

import av
import numpy as np
import pytest
import webvtt
from sqlalchemy import select

from nuntius.core.audio.pcm import to_bytes
from nuntius.store.excerpt_list import PAGE
from nuntius.store.models import Excerpt, Recording, User
from tests.help import Desk, tone
from tests.web.test_restructure import TALK


@pytest.fixture
def meeting(desk: Desk, tmp_path: Path) -> str:
    (tmp_path / "talk.vtt").write_text(TALK)
    made = desk.bring_in(tmp_path / "talk.vtt", people=("Maren Tull", "Tobias Pryce"))
    desk.work()
    return made


def keep(desk: Desk, meeting: str, **body: object) -> dict[str, object]:
    made: dict[str, object] = desk.client.post(
        f"/api/meetings/{meeting}/excerpts", {"start": 6.5, "end": 15.0, **body}
    ).json
    return made


def test_a_passage_is_kept_with_its_words_and_voices(desk: Desk, meeting: str) -> None:
    kept = keep(desk, meeting, title="Who pays", label="money", note="ask again")
    assert kept["quote"] == (
        "Sure. They'll have them tomorrow morning. And who pays for the lifts? "
        "The hired lifts cost seven hundred and fifty pounds each."
    )
    assert kept["speakers"] == ["Speaker 2", "Speaker 1"]
    assert [each["title"] for each in desk.client.get("/api/excerpts").json["excerpts"]] == ["Who pays"]


def test_without_a_title_its_first_words_are_the_title(desk: Desk, meeting: str) -> None:
    assert keep(desk, meeting)["title"] == "Sure. They'll have them tomorrow morning. And who …"


def test_a_voice_named_later_shows_on_what_was_kept(desk: Desk, meeting: str) -> None:
    keep(desk, meeting)
    voice = next(v for v in desk.record(meeting)["voices"] if v["label"] == "Speaker 2")
    desk.client.put(f"/api/meetings/{meeting}/voices/{voice['id']}", {"name": "Tobias Pryce"})
    assert desk.client.get("/api/excerpts").json["excerpts"][0]["speakers"][0] == "Tobias Pryce"


def test_ends_and_words_about_it_are_changed_and_it_is_taken_away(desk: Desk, meeting: str) -> None:
    number = keep(desk, meeting)["id"]
    body = {"start": 12.5, "end": 15.0, "title": "Lifts", "note": "", "label": ""}
    changed = desk.client.put(f"/api/excerpts/{number}", body).json
    assert (changed["title"], changed["quote"].split()[0], changed["speakers"]) == ("Lifts", "The", ["Speaker 1"])
    assert desk.client.send("DELETE", f"/api/excerpts/{number}").status_code == 200
    assert desk.client.get("/api/excerpts").json["excerpts"] == []


def test_the_list_comes_by_pages_without_a_gap(desk: Desk, meeting: str) -> None:
    with desk.installation.database.write() as session:
        maren = session.scalars(select(User)).first()
        assert maren is not None
        rows = (  # several begin at the same second
            Excerpt(
                meeting_id=meeting, user_id=maren.id, title=f"E{n}", start=n // 3, end=n + 9, quote="x", speakers=[]
            )
            for n in range(2 * PAGE + 5)
        )
        session.add_all(rows)
    found, after, totals = [], "", set()
    for _ in range(3):
        page = desk.client.get(f"/api/excerpts?after={quote(after)}" if after else "/api/excerpts").json
        found += [each["title"] for each in page["excerpts"]]
        after = page["after"] or ""
        totals.add(page["total"])
    assert (len(found), len(set(found)), after, totals) == (2 * PAGE + 5, 2 * PAGE + 5, "", {2 * PAGE + 5})


@pytest.mark.parametrize(
    "after",
    [
        "x",
        "~~~",
        "2026-10-06T09:30:00~m~1~1",
        "2026-10-06T09:30:00+00:00~m~a~1",
        f"2026-10-06T09:30:00+00:00~m~1~{10**30}",
    ],
)
def test_a_wrong_place_is_refused(desk: Desk, after: str) -> None:
    assert desk.client.get(f"/api/excerpts?after={quote(after)}").status_code == 409


def test_it_is_filtered_by_words_meeting_person_and_label(desk: Desk, meeting: str) -> None:
    keep(desk, meeting, title="Who pays", label="money")
    keep(desk, meeting, start=12.5, end=15.0, title="Lifts", note="Ask AGAIN")
    voice = next(v for v in desk.record(meeting)["voices"] if v["label"] == "Speaker 2")
    desk.client.put(f"/api/meetings/{meeting}/voices/{voice['id']}", {"name": "Tobias Pryce"})
    everything = desk.client.get("/api/excerpts").json
    assert (everything["labels"], [m["id"] for m in everything["meetings"]]) == (["money"], [meeting])
    (tobias,) = everything["people"]  # the only one who is named

    def titles(query: str) -> list[str]:
        return [each["title"] for each in desk.client.get(f"/api/excerpts?{query}").json["excerpts"]]

    assert titles("") == ["Who pays", "Lifts"]
    assert titles("words=ask again") == ["Lifts"]
    assert titles("words=100%25") == []
    assert titles("words=PAYS") == ["Who pays"]
    assert titles(f"person={tobias['id']}") == ["Who pays"]
    assert titles("label=money") == ["Who pays"]
    assert titles(f"meeting={meeting}&label=none") == []
    assert titles("meeting=another") == []


@pytest.mark.parametrize(
    "body", [{"start": 9, "end": 9}, {"start": 500, "end": 510}, {"start": 0, "end": 9999}, {"title": "x" * 201}]
)
def test_what_cannot_be_kept_is_refused(desk: Desk, meeting: str, body: dict[str, object]) -> None:
    answer = desk.client.post(f"/api/meetings/{meeting}/excerpts", {"start": 6.5, "end": 15.0, **body})
    assert answer.status_code in (409, 422)
    assert desk.client.get("/api/excerpts").json["excerpts"] == []


def test_a_record_without_sound_says_so(desk: Desk, meeting: str) -> None:
    number = keep(desk, meeting)["id"]
    answer = desk.export("/api/excerpts/exports", {"ids": [number]})
    assert answer.status_code == 409 and "no sound" in answer.json["detail"]


def test_of_others_there_is_nothing(desk: Desk, meeting: str) -> None:
    number = keep(desk, meeting)["id"]
    stranger = desk.stranger()
    assert stranger.get("/api/excerpts").status_code == 401
    assert stranger.post("/api/excerpts/exports", {"ids": [number]}).status_code == 401
    tobias = desk.account("Tobias P.", "tobias@saltmarsh.example")
    assert tobias.post("/api/excerpts/exports", {"ids": [number]}).status_code == 404


@pytest.fixture
def sounding(desk: Desk, meeting: str) -> str:
    """The same meeting with twenty seconds of sound to its text."""
    files = desk.installation.files
    with files.scratch(".pcm") as made:
        made.write_bytes(to_bytes(tone(20.0)))
        digest = files.keep(made)
    with desk.installation.database.write() as session:
        recording = session.scalars(select(Recording).where(Recording.meeting_id == meeting)).one()
        recording.working_digest, recording.duration = digest, 20.0
    return meeting


def test_the_sound_of_several_is_one_file_with_chapters(desk: Desk, sounding: str, tmp_path: Path) -> None:
    ids = [
        keep(desk, sounding, start=a, end=b, title=title)["id"]
        for a, b, title in ((15.5, 19.0, "Last"), (1.0, 6.0, "First"))
    ]
    answer = desk.export("/api/excerpts/exports", {"ids": ids})
    assert answer.status_code == 200 and answer.content_type == "audio/ogg"
    (tmp_path / "one.ogg").write_bytes(answer.data)
    with av.open(str(tmp_path / "one.ogg")) as made:
        samples = np.concatenate([frame.to_ndarray()[0] for frame in made.decode(audio=0)])
    assert len(samples) / 48_000 == pytest.approx(3.5 + 0.6 + 5.0, abs=0.03)
    chapters = webvtt.from_string(desk.client.get(f"/api/excerpts/chapters?ids={ids[0]},{ids[1]}").text)
    assert [(c.text, c.start) for c in chapters] == [("Last", "00:00:00.000"), ("First", "00:00:04.100")]


def test_what_is_removed_for_good_is_no_excerpt_any_more(desk: Desk, sounding: str) -> None:
    keep(desk, sounding, start=1.0, end=6.0, title="Gone")
    keep(desk, sounding, start=15.5, end=19.0, title="Stays")
    assert desk.client.post(f"/api/meetings/{sounding}/cut", {"start": 2, "end": 4}).status_code == 200
    assert [each["title"] for each in desk.client.get("/api/excerpts").json["excerpts"]] == ["Stays"]

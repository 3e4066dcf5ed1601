"""A whole meeting taken to another Nuntius and back, its history, its voices told apart again, over the API."""

import io
import json
import zipfile
from datetime import UTC, datetime
from pathlib import Path
from typing import Any

import jsonschema
import pytest

from nuntius.core.minutes.line import LineDoubt
from nuntius.core.speech.diarizer import Span
from nuntius.jobs import voices as voices_step
from nuntius.jobs.queue import Queue
from nuntius.settings import Settings
from nuntius.store.installation import Installation
from nuntius.store.models import (
    AgendaRow,
    Break,
    Consent,
    LineRow,
    MarkRow,
    Meeting,
    NoteRow,
    Recording,
    Room,
    StillPicture,
)
from tests.help import Client, Desk, in_memory, tone, write_wav

TALK = """WEBVTT

00:00:01.000 --> 00:00:06.000
<v Voice A>Good morning. Tobias, could you send the harbour office the new times?

00:00:06.500 --> 00:00:12.000
<v Voice B>Sure. They'll have them tomorrow morning. And who pays for the lifts?

00:00:12.500 --> 00:00:15.000
<v Voice A>The hired lifts cost seven hundred and fifty pounds each.

00:00:15.500 --> 00:00:19.000
<v Voice A>I'll ask the yard for a better price by Friday.
"""


def bring_both(desk: Desk, folder: Path, seconds: float = 20.0, talk: str = TALK, chat: str = "") -> str:
    """A recording and its transcript, brought in together, with a chat where there is one."""
    write_wav(folder / "talk.wav", tone(seconds), 16_000)
    (folder / "talk.vtt").write_text(talk)
    (folder / "chat.txt").write_text(chat)
    roles = {"talk.vtt": "transcript", "chat.txt": "chat"} if chat else {"talk.vtt": "transcript"}
    return desk.bring_in(
        folder / "talk.wav", people=("Maren Tull", "Tobias Pryce"), beside={folder / n: r for n, r in roles.items()}
    )


@pytest.fixture
def meeting(desk: Desk, tmp_path: Path) -> str:
    made = bring_both(desk, tmp_path)
    desk.work()
    return made


@pytest.fixture
def other(settings: Settings, tmp_path: Path) -> Desk:
    """Another installation, with an account of its own."""
    from dataclasses import replace

    installation = Installation(replace(settings, data=tmp_path / "other"))
    return Desk(installation, Queue(installation, in_memory))


def plain(record: dict[str, Any]) -> dict[str, Any]:
    """A record without the numbers that each installation gives for itself."""
    labels = {voice["id"]: voice["label"] for voice in record["voices"]}
    lines = [{k: v for k, v in line.items() if k != "id"} for line in (record["minutes"] or {"lines": []})["lines"]]
    return {
        "title": record["meeting"]["title"],
        "starts_at": record["meeting"]["starts_at"],
        "people": record["meeting"]["people"],
        "names": [(voice["label"], voice["name"]) for voice in record["voices"]],
        "turns": [(labels[t["voice"]], t["words"], t["heard"]) for t in record["turns"]],
        "spans": [(a, b, labels[v]) for a, b, v in record["spans"]],
        "lines": lines,
        "minutes": {k: v for k, v in record["minutes"].items() if k != "lines"},
        "recording": record["recording"],
        "breaks": record["breaks"],
        "consent": record["consent"] and [(p["name"], p["agreed_at"]) for p in record["consent"]["there"]],
        "announced": record["consent"] and (record["consent"]["announced_at"], record["consent"]["announced_by"]),
        "marks": [{k: v for k, v in mark.items() if k != "id"} for mark in record["marks"]],
    }


def taken(desk: Desk, meeting: str) -> bytes:
    response = desk.export(f"/api/meetings/{meeting}/exports", {"kind": "whole meeting.zip"})
    assert (response.status_code, response.content_type) == (200, "application/zip")
    return bytes(response.data)


def brought(desk: Desk, folder: Path, data: bytes) -> str:
    (folder / "whole.zip").write_bytes(data)
    made = desk.bring_in(folder / "whole.zip", title="Another title")
    desk.work()
    return made


def with_line(manifest: dict[str, Any], **other: Any) -> dict[str, Any]:
    """A manifest whose first line holds something else."""
    minutes = manifest["minutes"]
    return manifest | {"minutes": minutes | {"lines": [minutes["lines"][0] | other, *minutes["lines"][1:]]}}


class TestBundle:
    def test_a_meeting_comes_back_as_it_was(self, desk: Desk, other: Desk, meeting: str, tmp_path: Path) -> None:
        at = f"/api/meetings/{meeting}"
        record = desk.record(meeting)
        line = record["minutes"]["lines"][0]["id"]
        desk.client.put(f"{at}/lines/{line}", {"text": "Send the harbour office the new times by noon."})
        desk.client.put(f"{at}/lines/{line}/tick", {"checked": True})
        desk.client.put(f"{at}/turns/2", {"text": "The hired lifts cost 750 pounds each."})
        voice = next(v["id"] for v in record["voices"] if v["label"] == "Voice B")
        desk.client.put(f"{at}/voices/{voice}", {"name": "Tobias Pryce"})
        desk.client.post(f"{at}/excerpts", {"start": 12.5, "end": 15.0, "title": "The price", "label": "money"})
        picture = desk.installation.files.keep_bytes(b"\x89PNG a picture")
        with desk.installation.database.write() as session:
            session.add(StillPicture(meeting_id=meeting, at=7.0, digest=picture))
            session.get_one(LineRow, record["minutes"]["lines"][-1]["id"]).doubts = [LineDoubt.HAS_A_DAY]
            kept = session.get_one(Meeting, meeting)
            maren, agreed = kept.runner_id, datetime(2026, 10, 6, 9, 31, tzinfo=UTC)
            session.add(
                Room(meeting_id=meeting, state="stopped", announced_at=agreed, announced_by=maren, drafted=True)
            )
            session.add_all(
                Consent(meeting_id=meeting, person_id=p.id, ticked_by=maren, at=agreed) for p in kept.people
            )
            session.add(NoteRow(meeting_id=meeting, user_id=maren, text="Ask the yard", at=13.0, private=True))
            session.add(MarkRow(meeting_id=meeting, user_id=maren, label="important", start=12.5, end=15.0))
            session.add(AgendaRow(meeting_id=meeting, number=0, title="Lifts", planned=600.0, begun=1.0, ended=None))
            session.add(Break(meeting_id=meeting, kind="pause", at=6.2, seconds=30.0, by="Maren Tull", made_at=agreed))
        there = brought(other, tmp_path, taken(desk, meeting))
        before, after = desk.record(meeting), other.record(there)
        assert plain(after) == plain(before)
        assert (before["consent"]["brought_in"], after["consent"]["brought_in"]) == (False, True)
        assert all(p["brought_in"] for p in after["consent"]["there"] if p["agreed_at"])
        with other.installation.database.read() as session:  # nobody's account here stands for it
            assert {row.ticked_by for row in session.query(Consent).filter_by(meeting_id=there)} == {None}
        assert "may have a day" in [doubt for line in after["minutes"]["lines"] for doubt in line["doubts"]]
        assert [p["at"] for p in after["pictures"]] == [7.0]
        excerpts = [d.client.get("/api/excerpts").json["excerpts"] for d in (desk, other)]
        assert [(e["title"], e["label"], e["start"], e["quote"]) for e in excerpts[1]] == [
            (e["title"], e["label"], e["start"], e["quote"]) for e in excerpts[0]
        ]
        assert other.client.get(f"/api/meetings/{there}/original").data == desk.client.get(f"{at}/original").data
        again = taken(other, there)
        assert manifest(again) == manifest(taken(desk, meeting))  # and back again

    def test_it_fits_the_schema_that_goes_with_it(self, desk: Desk, meeting: str) -> None:
        with zipfile.ZipFile(io.BytesIO(taken(desk, meeting))) as archive:
            schema = json.loads(archive.read("schema.json"))
            jsonschema.Draft202012Validator(schema).validate(json.loads(archive.read("nuntius.json")))
            assert archive.testzip() is None

    @pytest.mark.parametrize(
        ("harm", "sentence"),
        [
            (lambda m: m | {"schema": "nuntius.meeting/9"}, "nuntius.meeting/9"),
            (lambda m: {k: v for k, v in m.items() if k != "turns"}, "turns"),
            (lambda m: m | {"voices": []}, "voice"),
            (lambda m: m | {"surprise": 1}, "surprise"),
            (lambda m: m | {"recording": m["recording"] | {"file": m["recording"]["file"] | {"path": "../../etc/passwd"}}}, "path"),
            (lambda m: m | {"recording": m["recording"] | {"file": m["recording"]["file"] | {"sha256": "0" * 64}}}, "sound/recording.wav"),
            (lambda m: m | {"recording": m["recording"] | {"file": m["recording"]["file"] | {"size": 9}}}, "sound/recording.wav"),
            (lambda m: m | {"recording": m["recording"] | {"file": m["recording"]["file"] | {"path": "sound/none.wav"}}}, "sound/none.wav"),
            (lambda m: with_line(m, kind="joke"), "joke"),
            (lambda m: with_line(m, place=99), "section"),
            (lambda m: with_line(m, doubts=["may be a lie"]), "may be a lie"),
            (lambda m: with_line(m, evidence=[m["minutes"]["lines"][0]["evidence"][0] | {"turn": 99}]), "rests on words"),
            (lambda m: m | {"turns": [m["turns"][0] | {"words": [["x", float("nan"), 1, 1]]}, *m["turns"][1:]]}, "turns.0.words"),
            (lambda m: [m], "None"),
        ],
    )  # fmt: skip
    def test_what_is_wrong_with_one_is_said_and_nothing_is_made(
        self, desk: Desk, meeting: str, tmp_path: Path, harm: Any, sentence: str
    ) -> None:
        source, target = io.BytesIO(taken(desk, meeting)), io.BytesIO()
        with zipfile.ZipFile(source) as old, zipfile.ZipFile(target, "w") as new:
            for name in old.namelist():
                data = old.read(name)
                new.writestr(name, json.dumps(harm(json.loads(data))) if name == "nuntius.json" else data)
        made = brought(desk, tmp_path, target.getvalue())
        job = desk.record(made)["meeting"]["job"]
        assert (job["state"], sentence in job["error"]) == ("failed", True), job
        assert desk.record(made)["turns"] == []
        assert desk.record(meeting)["turns"]

    def test_a_truncated_one_is_refused(self, desk: Desk, meeting: str, tmp_path: Path) -> None:
        data = taken(desk, meeting)
        made = brought(desk, tmp_path, data[: len(data) // 2])
        assert desk.record(made)["meeting"]["job"]["state"] == "failed"

    def test_before_there_is_a_transcript_there_is_none(self, desk: Desk, wav: Path) -> None:
        waiting = desk.bring_in(wav)
        ordered = desk.client.post(f"/api/meetings/{waiting}/exports", {"kind": "whole meeting.zip"})
        assert ordered.status_code == 409


def manifest(data: bytes) -> dict[str, Any]:
    with zipfile.ZipFile(io.BytesIO(data)) as archive:
        return json.loads(archive.read("nuntius.json"))  # type: ignore[no-any-return]


class TestTogether:
    def test_sound_transcript_and_chat_become_one_record(self, desk: Desk, tmp_path: Path) -> None:
        chat = "09:30:07 Tobias Pryce: the times are on the board\n09:30:14\tMaren Tull:\tthank you\nand the tides\n"
        record = desk.record(made := bring_both(desk, tmp_path, chat=chat))
        desk.work()
        record = desk.record(made)
        assert record["meeting"]["job"]["state"] == "done", record["meeting"]["job"]
        assert record["recording"]["has_sound"]
        assert [turn["words"][0][1] for turn in record["turns"]] == [1.0, 6.5, 12.5, 15.5]
        assert [(m["start"], m["label"], m["text"]) for m in record["marks"]] == [
            (7.0, "Chat", "Tobias Pryce: the times are on the board"),
            (14.0, "Chat", "Maren Tull: thank you and the tides"),
        ]

    def test_a_transcript_of_a_longer_meeting_is_reported(self, desk: Desk, tmp_path: Path) -> None:
        made = bring_both(desk, tmp_path, talk=TALK.replace("00:00:15.500 --> 00:00:19", "00:10:15.500 --> 00:10:19"))
        desk.work()
        job = desk.record(made)["meeting"]["job"]
        assert (job["state"], "minute 10" in job["error"]) == ("failed", True)

    def test_the_work_waits_for_every_file(self, desk: Desk, tmp_path: Path) -> None:
        write_wav(tmp_path / "talk.wav", tone(3), 16_000)
        (tmp_path / "talk.vtt").write_text(TALK)
        made = desk.bring_in(tmp_path / "talk.wav", beside={tmp_path / "talk.vtt": "transcript"}, sent=1)
        early = desk.client.post(f"/api/meetings/{made}/begin")
        assert (early.status_code, "talk.vtt" in early.json["detail"]) == (409, True)
        assert desk.record(made)["meeting"]["upload"]["name"] == "talk.vtt"

    def test_files_that_cannot_be_one_meeting_are_refused(self, desk: Desk, tmp_path: Path) -> None:
        (tmp_path / "talk.vtt").write_text(TALK)
        (tmp_path / "more.vtt").write_text(TALK + "\n")
        made = desk.bring_in(tmp_path / "talk.vtt", beside={tmp_path / "more.vtt": "transcript"}, sent=2)
        answer = desk.client.post(f"/api/meetings/{made}/begin")
        assert (answer.status_code, "Two transcripts" in answer.json["detail"]) == (409, True)


class TestHistory:
    def test_who_changed_what_is_reported(self, desk: Desk, meeting: str) -> None:
        at = f"/api/meetings/{meeting}"
        record = desk.record(meeting)
        desk.client.put(f"{at}/turns/2", {"text": "The hired lifts cost 750 pounds each."})
        desk.client.put(f"{at}/voices/{record['voices'][0]['id']}", {"name": "Maren Tull"})
        desk.client.put(f"{at}/lines/{record['minutes']['lines'][0]['id']}/tick", {"checked": True})
        desk.client.post(f"{at}/undo")
        told = desk.client.get(f"{at}/history").json["changes"]
        assert [(c["who"], c["what"], c["undone"]) for c in told] == [
            ("Maren Tull", "Ticked a line", True),
            ("Maren Tull", "Said who Voice A is", False),
            ("Maren Tull", "Corrected what was said", False),
        ]
        assert told[2]["before"] == "The hired lifts cost seven hundred and fifty pounds each."
        assert (told[2]["after"], told[2]["start"]) == ("The hired lifts cost 750 pounds each.", 12.5)
        assert (told[1]["before"], told[1]["after"]) == ("nobody yet", "Maren Tull")

    def test_changes_of_turns_are_reported_in_words(self, desk: Desk, meeting: str) -> None:
        at = f"/api/meetings/{meeting}"
        desk.client.post(f"{at}/turns/1/split", {"at": 6})
        desk.client.post(f"{at}/turns/0/join", {})
        desk.client.post(f"{at}/replace", {"wanted": "lifts", "instead": "hoists"})
        told = desk.client.get(f"{at}/history").json["changes"]
        assert [c["what"] for c in told] == ["Put words in place of others in 2 turns", "Joined turns", "Split a turn"]


class TestTwoPeople:
    @pytest.fixture
    def tobias(self, desk: Desk) -> Client:
        return desk.account("Tobias Pryce", "tobias@saltmarsh.example")

    def test_the_later_one_is_shown_what_the_other_wrote(self, tobias: Client, desk: Desk, meeting: str) -> None:
        was = "The hired lifts cost seven hundred and fifty pounds each."
        path = f"/api/meetings/{meeting}/turns/2"
        assert tobias.put(path, {"text": "The hired lifts cost 750 pounds each.", "was": was}).status_code == 200
        late = desk.client.put(path, {"text": "The lifts cost £750 each.", "was": was})
        assert late.status_code == 409
        assert late.json["detail"].startswith("Tobias Pryce has changed this")
        assert late.json["theirs"] == "The hired lifts cost 750 pounds each."
        mine = {"text": "The lifts cost £750 each.", "was": late.json["theirs"]}
        assert desk.client.put(path, mine).status_code == 200

    def test_lines_are_guarded_alike(self, tobias: Client, desk: Desk, meeting: str) -> None:
        line = desk.record(meeting)["minutes"]["lines"][0]
        path = f"/api/meetings/{meeting}/lines/{line['id']}"
        assert tobias.put(path, {"text": "His words.", "was": line["text"]}).status_code == 200
        late = desk.client.put(path, {"text": "Her words.", "was": line["text"]})
        assert (late.status_code, late.json["theirs"]) == (409, "His words.")


class TestDiarizeAgain:
    @pytest.fixture
    def heard(self, monkeypatch: pytest.MonkeyPatch) -> None:
        """Three voices where there were two: the last turn is by somebody else."""
        spans = [
            Span(0.9, 6.2, "Voice B"),
            Span(6.4, 12.1, "Voice A"),
            Span(12.4, 15.1, "Voice B"),
            Span(15.4, 19.0, "Voice C"),
        ]
        monkeypatch.setattr(voices_step, "spans_of", lambda sound, diarizer, people, progress: spans[: people + 1])

    @pytest.mark.usefixtures("heard")
    def test_names_and_corrections_are_kept(self, desk: Desk, meeting: str) -> None:
        at = f"/api/meetings/{meeting}"
        first = next(v["id"] for v in desk.record(meeting)["voices"] if v["label"] == "Voice A")
        desk.client.put(f"{at}/voices/{first}", {"name": "Maren Tull"})
        desk.client.put(f"{at}/turns/2", {"text": "The hired lifts cost 750 pounds each."})
        assert desk.client.post(f"{at}/voices/again", {"people": 3}).json["job"]["state"] == "waiting"
        desk.work()
        record = desk.record(meeting)
        names = {voice["id"]: voice["name"] for voice in record["voices"]}
        assert [names[turn["voice"]] for turn in record["turns"]] == ["Maren Tull", "Voice B", "Maren Tull", "Voice C"]
        assert record["turns"][2]["heard"] == "The hired lifts cost seven hundred and fifty pounds each."
        assert [w[0] for w in record["turns"][2]["words"]][4] == "750"
        assert record["minutes"]["lines"]
        assert desk.client.get(f"{at}/history").json["changes"][0]["what"] == "Had the voices told apart again"
        desk.client.post(f"{at}/undo")
        undone = desk.record(meeting)
        assert len({turn["voice"] for turn in undone["turns"]}) == 2

    def test_without_sound_it_is_refused(self, desk: Desk, tmp_path: Path) -> None:
        (tmp_path / "talk.vtt").write_text(TALK)
        made = desk.bring_in(tmp_path / "talk.vtt")
        desk.work()
        answer = desk.client.post(f"/api/meetings/{made}/voices/again", {"people": 3})
        assert (answer.status_code, "no sound" in answer.json["detail"]) == (409, True)


def test_doubtful_turns_and_those_spoken_at_once_are_reported(desk: Desk, meeting: str) -> None:
    with desk.installation.database.write() as session:
        recording = session.query(Recording).filter_by(meeting_id=meeting).one()
        recording.spans = [
            (0.9, 6.2, "Voice A"),
            (1.0, 6.2, "Voice B"),
            (6.4, 12.1, "Voice B"),
            (15.4, 19.0, "Voice A"),
        ]
    record = desk.record(meeting)
    second = next(v["id"] for v in record["voices"] if v["label"] == "Voice B")
    assert record["doubts"] == [
        {"turn": 0, "unsure": False, "over": [second]},
        {"turn": 2, "unsure": True, "over": []},
    ]


def test_the_small_file_is_a_whole_recording(desk: Desk, meeting: str, tmp_path: Path) -> None:
    import av

    data = desk.export(f"/api/meetings/{meeting}/exports", {"kind": "small.ogg"}).data
    (tmp_path / "small.ogg").write_bytes(data)
    with av.open(str(tmp_path / "small.ogg")) as container:
        assert container.duration is not None
        assert container.duration / av.time_base == pytest.approx(20.0, abs=0.05)
    assert len(data) < 20 * 4000


def test_what_is_removed_for_good_is_nowhere_any_more(desk: Desk, tmp_path: Path) -> None:
    """Not in changes of several things at once, the history, the files that came with it, a compilation or a bundle."""
    chat = "09:30:13 Tobias Pryce: the walrus costs more\n09:30:17 Maren Tull: by Friday\n"
    made = bring_both(desk, tmp_path, talk=TALK.replace("hired lifts", "walrus lifts"), chat=chat)
    desk.work()
    at = f"/api/meetings/{made}"
    desk.client.post(f"{at}/replace", {"wanted": "walrus lifts", "instead": "walrus hoists"})
    desk.client.post(f"{at}/turns/2/split", {"at": 3})
    desk.client.post(f"{at}/digest", {"minutes": 3})
    assert "walrus" in desk.client.get(f"{at}/history").text
    assert desk.client.post(f"{at}/cut", {"start": 12.4, "end": 15.2}).status_code == 200
    desk.work()
    record = desk.client.get(at)
    assert "walrus" not in record.text
    assert [m["text"] for m in record.json["marks"]] == ["Maren Tull: by Friday"]
    assert "walrus" not in desk.client.get(f"{at}/history").text
    assert b"walrus" not in zipfile.ZipFile(io.BytesIO(taken(desk, made))).read("nuntius.json")
    data = desk.installation.settings.data
    assert [path for path in data.rglob("*") if path.is_file() and b"walrus" in path.read_bytes()] == []

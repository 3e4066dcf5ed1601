"""Turns and voices set right over the API: everything that rests on them follows, and can be taken back."""

from pathlib import Path
from typing import Any

import pytest

from tests.help import Desk

TALK = """WEBVTT

00:00:01.000 --> 00:00:06.000
<v Speaker 1>Good morning. Tobias, could you send the harbour office the new times?

00:00:06.500 --> 00:00:12.000
<v Speaker 2>Sure. They'll have them tomorrow morning. And who pays for the lifts?

00:00:12.500 --> 00:00:15.000
<v Speaker 1>The hired lifts cost seven hundred and fifty pounds each.

00:00:15.500 --> 00:00:19.000
<v Speaker 3>I'll ask the yard for a better price by Friday.
"""


@pytest.fixture
def meeting(desk: Desk, tmp_path: Path) -> str:
    (tmp_path / "talk.vtt").write_text(TALK)
    made = desk.bring_in(tmp_path / "talk.vtt", people=("Maren Tull", "Tobias Pryce", "Douglas Hale"))
    desk.work()
    return made


def said(record: dict[str, Any]) -> list[tuple[str, str]]:
    names = {voice["id"]: voice["label"] for voice in record["voices"]}
    return [(names[turn["voice"]], " ".join(word[0] for word in turn["words"])) for turn in record["turns"]]


def proofs(record: dict[str, Any]) -> list[tuple[str, str]]:
    """The words that each line rests on, as the record holds them now, beside those that it was written from."""
    made = []
    for line in record["minutes"]["lines"]:
        for passage in line["evidence"]:
            words = record["turns"][passage["turn"]]["words"]
            inside = [w[0] for w in words if passage["start"] <= (w[1] + w[2]) / 2 <= passage["end"]]
            made.append((passage["quote"], " ".join(inside)))
    return made


def voice(record: dict[str, Any], label: str) -> int:
    return int(next(v["id"] for v in record["voices"] if v["label"] == label))


class TestTurns:
    def test_words_are_given_to_another_voice_and_taken_back(self, desk: Desk, meeting: str) -> None:
        before = desk.record(meeting)
        to = voice(before, "Speaker 3")
        changed = desk.client.put(f"/api/meetings/{meeting}/turns/1/voice", {"voice": to, "first": 6, "last": 11}).json
        assert changed["restructured"]
        after = desk.record(meeting)
        assert said(after)[1:3] == [
            ("Speaker 2", "Sure. They'll have them tomorrow morning."),
            ("Speaker 3", "And who pays for the lifts?"),
        ]
        assert all(now and now in quote for quote, now in proofs(after))
        assert [turn["number"] for turn in after["turns"]] == [0, 1, 2, 3, 4]
        desk.client.post(f"/api/meetings/{meeting}/undo")
        again = desk.record(meeting)
        assert said(again) == said(before) and proofs(again) == proofs(before)
        desk.client.post(f"/api/meetings/{meeting}/redo")
        assert said(desk.record(meeting)) == said(after)

    def test_a_whole_turn_goes_to_a_new_voice(self, desk: Desk, meeting: str) -> None:
        desk.client.put(f"/api/meetings/{meeting}/turns/2/voice", {"voice": None})
        assert said(desk.record(meeting))[2] == (
            "New voice 1",
            "The hired lifts cost seven hundred and fifty pounds each.",
        )

    def test_words_in_the_middle_make_three_turns(self, desk: Desk, meeting: str) -> None:
        to = voice(desk.record(meeting), "Speaker 2")
        desk.client.put(f"/api/meetings/{meeting}/turns/0/voice", {"voice": to, "first": 2, "last": 2})
        assert [text for _, text in said(desk.record(meeting))][:3] == [
            "Good morning.",
            "Tobias,",
            "could you send the harbour office the new times?",
        ]

    def test_a_corrected_turn_keeps_what_was_heard_when_it_is_split(self, desk: Desk, meeting: str) -> None:
        desk.client.put(f"/api/meetings/{meeting}/turns/3", {"text": "I'll ask the yard for a lower price by Friday."})
        desk.client.post(f"/api/meetings/{meeting}/turns/3/split", {"at": 5})
        record = desk.record(meeting)
        assert [text for _, text in said(record)][3:] == ["I'll ask the yard for", "a lower price by Friday."]
        assert [turn["heard"] for turn in record["turns"]][3:] == ["I'll ask the yard for", "a better price by Friday."]

    def test_two_turns_become_one_and_two_again(self, desk: Desk, meeting: str) -> None:
        before = desk.record(meeting)
        desk.client.post(f"/api/meetings/{meeting}/turns/1/join")
        after = desk.record(meeting)
        assert len(after["turns"]) == 3 and said(after)[1][1].endswith("fifty pounds each.")
        assert all(quote == now for quote, now in proofs(after))
        desk.client.post(f"/api/meetings/{meeting}/undo")
        assert said(desk.record(meeting)) == said(before)

    def test_chapters_still_reach_to_the_end(self, desk: Desk, meeting: str) -> None:
        desk.client.post(f"/api/meetings/{meeting}/turns/0/split", {"at": 2})
        record = desk.record(meeting)
        assert record["minutes"]["chapters"][-1]["end"] == pytest.approx(19.0)

    @pytest.mark.parametrize(
        ("method", "path", "body", "status"),
        [
            ("post", "turns/0/split", {"at": 99}, 409),
            ("post", "turns/99/split", {"at": 1}, 404),
            ("post", "turns/3/join", None, 404),
            ("put", "turns/0/voice", {"voice": 99_999}, 404),
            ("put", "turns/0/voice", {"voice": None, "first": 3, "last": 1}, 409),
        ],
    )
    def test_what_cannot_be_is_refused_and_nothing_changes(
        self, desk: Desk, meeting: str, method: str, path: str, body: object, status: int
    ) -> None:
        before = desk.record(meeting)
        answer = getattr(desk.client, method)(f"/api/meetings/{meeting}/{path}", *([body] if body else []))
        assert answer.status_code == status
        assert said(desk.record(meeting)) == said(before)


class TestVoices:
    def test_two_voices_become_one_with_their_turns_shares_and_actions(self, desk: Desk, meeting: str) -> None:
        before = desk.record(meeting)
        one, three = voice(before, "Speaker 1"), voice(before, "Speaker 3")
        desk.client.post(f"/api/meetings/{meeting}/voices/{three}/merge", {"into": one})
        after = desk.record(meeting)
        assert [label for label, _ in said(after)] == ["Speaker 1", "Speaker 2", "Speaker 1", "Speaker 1"]
        assert {v["label"] for v in after["voices"]} == {"Speaker 1", "Speaker 2"}
        assert sum(v["share"] for v in after["voices"]) == pytest.approx(1.0, abs=0.001)
        owners = [line["owner"] for line in after["minutes"]["lines"] if line["kind"] == "action"]
        assert ["Speaker 1"] in owners and ["Speaker 3"] not in owners
        desk.client.post(f"/api/meetings/{meeting}/undo")
        assert said(desk.record(meeting)) == said(before)

    def test_taking_back_works_after_the_minutes_were_made_again(self, desk: Desk, meeting: str) -> None:
        before = desk.record(meeting)
        three = voice(before, "Speaker 3")
        desk.client.post(f"/api/meetings/{meeting}/voices/{three}/merge", {"into": voice(before, "Speaker 1")})
        desk.remade(meeting)
        undone = desk.client.post(f"/api/meetings/{meeting}/undo")
        assert undone.json["restructured"]
        assert said(desk.record(meeting)) == said(before)


class TestReplacing:
    def replace(self, desk: Desk, meeting: str, **body: object) -> dict[str, Any]:
        made: dict[str, Any] = desk.client.post(f"/api/meetings/{meeting}/replace", body).json
        return made

    def test_words_are_counted_replaced_and_put_back(self, desk: Desk, meeting: str) -> None:
        wanted = {"wanted": "the YARD", "instead": "Brandt's yard"}
        assert self.replace(desk, meeting, **wanted, dry=True) == {"count": 1, "meetings": 1}
        assert "the yard" in said(desk.record(meeting))[3][1]
        assert self.replace(desk, meeting, **wanted) == {"count": 1, "meetings": 1}
        record = desk.record(meeting)
        assert said(record)[3][1] == "I'll ask Brandt's yard for a better price by Friday."
        assert any("Brandt's yard" in line["text"] for line in record["minutes"]["lines"])
        desk.client.post(f"/api/meetings/{meeting}/undo")
        assert said(desk.record(meeting))[3][1] == "I'll ask the yard for a better price by Friday."

    def test_titles_of_chapters_follow(self, desk: Desk, meeting: str) -> None:
        title = desk.record(meeting)["minutes"]["chapters"][0]["title"]
        self.replace(desk, meeting, wanted=title.split()[0], instead="Moonlight")
        assert desk.record(meeting)["minutes"]["chapters"][0]["title"].startswith("Moonlight")

    def test_parts_of_words_and_other_letters_stay(self, desk: Desk, meeting: str) -> None:
        assert self.replace(desk, meeting, wanted="lift", instead="crane")["count"] == 0
        assert self.replace(desk, meeting, wanted="hired LIFTS", instead="cranes", exactly=True)["count"] == 0

    def test_other_meetings_only_where_they_are_of_the_series(self, desk: Desk, meeting: str, tmp_path: Path) -> None:
        (tmp_path / "more.vtt").write_text(TALK.replace("Good morning", "Good evening"))
        other = desk.bring_in(tmp_path / "more.vtt")
        desk.work()
        assert self.replace(desk, meeting, wanted="harbour", instead="port")["meetings"] == 1
        assert "harbour" in said(desk.record(other))[0][1]

    def test_nothing_is_not_looked_for(self, desk: Desk, meeting: str) -> None:
        assert desk.client.post(f"/api/meetings/{meeting}/replace", {"wanted": "", "instead": "x"}).status_code == 422


def test_a_stranger_changes_nothing(desk: Desk, meeting: str) -> None:
    desk.client.send("DELETE", "/api/session")
    for path, body in (
        ("turns/0/split", {"at": 1}),
        ("replace", {"wanted": "a", "instead": "b"}),
        ("voices/1/merge", {"into": 2}),
    ):
        assert desk.client.post(f"/api/meetings/{meeting}/{path}", body).status_code == 401

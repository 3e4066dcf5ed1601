"""People: told apart, merged and parted again, taken off a meeting, and never mistaken for their names."""

from datetime import timedelta
from typing import Any

import pytest
from sqlalchemy import update

from nuntius.store.merging import UNDONE_FOR
from nuntius.store.models import Merging, now
from tests.help import Client, Desk


def people(client: Client) -> dict[str, dict[str, Any]]:
    return {p["name"]: p for p in client.get("/api/people").json["people"]}


def opened(client: Client) -> set[str]:
    return {m["title"] for m in client.get("/api/meetings").json["meetings"]}


def room(desk: Desk, title: str, *names: str) -> str:
    return str(desk.client.post("/api/rooms", {"title": title, "people": list(names)}).json["board"]["meeting"]["id"])


class TestNames:
    @pytest.mark.parametrize("spelt", ["ines carvell", "Ines\u200b Carvell", "ＩＮＥＳ Carvell"])
    def test_a_spelling_of_a_name_is_no_second_person(self, desk: Desk, spelt: str) -> None:
        room(desk, "One", "Ines Carvell")
        room(desk, "Two", spelt)
        assert set(people(desk.client)) == {"Ines Carvell", "Maren Tull"}
        assert desk.client.post("/api/people", {"name": spelt}).status_code == 409

    def test_two_people_may_share_a_name_and_are_told_apart(self, desk: Desk) -> None:
        desk.client.post("/api/people", {"name": "Ann Lowe", "distinction": "yard"})
        desk.client.post("/api/people", {"name": "Ann Lowe", "distinction": "office"})
        assert {"Ann Lowe (yard)", "Ann Lowe (office)"} < set(people(desk.client))
        unclear = desk.client.post("/api/rooms", {"title": "Rota", "people": ["Ann Lowe"]})
        assert (unclear.status_code, "Ann Lowe (office); Ann Lowe (yard)" in unclear.json["detail"]) == (409, False)
        assert "Ann Lowe (yard); Ann Lowe (office)" in unclear.json["detail"]
        room(desk, "Rota", "Ann Lowe (OFFICE)")
        (meeting,) = desk.client.get("/api/meetings").json["meetings"]
        assert meeting["people"] == ["Ann Lowe (office)", "Maren Tull"]

    def test_an_account_of_one_opens_nothing_of_the_other(self, desk: Desk) -> None:
        desk.client.post("/api/people", {"name": "Ann Lowe", "distinction": "yard"})
        desk.client.post("/api/people", {"name": "Ann Lowe", "distinction": "office"})
        yard = desk.account("Ann Lowe (yard)", "ann@saltmarsh.example")
        room(desk, "Of the office", "Ann Lowe (office)")
        room(desk, "Of the yard", "Ann Lowe (yard)")
        assert opened(yard) == {"Of the yard"}

    def test_renaming_oneself_to_somebody_else_opens_nothing(self, desk: Desk) -> None:
        room(desk, "Of Ines", "Ines Carvell")
        tobias = desk.account("Tobias Pryce", "tobias@saltmarsh.example")
        for name in ("Ines Carvell", "ines\u200b carvell"):
            assert tobias.put("/api/account/name", {"name": name}).status_code == 409
        assert opened(tobias) == set()

    def test_a_name_of_nothing_is_refused(self, desk: Desk) -> None:
        answer = desk.client.post("/api/people", {"name": "\u200b\u200d"})
        assert (answer.status_code, "nothing that can be seen" in answer.json["detail"]) == (422, True)


class TestMerging:
    @pytest.fixture
    def two(self, desk: Desk) -> tuple[Client, dict[str, dict[str, Any]]]:
        """Ines Carvell with an account, and an “I. Carvell” who was at a meeting of hers and one of her own."""
        ines = desk.account("Ines Carvell", "ines@saltmarsh.example")
        room(desk, "Both", "Ines Carvell", "I. Carvell")
        room(desk, "Other", "I. Carvell")
        return ines, people(desk.client)

    def merge(self, desk: Desk, merged: int, kept: int) -> Any:
        return desk.client.post(f"/api/people/{merged}/merge", {"into": kept})

    def test_meetings_follow_and_come_back(self, desk: Desk, two: tuple[Client, dict[str, dict[str, Any]]]) -> None:
        ines, known = two
        assert opened(ines) == {"Both"}
        answer = self.merge(desk, known["I. Carvell"]["id"], known["Ines Carvell"]["id"])
        assert answer.status_code == 200
        assert set(people(desk.client)) == {"Ines Carvell", "Maren Tull"}
        assert opened(ines) == {"Both", "Other"}
        (merging,) = answer.json["mergings"]
        assert (merging["merged"], merging["kept"]) == ("I. Carvell", "Ines Carvell")
        assert desk.client.send("DELETE", f"/api/people/mergings/{merging['id']}").status_code == 200
        assert opened(ines) == {"Both"}
        there = {m["title"]: m["people"] for m in desk.client.get("/api/meetings").json["meetings"]}
        assert there["Both"] == ["I. Carvell", "Ines Carvell", "Maren Tull"]
        assert there["Other"] == ["I. Carvell", "Maren Tull"]

    def test_an_account_follows(self, desk: Desk, two: tuple[Client, dict[str, dict[str, Any]]]) -> None:
        ines, known = two
        self.merge(desk, known["Ines Carvell"]["id"], known["I. Carvell"]["id"])
        assert ines.get("/api/session").json["name"] == "I. Carvell"
        assert opened(ines) == {"Both", "Other"}
        merging = desk.client.get("/api/people").json["mergings"][0]["id"]
        desk.client.send("DELETE", f"/api/people/mergings/{merging}")
        assert ines.get("/api/session").json["name"] == "Ines Carvell"

    def test_voices_and_actions_follow(self, desk: Desk, tmp_path: Any) -> None:
        talk = tmp_path / "talk.txt"
        talk.write_text(
            "Maren Tull: The boat costs 40 pounds to paint, and the winter comes.\n"
            "I. Carvell: I will paint the boat by Friday.\nMaren Tull: Good, thank you."
        )
        meeting = desk.bring_in(talk, people=("I. Carvell", "Maren Tull"))
        desk.work()
        voice = next(v["id"] for v in desk.record(meeting)["voices"] if v["label"] == "I. Carvell")
        desk.client.put(f"/api/meetings/{meeting}/voices/{voice}", {"name": "I. Carvell"})
        desk.client.post("/api/people", {"name": "Ines Carvell"})
        known = people(desk.client)
        self.merge(desk, known["I. Carvell"]["id"], known["Ines Carvell"]["id"])
        record = desk.record(meeting)
        assert {v["name"] for v in record["voices"]} == {"Maren Tull", "Ines Carvell"}
        owners = {name for line in record["minutes"]["lines"] if line["kind"] == "action" for name in line["owner"]}
        assert owners == {"Ines Carvell"}
        merging = desk.client.get("/api/people").json["mergings"][0]["id"]
        desk.client.send("DELETE", f"/api/people/mergings/{merging}")
        assert {v["name"] for v in desk.record(meeting)["voices"]} == {"Maren Tull", "I. Carvell"}

    def test_two_accounts_are_not_merged(self, desk: Desk) -> None:
        for name in ("Ines Carvell", "Tobias Pryce"):
            desk.account(name, f"{name[:4].lower()}@saltmarsh.example")
        known = people(desk.client)
        answer = self.merge(desk, known["Ines Carvell"]["id"], known["Tobias Pryce"]["id"])
        assert (answer.status_code, "both sign in" in answer.json["detail"]) == (409, True)
        assert self.merge(desk, known["Ines Carvell"]["id"], known["Ines Carvell"]["id"]).status_code == 409

    def test_after_thirty_days_it_stays(self, desk: Desk, two: tuple[Client, dict[str, dict[str, Any]]]) -> None:
        _, known = two
        self.merge(desk, known["I. Carvell"]["id"], known["Ines Carvell"]["id"])
        number = desk.client.get("/api/people").json["mergings"][0]["id"]
        with desk.installation.database.write() as session:
            session.execute(update(Merging).values(made_at=now() - UNDONE_FOR - timedelta(seconds=1)))
        assert desk.client.get("/api/people").json["mergings"] == []
        assert desk.client.send("DELETE", f"/api/people/mergings/{number}").status_code == 404


class TestRemoval:
    def test_who_is_removed_is_offered_no_more_and_stays_on_meetings(self, desk: Desk) -> None:
        room(desk, "Rota", "Ines Carvell")
        number = people(desk.client)["Ines Carvell"]["id"]
        assert desk.client.send("DELETE", f"/api/people/{number}").status_code == 200
        assert set(people(desk.client)) == {"Maren Tull"}
        assert desk.client.get("/api/meetings").json["meetings"][0]["people"] == ["Ines Carvell", "Maren Tull"]

    def test_a_workspace_keeps_an_administrator(self, desk: Desk) -> None:
        me = people(desk.client)["Maren Tull"]["id"]
        assert desk.client.send("DELETE", f"/api/people/{me}").status_code == 409
        assert desk.client.put(f"/api/people/{me}/role", {"role": "member"}).status_code == 409
        desk.account("Ines Carvell", "ines@saltmarsh.example")
        ines = people(desk.client)["Ines Carvell"]["id"]
        assert desk.client.put(f"/api/people/{ines}/role", {"role": "administrator"}).status_code == 200
        assert desk.client.put(f"/api/people/{me}/role", {"role": "member"}).status_code == 200
        assert desk.client.put(f"/api/people/{me}/role", {"role": "administrator"}).status_code == 403


def test_somebody_can_be_taken_off_a_meeting(desk: Desk) -> None:
    ines = desk.account("Ines Carvell", "ines@saltmarsh.example")
    meeting = room(desk, "Rota", "Ines Carvell")
    attendees = ines.get(f"/api/meetings/{meeting}/people").json
    assert (attendees["run_by"], attendees["runner"]) == ("Maren Tull", False)
    hers = next(p for p in attendees["people"] if p["name"] == "Ines Carvell")
    assert hers["account"] == "ines@saltmarsh.example"
    assert ines.send("DELETE", f"/api/meetings/{meeting}/people/{hers['id']}").status_code == 403
    assert desk.client.send("DELETE", f"/api/meetings/{meeting}/people/{hers['id']}").status_code == 200
    assert ines.get(f"/api/meetings/{meeting}").status_code == 404
    assert desk.client.post(f"/api/meetings/{meeting}/people", {"name": "Ines Carvell"}).status_code == 200
    assert opened(ines) == {"Rota"}

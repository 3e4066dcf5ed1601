"""Accounts: invited, signed in to, slowed down for who guesses, renewed, with a second factor, in several browsers."""

import re
from contextlib import suppress
from dataclasses import replace
from datetime import timedelta
from typing import Any

import pyotp
import pytest
from sqlalchemy import select, update

from nuntius.demonstration import free_port
from nuntius.jobs import mailing
from nuntius.jobs.queue import Queue
from nuntius.stand_ins.mailbox import Mailbox
from nuntius.store import failures
from nuntius.store.failures import RULES
from nuntius.store.installation import Installation
from nuntius.store.models import AccessToken, Mail, SignInFailures, SignInSession, User, now
from nuntius.web.app import create_app
from tests.help import MAREN, PASSWORD, Client, Desk, in_memory

NEW = "herring gulls over the quay"


def person(desk: Desk, name: str) -> dict[str, Any]:
    """Somebody as the list of people shows them, added where they are not there."""
    people = desk.client.get("/api/people").json["people"]
    found = next((p for p in people if p["name"] == name), None)
    if found is None:
        people = desk.client.post("/api/people", {"name": name}).json["people"]
        found = next(p for p in people if p["name"] == name)
    return found  # type: ignore[no-any-return]


def invited(desk: Desk, name: str, email: str, role: str = "member") -> str:
    """The token of an invitation."""
    body = {"email": email, "role": role}
    answer = desk.client.post(f"/api/people/{person(desk, name)['id']}/invitation", body)
    assert answer.status_code == 200, answer.json
    return str(answer.json["link"]).rpartition("/join/")[2]


class TestInvitations:
    def test_who_is_invited_is_exactly_the_person_of_earlier_meetings(self, desk: Desk) -> None:
        meeting = desk.client.post("/api/rooms", {"title": "Rota", "people": ["Ines Carvell"]}).json["board"]["meeting"]
        token, ines = invited(desk, "Ines Carvell", "Ines@Saltmarsh.example"), desk.stranger()
        fact = ines.post("/api/invitations/look", {"token": token}).json
        assert fact == {
            "name": "Ines Carvell",
            "email": "ines@saltmarsh.example",
            "workspace": "Saltmarsh Ferry Cooperative",
        }
        state = ines.post("/api/invitations/accept", {"token": token, "password": NEW}).json
        assert (state["signed_in"], state["name"], state["administrator"]) == (True, "Ines Carvell", False)
        assert [m["id"] for m in ines.get("/api/meetings").json["meetings"]] == [meeting["id"]]
        assert [p["name"] for p in ines.get("/api/people").json["people"]] == ["Ines Carvell", "Maren Tull"]

    def test_a_link_is_good_for_one_use_for_seven_days_and_until_it_is_withdrawn(self, desk: Desk) -> None:
        token = invited(desk, "Ines Carvell", "ines@saltmarsh.example")
        assert desk.stranger().post("/api/invitations/accept", {"token": token, "password": NEW}).status_code == 200
        assert desk.stranger().post("/api/invitations/accept", {"token": token, "password": NEW}).status_code == 410
        first = invited(desk, "Tobias Pryce", "tobias@saltmarsh.example")
        second = invited(desk, "Tobias Pryce", "tobias@saltmarsh.example")
        assert desk.stranger().post("/api/invitations/look", {"token": first}).status_code == 410
        with desk.installation.database.write() as session:
            expiry = {"expires_at": now() - timedelta(seconds=1)}
            session.execute(update(AccessToken).where(AccessToken.used_at.is_(None)).values(expiry))
        assert desk.stranger().post("/api/invitations/look", {"token": second}).status_code == 410
        third = invited(desk, "Tobias Pryce", "tobias@saltmarsh.example")
        desk.client.send("DELETE", f"/api/people/{person(desk, 'Tobias Pryce')['id']}/invitation")
        assert desk.stranger().post("/api/invitations/look", {"token": third}).status_code == 410

    def test_a_weak_password_spends_no_link(self, desk: Desk) -> None:
        token = invited(desk, "Ines Carvell", "ines@saltmarsh.example")
        weak = desk.stranger().post("/api/invitations/accept", {"token": token, "password": "inescarvell"})
        assert (weak.status_code, "not safe enough" in weak.json["detail"]) == (422, True)
        assert desk.stranger().post("/api/invitations/look", {"token": token}).status_code == 200

    def test_only_hashes_of_links_and_sessions_are_kept(self, desk: Desk) -> None:
        token = invited(desk, "Ines Carvell", "ines@saltmarsh.example")
        desk.installation.database.forget()
        kept = (desk.installation.settings.data / "nuntius.db").read_bytes()
        assert token.encode() not in kept
        with desk.installation.database.read() as session:
            assert session.scalars(select(SignInSession.token_hash)).all()

    def test_somebody_with_an_account_or_an_address_that_is_taken_is_refused(self, desk: Desk) -> None:
        desk.account("Ines Carvell", "ines@saltmarsh.example")
        for name, email in (("Ines Carvell", "other@saltmarsh.example"), ("Tobias Pryce", "ines@saltmarsh.example")):
            answer = desk.client.post(f"/api/people/{person(desk, name)['id']}/invitation", {"email": email})
            assert answer.status_code == 409


class TestSigningIn:
    def wrong(self, client: Client, email: str = MAREN) -> int:
        return client.post("/api/session", {"email": email, "password": "wrong"}).status_code

    def test_pauses_grow_for_who_guesses(self, desk: Desk) -> None:
        client = desk.stranger()
        answers = [self.wrong(client) for _ in range(RULES["both"].free + 1)]
        assert answers == [403] * RULES["both"].free + [429]
        refused = client.post("/api/session", {"email": MAREN, "password": PASSWORD})
        assert refused.status_code == 429  # the right one is not looked at either
        assert int(refused.headers["Retry-After"]) <= 2
        assert "seconds" in refused.json["detail"]

    def test_a_pause_ends_and_a_success_forgets(self, desk: Desk) -> None:
        client = desk.stranger()
        for _ in range(RULES["both"].free):
            self.wrong(client)
        with desk.installation.database.write() as session:
            session.execute(update(SignInFailures).values(last_at=now() - timedelta(minutes=1)))
        assert client.post("/api/session", {"email": MAREN, "password": PASSWORD}).status_code == 200
        assert self.wrong(desk.stranger()) == 403

    def test_nobody_can_lock_somebody_out_from_elsewhere(self, desk: Desk) -> None:
        with desk.installation.database.write() as session:
            for number in range(500):
                failures.count(session, MAREN, f"10.0.{number // 250}.{number % 250}")
        stopped = desk.stranger().post("/api/session", {"email": MAREN, "password": PASSWORD})
        assert int(stopped.headers["Retry-After"]) <= RULES["account"].longest  # a short pause, however many guess
        with desk.installation.database.write() as session:
            later = now() - timedelta(seconds=RULES["account"].longest + 1)
            session.execute(update(SignInFailures).values(last_at=later))
        assert desk.stranger().post("/api/session", {"email": MAREN, "password": PASSWORD}).status_code == 200

    def test_one_address_does_not_shut_the_door_to_its_neighbours(self, desk: Desk) -> None:
        for number in range(RULES["both"].free):
            self.wrong(desk.stranger(), "nobody@saltmarsh.example")
            assert number < RULES["address"].free
        assert desk.stranger().post("/api/session", {"email": MAREN, "password": PASSWORD}).status_code == 200

    def test_behind_a_proxy_the_address_that_it_names_counts_only_where_it_is_believed(self, desk: Desk) -> None:
        said = {"X-Forwarded-For": "203.0.113.9"}
        for proxies, address in ((0, "127.0.0.1"), (1, "203.0.113.9")):
            settings = replace(desk.installation.settings, proxies=proxies)
            app = create_app(settings, Queue(Installation(settings), in_memory))
            client = Client(app.test_client())
            client.send("POST", "/api/session", {"email": MAREN, "password": PASSWORD}, **said)
            with desk.installation.database.read() as session:
                newest = session.scalars(select(SignInSession).order_by(SignInSession.id.desc())).first()
            assert newest is not None and newest.address == address


class TestSessions:
    def test_each_browser_is_listed_and_ended_by_itself(self, desk: Desk) -> None:
        other = desk.sign_in(MAREN, PASSWORD)
        listed = desk.client.get("/api/account").json["sessions"]
        assert [each["this"] for each in listed].count(True) == 1 and len(listed) == 2
        theirs = next(each["id"] for each in listed if not each["this"])
        assert desk.client.send("DELETE", f"/api/account/sessions/{theirs}").status_code == 200
        assert other.get("/api/account").status_code == 401
        assert desk.client.get("/api/account").status_code == 200

    def test_nobody_ends_the_session_of_somebody_else(self, desk: Desk) -> None:
        ines = desk.account("Ines Carvell", "ines@saltmarsh.example")
        hers = ines.get("/api/account").json["sessions"][0]["id"]
        assert desk.client.send("DELETE", f"/api/account/sessions/{hers}").status_code == 404
        assert ines.get("/api/account").status_code == 200

    @pytest.mark.parametrize("column", ["seen_at", "made_at"])
    def test_they_end_by_the_clock(self, desk: Desk, column: str) -> None:
        settings = desk.installation.settings
        longest = {"seen_at": timedelta(hours=settings.idle_hours), "made_at": timedelta(days=settings.session_days)}
        for over, status in ((timedelta(seconds=-60), 200), (timedelta(seconds=60), 401)):
            with desk.installation.database.write() as session:
                session.execute(update(SignInSession).values({column: now() - longest[column] - over}))
            assert desk.client.get("/api/account").status_code == status


class TestOwnAccount:
    def test_name_address_and_password_are_changed_by_whoever_knows_the_password(self, desk: Desk) -> None:
        client, other = desk.client, desk.sign_in(MAREN, PASSWORD)
        assert client.put("/api/account/name", {"name": "Maren Tull-Gray"}).json["name"] == "Maren Tull-Gray"
        wrong = {"email": "m@saltmarsh.example", "password": "wrong"}
        assert client.put("/api/account/email", wrong).status_code == 403
        assert client.put("/api/account/email", wrong | {"password": PASSWORD}).json["email"] == "m@saltmarsh.example"
        assert client.put("/api/account/password", {"present": "wrong", "password": NEW}).status_code == 403
        assert client.put("/api/account/password", {"present": PASSWORD, "password": "password1234"}).status_code == 422
        assert client.put("/api/account/password", {"present": PASSWORD, "password": NEW}).status_code == 200
        assert other.get("/api/account").status_code == 401
        assert client.get("/api/account").status_code == 200
        desk.sign_in("m@saltmarsh.example", NEW)

    def test_the_second_factor(self, desk: Desk, monkeypatch: pytest.MonkeyPatch) -> None:
        secret = desk.client.get("/api/account/second-factor").json
        assert secret["picture"].startswith("data:image/svg+xml") and secret["secret"] in secret["address"]
        totp = pyotp.TOTP(secret["secret"])
        body = {"secret": secret["secret"], "password": PASSWORD}
        assert desk.client.post("/api/account/second-factor", body | {"code": "000000"}).status_code == 403
        step = [1_800_000_000]  # seconds since 1970, held still
        monkeypatch.setattr("nuntius.store.second_factor.now", lambda: now().fromtimestamp(step[0], now().tzinfo))
        on = desk.client.post("/api/account/second-factor", body | {"code": totp.at(step[0])}).json
        assert len(on["codes"]) == 10 and on["account"]["second_factor"]
        browser = desk.stranger()
        state = browser.post("/api/session", {"email": MAREN, "password": PASSWORD}).json
        assert (state["signed_in"], state["second_factor"]) == (False, True)
        assert browser.get("/api/meetings").status_code == 401
        browser.token = state["csrf"]
        used = browser.post("/api/session/code", {"code": totp.at(step[0])})
        assert used.status_code == 403  # it was taken when the factor was turned on
        step[0] += 30
        assert browser.post("/api/session/code", {"code": totp.at(step[0])}).json["signed_in"]
        again = desk.stranger()
        again.token = again.post("/api/session", {"email": MAREN, "password": PASSWORD}).json["csrf"]
        assert again.post("/api/session/code", {"code": on["codes"][3].upper()}).json["signed_in"]
        third = desk.stranger()
        third.token = third.post("/api/session", {"email": MAREN, "password": PASSWORD}).json["csrf"]
        assert third.post("/api/session/code", {"code": on["codes"][3]}).status_code == 403  # each once
        assert desk.client.get("/api/account").json["recovery_left"] == 9
        assert desk.client.post("/api/account/second-factor/off", {"password": PASSWORD}).status_code == 200
        desk.sign_in(MAREN, PASSWORD)

    def test_a_code_without_a_password_before_it_is_nothing(self, desk: Desk) -> None:
        assert desk.stranger().post("/api/session/code", {"code": "123456"}).status_code == 403


class TestMail:
    @pytest.fixture
    def mailed(self, desk: Desk) -> Any:
        """A desk that sends mail to a simulated mailbox."""
        port = free_port()
        box = Mailbox("127.0.0.1", port, free_port())
        box.start()
        settings = replace(desk.installation.settings, smtp=f"smtp://127.0.0.1:{port}", url="https://nuntius.example")
        store = Installation(settings)
        desk.installation, desk.app = store, create_app(settings, Queue(store, in_memory))
        desk.client = desk.sign_in(MAREN, PASSWORD)
        yield desk, box
        with suppress(AssertionError):  # one that a test has stopped already
            box.stop()

    def test_a_forgotten_password_is_renewed_by_mail(self, mailed: tuple[Desk, Mailbox]) -> None:
        desk, box = mailed
        answers = [desk.stranger().post("/api/password/forgotten", {"email": e}) for e in (MAREN, "nobody@x.example")]
        assert [each.status_code for each in answers] == [200, 200]
        assert answers[0].json == answers[1].json  # nobody learns who has an account
        assert mailing.send_due(desk.installation) == 1
        (_, message), *_ = box.messages
        link = re.search(r"https://nuntius\.example/password/(\S+)", message.get_content())
        assert link is not None and message["To"] == MAREN
        assert link[1].encode() in box.page()
        renewed = desk.stranger().post("/api/password/choose", {"token": link[1], "password": NEW})
        assert renewed.status_code == 200
        assert desk.client.get("/api/account").status_code == 401  # every browser was signed out
        desk.sign_in(MAREN, NEW)
        assert desk.stranger().post("/api/password/choose", {"token": link[1], "password": NEW}).status_code == 410

    def test_the_owner_hears_of_changes_of_the_account(self, mailed: tuple[Desk, Mailbox]) -> None:
        """OWASP ASVS 4.0.3, 2.2.3."""
        desk, box = mailed
        new = "m.tull@saltmarsh.example"
        assert desk.client.put("/api/account/email", {"email": new, "password": PASSWORD}).status_code == 200
        body = {"present": PASSWORD, "password": NEW}
        assert desk.client.put("/api/account/password", body).status_code == 200
        assert desk.client.put("/api/account/password", body).status_code == 403  # nothing changed, nothing is sent
        assert mailing.send_due(desk.installation) == 2
        told = {message["To"]: message.get_content() for _, message in box.messages}
        assert new in told[MAREN]  # who owned it reads that it is gone
        assert "password was changed" in told[new] and NEW not in told[new]

    def test_an_invitation_goes_by_mail_to_where_the_settings_say(self, mailed: tuple[Desk, Mailbox]) -> None:
        desk, box = mailed
        forged = {"X-Forwarded-Host": "evil.example"}
        path = f"/api/people/{person(desk, 'Ines Carvell')['id']}/invitation"
        answer = desk.client.send("POST", path, {"email": "ines@saltmarsh.example"}, **forged)
        assert answer.json["mailed"]
        mailing.send_due(desk.installation)
        assert "https://nuntius.example/join/" in box.messages[0][1].get_content()

    def test_what_cannot_be_sent_is_tried_again_and_its_text_goes_when_it_is_over(
        self, mailed: tuple[Desk, Mailbox]
    ) -> None:
        desk, box = mailed
        box.stop()
        desk.stranger().post("/api/password/forgotten", {"email": MAREN})

        def row() -> Mail:
            with desk.installation.database.read() as session:
                return session.scalars(select(Mail)).one()

        assert mailing.send_due(desk.installation) == 0
        assert (row().state, row().tries, row().due_at > now()) == ("waiting", 1, True)
        while row().state == "waiting":
            with desk.installation.database.write() as session:
                session.execute(update(Mail).values(due_at=now()))
            mailing.send_due(desk.installation)
        assert (row().state, row().text) == ("failed", "")

    def test_without_a_mail_server_it_is_said(self, desk: Desk) -> None:
        answer = desk.stranger().post("/api/password/forgotten", {"email": MAREN})
        assert (answer.status_code, "No mail server" in answer.json["detail"]) == (409, True)


class TestActivity:
    def test_it_shows_who_did_what_and_no_word_of_a_meeting(self, desk: Desk, tmp_path: Any) -> None:
        talk = tmp_path / "talk.txt"
        talk.write_text("Maren: The xylophone budget is 40 pounds.\nInes: I will order xylophones by Friday.")
        meeting = desk.bring_in(talk, title="Xylophone affairs")
        desk.work()
        desk.client.get(f"/api/meetings/{meeting}/files/minutes.md")
        desk.stranger().post("/api/session", {"email": MAREN, "password": "wrong"})
        desk.client.send("DELETE", f"/api/meetings/{meeting}")
        rows = desk.client.get("/api/activity").json
        told = [(row["by"], row["what"]) for row in rows["activities"]]
        assert told[:3] == [
            ("Maren Tull", "removed a meeting"),
            ("Maren Tull", "sign-in failed"),
            ("Maren Tull", "took a file away"),
        ]
        assert "ylophone" not in str(rows)

    def test_it_comes_page_by_page(self, desk: Desk) -> None:
        for number in range(60):
            desk.client.post("/api/people", {"name": f"Person {number}"})
        first = desk.client.get("/api/activity").json
        second = desk.client.get(f"/api/activity?before={first['activities'][-1]['id']}").json
        assert (len(first["activities"]), first["more"], second["more"]) == (50, True, False)
        assert not {a["id"] for a in first["activities"]} & {a["id"] for a in second["activities"]}


def test_an_account_that_has_ended_signs_in_no_more(desk: Desk) -> None:
    ines = desk.account("Ines Carvell", "ines@saltmarsh.example")
    assert desk.client.send("DELETE", f"/api/people/{person(desk, 'Ines Carvell')['id']}").status_code == 200
    assert ines.get("/api/account").status_code == 401
    again = desk.stranger().post("/api/session", {"email": "ines@saltmarsh.example", "password": PASSWORD})
    assert again.status_code == 403
    with desk.installation.database.read() as session:
        assert session.scalars(select(User).where(User.ended_at.is_not(None))).one().email == "ines@saltmarsh.example"

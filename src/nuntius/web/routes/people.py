"""People of the workspace, and accounts for them."""

from flask import Response
from flask_openapi3 import APIBlueprint, Tag
from sqlalchemy.orm import Session

from nuntius.store.accounts import create_account
from nuntius.store.meetings import named_person, people_of
from nuntius.store.models import Workspace
from nuntius.web import schemas as s
from nuntius.web.answers import answer
from nuntius.web.security import installation, limiter, me

api = APIBlueprint("people", __name__, url_prefix="/api/people", abp_tags=[Tag(name="people")])


def _all(db: Session) -> s.PeopleOut:
    people = people_of(db, me().workspace_id)
    return s.PeopleOut(people=[s.PersonOut(id=p.id, name=p.name, has_account=p.user_id is not None) for p in people])


@api.get("", operation_id="getPeople", responses={200: s.PeopleOut})
def get_people() -> Response:
    """Everybody the workspace knows."""
    with installation().database.read() as db:
        return answer(_all(db))


@api.post("", operation_id="addPerson", responses={200: s.PeopleOut})
def add_person(body: s.NewPerson) -> Response:
    """Adds somebody by name; one who is known already is not added twice."""
    with installation().database.write() as db:
        named_person(db, me().workspace_id, body.name)
        return answer(_all(db))


@api.post("/accounts", operation_id="addAccount", responses={200: s.PeopleOut})
@limiter.limit("30 per hour")
def add_account(body: s.NewAccount) -> Response:
    """Lets somebody else sign in to this workspace."""
    with installation().database.write() as db:
        create_account(db, db.get_one(Workspace, me().workspace_id), body.name, body.email, body.password)
        return answer(_all(db))

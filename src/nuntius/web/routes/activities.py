"""Who did what, for administrators."""

from flask import Response
from flask_openapi3 import APIBlueprint, Tag

from nuntius.core.rights import Action
from nuntius.store import activity
from nuntius.store.rights import check_workspace
from nuntius.web import account_schemas as a
from nuntius.web.answers import answer
from nuntius.web.security import installation, me

api = APIBlueprint("activities", __name__, url_prefix="/api/activity", abp_tags=[Tag(name="people")])


@api.get("", operation_id="getActivity", responses={200: a.ActivitiesOut})
def get_activity(query: a.ActivityQuery) -> Response:
    """Sign-ins, invitations, roles, removals and exports, the newest first; never a word of a meeting."""
    check_workspace(me(), Action.SEE_ACTIVITY)
    with installation().database.read() as db:
        rows = activity.page(db, me().workspace_id, query.before)
    found = [
        a.ActivityOut(id=row.id, at=row.at, by=row.by, what=row.what, about=row.about, address=row.address)
        for row in rows
    ]
    return answer(a.ActivitiesOut(activities=found, more=len(rows) == activity.PAGE))

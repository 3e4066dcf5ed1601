"""The news of exports: an `exports` event with all of one's own whenever one of them has moved on."""

from collections.abc import Sequence
from datetime import datetime, timedelta

from sqlalchemy import select
from sqlalchemy.orm import Session

from nuntius.store.exports import exports_of
from nuntius.store.models import Export, now
from nuntius.web.export_schemas import ExportsOut
from nuntius.web.export_shapes import export_out
from nuntius.web.streams import Subscription

OVERLAP = timedelta(seconds=30)  # that a look goes back: a row is dated before it is committed


class ExportFeed:
    """Sends their exports to those who have asked for some."""

    def __init__(self) -> None:
        self._since = now()

    def look(self, session: Session, listeners: Sequence[Subscription]) -> None:
        """Statements: one, and two for each person whose exports have moved on or who is new here."""
        begun, moved = now(), self._moved(session, self._since)
        for listener in listeners:
            if listener.fresh or listener.user.id in moved:
                exports = [export_out(each) for each in exports_of(session, listener.user)]
                text = ExportsOut(exports=exports).model_dump_json()
                if listener.sent.get("exports") != text:
                    listener.sent["exports"] = text
                    listener.offer("exports", text)
        self._since = begun

    def _moved(self, session: Session, since: datetime) -> set[int]:
        return set(session.scalars(select(Export.user_id).where(Export.updated_at > since - OVERLAP)))

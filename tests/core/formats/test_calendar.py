"""Actions as to-dos of a calendar."""

from datetime import UTC, date, datetime

import vobject

from nuntius.core.formats.calendar import write_actions_ics
from tests.core.formats.samples import MINUTES


def test_actions_as_to_dos_of_a_calendar() -> None:
    written = datetime(2026, 11, 3, 12, tzinfo=UTC)
    calendar = vobject.readOne(write_actions_ics(MINUTES, "abc", written).decode())
    first, second = calendar.vtodo_list
    assert (first.summary.value, first.due.value) == ("Have the rail measured", date(2026, 11, 6))
    assert "Nobody took this on." in second.description.value and not hasattr(second, "due")
    assert first.uid.value != second.uid.value

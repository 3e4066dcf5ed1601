"""Actions as to-dos of a calendar."""

from dataclasses import replace
from datetime import UTC, date, datetime

import pytest
import vobject

from nuntius.core.formats.calendar import write_actions_ics
from nuntius.core.minutes.line import Progress
from tests.core.formats.samples import MINUTES


def test_actions_as_to_dos_of_a_calendar() -> None:
    written = datetime(2026, 11, 3, 12, tzinfo=UTC)
    calendar = vobject.readOne(write_actions_ics(MINUTES, "abc", written).decode())
    first, second = calendar.vtodo_list
    assert (first.summary.value, first.due.value) == ("Have the rail measured", date(2026, 11, 6))
    assert "Nobody took this on." in second.description.value and not hasattr(second, "due")
    assert (first.uid.value, second.uid.value) == ("abc-line-11@nuntius", "abc-line-12@nuntius")


# RFC 5545, 3.8.1.11: the values of STATUS that a to-do may have.
@pytest.mark.parametrize(
    ("progress", "status"), [("open", "NEEDS-ACTION"), ("done", "COMPLETED"), ("dropped", "CANCELLED")]
)
def test_how_far_a_task_is_stands_in_its_status(progress: Progress, status: str) -> None:
    line = replace(MINUTES.lines[0], progress=Progress(progress), note="Agreed at the door.")
    written = datetime(2026, 11, 3, 12, tzinfo=UTC)
    (todo,) = vobject.readOne(write_actions_ics(replace(MINUTES, lines=(line,)), "abc", written).decode()).vtodo_list
    assert (todo.status.value, todo.comment.value) == (status, "Agreed at the door.")

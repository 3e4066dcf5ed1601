"""Actions as to-dos of a calendar: iCalendar VTODO (RFC 5545)."""

from datetime import date, datetime

from icalendar import Calendar, Todo

from nuntius.core.formats.markdown import WrittenMinutes
from nuntius.core.minutes.line import LineKind, LineState

STATUS = {
    LineState.OPEN: "NEEDS-ACTION",
    LineState.SETTLED: "COMPLETED",
    LineState.SUPERSEDED: "CANCELLED",
    LineState.PROPOSED: "NEEDS-ACTION",
}


def write_actions_ics(minutes: WrittenMinutes, meeting: str, written: datetime) -> bytes:
    """A calendar with a to-do for every action; `meeting` makes their identifiers unique, `written` stamps them."""
    calendar = Calendar()
    calendar.add("prodid", "-//Nuntius//Minutes//EN")
    calendar.add("version", "2.0")
    for number, line in enumerate((line for line in minutes.lines if line.kind == LineKind.ACTION), 1):
        todo = Todo()
        todo.add("uid", f"{meeting}-{number}@nuntius")
        todo.add("dtstamp", written)
        todo.add("summary", line.text)
        todo.add("status", STATUS.get(line.state, "NEEDS-ACTION"))
        if line.due_date:
            todo.add("due", date.fromisoformat(line.due_date))
        who = ", ".join(line.owner) or "Nobody took this on."
        said = f" (“{line.due_said}”)" if line.due_said else ""
        where = ", ".join(line.passages)
        todo.add(
            "description", f"{who}{said}\n{minutes.title}, at {where}" if where else f"{who}{said}\n{minutes.title}"
        )
        calendar.add_component(todo)
    return bytes(calendar.to_ical())

"""Actions as to-dos of a calendar: iCalendar VTODO (RFC 5545)."""

from datetime import date, datetime

from icalendar import Calendar, Todo

from nuntius.core.formats.markdown import WrittenMinutes
from nuntius.core.minutes.line import LineKind, Progress

STATUS = {Progress.OPEN: "NEEDS-ACTION", Progress.DONE: "COMPLETED", Progress.DROPPED: "CANCELLED"}


def write_actions_ics(minutes: WrittenMinutes, meeting: str, written: datetime) -> bytes:
    """A calendar with a to-do for every action; `meeting` and the number that stays with a line make its identifier.

    So a calendar that has taken them in once finds the same to-dos again. `written` stamps them.
    """
    calendar = Calendar()
    calendar.add("prodid", "-//Nuntius//Minutes//EN")
    calendar.add("version", "2.0")
    for line in (line for line in minutes.lines if line.kind == LineKind.ACTION):
        todo = Todo()
        todo.add("uid", f"{meeting}-line-{line.id}@nuntius")
        todo.add("dtstamp", written)
        todo.add("summary", line.text)
        todo.add("status", STATUS[Progress.DROPPED if line.gone else line.progress])
        if line.due_date:
            todo.add("due", date.fromisoformat(line.due_date))
        who = ", ".join(line.owner) or "Nobody took this on."
        said = f" (“{line.due_said}”)" if line.due_said else ""
        where = ", ".join(line.passages)
        todo.add(
            "description", f"{who}{said}\n{minutes.title}, at {where}" if where else f"{who}{said}\n{minutes.title}"
        )
        if line.note:
            todo.add("comment", line.note)
        calendar.add_component(todo)
    return bytes(calendar.to_ical())

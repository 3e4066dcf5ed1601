"""How the time that minutes take grows with the length of a meeting, with a plot.

    python bench/growth.py

8,700 words an hour, none of it talk that was already read. Writes docs/growth.svg.
"""

import json
import subprocess
import sys
import time
from collections.abc import Sequence
from datetime import date
from pathlib import Path

from talk import AN_HOUR, talk

from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.line import Length, MeetingFacts
from nuntius.core.templates.shipped import shipped

HOURS = (0.5, 1, 2, 4, 8)
TARGET = Path(__file__).parents[1] / "docs/growth.svg"
WIDTH, HEIGHT, EDGE = 560, 300, 50


def measured(hours: float) -> tuple[float, float, float]:
    """Hours, seconds for new minutes and for another template, in a process of its own, which remembers nothing."""
    done = subprocess.run([sys.executable, __file__, str(hours)], stdout=subprocess.PIPE, check=True)
    new, again = json.loads(done.stdout)
    sys.stdout.write(f"{hours:4} h  new {new:6.1f} s  another template {again:5.1f} s\n")
    sys.stdout.flush()
    return hours, new, again


def once(hours: float) -> None:
    """Prints the two figures of one length."""
    facts = MeetingFacts(date(2026, 10, 6))
    make_minutes(talk(300), facts)  # loads the models
    transcript = talk(round(hours * AN_HOUR))
    begun = time.perf_counter()
    make_minutes(transcript, facts)
    new = time.perf_counter() - begun
    make_minutes(transcript, facts, Length.STANDARD, shipped("committee"))
    sys.stdout.write(json.dumps([new, time.perf_counter() - begun - new]))


def plot(rows: Sequence[tuple[float, float, float]]) -> str:
    """An SVG of seconds over hours, with a straight line through the first measure beside it."""
    most = max(max(new, rows[0][1] / rows[0][0] * hours) for hours, new, _ in rows)

    def at(hours: float, seconds: float) -> str:
        x = EDGE + hours / HOURS[-1] * (WIDTH - 2 * EDGE)
        return f"{x:.0f},{HEIGHT - EDGE - seconds / most * (HEIGHT - 2 * EDGE):.0f}"

    new, again = (" ".join(at(row[0], row[n]) for row in rows) for n in (1, 2))
    line = f"{at(0, 0)} {at(HOURS[-1], rows[0][1] / rows[0][0] * HOURS[-1])}"
    marks = "".join(
        f'<text x="{at(hours, 0).split(",")[0]}" y="{HEIGHT - EDGE + 18}" text-anchor="middle">{hours} h</text>'
        f'<text x="{at(hours, seconds).split(",")[0]}" y="{float(at(hours, seconds).split(",")[1]) - 8}" text-anchor="middle">{seconds:.0f} s</text>'
        for hours, seconds, _ in rows
    )
    return (
        f'<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 {WIDTH} {HEIGHT}" width="{WIDTH}" height="{HEIGHT}" font-family="sans-serif" font-size="12" fill="#1E2A2F">'
        f'<rect width="{WIDTH}" height="{HEIGHT}" fill="#FBFAF6"/><text x="{EDGE}" y="24">Seconds for minutes, by hours of talk: new (full line), by another template (dots), in proportion (dashes)</text>'
        f'<path d="M{EDGE} {HEIGHT - EDGE}H{WIDTH - EDGE}" stroke="#1E2A2F"/><polyline points="{line}" fill="none" stroke="#8A6D3B" stroke-dasharray="6 4"/>'
        f'<polyline points="{new}" fill="none" stroke="#1F7A6C" stroke-width="2"/><polyline points="{again}" fill="none" stroke="#1F7A6C" stroke-width="2" stroke-dasharray="1 5" stroke-linecap="round"/>{marks}</svg>\n'
    )


if __name__ == "__main__":
    if sys.argv[1:]:
        once(float(sys.argv[1]))
    else:
        TARGET.write_text(plot([measured(hours) for hours in HOURS]))

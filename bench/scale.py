"""What lists cost at 13, 103 and 1,003 meetings: statements, processor time, bytes, and seconds (p50, p95) of each route.

`python bench/scale.py [meetings ...]`. The talk is invented: 10,000 words a meeting with `--words 10000`.
"""

import argparse
import statistics
import time
from dataclasses import replace
from pathlib import Path
from tempfile import TemporaryDirectory
from typing import Any

from sqlalchemy import event
from tests.filling import fill
from tests.help import Desk, in_memory

from nuntius.jobs.queue import Queue
from nuntius.settings import Settings
from nuntius.store.installation import Installation
from nuntius.store.models import User

ROUTES = (
    "/api/meetings",
    "/api/meetings?words=boat",
    "/api/meetings/today",
    "/api/meetings/actions?most=8",
    "/api/people",
    "/api/excerpts",
    "/api/setup/trust",
)
TIMES = 15  # requests of each route
LINES = 35  # of each meeting's minutes


def measured(desk: Desk, path: str) -> dict[str, Any]:
    """Statements, milliseconds of processor time, kB, and milliseconds (p50, p95) of a route."""
    engine, count = desk.app.extensions["nuntius"].database._engine, [0]

    def note(*_: Any) -> None:
        count[0] += 1

    event.listen(engine, "before_cursor_execute", note)
    took, size, begun = [], 0, time.process_time()
    for _ in range(TIMES):
        at = time.perf_counter()
        size = len(desk.client.get(path).data)
        took.append((time.perf_counter() - at) * 1000)
    used = (time.process_time() - begun) * 1000 / TIMES
    event.remove(engine, "before_cursor_execute", note)
    return {
        "statements": count[0] // TIMES,
        "cpu": used,
        "kB": size / 1000,
        "p50": statistics.median(took),
        "p95": sorted(took)[int(TIMES * 0.95)],
    }


def main() -> None:
    parser = argparse.ArgumentParser(description=__doc__)
    parser.add_argument("meetings", type=int, nargs="*", default=[13, 103, 1003])
    parser.add_argument("--words", type=int, default=10_000)
    asked = parser.parse_args()
    with TemporaryDirectory() as folder:
        store = Installation(replace(Settings.from_environment({}), data=Path(folder)))
        desk, held = Desk(store, Queue(store, in_memory)), 0
        print(f"{'meetings':>8}  {'route':<32}{'statements':>10}{'cpu ms':>8}{'kB':>8}{'p50 ms':>8}{'p95 ms':>8}")
        for wanted in asked.meetings:
            while held < wanted:
                count = min(50, wanted - held)
                with store.database.write() as session:
                    fill(session, session.query(User).one(), held, count, asked.words, LINES)
                held += count
            for path in ROUTES:
                m = measured(desk, path)
                print(
                    f"{held:>8}  {path:<32}{m['statements']:>10}{m['cpu']:>8.1f}{m['kB']:>8.1f}{m['p50']:>8.1f}{m['p95']:>8.1f}"
                )


if __name__ == "__main__":
    main()

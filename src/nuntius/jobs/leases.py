"""Holding work under a lease: heartbeats while it is done, and its end written down."""

import logging
import time
from collections.abc import Iterator
from contextlib import contextmanager
from threading import Event, Thread
from typing import Any

from nuntius.core.errors import Fault
from nuntius.core.jobs import JobState
from nuntius.store.errors import DatabaseBusy, StorageFull
from nuntius.store.installation import Installation
from nuntius.store.leases import Work, beat, held
from nuntius.store.models import Export, Job

log = logging.getLogger(__name__)

PULSE = 5.0  # seconds between two heartbeats; work is given to another after `store.leases.LEASE` without one
END_TRIES = (0.5, 1.0, 2.0, 5.0, 10.0, 20.0)  # seconds between tries to write how work ended, on a full disk say


@contextmanager
def pulse(installation: Installation, work: type[Job] | type[Export], key: str, holder: str) -> Iterator[None]:
    """Sends heartbeats while a step is busy; a large model may need minutes for one stretch."""
    ended = Event()

    def run() -> None:
        while not ended.wait(PULSE):
            try:
                with installation.database.write() as session:
                    beat(session, work, key, holder)
            except Fault as fault:  # busy or full for a moment: the next beat may get through
                log.warning("no heartbeat", extra={"work": key, "why": fault.sentence})

    thread = Thread(target=run, daemon=True)
    thread.start()
    try:
        yield
    finally:
        ended.set()
        thread.join()


def end(installation: Installation, work: type[Work], key: str, holder: str, state: JobState, **values: Any) -> bool:
    """Writes how work ended and lets it go; whether it was still `holder`'s.

    Tries again and again while the disk is full; after that the lease runs out and the work goes on.
    """
    for pause in (*END_TRIES, None):
        try:
            with installation.database.write() as session:
                row = held(session, work, key, holder)
                if row is not None:
                    row.state, row.worker = state, None
                    for name, value in values.items():
                        setattr(row, name, value)
            log.info("work ends", extra={"work": key, "state": state})
            return row is not None
        except (StorageFull, DatabaseBusy) as fault:
            log.warning("end not written", extra={"work": key, "state": state, "why": fault.sentence})
            if pause is not None:
                time.sleep(pause)
    return False

"""No transaction holds work on files, models or the network."""

from threading import Thread

import pytest

from nuntius.store.installation import Installation
from nuntius.store.transactions import SlowInsideTransaction, marked, outside


@pytest.mark.parametrize("kind", ["read", "write"])
def test_slow_work_inside_a_transaction_is_an_error_that_names_both(kind: str) -> None:
    with marked(kind), pytest.raises(SlowInsideTransaction, match=f"a file inside a {kind} transaction"):
        outside("a file")
    outside("a file")  # afterwards it is fine


def test_a_session_marks_its_thread_and_no_other(installation: Installation) -> None:
    seen: list[str] = []

    def beside() -> None:
        outside("a file")
        seen.append("fine")

    with installation.database.write():
        with pytest.raises(SlowInsideTransaction):
            installation.files.drop("0" * 64)
        thread = Thread(target=beside)
        thread.start()
        thread.join()
    assert seen == ["fine"]

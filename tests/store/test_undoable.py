"""Changes as rows remember them: each form comes back as it was, also those that earlier versions wrote."""

import json

import pytest
from hypothesis import given
from hypothesis import strategies as st

from nuntius.store.models import Change
from nuntius.store.undoable import (
    Edit,
    Field,
    FieldSet,
    Piece,
    Together,
    Touched,
    TurnsReplaced,
    edit_of,
    row_of,
    touched,
    write_steps,
)

WORDS = st.lists(st.tuples(st.text(max_size=8), st.floats(0, 9e4), st.floats(0, 9e4), st.floats(0, 1)).map(list))
PIECES = st.builds(Piece, st.integers(1), st.integers(1), st.text(max_size=5), WORDS, st.none() | WORDS)
VALUES = st.none() | st.integers() | st.text() | WORDS
FIELDS = st.builds(FieldSet, st.sampled_from(Field), st.integers(0), VALUES, VALUES)
TURNS = st.lists(PIECES, max_size=3).map(tuple)
REPLACED = st.builds(TurnsReplaced, st.text(max_size=12), st.integers(0), TURNS, TURNS)
EDITS = FIELDS | st.builds(Together, st.lists(FIELDS | REPLACED, max_size=4).map(tuple))


def through_the_table(row: Change) -> Change:
    """The row as it is read again: its values went through JSON."""
    before, after = json.loads(json.dumps(row.before)), json.loads(json.dumps(row.after))
    return Change(kind=str(row.kind), target=row.target, before=before, after=after)


@given(EDITS)
def test_what_is_remembered_comes_back_as_it_was(edit: Edit) -> None:
    assert edit_of(through_the_table(row_of(edit, "m", 1))) == edit


@given(EDITS)
def test_the_way_back_of_the_way_back_is_the_way(edit: Edit) -> None:
    assert edit.reversed().reversed() == edit


def test_rows_of_earlier_versions_are_read() -> None:
    """Written out as revision 0012 kept them."""
    one, two = ([["good", 0.0, 0.4, 0.9]], [["morning", 0.4, 0.9, 0.8]])
    whole = {"id": 7, "speaker_id": 1, "cue": "", "words": one + two, "person_words": None}
    parts = [{**whole, "words": one}, {**whole, "id": 8, "words": two}]
    row = Change(
        kind="together",
        target=0,
        before=[["turns", 3, {"meeting": "m", "from": [7, 8], "to": [whole]}], ["spans", 5, [[0.0, 0.9, "A"]]]],
        after=[["turns", 3, {"meeting": "m", "from": [7], "to": parts}], ["spans", 5, [[0.0, 0.4, "A"]]]],
    )
    edit = edit_of(row)
    assert edit == Together(
        (
            TurnsReplaced("m", 3, (Piece(**whole),), tuple(Piece(**part) for part in parts)),  # type: ignore[arg-type]
            FieldSet(Field.SPANS, 5, [[0.0, 0.9, "A"]], [[0.0, 0.4, "A"]]),
        )
    )
    again = Change()
    write_steps(again, edit)
    assert (again.before, again.after) == (row.before, row.after)


TURN = FieldSet(Field.TURN, 4, None, [])


@pytest.mark.parametrize(
    ("edit", "seen"),
    [
        (FieldSet(Field.TICK, 9, None, 1), Touched(line=9)),
        (TURN, Touched(turns=(4,))),
        (FieldSet(Field.LIVE, 2, None, "x"), Touched()),
        (FieldSet(Field.VOICE, 3, None, 8), Touched(minutes=True)),
        (Together((TURN, FieldSet(Field.ANSWER, 1, "a", "b"))), Touched(turns=(4,), minutes=True)),
        (Together((FieldSet(Field.TURN_VOICE, 1, 1, 2),)), Touched(restructured=True, minutes=True)),
        (Together((TurnsReplaced("m", 0, (), ()),)), Touched(restructured=True, minutes=True)),
    ],
)
def test_what_a_page_has_to_see_again(edit: Edit, seen: Touched) -> None:
    assert touched(edit) == seen

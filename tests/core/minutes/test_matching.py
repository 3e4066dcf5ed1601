"""Which line is which after minutes were made again."""

from nuntius.core.minutes.line import LineKind
from nuntius.core.minutes.matching import Comparable, covered, matched

ACTION, DECISION = LineKind.ACTION, LineKind.DECISION


def test_the_likest_lines_are_paired_each_once() -> None:
    before = [
        Comparable(ACTION, "Ask two yards for a price.", ((10.0, 14.0),)),
        Comparable(ACTION, "Send the new times to the harbour office.", ((12.0, 18.0),)),
    ]
    after = [
        Comparable(ACTION, "Send the new times.", ((12.0, 18.0),)),
        Comparable(ACTION, "Ask two yards.", ((10.0, 14.0),)),
    ]
    assert matched(before, after) == {0: 1, 1: 0}


def test_lines_of_another_kind_or_time_are_others() -> None:
    line = Comparable(ACTION, "Ask two yards.", ((10.0, 14.0),))
    assert matched([line], [Comparable(DECISION, "Ask two yards.", ((10.0, 14.0),))]) == {}
    assert matched([line], [Comparable(ACTION, "Ask two yards.", ((30.0, 34.0),))]) == {}
    assert matched([], [line]) == matched([line], []) == {}


def test_a_line_whose_kind_a_person_chose_is_found_under_any_kind() -> None:
    chosen = Comparable(None, "Ask two yards.", ((10.0, 14.0),), touched=True)
    assert matched([chosen], [Comparable(ACTION, "Ask two yards.", ((10.0, 14.0),))]) == {0: 0}


def test_other_words_at_the_same_moment_are_the_same_line_only_where_a_person_touched_it() -> None:
    after = [Comparable(ACTION, "Paint the door green.", ((13.0, 30.0),))]
    assert matched([Comparable(ACTION, "Ask two yards.", ((10.0, 14.0),))], after) == {}
    assert matched([Comparable(ACTION, "Ask two yards.", ((10.0, 14.0),), touched=True)], after) == {0: 0}


def test_a_line_without_evidence_matches_nothing() -> None:
    assert matched([Comparable(ACTION, "Ask.", (), touched=True)], [Comparable(ACTION, "Ask.", ((1.0, 2.0),))]) == {}


def test_how_much_of_one_lies_within_another() -> None:
    assert covered([(0.0, 10.0)], [(5.0, 20.0)]) == 0.5
    assert covered([(0.0, 4.0), (6.0, 10.0)], [(0.0, 10.0)]) == 1.0
    assert covered([], [(0.0, 1.0)]) == covered([(3.0, 3.0)], [(0.0, 9.0)]) == 0.0

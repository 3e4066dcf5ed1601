"""Numbers, dates and divisions held against published libraries."""

import itertools
import sys
from datetime import date, datetime, timedelta

import pytest
import segeval
from dateutil.relativedelta import FR, MO, SA, SU, TH, TU, WE, relativedelta
from dateutil.rrule import YEARLY, rrule
from nltk.metrics.segmentation import pk
from num2words import num2words

from nuntius.core.language.en.dates import DAYS, MONTHS, said_dates
from nuntius.core.language.en.numbers import in_digits, ordinal, value_of
from tests.help import ROOT

sys.path.append(str(ROOT / "bench"))

pytestmark = pytest.mark.outside

NUMBERS = [*range(10, 1_001), *range(1_001, 1_000_000, 7_919), 999_999, 1_000_000]


def test_number_words_are_read_back_as_num2words_writes_them() -> None:
    wrong = [(n, words) for n in NUMBERS if value_of(words := num2words(n)) != n]
    assert not wrong


def test_number_words_become_the_digits_of_their_number() -> None:
    """num2words sets a comma behind thousands, which nobody says."""
    wrong = [
        (n, made) for n in NUMBERS if (made := in_digits(num2words(n).replace(",", ""))).replace(",", "") != str(n)
    ]
    assert not wrong


def test_sums_and_points_are_read_back_whole() -> None:
    """`six hundred and forty-two pounds thirty`, as people say it (common practice, no source), in num2words' words."""
    wrong = []
    for n, pence in itertools.product([2, 9, 10, 42, 100, 119, 642, 1_250, 9_999], [20, 25, 50, 99]):
        whole = num2words(n).replace(",", "")
        wrong += [made for made in [in_digits(f"{whole} pounds {num2words(pence)}.")] if made != f"{n}.{pence} pounds."]
        wrong += [made for made in [in_digits(f"{whole} point five.")] if made != f"{n}.5."]
    assert not wrong


def test_days_of_the_month_are_read_back() -> None:
    assert [ordinal(num2words(n, to="ordinal")) for n in range(1, 32)] == list(range(1, 32))


def test_ordinals_are_left_as_words() -> None:
    for n in range(21, 100):
        words = num2words(n, to="ordinal")
        assert in_digits(f"on the {words} of May") == f"on the {words} of May"


@pytest.mark.parametrize("today", [date(2026, 1, 1) + timedelta(n) for n in (0, 3, 58, 59, 151, 242, 363, 364)])
def test_a_weekday_is_the_next_one_as_dateutil_counts(today: date) -> None:
    """RFC 5545 weekdays through dateutil; that a bare weekday lies ahead is common practice, no source."""
    for name, weekday in zip(DAYS, (MO, TU, WE, TH, FR, SA, SU), strict=True):
        expected = today + timedelta(1) + relativedelta(weekday=weekday(+1))
        assert [each.day for each in said_dates(f"I'll send it by {name.title()}.", today)] == [expected]


@pytest.mark.parametrize(("word", "which"), [("first", 1), ("second", 2), ("third", 3), ("fourth", 4), ("last", -1)])
def test_a_weekday_of_a_month_is_as_its_recurrence_rule_gives_it(word: str, which: int) -> None:
    """RFC 5545, BYDAY with a number, through dateutil."""
    for month, name in enumerate(MONTHS, 1):
        for weekday, day in zip(DAYS, (MO, TU, WE, TH, FR, SA, SU), strict=True):
            rule = rrule(YEARLY, dtstart=datetime(2026, 3, 5), bymonth=month, byweekday=day(which), count=1)
            said = f"We meet on the {word} {weekday.title()} in {name.title()}."
            assert [each.day for each in said_dates(said, date(2026, 3, 5))] == [rule[0].date()]


@pytest.mark.parametrize(
    ("said", "months"), [("in a month", 1), ("in two months", 2), ("in three months", 3), ("in six months", 6)]
)
def test_months_ahead_are_as_dateutil_counts_away_from_their_ends(said: str, months: int) -> None:
    for day in (date(2026, 1, 15), date(2026, 11, 3), date(2027, 12, 28)):
        assert [each.day for each in said_dates(f"It's due {said}.", day)] == [day + relativedelta(months=months)]


def test_the_end_of_a_month_is_as_dateutil_counts() -> None:
    for month in range(1, 13):
        day = date(2028, month, 5)
        end = day + relativedelta(day=31)
        assert [each.day for each in said_dates("By the end of the month.", day)] == [end]


def test_the_share_of_wrong_windows_is_that_of_nltk() -> None:
    """Pk (Beeferman and others, 1999) as nltk counts it, on divisions as strings of boundaries."""
    from minutes import _pk

    count, wanted, found = 40, {9, 17, 30}, {9, 19, 25}
    as_text = ["".join("1" if n + 1 in boundaries else "0" for n in range(1, count)) for boundaries in (wanted, found)]
    width = max(2, round(count / (len(wanted) + 1) / 2))
    assert _pk(wanted, found, count) == pytest.approx(pk(as_text[0], as_text[1], k=width))


def test_the_share_of_wrong_windows_on_published_codings_is_that_of_segeval() -> None:
    """Seven people's divisions of the Stargazer text (Hearst 1997), carried by segeval; Pk of each against each."""
    from minutes import _pk

    codings = [tuple(masses) for masses in segeval.HEARST_1997_STARGAZER["stargazer"].values()]
    assert len(codings) == 7
    for wanted, found in itertools.permutations(codings, 2):
        count = sum(wanted)
        width = max(2, round(count / len(wanted) / 2))
        expected = float(segeval.pk(found, wanted, window_size=width))
        assert _pk(_borders(wanted), _borders(found), count) == pytest.approx(expected)


def _borders(masses: tuple[int, ...]) -> set[int]:
    """The numbers, from 1, of what opens each segment but the first."""
    return {1 + sum(masses[:n]) for n in range(1, len(masses))}

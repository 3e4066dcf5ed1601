"""Which meetings recur: those whose titles are alike but for dates and numbers."""

import re

_DATES = re.compile(
    r"\b(?:mon|tues|wednes|thurs|fri|satur|sun)day\b|\b(?:january|february|march|april|may|june|july|august|september|october|"
    r"november|december|jan|feb|mar|apr|jun|jul|aug|sept?|oct|nov|dec)\b|\bweek\b|\b\d+(?:st|nd|rd|th)\b|\bq[1-4]\b",
    re.I,
)


def series_of(title: str) -> str:
    """What is common to the titles of a series: `Crew meeting, 6 October` and `Crew meeting 13 Oct` give `crew meeting`.

    "" where nothing is left, so that the meeting stands by itself.
    """
    return " ".join(re.findall(r"[^\W\d_]+", _DATES.sub(" ", title.lower())))

"""Results kept by what they are of."""

from nuntius.core.language.cache import Kept


def test_results_are_kept_by_their_text_and_the_oldest_go() -> None:
    asked: list[list[str]] = []

    def upper(texts: list[str]) -> list[str]:
        asked.append(texts)
        return [text.upper() for text in texts]

    kept: Kept[str, str] = Kept(2)
    assert kept(["a", "b", "a"], upper) == ["A", "B", "A"]
    assert kept(["b", "c"], upper) == ["B", "C"]
    assert kept(["a"], upper) == ["A"]
    assert asked == [["a", "b"], ["c"], ["a"]]
    assert kept([], upper) == []

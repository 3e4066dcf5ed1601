import pytest

from nuntius.core.errors import PasswordWeak
from nuntius.core.passwords import check_password


@pytest.mark.parametrize(
    "weak",
    ["short", "password123", "qwertyuiop", "1234567890", "iloveyou2024", "aaaaaaaaaaaa", "x" * 129, "Saltmarsh1", "ines@saltmarsh"],
)  # fmt: skip
def test_what_would_soon_be_guessed_is_refused(weak: str) -> None:
    with pytest.raises(PasswordWeak, match="not safe enough"):
        check_password(weak, ["Ines Carvell", "ines@saltmarsh.example", "Saltmarsh"])


@pytest.mark.parametrize("good", ["low water at noon", "Krähen zählen 7 Bojen", "n0t-4-dictionary-w0rd"])
def test_several_words_are_good(good: str) -> None:
    check_password(good, ["Maren Tull"])


def test_the_bounds_are_those_of_asvs() -> None:
    """At least 12 characters, at least 64 permitted, more than 128 refused. Source: OWASP ASVS 4.0.3, 2.1.1 and 2.1.2."""
    words = "herring gulls over the quay and seven buoys in the fog of the morning tide "
    with pytest.raises(PasswordWeak, match="fewer than 12"):
        check_password("gull quay 7")
    check_password("gulls quay 7")
    check_password(words[:64])
    check_password((words * 2)[:128])
    with pytest.raises(PasswordWeak, match="more than 128"):
        check_password((words * 2)[:129])

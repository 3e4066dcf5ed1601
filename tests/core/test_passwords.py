import pytest

from nuntius.core.errors import PasswordWeak
from nuntius.core.passwords import check_password


@pytest.mark.parametrize(
    "weak",
    ["short", "password123", "qwertyuiop", "1234567890", "iloveyou2024", "aaaaaaaaaaaa", "x" * 201, "Saltmarsh1", "ines@saltmarsh"],
)  # fmt: skip
def test_what_would_soon_be_guessed_is_refused(weak: str) -> None:
    with pytest.raises(PasswordWeak, match="not safe enough"):
        check_password(weak, ["Ines Carvell", "ines@saltmarsh.example", "Saltmarsh"])


@pytest.mark.parametrize("good", ["low water at noon", "Krähen zählen 7 Bojen", "n0t-4-dictionary-w0rd"])
def test_several_words_are_good(good: str) -> None:
    check_password(good, ["Maren Tull"])

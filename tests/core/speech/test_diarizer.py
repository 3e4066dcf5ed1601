"""Names of voices."""

from nuntius.core.speech.diarizer import voice_name


def test_voices_have_letters() -> None:
    assert [voice_name(n) for n in (0, 25, 26, 27)] == ["Voice A", "Voice Z", "Voice AA", "Voice AB"]

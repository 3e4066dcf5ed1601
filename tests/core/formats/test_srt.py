"""SubRip."""

from nuntius.core.formats.srt import read_srt, write_srt
from tests.help import talk


def test_srt_reads_back_with_its_voices() -> None:
    before = talk(("Maren Tull", "Good morning."), ("Ines", "Morning: all of you."))
    after = read_srt("".join(write_srt(before)))
    assert [(t.speaker, t.text) for t in after.turns] == [(t.speaker, t.text) for t in before.turns]

"""Lines of a script in place of a recogniser."""

import numpy as np

from nuntius.core.audio.decode import RATE
from nuntius.core.live.line import LiveLine
from nuntius.core.live.scripted import ScriptedLines


class TestScripted:
    def test_lines_grow_word_by_word_and_settle_at_their_end(self) -> None:
        engine = ScriptedLines([LiveLine(1.0, 3.0, "one two three four"), LiveLine(4.0, 5.0, "five")])
        second = np.zeros(RATE, np.float32)
        assert engine.hear(second).partial is None
        grown = engine.hear(second).partial
        assert grown is not None and grown.text == "one two three"
        assert [line.text for line in engine.hear(second).settled] == ["one two three four"]
        assert engine.hear(second).settled == ()
        partial = engine.hear(second[: RATE // 2]).partial
        assert partial is not None and partial.text == "five"
        assert [line.text for line in engine.finish().settled] == ["five"]

"""Chapters for players and podcasts."""

import json

import webvtt

from nuntius.core.formats.chapters import Stretch, write_chapters_json, write_chapters_vtt


class TestChapters:
    CHAPTERS = (Stretch("Opening & <hello>", 0.5, 60.0), Stretch("Slipway", 62.0, 130.0))

    def test_cues_meet(self) -> None:
        cues = webvtt.from_string("".join(write_chapters_vtt(self.CHAPTERS)))
        assert [(c.start, c.end) for c in cues] == [("00:00:00.500", "00:01:02.000"), ("00:01:02.000", "00:02:10.000")]

    def test_for_podcasts(self) -> None:
        made = json.loads(write_chapters_json("Winter", self.CHAPTERS))
        assert made["version"] == "1.2.0" and [c["startTime"] for c in made["chapters"]] == [0.5, 62.0]

    def test_none(self) -> None:
        assert "".join(write_chapters_vtt(())) == "WEBVTT\n"

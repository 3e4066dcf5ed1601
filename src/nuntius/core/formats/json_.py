"""Nuntius's own JSON of transcripts, minutes and answers: the schemas of the command line."""

from typing import Any

from nuntius.core.inquiry.inquire import Reply
from nuntius.core.minutes.line import Minutes, Passage
from nuntius.core.transcript.transcript import Transcript


def transcript_json(transcript: Transcript) -> dict[str, Any]:
    """`nuntius.transcript/1`; times in seconds."""
    return {
        "schema": "nuntius.transcript/1",
        "duration": round(transcript.duration, 3),
        "turns": [
            {
                "speaker": turn.speaker,
                "start": round(turn.start, 3),
                "end": round(turn.end, 3),
                "words": [
                    {
                        "text": word.text,
                        "start": round(word.start, 3),
                        "end": round(word.end, 3),
                        "confidence": round(word.confidence, 3),
                    }
                    for word in turn.words
                ],
            }
            for turn in transcript.turns
        ],
    }


def evidence_json(transcript: Transcript, passages: tuple[Passage, ...]) -> list[dict[str, Any]]:
    """Passages with cue, times, speaker and the words as in the record."""
    return [
        {
            "cue": (turn := transcript.turns[p.turn]).cue or str(p.turn + 1),
            "start": round(turn.words[p.first].start, 3),
            "end": round(max(word.end for word in turn.words[p.first : p.last + 1]), 3),
            "speaker": turn.speaker,
            "quote": " ".join(word.text for word in turn.words[p.first : p.last + 1]),
        }
        for p in passages
    ]


def minutes_json(transcript: Transcript, minutes: Minutes) -> dict[str, Any]:
    """`nuntius.minutes/1`."""
    return {
        "schema": "nuntius.minutes/1",
        "lines": [
            {
                "id": str(number),
                "kind": line.kind,
                "text": line.text,
                "section": line.section,
                "chapter": line.chapter,
                "owner": list(line.owner),
                "due": line.due.isoformat() if line.due else None,
                "due_said": line.due_said,
                "state": line.state,
                "answer": {
                    "text": line.answer.text,
                    "evidence": evidence_json(transcript, line.answer.evidence),
                }
                if line.answer
                else None,
                "evidence": evidence_json(transcript, line.evidence),
                "why": line.why,
                "doubts": list(line.doubts),
            }
            for number, line in enumerate(minutes.lines, 1)
        ],
        "chapters": [
            {
                "title": chapter.title,
                "cue": (turn := transcript.turns[chapter.first]).cue or str(chapter.first + 1),
                "start": round(turn.start, 3),
                "end": round(max(t.end for t in transcript.turns[chapter.first : chapter.last + 1]), 3),
            }
            for chapter in minutes.chapters
        ],
        "coverage": {
            "share": round(minutes.coverage.share, 4),
            "gaps": [{"start": round(a, 3), "end": round(b, 3)} for a, b in minutes.coverage.gaps],
        },
    }


def reply_json(transcript: Transcript, reply: Reply) -> dict[str, Any]:
    """Whether the record holds an answer, the answer, and the passages it was made from."""
    return {
        "schema": "nuntius.answer/1",
        "found": reply.found,
        "answer": reply.text or None,
        "evidence": evidence_json(transcript, reply.evidence),
        "nearest": evidence_json(transcript, reply.nearest),
    }

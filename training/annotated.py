"""Reads annotated meetings and writes them as captions with their hand-written minutes.

    python training/annotated.py FOLDER

A file in `meetings/`, from which all is learnt, in `asked/`, from which only what answers a question is, or in `unseen/`,
which is for measuring, holds `key: value`
lines, `---`, the talk, `---`, and what should come of it. `== Title` opens a chapter. Behind an utterance `{...}` says
what rests on it: `a1` an action, `d1` a decision, `q1` a question and `r1` its answer, `k1` a key point, `i1` the answer
to an inquiry, `f=` a figure, `t=` an utterance that only looks like an action or a decision. Below stand
`a1 task | owners | due`, `d1 text`, `q1 text`, `k1/3 text` (its weight) and
`i1 question ~ the same in other words | words that the answer must hold` (what stands behind `~` may be missing); `i0` is
a question that the record cannot answer, `a1?` an action that may be found or not. `chapters: fine` says that they are finer than minutes want.
"""

import json
import re
import sys
from dataclasses import dataclass
from datetime import date
from pathlib import Path
from typing import Any

MEETINGS = Path(__file__).parent / "meetings"
UNSEEN = MEETINGS.with_name("unseen")  # nothing is learnt from these: they are for measuring
ASKED = MEETINGS.with_name("asked")  # from these only what answers the questions that are put to them
PACE = 2.5  # words a second
PAUSE = 0.4  # seconds between two utterances


@dataclass(frozen=True)
class Utterance:
    """What one voice says, and the keys of what rests on it."""

    speaker: str
    text: str
    keys: tuple[str, ...]


@dataclass(frozen=True)
class Annotated:
    """A meeting with its hand-written minutes; `chapters` are (number of the first utterance, title)."""

    name: str
    head: dict[str, str]
    utterances: tuple[Utterance, ...]
    chapters: tuple[tuple[int, str], ...]
    notes: dict[str, str]

    @property
    def people(self) -> list[str]:
        return [name.strip() for name in self.head["people"].split(";")]

    @property
    def day(self) -> date:
        return date.fromisoformat(self.head["date"])

    def cues(self, key: str) -> list[int]:
        """Numbers, from 1, of the utterances with that key."""
        return [number for number, each in enumerate(self.utterances, 1) if key in each.keys]

    def label(self, speaker: str) -> str:
        """What the transcript calls a speaker: the name, or a mere label."""
        return f"Speaker {self.people.index(speaker) + 1}" if self.head.get("labels") else speaker


def read(path: Path) -> Annotated:
    """Raises ValueError where a key has no utterance or no explanation."""
    head, talk, below = re.split(r"^---$", path.read_text(), flags=re.M)
    utterances: list[Utterance] = []
    chapters: list[tuple[int, str]] = []
    for row in filter(None, map(str.strip, talk.splitlines())):
        if row.startswith("=="):
            chapters.append((len(utterances) + 1, row[2:].strip()))
            continue
        utterances.append(utterance(row))
    notes = dict(_note(row) for row in below.splitlines() if row.strip() and not row.startswith("i0"))
    notes |= {f"i0 {i}": row[3:] for i, row in enumerate(r for r in below.splitlines() if r.startswith("i0"))}
    made = Annotated(path.stem, dict(_head(head)), tuple(utterances), tuple(chapters), notes)
    used = {key for each in utterances for key in each.keys if key[0] in "adqki" and key[1:].isdigit()}
    known = {re.match(r"\w+", key).group() for key in notes if not key.startswith("i0")}  # type: ignore[union-attr]
    if used != known:
        raise ValueError(f"{path.name}: {sorted(used ^ known)}")
    return made


def utterance(row: str) -> Utterance:
    """A row of the talk: `Name: words {keys}`."""
    speaker, _, said = row.partition(": ")
    keys = re.search(r"\s*\{([^}]*)\}$", said)
    text = said[: keys.start()] if keys else said
    return Utterance(speaker, text, _keys(keys.group(1)) if keys else ())


def _head(text: str) -> list[tuple[str, str]]:
    return [(key.strip(), value.strip()) for key, _, value in (r.partition(":") for r in text.splitlines()) if value]


def _keys(text: str) -> tuple[str, ...]:
    return tuple(part.strip() for part in re.findall(r"[ft]=.*?(?=\s\w+=|\s[adqkri]\d|$)|[adqkri]\d+|\b[adt]\b", text))


def _note(row: str) -> tuple[str, str]:
    key, _, rest = row.partition(" ")
    return key, rest.strip()


def gold(meeting: Annotated) -> dict[str, Any]:
    """The hand-written minutes in the form of the minutes bench."""
    made: dict[str, Any] = {name: [] for name in ("actions", "decisions", "questions", "key_points", "inquiries")}
    for key, note in meeting.notes.items():
        plain = re.match(r"i0|\w+", key).group()  # type: ignore[union-attr]
        parts = [part.strip() for part in note.split("|")]
        cues = meeting.cues(plain)
        if plain[0] == "a":
            owner = [name.strip() for name in parts[1].split(";") if name.strip()]
            action = {"task": parts[0], "owner": owner or None, "due": parts[2] or None, "cues": cues}
            made["actions"].append(action | ({"optional": True} if key.endswith("?") else {}))
        elif plain[0] == "d":
            made["decisions"].append({"text": note, "cues": cues} | ({"optional": True} if key.endswith("?") else {}))
        elif plain[0] == "q":
            answers = meeting.cues("r" + plain[1:])
            made["questions"].append({"text": note, "cue": cues[0], "answer_cues": answers})
        elif plain[0] == "k":
            made["key_points"].append({"text": note, "weight": int(key.partition("/")[2]), "cues": cues})
        else:
            must = [word.strip() for word in parts[1].split(",") if word.strip()]
            asks = map(str.strip, parts[0].split(" ~ "))
            made["inquiries"] += [{"ask": ask, "cues": cues, "must_say": must} for ask in asks]
    keyed = [(n, key) for n, each in enumerate(meeting.utterances, 1) for key in each.keys]
    made["figures"] = [{"value": key[2:], "cue": n} for n, key in keyed if key.startswith("f=")]
    made["traps"] = [{"cue": n, "why": key[2:]} for n, key in keyed if key.startswith("t=")]
    made["chapters"] = [{"cue": cue, "title": title} for cue, title in meeting.chapters]
    facts = {key: meeting.head[key] for key in ("title", "date", "start", "kind")}
    return {"meeting": facts | {"attendees": meeting.people}, **made}


def captions(meeting: Annotated) -> str:
    """The talk as WebVTT at an even pace."""
    rows, at = ["WEBVTT", ""], 0.5
    for number, each in enumerate(meeting.utterances, 1):
        end = at + max(0.6, len(each.text.split()) / PACE)
        rows += [str(number), f"{_clock(at)} --> {_clock(end)}", f"<v {meeting.label(each.speaker)}>{each.text}", ""]
        at = end + PAUSE
    return "\n".join(rows)


def _clock(seconds: float) -> str:
    return f"{int(seconds // 3600):02}:{int(seconds // 60 % 60):02}:{seconds % 60:06.3f}"


def meetings(folder: Path = MEETINGS) -> list[Annotated]:
    """All annotated meetings of a folder by name."""
    return [read(path) for path in sorted(folder.glob("*.txt"))]


if __name__ == "__main__":
    folder = Path(sys.argv[1])
    folder.mkdir(parents=True, exist_ok=True)
    for each in meetings():
        (folder / f"{each.name}.vtt").write_text(captions(each))
        (folder / f"{each.name}.gold.json").write_text(json.dumps(gold(each), indent=1, ensure_ascii=False))

"""Measures the minutes on the annotated meetings of `training/unseen/`, of which nothing was learnt, and of `training/asked/`,
of which only what answers their questions was: these are not asked again.

    python bench/minutes.py

A line matches a hand-written one when they rest on an utterance in common, one to one. Figures: actions, decisions and
questions as F1, owner and due of the matched actions, key points as weighted recall and precision, Pk of the chapters
beside that of an undivided talk, inquiries answered from a right utterance and refused where the record holds nothing;
ROUGE-1 (F) of the lines against the utterances marked by hand, beside LexRank and the talk's beginning of the same length;
the mean cosine of what matched actions and decisions say and what was written by hand, by the vectors that ship.
"""

import sys
from collections.abc import Sequence
from pathlib import Path
from typing import Any

sys.path.append(str(Path(__file__).parents[1] / "training"))

from rouge_score.rouge_scorer import RougeScorer
from summaries import lead, lexrank

import annotated
from nuntius.core.formats.reading import read_transcript
from nuntius.core.inquiry.from_minutes import answered
from nuntius.core.language.vectors import vectors
from nuntius.core.minutes.build import make_minutes
from nuntius.core.minutes.line import Line, MeetingFacts, Minutes, Passage
from nuntius.core.naming import renamed, sure_names
from nuntius.core.transcript.transcript import Transcript

FIGURES = (
    "actions",
    "owner",
    "due",
    "decisions",
    "questions",
    "key_r",
    "key_p",
    "pk",
    "pk_one",
    "answered",
    "refused",
    "rouge",
    "lexrank",
    "lead",
)
POINTS = ("key_point", "step", "risk")
NONE = float("nan")  # where no question is put


def main() -> None:
    """Prints a row for each meeting and their means."""
    doubted: list[tuple[bool, bool]] = []
    written: dict[str, list[tuple[str, str]]] = {"actions": [], "decisions": []}
    rows = [
        (meeting.name, measured(meeting, doubted, written, folder == annotated.UNSEEN))
        for folder in (annotated.UNSEEN, annotated.ASKED)
        for meeting in annotated.meetings(folder)
    ]
    columns = {name: [row[name] for _, row in rows if name in row] for name in FIGURES}
    rows.append(("mean", {name: sum(column) / len(column) for name, column in columns.items()}))
    sys.stdout.write(f"{'':14}{''.join(f'{name:>10}' for name in FIGURES)}\n")
    for name, row in rows:
        sys.stdout.write(f"{name[:13]:14}{''.join(f'{row.get(figure, NONE):10.2f}' for figure in FIGURES)}\n")
    marked, others = ([wrong for is_marked, wrong in doubted if is_marked == want] for want in (True, False))
    sys.stdout.write(
        f"actions and decisions worth a look: {len(marked)} of {len(doubted)}; "
        f"wrong in any way: {_share(marked):.2f} of these, {_share(others):.2f} of the others\n"
    )
    near = ", ".join(f"{name} {_nearness(pairs):.3f}" for name, pairs in written.items())
    sys.stdout.write(f"how near their words come to those written by hand (cosine): {near}\n")


def measured(
    meeting: annotated.Annotated,
    doubted: list[tuple[bool, bool]],
    written: dict[str, list[tuple[str, str]]],
    ask: bool,
) -> dict[str, float]:
    """The figures of one meeting; adds for each action and decision whether it is doubted and whether it is wrong, and
    for each that matches what was written by hand and what it says. Questions are put to it where `ask` says so."""
    gold = annotated.gold(meeting)
    facts = MeetingFacts(meeting.day, tuple(meeting.people))
    transcript = read_transcript(annotated.captions(meeting).encode())
    transcript = renamed(transcript, sure_names(transcript, facts.people))
    minutes = make_minutes(transcript, facts)

    def cues(passages: Sequence[Passage]) -> set[int]:
        return {int(transcript.turns[p.turn].cue or 0) for p in passages}

    def of(kind: str) -> list[Line]:
        return [line for line in minutes.lines if line.kind == kind and line.state != "superseded"]

    def pairs(wanted: list[dict[str, Any]], lines: list[Line]) -> list[tuple[int, int]]:
        near = [
            (len(set(w["cues"]) & cues(line.evidence)) / len(set(w["cues"]) | cues(line.evidence)), i, j)
            for i, w in enumerate(wanted)
            for j, line in enumerate(lines)
        ]
        found: list[tuple[int, int]] = []
        for share, i, j in sorted(near, reverse=True):
            if share and i not in {a for a, _ in found} and j not in {b for _, b in found}:
                found.append((i, j))
        return found

    row: dict[str, float] = {}
    for kind, name in (("action", "actions"), ("decision", "decisions"), ("question", "questions")):
        wanted = [{"cues": [w["cue"]], **w} if kind == "question" else w for w in gold[name]]
        lines = of(kind)
        matched = pairs(wanted, lines)
        extra = sum(bool(wanted[i].get("optional")) for i, _ in matched)
        needed = sum(not w.get("optional") for w in wanted)
        hits, all_lines = len(matched) - extra, len(lines) - extra
        if kind != "question":
            written[name] += [(wanted[i]["task" if kind == "action" else "text"], lines[j].text) for i, j in matched]
            right = {j for i, j in matched if kind == "decision" or _is_right(wanted[i], lines[j])}
            doubted += [(bool(line.doubts), j not in right) for j, line in enumerate(lines)]
        row[name] = 2 * hits / (needed + all_lines) if needed + all_lines else 1.0
        if kind == "action":
            both = [(wanted[i], lines[j]) for i, j in matched]
            row["owner"] = _share([_is_owner(w, line) for w, line in both])
            row["due"] = _share([_is_due(w, line) for w, line in both if w["due"] or line.due])
    held = set().union(*(cues(line.evidence) for line in minutes.lines if line.kind != "question"))
    weights = [(point["weight"], bool(held & set(point["cues"]))) for point in gold["key_points"]]
    row["key_r"] = sum(w for w, found in weights if found) / sum(w for w, _ in weights)
    worth = {cue for kind in ("key_points", "actions", "decisions") for each in gold[kind] for cue in each["cues"]}
    worth |= {figure["cue"] for figure in gold["figures"]}
    row["key_p"] = _share([bool(cues(line.evidence) & worth) for line in minutes.lines if line.kind in POINTS])
    boundaries = {chapter["cue"] for chapter in gold["chapters"]} - {1}
    found = {int(transcript.turns[chapter.first].cue or 0) for chapter in minutes.chapters} - {1}
    row["pk"], row["pk_one"] = (
        _pk(boundaries, found, len(transcript.turns)),
        _pk(boundaries, set(), len(transcript.turns)),
    )
    row |= _rouge(transcript, minutes, worth)
    if ask:
        replies = [
            (each, answered(transcript, facts, each["ask"], lines=lambda: minutes.lines)) for each in gold["inquiries"]
        ]
        answers = [bool(cues(reply.evidence) & set(each["cues"])) for each, reply in replies if each["cues"]]
        row["answered"] = _share(answers)
        row["refused"] = _share([not reply.found for each, reply in replies if not each["cues"]])
    return row


def _is_right(wanted: dict[str, Any], line: Line) -> bool:
    return _is_owner(wanted, line) and _is_due(wanted, line)


def _is_owner(wanted: dict[str, Any], line: Line) -> bool:
    return set(wanted["owner"] or ()) == set(line.owner)


def _is_due(wanted: dict[str, Any], line: Line) -> bool:
    return bool(wanted["due"] == (str(line.due) if line.due else None))


def _rouge(transcript: Transcript, minutes: Minutes, worth: set[int]) -> dict[str, float]:
    """ROUGE-1 (F) of the lines, of LexRank and of the talk's beginning, each against the utterances that were marked."""
    reference = " ".join(turn.text for turn in transcript.turns if int(turn.cue or 0) in worth)
    lines = " ".join(line.text for line in minutes.lines if line.kind != "question")
    sentences = [turn.text for turn in transcript.turns]
    size = len(lines.split())
    told = {"rouge": lines, "lexrank": lexrank(sentences, size), "lead": lead(sentences, size)}
    scorer = RougeScorer(["rouge1"], use_stemmer=True)
    return {name: scorer.score(reference, text)["rouge1"].fmeasure for name, text in told.items()}


def _nearness(pairs: Sequence[tuple[str, str]]) -> float:
    """Mean cosine of the two texts of each pair."""
    wanted, said = (vectors([pair[side] for pair in pairs]) for side in (0, 1))
    return float((wanted * said).sum(axis=1).mean())


def _share(right: list[bool]) -> float:
    return sum(right) / len(right) if right else 1.0


def _pk(wanted: set[int], found: set[int], count: int) -> float:
    """Share of windows at whose ends the two disagree (Beeferman and others, 1999)."""
    width = max(2, round(count / (len(wanted) + 1) / 2))
    starts = range(1, count - width + 1)
    wrong = sum(any(i < b <= i + width for b in wanted) != any(i < b <= i + width for b in found) for i in starts)
    return wrong / len(starts)


if __name__ == "__main__":
    main()

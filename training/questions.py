"""Questions that the hand-written minutes of an annotated meeting answer, beside those that were written for it.

What was asked in the talk, who is to do a task and by when, what was decided about something.
"""

from collections.abc import Iterator

from annotated import Annotated, gold
from nuntius.core.language.en.parse import parse_text

LEAST_ASKED = 4  # words of a question that can be understood by itself


def answered(meeting: Annotated) -> list[tuple[str, list[int]]]:
    """Each question with the numbers of the utterances that answer it."""
    made = gold(meeting)
    asked = [
        (each["text"], each["answer_cues"])
        for each in made["questions"]
        if each["answer_cues"] and len(each["text"].split()) >= LEAST_ASKED
    ]
    return [*asked, *_of_actions(made["actions"]), *_of_decisions(made["decisions"])]


def _of_actions(actions: list[dict[str, object]]) -> Iterator[tuple[str, list[int]]]:
    for each in actions:
        task, cues = str(each["task"]), each["cues"]
        task = task[0].lower() + task[1:]
        if each["owner"]:
            yield f"Who is to {task}?", cues  # type: ignore[misc]
        if each["due"]:
            yield f"By when is somebody to {task}?", cues  # type: ignore[misc]


def _of_decisions(decisions: list[dict[str, object]]) -> Iterator[tuple[str, list[int]]]:
    for each in decisions:
        subject = next((t.text for t in parse_text(str(each["text"])) if t.pos in ("NOUN", "PROPN")), "")
        if subject:
            yield f"What was decided about the {subject}?", each["cues"]  # type: ignore[misc]

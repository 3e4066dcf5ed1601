"""The templates that Nuntius ships, one for each kind of meeting."""

from nuntius.core.minutes.line import Layout, LineKind
from nuntius.core.templates.template import Section, Template

_NOTES = Section("Notes", (LineKind.NOTE,))
_DECISIONS = Section("Decisions", (LineKind.DECISION,))
_ACTIONS = Section("Actions", (LineKind.ACTION,))
_OPEN = Section("Still open", ("open_question",))
_FIGURES = Section("Figures", (LineKind.FIGURE,))
_SAID = Section("What was said", (LineKind.KEY_POINT, LineKind.RISK, LineKind.QUESTION), group=Layout.CHAPTER)
_POINTS = Section("What was said", (LineKind.KEY_POINT, LineKind.RISK), group=Layout.CHAPTER)
_LEFT = ("What is left for me to do?", "What was put off?", "Who was against?")

SHIPPED = {
    template.name: template
    for template in (
        Template(
            "general meeting",
            (_NOTES, _DECISIONS, _ACTIONS, _OPEN, _SAID),
            ("decided", "promised", "worry"),
            questions=("What was decided?", *_LEFT),
        ),
        Template(
            "stand-up",
            (
                _NOTES,
                Section("In the way", (LineKind.RISK, "open_question")),
                _ACTIONS,
                _DECISIONS,
                Section("Round the table", (LineKind.KEY_POINT, LineKind.QUESTION), group=Layout.VOICE),
            ),
            ("done", "next", "in the way"),
            questions=("What is in the way?", "What will be finished today?", "Who needs help?"),
        ),
        Template(
            "client call",
            (
                _NOTES,
                Section("What was asked for, and what came of it", (LineKind.NEED,)),
                _DECISIONS,
                _ACTIONS,
                _OPEN,
                _FIGURES,
                _SAID,
            ),
            (LineKind.NEED, "objection", "promised"),
            questions=(
                "What did the client want, and was it met?",
                "What was the client worried about?",
                "What did we promise?",
                "What does it cost?",
            ),
        ),
        Template(
            "interview",
            (_NOTES, Section("Questions and answers", (LineKind.QUESTION,)), _FIGURES, _POINTS, _ACTIONS, _DECISIONS),
            ("strength", "doubt", "quote"),
            questions=("What has the person done before?", "What does the person want to know?", "What happens next?"),
        ),
        Template(
            "one-to-one",
            (_NOTES, _ACTIONS, Section("Agreed", (LineKind.DECISION,)), _OPEN, _SAID),
            ("agreed", "feedback", "wish"),
            questions=("What went well?", "What is hard at the moment?", *_LEFT[:1]),
        ),
        Template(
            "training",
            (
                _NOTES,
                Section("Steps", (LineKind.STEP,)),
                Section("Questions and answers", (LineKind.QUESTION,)),
                _POINTS,
                _ACTIONS,
                _DECISIONS,
            ),
            (LineKind.STEP, "warning", LineKind.QUESTION),
            questions=("What must be done first?", "What must never be done?", "What if it goes wrong?"),
        ),
        Template(
            "committee",
            (
                _NOTES,
                Section("Decisions and votes", (LineKind.DECISION,)),
                _ACTIONS,
                Section("Turning points", (LineKind.TURNING_POINT,)),
                _OPEN,
                _FIGURES,
                _SAID,
                Section("Who was named", (LineKind.NAMED,)),
            ),
            ("decided", "vote", "promised"),
            questions=("What was voted on?", "Who was against?", "What was put off?"),
        ),
    )
}


def shipped(kind: str) -> Template:
    """The template of a kind of meeting; the general one for a kind that has none."""
    return SHIPPED.get(kind, SHIPPED["general meeting"])

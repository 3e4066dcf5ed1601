"""English phrases of the texts that follow a meeting, in each manner."""

from dataclasses import dataclass


@dataclass(frozen=True, slots=True)
class Manner:
    """How a message greets, opens each part, and ends; `{title}`, `{day}`, `{names}` and `{sender}` are filled in."""

    greeting: str
    opening: str
    client_opening: str
    decided: str
    tasks: str
    open: str
    nothing: str
    closing: str
    signature: str


MANNERS = {
    "plain": Manner(
        "Hello {names},",
        "this is what came of “{title}” on {day}.",
        "this is what we took from “{title}” on {day}.",
        "Decided:",
        "To do:",
        "Still open:",
        "Nothing was decided or promised.",
        "Please write back if something is missing or wrong.",
        "{sender}",
    ),
    "warm": Manner(
        "Dear {names},",
        "thank you for “{title}” on {day}. Here is what we came to.",
        "thank you for your time in “{title}” on {day}. Here is what we took from it.",
        "We decided:",
        "What each of us said they would do:",
        "What we left open:",
        "We decided and promised nothing this time.",
        "If I have missed something, please tell me. Until the next time.",
        "Best wishes\n{sender}",
    ),
    "formal": Manner(
        "Dear {names},",
        "please find below the outcome of the meeting “{title}” held on {day}.",
        "please find below our understanding of the meeting “{title}” held on {day}.",
        "The following was resolved:",
        "The following was undertaken:",
        "The following remains open:",
        "No resolution was passed and nothing was undertaken.",
        "We ask you to notify us of any correction.",
        "Yours sincerely\n{sender}",
    ),
}
EVERYONE = "all"
NOBODY = "nobody yet"
DONE = "done"
BY = "by {day}"
AIM_MISSING = "The record names no aim."
PART_MISSING = "The record holds nothing for this part."
BRIEF_PARTS = {
    "aim": "Aim",
    "facts": "Facts",
    "constraints": "Constraints",
    "decided": "Decided",
    "open": "Open questions",
    "next": "Next steps",
}
ANSWERED, UNANSWERED = "Questions and answers", "Questions that stayed open"

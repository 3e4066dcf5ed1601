"""Marks: what a person pointed out while it was said, with the labels that each kind of meeting offers."""

LABELS = {
    "general meeting": ("decided", "promised", "worry"),
    "stand-up": ("done", "next", "in the way"),
    "client call": ("need", "objection", "promised"),
    "interview": ("strength", "doubt", "quote"),
    "one-to-one": ("agreed", "feedback", "wish"),
    "training": ("step", "warning", "question"),
    "committee": ("decided", "vote", "promised"),
}
KEPT = "worth keeping"  # the label of a mark made without one


def labels_of(kind: str) -> tuple[str, ...]:
    """The labels of a kind of meeting, in the order of their digit keys from 1."""
    return LABELS.get(kind, LABELS["general meeting"])

"""Candidates of actions, and joining those that are one."""

import re
from dataclasses import dataclass, replace

from nuntius.core.language.en.dates import SaidDate
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.line import Passage
from nuntius.core.minutes.scene import Scene

MERGE_REACH = 9  # turns within which two findings may be one action
ALIKE = 0.45  # cosine above which two findings of one owner are one action
REACH = 4  # turns behind a task within which `I'll do it` refers to it


@dataclass(frozen=True, slots=True)
class Finding:
    """A candidate: the sentence with the task, who, the passages, and by which rule."""

    sentence: Sentence
    text: str
    owner: tuple[str, ...]
    evidence: tuple[Passage, ...]
    due: SaidDate | None
    why: str


def merged(scene: Scene, findings: list[Finding]) -> list[Finding]:
    """Joins findings that are one action; the later date wins, all passages are kept."""
    kept: list[Finding] = []
    for finding in findings:
        match = next((i for i in range(len(kept) - 1, -1, -1) if _same(scene, kept[i], finding)), None)
        if match is None:
            kept.append(finding)
        else:
            kept[match] = _joined(kept[match], finding)
    return kept


def _same(scene: Scene, a: Finding, b: Finding) -> bool:
    if is_bare(b.text) and b.sentence.turn - a.evidence[-1].turn <= REACH and (not a.owner or a.owner == b.owner):
        return True
    if b.sentence.turn - a.evidence[-1].turn > MERGE_REACH:
        return False
    if {p.turn for p in a.evidence} & {p.turn for p in b.evidence} and (a.owner == b.owner or not a.owner):
        return True
    if a.owner != b.owner and a.owner and b.owner:
        return False
    near = b.sentence.turn - a.evidence[-1].turn <= 2
    return scene.alike(a.sentence, b.sentence) > (ALIKE if near else ALIKE + 0.15)


def is_bare(text: str) -> bool:
    """`Do it.`: words that say nothing without what they refer to."""
    return bool(re.fullmatch(r"\w+(?: \w+)? (?:it|that|this|them|one)\W*", text, re.I))


def _joined(a: Finding, b: Finding) -> Finding:
    evidence = tuple(sorted({*a.evidence, *b.evidence}))
    text = a.text if len(a.text.split()) >= len(b.text.split()) or not b.owner else b.text
    return replace(a, text=text, owner=b.owner or a.owner, evidence=evidence, due=b.due or a.due)

"""Candidates of actions, and joining those that are one."""

import re
from dataclasses import dataclass, replace

from nuntius.core.language.en import cues, errands
from nuntius.core.language.en.dates import SaidDate
from nuntius.core.language.sentence import Sentence
from nuntius.core.minutes.line import Passage
from nuntius.core.minutes.scene import Scene

MERGE_REACH = 9  # turns within which two findings may be one action
ALIKE = 0.45  # cosine above which two findings of one owner are one action
REFERRING = frozenset({"it", "that", "them", "those", "him", "her", "they"})
_WHEN = re.compile(r" (?:(?:this|next) \w+|today|tomorrow|tonight)\W*$", re.I)
DEPENDENT = ("dobj", "pobj", "dative", "nsubj", "nsubjpass")
REFERS_BACK = 2  # turns behind a task within which `I'll do it` refers to it


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
    reached = b.sentence.turn - a.evidence[-1].turn <= REFERS_BACK
    if (
        reached
        and _refers(b)
        and not _speaks_to_somebody(a, b)
        and (not a.owner or a.owner == b.owner)
        and not _names_other(scene, b.sentence, a.evidence)
    ):
        return True
    if b.sentence.turn - a.evidence[-1].turn > MERGE_REACH:
        return False
    if reached and a.owner == b.owner and _says_again(a.text, b.text):
        return True
    if reached and a.owner == b.owner and (_turns_to_same(a.text, b.text) or errands.IT_WILL_BE.match(b.text)):
        return True
    if reached and a.owner == b.owner and errands.ASKS_FIRST.match(a.text) and errands.ANSWERS.match(b.text):
        return True  # `I can ask the workshop.` `I'll send you an answer by Monday.`
    shared = {p.turn for p in a.evidence} & {p.turn for p in b.evidence}
    if shared and a.owner == b.owner and is_bare(a.text) and _begins_with_verb(b):
        return True
    if shared and (a.owner == b.owner or not a.owner):
        apart = b.sentence.turn != a.sentence.turn or (a.owner and cues.INTENT.search(b.sentence.lower))
        own = apart and (speaks_of_other(scene, b.sentence, a.evidence) or _at_other_times(a, b))
        return not own or scene.alike(a.sentence, b.sentence) > ALIKE
    if a.owner != b.owner and a.owner and b.owner:
        return False
    near = b.sentence.turn - a.evidence[-1].turn <= 2
    return scene.alike(a.sentence, b.sentence) > (ALIKE if near else ALIKE + 0.15)


def _speaks_to_somebody(a: Finding, b: Finding) -> bool:
    """`Get four.` `Ask them today, please.`: to ask somebody is a task of its own, unless the first one is to do so or to find out."""
    first = cues.TURNS_TO.match(a.text) or errands.SPEAKS_TO.match(a.text) or errands.FINDS_OUT.match(a.text)
    same = a.text.split()[0].lower() == b.text.split()[0].lower()
    return b.why == "request" and bool(errands.SPEAKS_TO.match(b.text)) and not (first or same)


def _at_other_times(a: Finding, b: Finding) -> bool:
    """`I'll speak to them this week. And I'll report back in July.`"""
    one_turn = a.sentence.turn == b.sentence.turn
    return bool(one_turn and a.due and b.due and a.due.day != b.due.day)


def speaks_of_other(scene: Scene, sentence: Sentence, evidence: tuple[Passage, ...]) -> bool:
    """Whether a sentence names things, none of which stand in the passages beside it, and refers to nothing by `it`."""
    refers = not cues.AND_ILL.match(sentence.lower)  # `And I'll say sorry to her, I owe her that` is one more task
    if refers and any(t.pos == "PRON" and t.text.lower() in REFERRING and t.dep in DEPENDENT for t in sentence.tokens):
        return False
    own = _things(sentence)
    return bool(own) and not own & {t for s in scene.inside(evidence) if s != sentence for t in _things(s)}


def _names_other(scene: Scene, sentence: Sentence, evidence: tuple[Passage, ...]) -> bool:
    """Whether the words right before a sentence name what it is about: `And the night watch? Tobias takes it on Friday.`"""
    before = [s for s in scene.by_turn[sentence.turn] if s.last < sentence.first][-1:]
    return any(s.is_question and speaks_of_other(scene, s, evidence) for s in before)


def _things(sentence: Sentence) -> set[str]:
    """Nouns of a sentence but those that tell a time."""
    nouns = (t for t in sentence.tokens if t.pos in ("NOUN", "PROPN"))
    timely = (cues.TIME_NOUN, cues.DAY_OR_MONTH)
    return {t.lemma.lower() for t in nouns if not any(when.fullmatch(t.lemma) for when in timely)}


def _refers(finding: Finding) -> bool:
    """Whether a finding says nothing but a day without what it refers to: `You'll have it by Friday.`"""
    if cues.TOO.search(finding.sentence.lower):
        return False
    clause = re.split(r",|\b(?:before|when|once|as soon as|after|with)\b", finding.text)[0].strip()
    day = finding.due.said if finding.due else ""
    undated = re.sub(rf"\s*(?:\b(?:on|by|before|until) )?{re.escape(day)}\W*$", "", clause)
    return is_bare(finding.text) or is_bare(undated) or is_bare(_WHEN.sub("", clause))


def _says_again(task: str, later: str) -> bool:
    """`Ask him`, behind `Ask the owner`, or what is asked, which is found out: `Look it up.` `Ask my cousin.`"""
    again = re.match(rf"{re.escape(task.split()[0])} (?:it|him|her|them)(?:\W*$| now\b)", later, re.I)
    return bool(again) or bool(errands.FINDS_OUT.match(task) and errands.ASKS_FOR_IT.match(later))


def _turns_to_same(task: str, later: str) -> bool:
    """`Talk to him`, and behind it `Try him tomorrow`."""
    first, second = cues.TURNS_TO.match(task), cues.TURNS_TO.match(later)
    return bool(first and second) and first.group(1).lower() == second.group(1).lower()  # type: ignore[union-attr]


def is_bare(text: str) -> bool:
    """`Do it.`: words that say nothing without what they refer to."""
    return bool(cues.BARE_TASK.fullmatch(text))


def _joined(a: Finding, b: Finding) -> Finding:
    evidence = tuple(sorted({*a.evidence, *b.evidence}))
    longer = len(a.text.split()) >= len(b.text.split()) or not b.owner
    states = not _begins_with_verb(a) and _begins_with_verb(b)  # `They need the times.` `I'll send them over tomorrow.`
    tells_more = not longer and not is_bare(b.text) and (_begins_with_verb(b) or not _begins_with_verb(a))
    text = b.text if is_bare(a.text) or tells_more or states else a.text
    sentence = b.sentence if text is b.text and is_bare(a.text) else a.sentence
    return replace(a, sentence=sentence, text=text, owner=b.owner or a.owner, evidence=evidence, due=b.due or a.due)


def _begins_with_verb(finding: Finding) -> bool:
    """Whether a task is worded as one, and not as what somebody needs."""
    first = finding.text.split()[0].lower()
    return first == "let" or any(
        t.pos == "VERB" and first in (t.text.lower(), t.lemma) for t in finding.sentence.tokens
    )

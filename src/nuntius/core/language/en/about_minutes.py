"""How questions ask for what minutes hold: decisions, votes, tasks, what is open, when to meet again."""

from nuntius.core.language.en.cues import cue

_END = r"(?: (?:in the end|today|then|now|so far|at this meeting|in this meeting))?\W*$"
_WHO = r"(?P<{}>[A-Za-z][\w'-]*(?: (?-i:[A-Z])[\w'-]*){{0,3}})"
_WAS_DECIDED = r"^\W*what (?:was|were|has been|have been|got|did (?:we|they)|have (?:we|they)) (?:all )?(?:decided?|agreed?|settled?)"
_DECISIONS = r"^\W*(?:what|which) (?:decisions?|resolutions?)\b"
_ABOUT = r" (?:about|on|for|with|over|regarding|concerning) "
DECIDED = cue(rf"{_WAS_DECIDED}(?: on)?{_END}", rf"{_DECISIONS}(?!.*{_ABOUT})[\w ]*{_END}")
DECIDED_ON = cue(
    rf"{_WAS_DECIDED}{_ABOUT}(?P<topic>[^?]{{3,}}?)(?: in the end)?\W*$",
    rf"{_DECISIONS}[\w ]*?{_ABOUT}(?P<ruled>[^?]{{3,}}?)\W*$",
)
VOTED = cue(rf"^\W*what (?:was|were|did (?:we|they)) (?:voted?(?: on)?|put to (?:a|the) vote){_END}")
AGAINST = cue(rf"^\W*who (?:was|were|voted) against(?: it)?{_END}")
PUT_OFF = cue(
    rf"^\W*what (?:was|were|has been|did (?:we|they)) (?:put off|postponed?|deferred|defer|left for later){_END}"
)
OPEN = cue(
    rf"^\W*what(?: is|'s| was|'re| are| remains| stays) (?:still |left )?(?:open|unanswered|unresolved|undecided){_END}",
    rf"^\W*(?:what|which) questions (?:are|were|remain|stayed) (?:still )?(?:open|unanswered){_END}",
)
AGAIN = cue(
    rf"^\W*when (?:do|are|will|shall|did) (?:we|they|you)(?: all| both)? (?:meet|meeting|speak|talk) (?:again|next){_END}",
    rf"^\W*when(?: is|'s| will be) (?:the |our )?next (?:meeting|call|session|time){_END}",
)
NEEDED = cue(r"^\W*what did the (?:client|customer)s? (?:want|ask for|need)\b")
TO_DO = cue(
    rf"^\W*what(?: is|'s) (?:still )?(?:left|there)(?: for {_WHO.format('left')})? to do{_END}",
    rf"^\W*what (?:did|has) {_WHO.format('promised')} (?:promised?|take on|taken on|agree to do|agreed to do|offer to do){_END}",
    rf"^\W*what (?:does|do|must|should|will|is|are|am) {_WHO.format('has')} (?:have to |need to |to |going to )?do{_END}",
    rf"^\W*who (?:has to|is to|must|does|will|is doing) (?:do )?what{_END}",
    rf"^\W*what are (?P<mine>my|the|our) (?:next steps|actions?(?: items)?|tasks|to-?dos){_END}",
    rf"^\W*what (?:has|needs) to be done{_END}",
)
ALL = frozenset("we us they them everybody everyone the our all you".split())
ME = frozenset("i me my".split())
_COUNT = r"(?:\d+|one|two|three|four|five|six|seven|eight|nine|ten)"
TALLY = cue(
    rf"\b(?:{_COUNT}|nobody|none|carried|voted|votes?) (?:was |were )?against\b|\bagainst:|\b{_COUNT} to {_COUNT}\b"
)
BY, NOBODY = "by", "Nobody yet"
AND_MORE = "And {count} more in the minutes."

"""What an English question wants: a count, a time, a reason, a person; and how such a thing looks in talk."""

import re

COMMON = frozenset(
    "say tell do be have get make go come thing meeting people person record anybody happen know much many long about "
    "take give use want need will would".split()
)
WANTS = {  # the first that fits says what kind of thing is asked for
    "name": r"\b(?:what (?:is|was|are) .*\b(?:names?|called)|which (?:\w+ )?(?:firm|company|bank|shop|school|street|person|client|supplier|town|hotel|insurer|council|brand|make)\w*|what .* called)\b",
    "age": r"\bhow old\b|\bwhat age\b|\bthe age of\b|\bhow long ago\b",
    "cost": r"\b(?:cost|costs|price|prices|fee|fees|pay|pays|paid|charge|charges|salary|earn|earns|budget|discount|deposit|rent|wage|spend|spent|worth|come to|money)\b",
    "length": r"\bhow (?:long|far|late|soon after)\b",
    "count": r"\bhow (?:many|much|long|far|old|big|large|late|often|high|deep|tall|heavy|loud|likely|slow|fast)\b|\b(?:cost|costs|price|fee|come to|amount|share)\b|\bwhat\b.*\b(?:rate|number|code|percentage|salary|age|weight|length|height|depth|temperature|budget|discount|total|address)\b",
    "when": r"\b(?:when|until when|by when|since when|how soon|what (?:day|time|date)|which (?:day|month|week|date)|in which month|by what date)\b",
    "why": r"\bwhy\b|\bwhat .*\b(?:reason|made|cause)\b",
    "who": r"\b(?:who|whose|whom)\b",
    "where": r"\bwhere\b",
    "how": r"\bhow\b",
    "yes": r"^\W*(?:is|are|was|were|do|does|did|has|have|had|can|could|will|would|should|must)\b",
    "which": r"\b(?:which|what)\b",
}
TIME = re.compile(
    r"\b(?:\d|mon|tues|wednes|thurs|fri|satur|sun)|day\b|\b(?:month|week|year|tomorrow|tonight|o'clock|noon|morning|spring|summer|autumn|winter|"
    r"january|february|march|april|may|june|july|august|september|october|november|december|\w+teenth|\w+tieth|first of|\w+th of)\b",
    re.I,
)
REASON = re.compile(
    r"\b(?:because|so|since|that's why|as|due to|the problem|it's the|thanks to|mostly|partly|largely)\b", re.I
)
PLACE = re.compile(r"\b(?:at|in|on|by|under|behind|next to|near|between|outside|inside|upstairs|downstairs)\b", re.I)
AGE = re.compile(
    r"\d.*\b(?:years?|months?|weeks?|days?|old|since)\b|\b(?:1[89]|20)\d\d\b|\bcentury\b|\b(?:eighteen|nineteen|twenty) (?:oh|ten|eleven|twelve|\w+teen|\w+ty)\b|\b(?:is|was|turned|turns|he's|she's|they're|aged) \d+\b"
)
COST = re.compile(
    r"\d.*\b(?:pounds?|quid|pence|euros?|cents?|dollars?|grand|thousand|hundred|per cent|percent|a head|each|apiece|costs?|price|pay|paid|charge|fee|rent|"
    r"budget|worth|spend|spent|discount|cheaper|dearer)\b|[£€$%]\s?\d|\d\s?[£€$%]|\b(?:costs?|pay|paid|charge|fee|price)\b.*\d|\b(?:for nothing|free|no charge|costs nothing)\b",
    re.I | re.S,
)
LENGTH = re.compile(
    r"(?:\d|\b(?:an?|half an?|a few|a couple of|all|one|another)) *(?:and a half )?(?:seconds?|minutes?|hours?|days?|nights?|weeks?|weekends?|fortnights?|months?|years?|"
    r"winters?|summers?|seasons?|metres?|miles?|kilomet\w+|centimet\w+|millimet\w+|inch\w*|feet|foot)\b|\b(?:until|till?|overnight)\b",
    re.I,
)
AMOUNTS = {"age": AGE, "cost": COST, "length": LENGTH}  # by the kind of thing that is wanted
MOST_BARE = 6  # words of an answer that may be a mere number: `Seventy.`
TAKES = re.compile(r"\b(?:i(?:'ll|'m| will| can| could| am)|me|mine|you)\b", re.I)


def wanted(question: str) -> str:
    """The kind of thing, of `WANTS`, that a question asks for."""
    lower = question.lower()
    return next((kind for kind, pattern in WANTS.items() if re.search(pattern, lower)), "which")

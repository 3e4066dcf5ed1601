"""English cues of deadlines: the words that make a day one by which something is done, or keep it from being one."""

import re

from nuntius.core.language.en.cues import cue
from nuntius.core.language.en.numbers import UNITS

FIRST_OF_DAY = 7  # o'clock: an hour below it is one of the afternoon
MINUTES = {"half": 30, "quarter": 15, "five": 5, "ten": 10, "twenty": 20}  # past or to an hour
PART = re.compile(r"\b(half|quarter|five|ten|twenty) (past|to)\b", re.I)

WANTED_BY = cue(
    r"\b(?:i|we)(?:'d| would|'ll)? (?:want|need|like|have to have|must have) (?:it|them|that|those|this|everything)\b",
    r"^\W*by,? shall we say\b",
    r"^\W*(?:by|before|till|until) [\w ]{3,25}, (?:could|can|would) (?:s?he|they|you|it)\W*$",
    r"\b(?:could|can|may) (?:i|we) have (?:it|them|(?:that|those|the) \w+)\b",
    r"\b(?:could|can|will|would) (?:it|they|that|this) be (?:in|done|ready|there|out|up|finished|here|sent|with (?:me|us)) (?:by|before|on|for)\b",
)
HAD_BY = cue(
    r"\b(?:you|they|she|he)(?:'ll| will| can) (?:have|get) (?:it|them|that|those)\b|^\W*then you get (?:it|them|that)\b",
    r"\b(?:it|they|that)(?:'s|'re| is| are|'ll be| will be) (?:all )?with you\b(?! on (?:that|this|it)\b)",
    r"\bthen it goes (?:off|out|in)\b",
    r"\b(?:it|they|that) (?:can|could) be (?:in|done|ready|there|out|up|finished|here|with you) (?=by\b|on\b|before\b)",
    r"\bi(?:'ll| will) have (?:an? (?:answer|draft|list|reply|number|figure|price|date|first \w+)|something|it|them|that)\b",
)
BEFORE_THAT = cue(
    r"\b(?:hold|keep) (?:it|them|that|one)(?: for (?:you|him|her|them))? (?:till?|until) then\b",
    r"\b(?:before|by) (?:then|that|it does)\b|\bbeforehand\b|\bwhile (?:you're|i'm|we're|you are) (?:there|in there|over there|at it|about it)\b|\b(?:again|them|him|her|it|that|do it|up) then\W*$",
)
BEFORE_COMING = cue(
    r"\bbefore (?:they|he|she|you|we|it) (?:comes?|arrives?|gets? (?:here|there|in)|starts?|opens?|leaves?|goes|go|(?:'re|'s|are|is) (?:here|there|in))\b"
)  # for which a day was named before
GOES_AT = re.compile(  # `The post goes at five. I'll put it in.`
    r"^\W*(?:(?:and|but|well),? )?(?:the|my|our|her|his) [\w ]{2,20}?(?:'s| is| goes| leaves| comes| starts| opens| shuts| closes) "
    r"(?P<hour>at (?:half past |quarter (?:past|to) )?(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|noon|\d{1,2}))(?: o'clock)?\W*$",
    re.I,
)
AT_SUCH_TIME = cue(  # gives leave by saying when: `Shall I ring him?` `After lunch.`
    r"^\W*(?:(?:yes|but|well),? )?(?:not )?(?:after|before|until|till?|at|by|on|as soon as|when|once|straight|right|first thing|tomorrow|today|tonight|now|this (?:morning|afternoon|evening|week)|next \w+|\w+day)\b"
)
MEETS_INSTEAD = cue(
    r"^\W*then the [\w-]+(?: of \w+)?(?:,? (?:at )?[\w' ]{3,20})?\W*$"
)  # `Then the first of December, six o'clock.`
IS_DEADLINE = re.compile(r"\b(?:is|was) the (?:deadline|last day|cut-?off)\b|\bdeadline(?:'s| is)\b", re.I)
DAY_MOVED = cue(
    r"\b(?:could|can|shall) (?:it|we) (?:be|make it|say|do)\b|\bmake (?:it|that)\b|^\W*(?:(?:no|yes|okay|or|well),? )?say (?:the|on) \w|\bhow about\b|\bnot? later\b|\bthen\W*$|^\W*then the [\w-]+\W*$|^\W*the [\w-]+(?:'s| is| would be) (?:fine|good|better)\W*$|\binstead\b|(?<!they'd )(?<!she'd )(?<!he'd )\brather\b|"
    r"\bit is\W*$"
)
TELLS_DAY = re.compile(
    r"\b(?:tell|told|say|write|let)\b.*\b(?:it's|it is|that's) (?:on )?$", re.I
)  # `I'll tell him it's Monday`
TELLS_OTHERS = cue(r"\b(?:tell|let) (?:her|him|them|everybody|everyone)(?: know)?\W*$")  # a day that was just agreed on
AND_WE_MEET = cue(r",? and (?:then )?we(?:'ll| will)? (?:all )?(?:talk|speak|meet|see|look|go through|compare)\b")
DEMANDS = re.compile(  # what has to be done, right before a day: `They want an answer by …`
    r"\b(?:wants?|needs?|has to|have to|has got to|'ve got to|'s got to|must|should|could|can|due|expects?|expecting)\b.*\b(?:by|before|no later than|in for|on) (?:\w+ (?:on )?)?(?:the )?$",
    re.I,
)
WANTS = cue(r"\b(?:wants?|needs?)\b")
AS_AGREED = cue(r"\bwe (?:said|agreed|promised)\b")  # with a day, behind which somebody takes it on
BARE_DEADLINE = cue(r"^\W*(?:no later than|by|before) .*\bplease\W*$")
HAPPENS = re.compile(
    r"^\W*(?:(?:and|so|but) )?(?:we've got|we have|there's|there is|it's) (?:an?|the|our|my) .*\bon (?:the )?$", re.I
)  # what is held on a day
IT_AGAIN = cue(r"\b(?:it|one|them|that|this|those)\b")  # what a demand was of
ROUNDED_OFF = cue(
    r",? (?:if you can|if possible|please|at the latest|ideally|if that's (?:all right|okay)|if you don't mind|or so)\W*$"
)
OF_WEATHER = cue(
    r"^\W*(?:it's|it'll|it is|it will)(?: going to)?(?: be)? (?:wet|dry|hot|cold|rain\w*|freez\w*|snow\w*|windy|storm\w*|sunny|warm)\b"
)
OTHERS_CLAUSE = re.compile(  # `I'll tell him, he should be here on Monday`, `I'll order it, and it's here on Friday`
    r",\s+(?:he|she)(?:'ll| will| should) be (?=\w)|,?\s+and (?:it|they)(?:'s|'re|'ll be| is| are) (?:here|there|in|back|with)\b",
    re.I,
)
BEFORE_I_GO = cue(r"\bbefore (?:i (?:go|leave|fly)|i'm (?:off|away|gone))\b(?! (?:home|out|to bed)\b)")
I_AM_OFF = cue(r"\b(?:i'm|i am|i'll be) (?:off|away|on (?:holiday|leave)|in [a-z]+) (?:from |on |as of )")
GOES_THERE = cue(
    r"\bi(?:'ll| will) have the \w+ (?:up|open|on|out|ready|down)\b|\bi(?:'ll| will| can| could)? (?:\w+ )?(?:come|go(?! and ask| through| over\b| back)|be there|sit|stand|bring|do both)\b|\bi(?:'ll| will) take (?:a|an|the|my) \w+ with me\b|^\W*(?:could|can|would|will) (?:some ?(?:body|one)|you) (?:go|come|bring)\b|\bsome ?(?:body|one) (?:could|should|has to) (?:go|come|bring|be there|sit|stand)\b"
)
BY_HOUR = re.compile(
    r"\b(?:by|before) (?:half past |quarter (?:past|to) )?(?:one|two|three|four|five|six|noon|\d{1,2}(?:[:.]\d\d)?)(?: o'clock)?(?=\W*$|[,.;])",
    re.I,
)
DONE_BY_THEN = cue(
    r"\bi(?:'ll| will) have \w+.*\bby then\W*$"
)  # `They meet on the thirtieth. I'll have spoken to her by then.`
DEADLINE_FIRST = cue(r"^\W*(?:by|before|no later than) (?:the (?:end|middle|beginning|start) of )?")
OF_MEETING = re.compile(
    r"meeting|o.clock|end|middle|beginning|start|call|session|latest|earliest|play|business|thing|lunchtime|term|service|shift|\w+(?:th|st|nd|rd|one|two|three|day)",
    re.I,
)  # nouns beside which a day is still all that is said
COMES = cue(  # the day on which somebody comes, before `I'll let them in`
    r"\b(?:they|he|she|the \w+(?: \w+)?|somebody|someone|[a-z]+)(?:'re| are|'s| is)? (?:coming|come|comes|arrives?|arriving)\b"
)
LETS_IN = cue(
    r"\b(?:let|meet|show|collect|fetch|pick|help|receive|sign for) (?:him|her|them|it)\b|\bbe (?:there|here|in) (?:to|for)\b"
)
DAY_SUITS = cue(
    r"^\W*(?:\w+ ){1,3}(?:is|'s|would be|will be) (?:all right|fine|good|okay|great|perfect)(?: (?:for|by|with) me)?\W*$|^\W*\w+'s (?:all right|fine|good|okay|great|perfect)(?: (?:for|by|with) me)?\W*$"
)
AT_THAT_TIME = cue(r"\bi(?:'ll| will|'m| can)\b.* then\W*$")  # where a day stands right before it
IN_MONTH_AT_END = re.compile(
    r"\bin (?=(?:january|february|march|april|may|june|july|august|september|october|november|december)\W*$)", re.I
)
SO_IT_HAS = re.compile(
    r", so .*\b(?:has to|have to|must|needs? to|should)\b.*\bby (?:the )?$", re.I
)  # `…, so it has to be there by`
NOT_THEN = re.compile(r"\W*(?:well,? |no,? )?not $", re.I)  # `Not this week.`
BEFORE_IT = cue(r"\bbefore (?!then\b|that\b|now\b)\w")
NOT_BEFORE = cue(r"^\W*not (?:before|until|till|on|in)\b")
NOT_WANTED = cue(r"^\W*(?:(?:and|but|because) )?i (?:don't|do not|didn't) want\b")
TELLS_WHOM = re.compile(r"\btell (?:her|him|them|you|everybody) $", re.I)
COUNTS = re.compile(r"\b(?:find|fetch|buy|order|paint|write|get) $", re.I)  # `I'll find the third.`
IS_TODAY = re.compile(r"\b(?:it's|it is|today's|today is) $", re.I)
WHEN_WE = cue(r"\bwhen (?:do|are|shall|will|would|can|could|should) we\b")
GIVE_TIME = cue(  # `Give me till Monday for that`
    r"\bi(?:'d|'ll| would| will)? need (?:until|till?)\b|\bgive (?:me|us) (?:(?:until|till?)\b|(?:a|an|one|two|three|four|five|six|another|the) (?:\w+ )?(?:minutes?|hours?|days?|weeks?|weekend|fortnight)\b)"
)
THAT_IS = cue(
    r"^\W*(?:that's|that is|which is|which'll be|which'd be|so that's) (?:the |a |on )?(?:\w+day|\w+(?:st|nd|rd|th))\b"
)
AT_HOUR = re.compile(  # `I'll ring them at nine`, said of this day where no other is named
    r"(?<!one )\b(?:at|by|before) (?:half past |quarter (?:past|to) |(?:ten|twenty|five) (?:past|to) )?"
    r"(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|noon|\d{1,2}(?:[:.]\d\d)?)"
    r"(?: o'clock| sharp)?(?=\W*$|[,.;]| (?:when|and|before|so|then|if|anyway)\b)",
    re.I,
)
THEY_BACK = cue(r"^\W*(?:she|he|they)(?:'s| is|'re| are) (?:back|in|here|over)\b")  # behind `I'll tell her`
MEETS_THEM = cue(r"\b(?:tell|ask|show|give|see|speak to|talk to) (?:him|her|them)\b")
YOU_THERE = cue(r"\byou(?:'re| are) (?:in there|over there|there|(?:seeing|meeting) (?:her|him|them))\b")
SENDS_FOR = re.compile(
    r"\bI'll (?:send|ask) [A-Z]\w+(?: along| instead| over)?\W*$"
)  # `I'm in Ghent on Monday. I'll send Petra.`
I_THERE = cue(
    r"\bi(?:'m| am) (?:(?:in|out|up|down|over|back|past) there|there|(?:seeing|meeting|passing) (?:her|him|them|there)|(?:sitting (?:down )?|having (?:lunch|coffee) |going through (?:it|them) )with (?:her|him|them))\b",
    r"^\W*i(?:'ll)? (?:see|meet) (?:her|him|them)\b",
    r"^\W*i(?:'ll)? (?:drive|go|walk|come|cycle) past\b|^\W*i'll (?:pop|drop|call|look) (?:in|by|round)\b",
)
TOO_LATE = cue(
    r"^\W*(?:but )?(?:(?:this |next |the )?\w+day|this week|this month)(?:'s| is|'d be| would be) (?:too (?:late|early|soon)|no good|no use)\b"
)
HAVE_IT = cue(r"\b(?:could|can|would|will) (?:you|i|we) have (?:it|them|that) (?:by|before|for|on|in|done|ready)\b")
BARE_HOUR = re.compile(  # `When's that?` `About nine.`
    r"^\W*(?:about |around |at |by )?(?:half past |quarter (?:past|to) )?(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|noon)(?: o'clock)?\W*$",
    re.I,
)
BRING = re.compile(r"(?<!him to )(?<!her to )(?<!them to )\bbring \w", re.I)
LATEST_BEHIND = re.compile(r",? (?:at the (?:latest|outside)|by the latest)\b", re.I)
AT_LATEST = re.compile(r"\b(?:by|before|no later than)\s+(?:the\s+)?$", re.I)
PRESSING = re.compile(
    r"\b(?:by|before|until|till?|no later than|at the (?:latest|outside)|due|deadline|not after|on|have (?:it|them|that)|this|"
    r"can have it)\b",
    re.I,
)
EVENT = re.compile(
    r"\b(?:my|your|his|our|their) $|\boffer (?:him|her|them|you|us) $|\bnot before (?:the )?$|\bswap(?! (?:it|them|that)\b)(?: (?:you|with|\w+)){0,2} (?:the |my |your )?$|\b(?:keep|leave|stick|stay|hold) (?:\w+ )?(?:on|to|with|at)\s+(?:the\s+)?$|\b(?:for|from|since|of|was|were|met|came|closes?|opens?|starts?|(?:starts|begins) on|they (?:start|begin) on|(?<!can )(?<!could )comes? (?:on|back)|booked for|not|till?|until)\s+(?:the\s+)?$",
    re.I,
)
HELD = re.compile(
    r"\b(?:holds?|keeps?|reserves?) (?:it|them|that|those|us)(?: \w+)? (?:till?|until|to)\s+(?:the\s+)?$|"
    r"\bby the time (?:\w+ ){1,4}(?:comes?|arrives?|leaves?|opens?|starts?) (?:on )?(?:the )?$|"
    r"\b(?:have|get) (?:it|them|that|this|those|something) (?:ready |done |here )?for (?:the )?$|"
    r"\b(?:give (?:me|us)|leave (?:it|that|this|them) (?:with|to) me|i(?:'d|'ll| would| will)? need) (?:till?|until)\s+(?:the\s+)?$|\b(?:takes? me|takes? (?:an?|the) \w+) (?:till?|until)\s+(?:the\s+)?$",
    re.I,
)
ASKED_WHEN = re.compile(
    r"(?<!since )\b(?:when(?! (?:do|does|did) (?:he|she|they|the)\b)|by when|how soon|what (?:day|time)|which day|not (?:this|next) \w+day)\b",
    re.I,
)
WANTED_WHEN = cue(
    r"\b(?:when|how soon) (?:do|d'|would|'d) ?you (?:want|need|like) (?:it|them|that|those)\b|\bby when\W*$|^\W*by when (?:do|does|is|are|must|would)\b"
)
MAKES_IT = cue(r"^\W*(?:(?:no|okay|well|let's|or),? )*(?:make|say) it ")  # behind which a day is all that is meant
PART_OF_DAY = cue(r"^in the (?:morning|afternoon|evening)$")
DAY_WILL_DO = cue(
    r"\b(?:week|day|month|tomorrow|\w+th)(?:'s| is|'ll be| will be| would be|'d be) (?:fine|soon enough|early enough|good enough|all right|okay)\W*$"
)
NEXT_MEETING = re.compile(
    r"\b(?:before|by|at|for|till?|until|to) (?:we (?:next )?(?:speak|talk|meet) (?:again|next)|(?:the |our )?next (?:call|meeting|time|session)|"
    r"the (?:january|february|march|april|may|june|july|august|september|october|november|december) (?:meeting|session))|\bnext time\b(?!(?: is|'s|, the)\b)",
    re.I,
)
FOR_NEXT = re.compile(
    r"\b(?:for|by|until|till?|before|to) (?:the |our )?next (?:meeting|call|session|one|time)\b", re.I
)
WHEN_AGAIN = cue(
    r"^\W*(?:(?:and|so|okay|lovely) )?when(?:(?:'s| is) (?:the |our )?next (?:time|meeting)| (?:do|shall) we (?:all )?(?:see each other|meet|talk|speak)(?: again| next)?)\W*$"
)
GIVEN_UNTIL = re.compile(r"\b(?:give|giving) (?:them|him|her|it) (?:till?|until)\s+(?:the\s+)?$", re.I)
AND_THEN_I = re.compile(r",? and then i\b", re.I)  # `I'm giving them until Tuesday and then I'll write`
MEETING_AGAIN = re.compile(
    r"^\W*(?:(?:so|then|okay|right)\W+)*next \w+day,? (?:same time|at \w|half past|\w+ o'clock)|\b(?:next (?:meeting|call|session|one|time)|meet (?:again|next)|(?:speak|talk|meet) when (?:we|i|you)(?:'ve| have)|talk in|(?:speak|talk) again|speak in|we(?:'ll| will)? (?:speak|talk|meet|see each other) (?:again |next )?on the|same (?:time|again)|do this again|look at (?:it|this) (?:again (?:in|on)|when\W*$)|see you|call (?:again|next)|(?:shall|do) we (?:all )?(?:speak|talk|meet|see each other) (?:on|next|this) )\b",
    re.I,
)
LOOKS_AGAIN = re.compile(r"\blook at (?:it|this) (?:again|when)\b")  # at a matter, for which they may not meet
_CLOCK = (
    r"(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|noon|midday|\d{1,2}(?:[:.]\d\d)?(?: ?[ap]m)?)"
)
HOUR_AGAIN = re.compile(  # the hour beside the day on which they meet again
    rf"(?:\bat |, |^\W*|\d )((?:half past|quarter (?:past|to)|(?:five|ten|twenty|twenty-five) (?:past|to)) {_CLOCK}\b|{_CLOCK} o'clock\b)|"
    rf"\bat ({_CLOCK})(?=\W*$|[,.;]| (?:and|if|when|here|in|sharp|say)\b)"
)
SAME_HOUR = re.compile(r"\b(same (?:time|hour))\b")
PLACE_AGAIN = re.compile(r"(?:^|, |\b(?:in|again|back) )(here)(?=\W*$|[,.;?]| again\b)|\b(same place)\b")
ONLY_HOUR, SHARP = re.compile(r"[a-z]+(?<!noon)(?<!midday)|\d{1,2}"), " o'clock"
NTH_ONLY = re.compile(r"(?:the )?(?:[\w-]+(?:st|nd|rd|th)|first|second|third)", re.I)
COUNTED_ON = re.compile(
    r"(?:in|a|within|inside)\s|\w+\s(?:weeks?|months?|days?)\b|next\s(?:week|month)", re.I
)  # `in a month`
WHOLE_SPAN = re.compile(r"(?:this|next|the)\s+(?:week|month|weekend)\b", re.I)
TOO_SOON = re.compile(
    r"(?:'s| is| would be|'d be) (?:a (?:push|stretch)|tight|too|no good|out\b|difficult|tricky|not\b|impossible|hard)",
    re.I,
)
AWAY = cue(
    r"^\W*i (?:go|leave|fly|'m going) (?:(?:away|off|on holiday) )?on\b",
    r"^\W*i can't (?:do (?:it|that) )?(?:before|until|till?|on|this|next)\b",
    r"\b(?:haven't|hasn't|have not) got (?:the )?time\b|\b(?:i'm|i am|he's|she's|we're|they're) (?:off|away|out|back|not (?:in|here)|on (?:holiday|leave)|in [a-z]+)\b",
)
NEXT_CLAUSE = re.compile(
    r",\s+(?:and|but|so|because|since|when|which|where)\b|\bbecause\b|,\s+(?:he|she)(?:'ll| will| should) be (?:with|there)\b",
    re.I,
)
VAGUELY = re.compile(
    r"(?:straight|right) (?:after|away)|after this", re.I
)  # a time beside which a day that is named counts
SO_THEN = cue(r"\byou \w+ (?:it|that|them) then\W*$")  # `You book it then`: and not at that time


def hour_of(said: str) -> float | None:
    """The hour of the day of what AT_HOUR finds, between 7 and 19 where it is said on the clock of twelve; None for none."""
    if "noon" in said.lower():
        return 12.0
    clock = re.search(r"(\d{1,2})(?:[:.](\d\d))?", said)
    words = [word for word in PART.sub("", said.lower()).split() if word in UNITS]
    if clock is None and not words:
        return None
    hour = int(clock.group(1)) + int(clock.group(2) or 0) / 60 if clock else float(UNITS[words[0]])
    part = PART.search(said)
    minutes = MINUTES[part.group(1).lower()] * (1 if part.group(2).lower() == "past" else -1) if part else 0
    return hour + minutes / 60 + (12 if hour < FIRST_OF_DAY else 0)

"""English cues of meetings: the words by which people commit, ask, agree, decide and move on."""

import re


def cue(*patterns: str) -> re.Pattern[str]:
    """A pattern that any of these gives, in capitals or not."""
    return re.compile(rf"(?:{'|'.join(patterns)})", re.I)


BACKCHANNEL = cue(
    r"^\W*(?:(?:mm+|mhm|mm[- ]?hm+|uh[- ]?huh|hm+|yeah|yep|yes|yup|ok|okay|right|sure|good|great|lovely|perfect|fine|"
    r"nice|huh|ah|oh|ouch|wow|thanks|thank you|exactly|true|understood|noted|nope|no|indeed|absolutely|of course|cheers)\W*)+$"
)
ASSENT = cue(
    r"^\W*(?:yes|yeah|yep|yup|sure|ok|okay|fine|agreed|agree|absolutely|of course|will do|no bother|no problem|"
    r"happy to|with pleasure|consider it done|done|good|great|perfect|lovely|sounds good|works for me|go on|"
    r"right|exactly|definitely|certainly|gladly|fair enough|can do|aye|me too|same here|i'm in|i can|i will|"
    r"i'll|i certainly will|certainly|very well|we will|you'll have it|it'll be (?:there|done)|i'm on it|on it|you're on|got it|understood|noted|leave it with me|leave that with me|all right|alright|seconded|suits me|that works|for me|nope,? fine|in favour)\b",
    r"\b(?:is|are|'s) (?:good|fine)(?: (?:for|by|with) me)?\W*$",
    r"\b(?:fine|good|okay) (?:by|for|with) me\b",
    r"^\W*i like (?:that|it)\b",
    r"^\W*i(?:'d| would) be (?:very |only too )?(?:glad|happy|delighted) to\W*$",
    r"^\W*\w+[.,]\s+(?:yes|yeah|agreed|fine)\b(?! but)",
    r"^\W*i could[.,]|\b(?:that |it )?makes sense\W*$",
    r"^\W*(?!not\b|no\b)(?:[\w']+ ){0,8}[\w']+, (?:yes|yeah|sure)\W*$",
    r"\bi can live with (?:that|it)\b|\b(?:but )?not against(?: it)?\W*$",
    r"^\W*(?:it's|that's) (?:(?:already )?in (?:my|the) (?:diary|calendar|book)|as good as (?:done|in|there|\w+ed))\b|^\W*(?!what\b|if\b)(?:\w+ ){1,4}i can do\W*$",
)
LATE_ASSENT = cue(
    r"\b(?:yes|yep|sure|okay|fine|right|all right|of course|will do|go on)\W*$"
)  # at the end of a brief turn
REFUSAL = cue(
    r"^\W*(?:sorry,?\s*)?(?:no|nope|nah)\b(?!\s+(?:bother|problem|trouble|worries))",
    r"^\W*(?:[\w']+ ){0,3}[\w']+, no\W*$",  # `Bless you, no.`
    r"^\W*not (?:on (?:the |mon|tues|wednes|thurs|fri|satur|sun)|then\b|that day\b|this (?:time|week)\b|sadly\b|today\b)"
    r"(?!\W+(?:(?:but|on|by|maybe|the) )*(?:next|tomorrow|\w+day)\b)",  # `Not today. Tomorrow evening.`
    r"\b(?:i can't|i cannot|i won't|i'd rather not|not me|don't look at me|i'm afraid (?:not|i can't)|no chance)\b",
)
DISMISSED = cue(
    r"\b(?:no need|you're all right|leave it|it'll keep|it can wait|don't bother|never mind|forget (?:it|that|i said)|"
    r"not now|don't worry about (?:it|that)|scrap that|that won't be necessary|already (?:done|sorted))\b",
    r"^\W*(?:(?:i|we)(?:'ve)? )?(?:\w+ed|done|sent|rang|wrote|made|bought|paid|put) (?:it|that|them|one) already\b",
)
CONDITIONAL = cue(
    r"\bif (?:i|we|you|he|she|it|they|there|that) (?:were|was|had|did|could|went|ever)\b",
    r"\b(?:supposing|imagine|(?<!and )unless|with whoever|whenever)\b|(?<!i )\bsuppose\b",
    r"\b(?:would|'d) have (?!an?\b|the\b|it\b|them\b|him\b|her\b|that\b|to\b|your\b|my\b|our\b)",
    r"\bfailing that\b",
    r"\bwish\b",
    r"\bi(?:'d| would|) (?:never|rather|sooner)\b",
    r"\bwould you do (?:it|that|this|so|the same) again\b",
    r"\bbut then i'd\b",
)
PAST = cue(
    r"\b(?:was|were) (?:going|supposed|meant|planning|hoping) to\b",
    r"\b(?:i|we|he|she|they)(?:'ve| had| have) (?:already|just)\b",
    r"\b(?:i|we|he|she|they)'d (?:already|just) \w+(?:ed|en|ne|nt|ght|ade|ad|ot|aid|ung)\b",
    r"\bi thought,? (?:then )?i(?:'ll|'d better)\b|\band then i forgot\b",
)
ASKS_FIRST = cue(r"\bi(?:'d| would|'ll| will) have to (?:ask|check|see|find out)\b")
REPORTED = cue(
    r"\b(?:he|she|they)(?:'d|'s|'ve)? (?:swears?|says?|said|promised|reckons?|told (?:me|us)|thinks?|hopes?) (?:that )?(?:he|she|they|it)(?:'ll| will|'d| would)\b"
)
HAVE_TO = cue(r"\bi(?:'ve| have) (?:got )?to\b|\bi need to\b")
OVERTAKEN = cue(r"\b(?:was|were) going to\b.*\b(?:so|but|now) (?:now )?i'll\b")
INTENT = cue(
    r"\bi(?:'ll| will|'m gonna| shall)\b|\bi(?:'m| am) going to\b(?! (?:the|an?|my|our|his|her|their|your)\b)",
    r"\bwe(?:'ll| will) (?:send|mail|e-?mail|ring|call|write to|get back to|forward|let) (?:you|them|him|her|everyone|everybody)\b",
    r"(?:^|[.,;:!?]\s+|\b(?:so|okay|and|then|well|right|no)\s)let me (?!know|see|think|say|ask (?:you|this|that|it|a|again|something|one|the other way)\b|ask\W*$|find|finish|just say|guess|tell|put|start|be)\b",
    r"\b(?:leave (?:(?:the|that|those|my|your|our)(?: \w+){1,3}|that|it|this|them|him|her) (?:with|to) me|i can take (?:that|it|this)|i'll take|i've got (?:that|it|this) one|count on me)\b",
)
PROMISE = cue(  # binding only with a date or as an answer to a request
    r"(?<!where )\bi (?:can|could)\b",
    r"\bi(?:'ve| have) (?:got )?to\b",
    r"\bi(?:'d better| need to| should| must| ought to)\b|(?<!because )\bi want to\b",
    r"\bi(?:'m| am) \w+ing\b",
    r"\b(?:he|she|they|you)(?:'ll| can| will) (?:all |both |each )?(?:have(?! to\b)|get)\b|\bso you'd have\b|\byou'd (?:have|get) (?:it|them|that|those|(?:the|an?|your) \w+) (?:by|on|before)\b",
    r"\byou(?:'ll| will) find (?:it|them) (?:in|on|at|there|here)\b",
    r"\b(?:it|that|those|this)(?:'ll| will|'s going to(?! be (?!in\b|out\b|off\b|up\b|ready\b|done\b|there\b|with\b|sent\b|finished\b))| goes?| go) (?:be |in |out |off |up )?",
    r"\bthey(?:'ll| will) (?:be|go|come|arrive)\b|\bthey go (?:in|out|off|up)\b",
    r"\bgoes (?:in(?! for\b)|out|off|up)\b",
    r"(?:'ll| will) be (?:with|ready|done|there|finished)\b",
    r"\bi'd (?!have\b|like you\b|want you\b|love you\b)\w+ (?:her|it|them|him|you|that)\b",
    r"\b(?:my|our) (?:lads?|people|team|crew|guys|colleagues?|men|girls|boys|assistant|office|workshop|son|daughter) (?:can|will|could)\b",
    r"\bi owe (?:you|them|her|him)\b",
)
PLAIN_PRESENT = cue(r"\bi (?:come|do|bring|send|ring|call|write|ask|make|put|tell|fetch|print)\b(?!n't| not)")
ME_TOO = cue(r"^\W*(?:and )?(?:me too|me as well|(?<=and )me|i'm in too|count me in|so will i|so can i)(?:\W*$|, if\b)")
JOINING_IN = cue(  # a part in what another has taken on
    r"\b(?:i'm|i am|i'd be) (?:happy|glad) to (?:come|go|help|join)(?: (?:along|too|in|you))?\b",
    r"\b(?:i'll|i will|i can|i could|let me|i'd) (?:\w+ )?(?:go|come|be there|do (?:it|that|them)|walk|sit in|ride|drive over) (?:along )?with (?:you|him|her|them)\b",
    r"\b(?:i'll|i will|i can|i could|let me) (?:help|join|lend|give) (?:you|him|her|them)(?: (?:out|a hand|with (?:it|that)))?\W*$",
    r"\b(?:i'll|i will|i can) (?:help|give a hand|lend a hand|join in|come along|come too|go too)\b",
    r"\b(?:i'll|i will|i can) hold (?:your|his|her|the)\b",
    ME_TOO.pattern,
)
GROUP_INTENT = cue(r"\bwe(?:'ll| will|'re going to| need to|'ve got to| have to| should| must| ought to)\b")
EMPTY_VERBS = frozenset(
    [
        "be",
        "have",
        "know",
        "think",
        "see",
        "say",
        "mean",
        "guess",
        "suppose",
        "hope",
        "want",
        "like",
        "need",
        "believe",
        "admit",
        "remember",
        "miss",
        "love",
        "hate",
        "stop",
        "shut",
        "shout",
        "feel",
        "wonder",
        "bet",
        "imagine",
        "doubt",
        "try_to",
        "come",
        "wait",
        "stay",
        "find",
        "happen",
        "understand",
        "live",
        "agree",
        "hear",
        "resign",
        "thank",
        "propose",
        "second",
        "abstain",
        "forget",
    ]
)
FILLED = cue(  # verbs that are empty by themselves and are not with what follows
    r"find (?:an?|the|some\w*|another|out|one|two|three|more|who|whoever|me|you|us)\b|"
    r"see (?:him|her|them|to|that|whether|if|what|about|who|(?:the|my|our) \w+ (?:about|on|at|for|tomorrow|today))\b|say (?:it|that|this|so) to (?:him|her|them)\b|come (?:along|with|over|round|in|and|by)\b|"
    r"stay (?:on|late|behind|till?|until)\b|hear (?:what|from)\b|say (?:sorry|so|no|yes)\b|like to\b"
)
NOBODYS_TASK = cue(  # wished for by others, or only that somebody can do it
    r"\bto be able to\b",
    r"\bif you (?:want|need|like|have)\b",
    r"\b(?:(?:he|she|they|who) (?:wants?|needs?|would like|'d like|asks? for)|wants|would like) some ?(?:body|one)\b",
)
NEEDS = cue(
    r"\bi(?:'d|'ll| would| will)? (?:need|want) (?:the|your|all the|those|an?|some|new|(?:it|them|that|her|him)\b) ?"
)
REQUEST = cue(
    r"\b(?:can|could|will|would) you\b(?! (?:(?:both |all )?(?:see|hear)|not|say|believe|imagine|tell me|remind|explain|bear|bet|like|prefer|rather|(?:live|cope) with|mind (?:if|me)))",
    r"\bwould you mind\b",
    r"\bi want you to\b",
    r"\bdo you want to\b(?! (?:go(?: first| next)?\W*$|(?:start|begin|say|add|hear|see)\b))",
    r"\bplease\b",
    r"\b(?:can|could) (?:i|we) (?:ask|get|have) you to\b",
    r"\bi(?:'d| would) like you to\b",
    r"\bi need you to\b",
    r"\bi(?:'d| would) (?:like|want) (?:the |that |this |them|it)[\w ]{0,30}\b(?:done|finished|sent|gone|ready|fixed)\b",
    r"\byou(?:'ll| will|'d) (?!have\b|be\b|get\b|see\b|find\b|know\b|need\b|want\b|like\b)\w+ .*\?\W*$",
    r"\b(?:tell|ask|send|remind|ring|call|email|bring|give|get|put|write|check|book|make sure) .{2,40} (?:from|for) me\b",
    r"\b(?:how about|what about) you \w+ing\b|^\W*how about you (?=[a-z]+ \w)|\bwhy don't you (?!ever\b|just\b|like\b|want\b|think\b|believe\b|know\b)(?=\w+ \w)",
)
ASKED_OF_ALL = cue(
    r"\b(?:can|could|will|would) (?:everybody|everyone|you (?:all|both|two)|all of you|both of you)(?: please)?(?! (?:hear|see|live|agree|do that|make it|say)\b)\s+",
    r"\bi(?:'d| would)? (?:need|want|like) (?:you (?:both|all|two)|both of you|all of you|everybody|everyone) to\s+",
    r"\bi(?:'d| would)? (?:need|want|like) is (?:that |for )?(?:you (?:both|all|two|each)|each of you|both of you|all of you|everybody|everyone) (?:to )?",
    r"^\W*(?:everybody|everyone|all of you)(?:,|:)? (?:please )(?=\w)",
    r"^\W*please,? (?:everybody|everyone|all of you|all(?! (?:the|of|my|your|those|these)\b)),? (?=\w)",
    r"\byou (?:both|all) (?=(?:hand|bring|send|put|leave|take|sign|write|give|fill|clear|read|tell|come|ring|pack) (?:in|up|the|your|me|it|them|to|out)\b)",
)
OF_TWO = cue(r"\b(?:both|two)\b")
BOTH_OF_YOU = cue(r",? \b(?:both of you|you both|the pair of you|the two of you|you two)\b,?")
WILL_DO = cue(r"^\W*(?:(?:okay|yes|right),? )?(?:will do|(?:i'm )?on it|consider it done)\b")
AND_ILL = cue(r"^\W*(?:and|so) (?:then )?i(?:'ll| will)\b")
ILL_SEND_YOU = cue(r"^\W*i(?:'ll| will) (?:\w+ )?(?:send|give|show|bring|tell|write) you\b")
BARE_SEARCH = cue(r"find (?:some|any) ?(?:body|one)\W*$")
WILL_DO_IT = cue(r"\bi(?:'ll| will) (?:do|see to) (?:it|that)\b")
NO_TASK = cue(r"(?:before|after|until|till|with|without|because)\b")  # with which no task begins
GIVES_PURPOSE = cue(r"so that\b")  # `Hands, please, so that Tom can count them`
YOU_DO = cue(
    r",\s+you (?!know\b|think\b|mean\b|see\b|want\b|like\b|have\b|had\b|get\b|got\b|said\b|were\b|are\b|did\b)(?=\w+ \w)"
)
UNTAKEN = cue(
    r"\b(?:some ?(?:body|one))(?: else)?(?:'s got to| has to| has got to| should| needs to| must| ought to| will have to| would have to|'d have to| could| please)\b",
    r"\b(?:need|want|find|needs|wants) some ?(?:body|one)(?: else)? to\b",
    r"\b(?:can|could|will|would) (?:some ?(?:body|one)|one of you)\b|\bcould any ?(?:body|one)\b",
    r"(?:^|[.,;!?]\s+|\b(?:and|so|but|well)\s)who(?:'s| is)? (?:going to|gonna|can|could|will|wants to|would like to|'d like to|has to|(?!does\b|was\b|has\b)\w{3,}s (?:the|it|them|him|her|this|that|in|out|up)|\w{3,}ing)\b",
    r"(?:^|[.,;!?]\s+|\b(?:and|so|but|well)\s)who(?:'ll| will)\b",
    r"\bwho'd (?:like to|ring|do|take|write|ask|send|book|order|bring|call|make|go|tell|print|fetch|buy|draw|fill|run|look)\b",
    r"\b(?:ought to|needs to|has to|should|must|has got to) (?:be )?\w+(?:ed|n|ne|ld|nt|ught)\b",
    r"\bwe'll have to find (?:some|any) ?(?:body|one)\b",
)
BARE_REQUEST = cue(
    r"^\W*(?:oh,? |yes,? |well,? )?(?:(?:would|could|will|can) you(?:,? please)?|(?:yes,? )?please(?: do)?)\W*$"
)
ASKED_BARELY = cue(
    r"^\W*(?:\w+, )?(?:would|could|can|will) you (ask|check|look|try|ring|call|order|book|write|buy|fix|send)(?: please)?\W*$"
)
PLEASE_DO = cue(r"^\W*(?:yes,? |oh,? )?please do\b")  # `Please do, before the weekend`
PROMISED_YOU = cue(
    r"\byou(?:'ll| will|'d)(?: all| each| both)? (?:get|have|find (?:it|them) (?:in|on|at|there|here)\b)|^\W*then you get (?:it|them|that|the)\b"
)
TAKES_ME = cue(r"\b(?:'ll|will|would|'d) take me\b")  # `All of them will take me to the end of the week`
AND_I = cue(r",? and (?:then )?i(?:'ll|'d| will| would)\b")
BEGINS = cue(  # the meeting, behind the talk before it
    r"\bshall we\?|\b(?:let's|shall we|can we) (?:make a start|start|begin|get started|get going)\b"
)
IF_OTHERS = cue(r"\bif some ?(?:body|one) else\b")
RISES = cue(r"\bgo(?:es)? (?:up|down) (?:by|to|from)\b", r"\b(?:every|each) time\b")
LETTING = cue(r"\blet(?:'s| us| me)\b")
THANKS = cue(r"^\W*(?:\w+,? )?thank(?:s| you)\b")
BARE_TASK = cue(
    r"\w+(?: \w+)? (?:it|that|this|them|one)(?: (?:yourself|yourselves|myself|too|then|now|for me|for us))?\W*"
)
TURNS_TO = cue(r"(?:try|call|ring|phone|ask|talk to|speak to|see|meet|write to|mail|tell|catch) (him|her|them)\b")
TAKES_IT = cue(r"^(?:take|have|try|like) (?:it|them|that|those)\W*$")
OFFER = cue(
    r"\bi (?:can|could|might be able to)\b",
    r"\bi(?:'m| am|'d be| would be) (?:\w+ )?(?:happy|glad) to\b",
    r"\b(?:shall|should) i\b(?! (?:say|start|go|carry on|begin|read|do|take|show|explain|tell)\b)",
    r"\b(?:do you |d'you )?want me to\b",
    r"\bi'd (?!rather|like|love|say|have|be|want|prefer|hate|never|better|bet|think|go for|expect)\w+",
)
WE_COULD = cue(r"\bwe (?:can|could)\b")
WELCOME = cue(
    r"^\W*(?:(?:oh|yes|okay|ah|well|good|great|lovely),?\s+)*(?:would|could|will|can) you(?:, \w+)?\W*\?",
    r"^\W*(?:(?:oh|yes|well|ah),?\s+)*do\b(?=\W*(?:$|[.!])|,? and\b| (?!that\b)\w+ (?:it|them|him|her)\W*(?:$|[.!]))",
    r"^\W*(?:(?:and|so|well|oh),? )?(?:could|can) you (?:have|get|do|bring|send) (?:it|them|that|those)\b",
    r"^\W*(?:(?:oh|yes|yeah|okay|good),?\s+)*please\b|\b(?:please do|do,? please|yes,? do)\b",
    r"\bwould (?:save (?:us|me)|be a (?:great |big |real )?help)\b|\b(?:that(?:'d| would) (?:be|help|do|save)|that's (?:very |really |so )?(?:kind|good of you|helpful)|you're an? (?:star|angel|hero|saint))\b",
    r"\bwould you (?:mind|do that)\b|\bit does help\b|\byou're (?:down|on|hired|in)\b|^\W*(?:yes,? )?(?:go on,? then|go ahead|do that|you do that|bring (?:it|them)|if you (?:would|could|don't mind))\b",
    r"\b(?:when|how soon) (?:could|can|would) (?:i|we|you|they)\b",
    r"\b(?:can|could) you (?:say|give (?:me|us)) (?:a |me a |us a )?(?:date|day)\b|^\W*by when\b",
)
TAKING_SELF = cue(
    r"\b(?:(?:give|send) it to me|put me down(?: for (?:it|that))?|i suppose it's me|it's me,? then|^\W*then it's me\b|that's me,? then|^\W*that(?:'s| one's) mine\b|i'll (?:have to )?do (?:it|that) myself)\b"
)
ASSIGNED = re.compile(
    r"\w+(?:(?:'ll| will| gets to| is going to|'s going to| to| has to|, you(?:'ll| will)?)\s+(?=\w)|\s+(?=takes \w))"
)
TAKING = cue(
    r"\bleave (?:it|that|this) (?:with|to) me\b",
    r"\b(?:i'll|i will|i can|i could)\b",
    r"^\W*(?:(?:well|okay|yes|oh|go on|then|probably),?\s+)*(?:let me|leave (?:it|that)|me|mine)\b",
)
MOVES = cue(r"\bi(?:'ll| will) (?:move|propose|second) (?:it|that|this)\b")  # a motion
SECONDED = cue(r"\bsecond(?:ed|s)?\b|\bin favour\b")
IF_I_MUST = cue(r"\bif i (?:have|need) to\b|\bif need be\b|\bif it comes to (?:it|that)\b")
GLAD_TO = cue(r"^\W*i(?:'d| would) be (?:very |only too )?(?:glad|happy|delighted) to\b")
SHOULD_WE = cue(r"\b(?:should|shall|ought) (?:we|some ?(?:body|one))\b")
OF_ALL = cue(
    r"\b(?:nobody|no one|everybody|everyone|everything|anything)(?: else)? (?:that \w+ .*)?\w+s\b"
)  # a rule and nobody's promise
YOU_OR_I = cue(r"\b(?:do|shall|should|will) i\b.{1,40}\bor (?:do|shall|should|will|would) you\b")
YOU_DO_IT = cue(r"^\W*(?:(?:no|oh|well|then),? )?you (?=[a-z]+ (?:it|that|them)\b)")
THEN_I = cue(  # what a voice takes on in the present: `Then I scan it, first thing.`
    r"^\W*(?:(?:so|okay|right|well|good|fine)\W+)*then i (?!(?:am|was|had|have|did|do|don't|think|thought|know|knew|can|could|would|will|should|must|want|wanted|need|said|saw|went|got|guess|suppose|hope|mean|suggest|propose|move|vote|agree|assume|take it|expect|believe|recommend|see|feel|prefer|like|ask myself|wonder|didn't|can't|couldn't|really|just|only|never|always)\b)(?P<verb>[a-z]+(?<!ed)\b)"
)
ON_SUCH_DAYS = cue(r"\bon (?:mon|tues|wednes|thurs|fri|satur|sun)days\b|\bevery (?:\w+day|week|month|year)\b")
WHO_CAN = cue(  # asks for a day that suits everybody and for nothing to be done: `Can everybody do Mondays?`
    r"^\W*(?:do|make|manage|come|be (?:here|there))(?: (?:it|that|on|at|by|then|the|next|\w+days?|\w+(?:st|nd|rd|th)|from|now))*\W*$"
)
DECIDED = cue(
    r"\b(?:we(?:'ll| will|'re going to| are going to)|let's|we) (?:go|going) (?:with|for|ahead)\b",
    r"\b(?:it is|it's|is it),? then\b",
    r"\bthen it(?:'s| is)\b(?! (?:no (?:use|good|help)|useless|wrong|too|got to|going to)\b)",
    r"\b(?:so )?that(?:'s| is) (?:settled|decided|agreed|it then|how|what we'll|what we're|carried|the decision|final)\b",
    r"^\W*carried\b|\b(?:agreed|decided|settled|resolved|motion (?:passes|passed|is carried)|unanimous)\b(?! to disagree)",
    r"\b(?:that|it)(?:'s| is) a (?:deal|decision|yes|no)\b",
    r"\blet's (?:say|make it|do|keep|leave|drop|park|move|stick|take|book|order|hold|not|call it|postpone|put|have|start|use|buy|cancel)\b",
    r"\b(?:\w+ to (?:one|two|three|four|five|none|nil|\d+)),? then\b",
    r"\bso (?:she|he|it|we|they|that) (?:stays?|goes|go|keeps?|comes? (?:off|out|down|back))\b",
    r"\bget (?:them|it|those),? then\b",
    r"\bwe \w+ .{3,60}\binstead\b",
    r"\bwe(?:'ll| will| shall) (?:keep|drop|leave|make|stay|stick|use|hold|move|start|open|close|buy|order|pay|have|take|do|not|say|call|put|run|give|cut|allow|send|meet|wait|charge|accept|offer|set|stop|skip|cancel|postpone)\b",
    r"\b(?:everybody|everyone|all) (?:happy|agreed|in favour|okay|ok|fine)\b",
    r"\b(?:anybody|anyone|any ?body) (?:unhappy|against|object|opposed|disagree)",
    r"^\W*(?:yeah|yes|right|okay|ok|fine|good|done|great)?,?\s*(?:six|\w+) on everything\b",
    r"\bit is\W*$",
    r"\bwe(?:'re| are) (?:agreed|going with|keeping|dropping|sticking|staying)\b",
    r"\bi(?:'ll| will) (?:minute|record) (?:that|it)\b",
    r"\bsame time\b.*\bnext\b",
    r"\bgreen light\b|\bgo ahead\b|\bdeal\b\W*$|\bit's a deal\b",
)
WHAT_WOULD = cue(r"\b(?:what|how) (?:would|do|did) you (?:do|say|handle|deal|decide|plan|go about)\b|\bwhat if\b")
AND_IF = cue(r"(?<=\w),? (?:and|or|but) if\b")  # behind which stands what comes of a task
IF_I = cue(  # a condition and what its speaker does then: `If you order by Monday I can have it on the tenth`
    r"^\W*(?:(?:so|and|but|well)\W+)*(if\b[^,]{3,60}?),?\s+(?:then\s+)?i(?:'ll|'d| will| would| can| could)\b"
)
IF_FIRST = cue(r"^\W*(?:(?:so|and|but|well|then)\W+)?if\b")
VOTE = cue(r"\b(?:in favour|against|abstain|abstention|hands up|hands\.|show of hands|vote|votes)\b")
OBJECTION = cue(r"\b(?:no|but|i don't|against|can't|not (?:sure|happy|so)|however|disagree|hang on|wait)\b")
DEFERRED = cue(
    r"\b(?:next time|ask (?:me|us) again|park (?:it|that|this)|defer|postpone|hold (?:that|it)|it'll keep|leave it (?:for|until|till?)|come back to (?:it|that|this)|another day|not today|(?:we(?:'ll| will)?|let's) (?:only )?(?:decide|settle|vote on) [^.?!]{1,40} (?:at|in) (?:the|our) next (?:meeting|one|session)|(?:not|can't|cannot|don't|won't) decide|look at (?:it|that|this) again|that's for (?:next|another|january|february|march|april|may|june|july|august|september|october|november|december))\b"
)
UNKNOWN = cue(
    r"\b(?:no idea|don't know|do not know|not sure|no clue|couldn't (?:say|tell)|haven't (?:a clue|decided|heard)|good question|i wish i knew|hard to say|who knows|nobody knows|can't say)\b"
)
RHETORICAL = cue(
    r"\b(?:who knows|what could possibly|who's going to argue|isn't it|aren't (?:they|we|you)|wasn't it|won't (?:it|they)|doesn't it|don't (?:they|you|we)|shall we|right|agreed|you know|can they|can we all|would you bet|how are you|is that a|remember that|can you believe|are you serious|don't you think)\s*\?+\s*$",
    r"^\W*(?:sorry|pardon|what|huh|really|yeah|okay|ok|right|yes|no|so|and|hm+|eh|is it|did they|have they|does it|do they|you what|seriously)\W*\?+\s*$",
    r"\b(?:any questions|can (?:people|everyone|everybody|you(?: all)?) (?:hear|see)|are we all (?:in|here)|is (?:everybody|everyone) (?:in|here)|shall we (?:start|begin|get|move|go)|can i (?:ask|say|just|add|come|do)|may i|how(?:'s| is) your (?:weather|weekend)|is there any (?:tea|coffee)|ready\?)\b",
)
FORMALITY = cue(  # questions by which a meeting is opened, run and closed, or a day for it is found
    r"\b(?:are we (?:all |still )?(?:complete|quorate|here|back)|is it just us|how was (?:the|your) (?:week|weekend|holiday|trip|journey|flight|train|drive)|was there anything else|is there (?:any discussion|any other business|anything else)|has every(?:one|body) (?:had|got|seen|read) the|(?:a|the) (?:proposer|seconder)|every(?:one|body) (?:all right|okay|ok|happy|good) with|can you (?:say|repeat) that again|can you repeat that|what would you like to ask us)\b",
    r"\b\w{3,}day\b.*\bsuits?(?: (?:you|everyone|everybody|all))?\W*\?",
    r"^\W*(?:so |and |then )?(?:what|how) about (?:(?:the|next) )?(?:mon|tues|wednes|thurs|fri|satur|sun)days?\b",
    r"\b(?:speak|talk|meet) again\b.*\?",
    r"\b(?:could|can|shall) we (?:make it|talk|meet|speak|say) .*\b(?:\w+day|week|fortnight|time|o'clock|am|pm)\b",
)
SHIFT = cue(
    r"\b(?:let's move on|moving on|on to|next (?:up|item|one|thing|point)|one (?:more|last|other) thing|another thing|last thing|two more|one more|going back to|back to|turning to|which brings (?:us|me)|that brings|first (?:up|item|thing)|any other business|item (?:one|two|three|four|five|six|seven|eight|nine|\d+)|before we (?:go|finish|close)|can (?:i|we) (?:do|ask about|raise|talk about|come to)|shall we (?:start|turn|move|get)|let's (?:start|turn|get (?:started|going)|talk about|take|come to|look at|do the|go to|begin)|so the next|the other thing is|last but|to close|to finish|wrap up|right,? so|speaking of|question\.)\b"
)
OPENING = cue(
    r"^\W*(?:okay|ok|right|so|now|good|great|lovely|perfect|thanks|thank you|shame|ouch|fine|all right|alright|well|true|noted|ooh|oh)\b"
)
FILLER = cue(
    r"(?:,\s*)?(?:(?<=^)|(?<=[\s,]))(?:um+|uh+|er+m?|erm+|mm+|hm+|hum(?=,)|ah|(?<!let )(?<!lets )(?<!do )(?<!did )(?<!if )(?<!as )(?<!that )(?<!when )you know(?! (?:how|what|who|when|where|why|that|if|him|her|them|it)\b)|i mean|(?<!'ve )(?<!have )(?<!has )(?:sort|kind) of(?! *[.?!]| *$)|like i said|to be honest|i'll be honest|"
    r"i don't know|basically|honestly|actually|i (?:should|must|have to|ought to) say|let me find it)(?=[\s,.!?…-]|$),?"
)
LEADING = cue(
    r"^\W*(?:(?:so(?! (?:(?:do|did|am|have|would|will|can|could|should) (?:i|we)|that)\b)|and|but|well|yeah|yes|yep|okay|ok|right|all right(?=[,.!])|oh|no(?=[,.!])|now|ooh|lovely|great|sure|(?:good|fine)(?! (?:by|for|with) (?:me|us)\b)|then|mm|mm-hm|"
    r"perfect|because|hang on|look(?=,)|listen(?=,)|you see(?=,)|sorry|thanks|thank you|true|shame|also|anyway|or|plus|nice news,? though|i'm (?:just |only )?saying(?: that)?(?= (?:i|we)\b)|oh lord|so (?:do|did|am|would|will|can) i(?=[.,!]))(?:[,.!:]+\s+|\s+(?=[A-Za-z0-9£$€])))+"
)
PROPOSAL = cue(
    r"\b(?:i'd (?:say|suggest|propose|go for|box|put|keep|have|take|rather|like|move)|i (?:suggest|propose|move that|vote)|how about|what about|why don't we|shall we|could we|"
    r"should we|can we|we could|we should|let's|make it|what if|i'd like to|so,? (?:\w+[- ]?\w*) or (?:\w+)|proposed|seconded)\b",
)
AGREEMENT_CALL = cue(
    r"\b(?:any ?(?:body|one)|every ?(?:body|one)|all) (?:unhappy|against|object\w*|opposed|disagree\w*|happy|agreed|in favour|okay|ok|fine|else)\b",
    r"[,.]\s+agreed\W*\?\W*$",
    r"^\W*every(?:body|one)\s*\?",
    r"\b(?:all in favour|hands|are we agreed|is that agreed|shall we say|any objections?|does that (?:work|suit)|(?:would|does) .{2,30} suit|those in favour|does any ?(?:body|one) (?:not want|mind|object|disagree))\b",
)
WEIGHTY = cue(
    r"\b(?:because|so that|need|needs|must|have to|has to|can't|cannot|won't|only|until|before|deadline|problem|worry|worried|"
    r"risk|trouble|issue|wrong|broken|late|delay|cost|costs|price|budget|spent|left|short|missing|extra|plan|means|"
    r"depends|instead|first|last|biggest|main|important|never|always|every|all|none|safe|want|wants|wanted|agreed|ready|"
    r"confirmed|finished|done|start|starts|begins|runs out|closes|opens|limit|maximum|minimum|at least|at most|rule|law|"
    r"customer|client|complaint|change|changed|new|less|more than|nobody|whole)\b",
)
LIGHT = cue(
    r"\b(?:lovely|haha|ha|joke|funny|weather|tea|coffee|bless|gosh|heaven|lord|god|sorry|thanks|thank you|hello|hi|morning all|bye|cheers|hear me|muted?|angel|saint|star|brilliant|amazing)\b",
)
RISK = cue(
    r"\b(?:risk|worry|worried|worries|afraid|danger|problem is|might not|could fail|trouble is|obstacle|concern(?:ed)?)\b",
)
OPINION = cue(
    r"\b(?:i think|i reckon|i guess|i suppose|i'd say|i feel|i don't think|i believe|i hope|in my view|honestly|to be (?:fair|honest)|personally|i wouldn't|i'd (?:love|want|rather))\b",
)
DEADLINE = cue(
    r"\b(?:by|before|until|till?|no later than|at the (?:latest|outside)|due|deadline)\b",
)
PROCEDURE = cue(  # what moves the meeting itself on, or leaves it to others
    r"\bleave (?:it|that|this) (?:for|to) some ?(?:body|one)\b",
    r"\b(?:(?:open|close|start|begin|finish|end|stop|continue) (?:the|this|our) (?:meeting|call|session|recording|vote)|put (?:it|that|this) to (?:the|a) vote|kick (?:us |things )?off|"
    r"keep (?:it|this|that) (?:short|brief|quick|to \w+)|move on|skip (?:to|ahead|that)|go (?:first|next|round(?! (?:there|to|and|with|tomorrow|this|on|after|tonight|later)\b))|start with|come (?:back )?to (?:that|it|this)|hand (?:over|you over)|"
    r"i'll (?:start|begin|go ahead|kick off)(?=[.,!]|$)|take (?:it|that|this|the \w+(?: one)?) first|abstain|share my screen|do my best|be (?:quick|brief|honest)|hold that thought|minute that|put (?:it|that|this) (?:down )?on the list(?! for\b)|make a note|note that|take (?:that|this) (?:one )?offline|write (?:that|this) down(?=\W|$)|"
    r"(?<!never )talk about (?:that|it|this)|say (?:a|one) (?:word|thing)|(?:cheer|take|walk|talk|bring|fill|remind) us (?:up|through|in|of)|tell us|give us (?:the|an?)\b)\b",
)
ORDERED_NOW = cue(r"\b(?:now|right away|quickly|this second|straight away|while we(?:'re| are) (?:talking|sitting))\b")
CAME_BACK = cue(
    r"\b(?:(?:she|he|they|it)(?:'s|'ve| has| have) (?:just )?(?:come back|replied|answered|written back|texted|confirmed)|i(?:'ve| have) just (?:pulled|looked|found|checked|heard|sent|done))\b"
)
LEFT_OPEN = cue(
    r"\bsome ?(?:body|one) (?:will have to|has to|should|must|ought to)(?:,? (?:won't|don't|shouldn't|mustn't) (?:they|he|she))?\W*$"
)
BARE_INTENT = cue(r"\bi(?:'ll| will) (?!try|see|wait|have|take)(\w{3,}|go)\W*$")
TOO = cue(r"\b(?:too|also|as well)\b")
IF = cue(r"\bif\b")
TIME_NOUN = re.compile(
    r"(?:mon|tues|wednes|thurs|fri|satur|sun|to|birth)?day|week|weekend|month|year|morning|afternoon|evening|night|tonight|tomorrow|"
    r"yes|no|yeah|minute|hour|moment|second|time|noon|lunch|lunchtime|end|rest|thing|bit|lot|way|fortnight",
    re.I,
)
DAY_OR_MONTH = re.compile(
    r"(?:mon|tues|wednes|thurs|fri|satur|sun)days?|january|february|march|april|may|june|july|august|september|october|november|december",
    re.I,
)
DOES_ANYWAY = cue(
    r"^\W*(?:well,? |oh,? )?(?:i|we|he|she|they) (?:always |usually |normally )?(?:(?:do|does)\b(?! (?:not|n't))|did(?: it| that| them)?\W*$)"
)
ENUMERATES = re.compile(r"\b(?:first|second|third|next|last|final|item|one more|another|two more)\b", re.I)
ANNOUNCES = re.compile(
    r"^\W*(?:(?:okay|ok|right|so|now|and|good|great|perfect|lovely|thanks?|alright|all right|well|but|then|oh)\W+)*"
    r"(?:(?:the |our |my )?[a-z-]+(?: [a-z-]+){0,2}[.,:]|(?:what|how) about\b|(?:can|could|may) (?:i|we) (?:ask|talk|raise|do|come)|"
    r"(?:the other thing|while (?:i|we)|before (?:we|i)|speaking of|since i))",
    re.I,
)
SHORT_ASSENT = re.compile(r"^\W*(?:yes|yeah|sure|of course|okay|will do|no problem|happy to|certainly)\b.{0,18}$", re.I)

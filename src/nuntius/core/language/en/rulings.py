"""English forms by which something is decided, or only reported."""

import re

from nuntius.core.language.en.cues import cue

NORM = cue(  # what holds for everybody
    r"^\W*(?:(?:so|and|right|okay|no|then|but|well)\W+)*(?:(?:nobody|no one)\b(?!'s|\s+(?:is|was|ever|knows|has)\b)(?=.*\b(?:before|after|until|till?|without|unless|but|except|alone|in|into|on|onto|up|near|than|because|for)\b)|(?:nobody|no one)(?:'s| is) (?:on|in|up|under|near|allowed|\w+ing)\b.* (?:without|unless|until|till?|alone|on their own)|no more|every \w+(?:'s| is| gets| goes)|"
    r"any(?:thing|one|body) (?:that|who)\b.*\b(?:goes|is|gets|stays)|everyone:|everybody:)\b|"
    r"\bfrom (?:now on|today|tonight|tomorrow|this week|next week|\w+day) (?:on )?(?:it's|there's|we|every|all|no|the|only)\b|\bfrom now on\b|"
    r"\b(?:nobody|no one) else (?:talks|speaks|writes|goes|signs|touches|opens|drives|rings|answers|decides)\b",
    r"^\W*(?:(?:so|and|but)\W+)*whatever (?:happens|we do|else)\W+(?:nobody|no one|nothing|(?:we|you) (?:don't|never|won't))\b|"
    r"^\W*(?:(?:so|and|but)\W+)*(?:nothing (?:on|in) your \w+|what (?:you|we) (?:don't|never) do is\b|you never (?!know|mind|had|did|g[eo]t|said|told|s[ae]e|hear|find|found|th[io]|c[ao]me|finish|w[ea]|need)\w+ .*\b(?:with(?:out)?|until|till?|before|unless|alone|on (?:your|our) own)\b)",
    r"(?:^\W*|, )whoever(?:'s| is| comes| goes| leaves)\b.* (?:locks|shuts|closes|turns|switches|washes|brings|takes|puts|writes|tells)\b|"
    r"^\W*(?:(?:so|and|then) )?whoever (?!is\b|was\b|it\b|you\b|they\b|knows\b|says\b)\w+s (?:[\w']+ ){1,4}\w{3,}s (?:it|them|the|his|her|their)\b",
    r"^\W*(?:(?:so|and|then) )?the [\w ]{3,30} (?:opens?|closes?|starts?|(?:is|are) (?:shut|closed|open)|moves?) .*\b(?:from (?:tonight|tomorrow|today|now|next week|\w+day|the first)|instead of)\b",
    r"(?:,|\band|\bthen) nobody (?!ever|knows|has|is|was|likes|wants|needs|says|cares|minds|thinks|comes|reads|does\b)\w+s (?!to\b)\w",
)
HOLDS_UNLESS = cue(r"\b(?:unless|whenever)\b")  # which make no rule less than one
NOBODY_OBJECTS = cue(
    r"\bunless (?:i hear|any ?(?:body|one) (?:objects|minds|says|has)|some ?(?:body|one) (?:objects|says))\b"
)
NO_THING = cue(
    r"^\W*(?:(?:so|and|right|okay|then|but|well|for [^,]+)\W+)*"
    r"(?:not the (?!same|first|only|best|worst|point)|no (?!idea|problem|bother|worries|chance|wonder|doubt|need|thank|luck|objections?|comments?|questions?|one\b|it\b|i\b|we\b|you\b))\w+(?: \w+){0,3}\W*$",
    r"^\W*(?:(?:so|fair|right|okay|then|well)\W+)*not this (?:year|month|week|season|time)(?:,? then)?\W*$",
)
I_RATHER = cue(r"\bi(?:'d| would) (?:rather|sooner) (?!not\b)")
PREFERS = cue(r"\bi(?:'d| would) (?:rather|sooner|prefer|like|love|sleep)\b")
NO_MATTER = cue(  # assent that says nothing of what is settled
    r"^\W*(?:(?:yes|yeah|no|oh|well|okay)\W+)*(?:(?:fair enough|that makes sense)(?=\W*$)|that(?:'s| is|'d be| would be) (?:good|fine|great|where|lovely|better|right|true|all right|very|an? (?:great|big|real|huge) (?:help|relief))|i don't mind|we should|"
    r"on principle|otherwise|i'm (?:fine|happy|easy))\b",
    r".*\bput me down\b",
    r"(?:so )?that's a no\b",
    r".*\b(?:but )?not against(?: it)?\W*$",
    r"^\W*[\w' ]{2,20}, h+mm*\W*$",  # `Five, hm.`
    r".*\bwould save (?:us|me)\b",
    r"^\W*(?:(?:so|right|okay|well)\W+)*(?:off (?:we|you) go|for (?:heaven|god|goodness|pity)'?s'? sake)\b",
    r".*\bsomething like that\b",
    r".+\bi can live with (?:that|it)\b.*\bagreed\b",  # two voices that were heard as one
)
APPROVES = cue(
    r"\b(?:live with|stand behind|(?:happy|fine|okay|good) with|all for|agree with|in favour of|nobody needs to vote on) (?:it|that|them)\b"
)
THAT_IS_THAT = cue(
    r"^\W*(?:(?:okay|right|well|good|so|and|then|fine|all right)\W+)*(?:that's (?:that|settled|decided|agreed|what we(?:'ll)? do)|here's what we do|we do it like this|i(?:'d| would|'ll) put it (?:to (?:the|a) vote )?like this|settled|agreed|decided)\W*$"
)
GO_AHEAD = cue(
    r"^\W*(?:(?:yes|yeah|okay|fine|good|sure|right|oh|well)\W+)*(?:go ahead|do (?:it|that)|please do|go on(?:,? then)?|by all means|agreed)\W*$"
)
IN_FAVOUR_OF = re.compile(  # puts to the vote what is named behind it
    r"^\W*(?:(?:so|right|okay),? )?(?:(?:all (?:those )?|those |who(?:'s| is) |hands up )in favour of|all those for|who(?:'s| is) for(?= (?:the|\w+ing)\b)) (?!it\b|that\b|this\b)",
    re.I,
)
MOTION = cue(IN_FAVOUR_OF.pattern, r"\bi(?:'d| would)? (?:move|propose)\b(?! to\b)|\b(?:proposal|motion) is\b")
RESULT = cue(
    r"\bcarried\b|\bso it (?:falls|fails|passes)\b|\bunanimous\w*\b|\b(?:none|nobody|one|two|three|four|five|\d+) (?:against|abstain\w*|abstentions?)\b|\b(?:\w+) to (?:one|two|three|four|none|nil)\b"
)
ACCEPTS = cue(  # another's proposal, and says nothing of it
    r"^\W*(?:(?:so|and|okay|right|well|yes|good|fine)\W+)*(?:i|we) (?:can|could) (?:do|live with|agree to|say yes to) (?:that|it)(?: from (?:today|now|then))?\W*$"
)
TALLY = re.compile(r"\b(?:all |those )?(?:in favour|against|abstentions?)\?", re.I)  # by which hands are called for
OWN_VOTE = cue(  # of one voice, which settles nothing
    r"\bi(?:'m| am| was) (?:against|in favour|for (?:it|that))\b|\bi(?:'ll| will)? abstain\b|\b(?:put|count) me down\b|^\W*i know (?:you|he|she|they|it)\b"
)
COMES_TO = cue(  # what hands come to that were counted
    r"^\W*(?:(?:so|then|and|that means|which means)\W+)+(?:we|it|the|that) ?(?:'s|'re|'ll)?\b(?! (?:can|could|might|should|would|need|have)\b)"
)
COUNTED = cue(
    r"^\W*(?:(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|and|\d+)\W+)*(?:one|two|three|four|five|six|seven|eight|nine|ten|eleven|twelve|\d+)\W*$"
)  # hands
OR_ELSE = cue(
    r"\b(?:and|or) (?:it|you|we|they|that|he|she)(?:'s|'ll|'d|'re| will| would| have| get| gets| is)\b"
)  # `Cut it, and it dies.`
SOMEBODY_SHOULD = cue(r"\bsome ?(?:body|one) (?:should|has to|needs to|must|ought to)\b")
LEAVES_OPEN = cue(r"\bleave (?:it|that|this)(?: one)? open\b")
SAYS_NOT = cue(r"^not\b(?!.*\bthough\b)")  # `Not this year, then.`
SAYS_NO = cue(r"^not [^.?!]*, no\W*$")  # `So she can't come out?` `Not on our rail, no.`
COUNTS_UP = cue(r"\b(?:one|two|three|four|five|a few|a couple of) (?:more )?(?:things?|points?|items?|questions?)\b")
SUMS_UP = cue(
    r"\bso (?:it's|it is|that's) [^,.]{2,30}, (?:\w+) to (?:\w+)\b",
    r"\b(?:the rest|everything else|the others?) (?:stays?|goes|go|waits?|remains?)\b",
    r"^\W*(?:(?:so|then|right|okay),? )+(?:the |that |this )?(?!what|who|how|there|that|it|he|she|they|we|nobody)[\w-]+(?:'s| is| are) out\b",
    r"^\W*(?:(?:so|and|okay|yes|right|well),? )*we(?:'re| are) (?:doing|having|taking|using) (?:it|that|this|them)\W*$",
    r"\byou(?:'ll)? get .{2,30} (?:free|for nothing)\b",
    r"\bit(?:'s| is) (?:a )?(?:no|yes) (?:to|for) (?:the|that|this|your)\b|\bthe answer(?:'s| is) (?:yes|no)\b",
    r"\bthe (?:motion|proposal)(?:'s| is| has been)? (?:lost|carried|defeated|rejected|withdrawn)\b",
    r"\bi(?:'m| am)?(?: going to)? (?:rule|ruling) (?:that|it|this|them) out\b",
    r"^\W*(?:okay|right|good|fine|great|all right|yes)\W+so (?!what|how|who|when|where|why|is\b|are\b|do\b|does\b|did\b|can\b|could\b|i\b|i'|you\b|"
    r"you'|the (?:next|other|last)|there|on\b|um|have|has|let)",
    r"\bgive (?:it|that|them|the [\w ]{2,20}) a miss\W*$|\bit(?:'s| is) a (?:no|yes)(?: from (?:me|us)(?: too)?)?(?:,? then)?\W*$|\bthe answer to .{3,30}(?:'s| is) (?:a )?(?:no|yes)\b",
    r"\bwe(?:'re not going to| are not going to| won't| will not| shan't)\b",
)
THEN_FIRST = cue(
    r"^\W*(?:(?:so|and|right|okay|yes|no|good|well|fine|all right)\W+)*then (?:i think )?"
    r"(?:we(?! (?:can|could|might|would|'d|have|are|were|had|need)\b)(?!'ve|'d)|it's|it is|that's (?:how|what)|(?:the|that) (?!is|was)\w+|"
    r"(?!i\b|i'|you|he\b|she\b|they\b|there|why|what|how|who|when|where|we\b|we'|let)\w+ (?:goes|go|it is|from|on|at|for|to)\b)"
)
IF_ELSE = cue(
    r"^\W*(?:(?:so|and|okay|right|well|then)\W+)*if\b.*\bwe\b.*\b(?:otherwise|if not|if (?:it|they|he|she) (?:isn't|doesn't|aren't|don't))\b"
)
THING_THEN = cue(  # `Batteries, then, and we talk about leasing later.`
    r"^\W*(?:(?:okay|right|so|good|fine|all right)\W+)*(?!(?:so|and|but|well|okay|right|now|what|who|how|when|where|why|"
    r"anyway|yes|no|bye|goodbye|thanks|just|go on|come on|see you|until|by|back|even|only|since|i|we|you|he|she|they|it|"
    r"next|first|last)\b)(?:[\w'-]+ ){0,4}[\w'-]+, then(?:[.,!]|\W*$)"
)
THEN_NOT = cue(r", then,? (?:and )?not\b")  # `Aluminium, then, not oak.`
RULING_VERBS = frozenset(
    "get buy hire leave keep go extend move put take use order drop cancel stick make book stop start close open let add "
    "cut raise build run hold change pick choose skip lower limit refund pay charge print plant paint".split()
)
OPTIONS = cue(  # ways that are still open
    r"\bor (?:we|they|you|i|it|she|he) .+\bor (?:we|they|you|i|it|she|he)\b",
    r"\bthen it(?:'s| is) (?:the |an? )?\w+(?: \w+)? or (?!so\b|two\b|three\b|more\b|less\b|nothing\b)\w",
)
APPROVED = cue(  # said by whoever may, of what is just spoken of
    r"\bi(?:'ll| will| can| could|'m happy to|)? (?:approve|sign off|authori[sz]e|okay) (?:that|it|this|them)\b",
    r"^\W*(?:(?:then|so|okay|right|and|with (?:that|the) \w+),? )*(?:they're |that's |the minutes are |it's |consider (?:it|them) )?approved\W*$",
)
WANTS_BY = cue(r"\b(?:would|'d) (?:want|like|need) .+ (?:by|before) ")
WHEN_DONE = cue(
    r"\b(?:by when|when|how soon) (?:can|could|would|will|do|did) (?:you|i) (?!want|meet|see|need|come|start|begin|deliver|arrive|open)\w"
)  # of a task, and not when somebody comes
DESCRIBES = cue(r"^\W*(?:(?:and|but|well),? )?(?:it's|it is|there's|there are|they're)\b")
TELLS_ONLY = cue(  # what is or was, and when something is done
    r"\bas (?:it|things) (?:is|are|was|stands?)\W*$",
    r"^\W*(?:\w+,? )?i(?:'d| had) thought (?:of|about)\b",
    r"^\W*(?:(?:and|but),? )?i(?:'ve| have) (?:got )?(?:nobody|nothing|no one)\b",
    r"^\W*(?:after|before) [\w' ]{3,25}, when\b[^,]*$",
    r"^\W*(?:please )?don't (?:decide|worry|rush|ask)\b",
)
BY_WHEN = cue(r"^\W*by (?:the )?\w+(?: of \w+)?\W*$")  # `By the first of October.`
WITH_A_DAY = frozenset(  # words beside a day that settle nothing else
    "s not now though fine it is that then on by make say okay the at soon enough let and all right good same time o clock half past quarter to".split()
)
MEETS_AGAIN = "Next meeting: {day}{hour}{place}."
WILLED = cue(
    r"\b(?:will|'ll|shall|should|would|could|can|must|may|let's|going to|then|propose|suggest|move that|agree|agreed|has to|have to|needs? to|not before|until|till?)\b|n't be",
)
PERFECT = cue(
    r"\b(?:i|we|he|she|they|you|it|two|three|four|five|\d+|some|most|nobody|somebody)(?:'ve|'s| have| has|ve) (?:\w+ly |all |just |already )?(?:been|done|had|\w+ed|written|told|sent|seen|gone|got it)\b",
)
TELLING = cue(
    r"^\W*(?:(?:so|and|but|well|yeah|yes|right|okay|only|now|on paper|on principle),?\s+)*(?:there(?:'s| is| are| was)|it (?:only )?turns out|i'm|i am|i've got|he's|she's|they're|that's (?!settled|agreed|it\b|decided|a deal|how (?!it (?:works|goes|is)\b)|what)|it's (?:(?:£|€|\$)?[\d,.]+|in|at|only|about|just|what|half|worth)\b)\b",
)

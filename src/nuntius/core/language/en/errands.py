"""English cues of tasks: what is delegated and accepted without the plain words for it, and what only sounds so."""

import re

from nuntius.core.language.en.cues import cue

NO_ORDER = cue(
    r"^\W*(?:(?:and|but|please)\W+)*(?:don't(?:\W*$| (?!forget\b|let\b))|ask (?:me|us) again\b|tell you what\b|say,)"
)
NO_TASK = cue(  # what may sound like a task of the speaker, and only tells, wants or moves the meeting on
    r"\bwe(?:'ll| will)? (?:then )?(?:decide|vote|settle)\b",
    r"\bi (?:should|could|might|ought to)(?:'ve| have)\b",
    # `The county wants an answer by the end of the month.`
    r"^\W*(?:(?:so|and|but|well|then)\W+)*(?:(?:the|our|my) [\w ]{2,20}|we|they|he|she|it) (?:still |only |also |really )?(?:wants?|needs?) (?!to\b)",
    r"^\W*(?:(?:so|and|but|well|yes|please)\W+)*that's (?:exactly |just )?what (?:i|we|you) (?:need|want)",
    r"^\W*(?:(?:and|but|well|so) )?(?:they|he|she) (?:says?|said|reckons?|thinks?)\b",
    r"^\W*(?:(?:so|then) )?we(?:'ll)? meet (?:again|on|next)\b|\bif i (?:have|need) to\W*$",
    r"^\W*go on(?:,? then)?\W*$|\bshall we say\b|\bput a date on (?:it|that|them)\b",
    NO_ORDER.pattern,
    r"\bi(?:'ll| will) tell you (?:it's|that's|that it)\b|\b(?:tell|ask|ring|call) me and i(?:'ll| will)\b",
    r"^\W*(?:it|that|the [\w ]{2,25})(?:'s| is) due (?:on|by|at|in)\b",
    r"\bi(?:'ll| will) have to (?:look|see|think|go)\W*$",
    # `I've got a spare at home.`
    r"^\W*(?:(?:and|but|so|well|oh)\W+)*(?:(?:(?:in|on|at) )?\w+,? )?i(?:'ve| have) (?:also |only |just |still )?got (?!to\b)",
    r"^\W*(?:an? |the |that |it )\w*(?:'ll| will) do\W*$",  # `A card will do.`
    r"\bi(?:'ll| will)? be (?:running|leading|handling|looking after) (?:this|it|things)\b",  # who is who
    r"^\W*(?:and |so )?i(?:'d| would|'ll| could) (?:start|begin) (?:on|tomorrow|next)\b",  # when, and not what
)
NOT_TO_DO = cue(
    r"\bi(?:'m| am) (?:missing|waiting|hoping|looking forward|thinking|expecting|wondering)\b",
    r"\b(?:that's|this is) what i(?:'m| am) doing\b|\bi(?:'m|'ll be| am) done\b|\bi(?:'ve| have)? (?:got to|need to|have to) (?:leave|go|run|be off)\b(?! (?:to|and|through|over|the|an?|it|that|some|another|one)\b)",
)  # what is done already, or when it will be
HEAR_FROM_ME = cue(
    r"\byou(?:(?:'ll| will)? hear from (?:me|us)|(?:'ll| will) know)\b"
)  # what only describes a task: its day
YOU_FIND = cue(r"\byou(?:'ll| will) find (?:it|them)\b")  # what somebody will have put there
IF_I_DO_IT = cue(r"\bif i (?P<verb>[a-z]+) (?:it|them|that|those) ")  # `if I take it this afternoon, Monday`
IF_YOU_GIVE = cue(r"\bif you(?:'ll| will|'d)? (?:give|send|tell|get|let) (?:me|us)\b")  # all that an offer waits for
IT_WILL_BE = cue(  # what a task comes to, behind the task: `It'll be up by five`
    r"(?:it|that|they)(?:'ll| will) be (?:up|out|in|there|done|ready|with (?:you|them)|finished|sent|back)\b"
)
WAS_GOING_TO = cue(  # an intention that waits for a yes: `I was going to ask Mina.` `Do.`
    r"\bi was (?:going|planning|hoping) to (?=\w+ \w)(?!say\b|ask you\b|suggest\b|be\b|come to\b|mention\b)"
)
IS_DONE = cue(r"^\W*(?:there|so|right|okay)?\W*(?:that's|it's|that is) (?:done|sent|gone|ordered|booked)\b\W*$")
ASKS_HOW = cue(  # about a task that is not refused by it: `Get us fifty.` `On what card?`
    r"^\W*(?:(?:okay|sure|yes|right),? )?(?:(?:on|for|with|from|by|to|at|in) )?(?:what|which|when|where|how (?:many|much|soon)|who)\b|^\W*(?:now|today|tonight)\W*$"
)
GLADLY = cue(r"\b(?:with pleasure|gladly|happy to|will do)\b")
MAY_I = cue(  # asked leave for
    r"^\W*(?:(?:and|so|but|oh|well|then),? )?(?:can|could|may|might) i (?!(?:just |quickly )?(?:ask|say|add|come|do|get|have|try|see|go|interrupt|suggest|raise|stop|hear|be|check|clarify|tell|leave|help|speak|start|finish|sit|use|think|make a|put (?:it|that) (?:like|this)|offer|propose|know|understand|believe|count|trust|live)\b)"
)
LETS = cue(  # gives leave
    r"^\W*(?:(?:oh|yes|yeah|sure|of course),? )?(?:please do|do,? please|as long as|so long as|by all means|go ahead|please)\b"
)
_DOING = "book|film|order|ring|call|write|print|send|bring|fetch|buy|ask|tell|pay|draw|sign|fill|take|put|make|do|get|check"  # what somebody may be asked to do
NAMED_YOU = cue(  # `Lotte, you book it then.`
    r"^\W*(?:(?:so|right|okay|good|and|then)\W+)*[a-z]+, you (?=(?:" + _DOING + r") )",
    r"^\W*(?:(?:so|right|okay|good|and|then)\W+)*you (?=(?:" + _DOING + r") [^,?]+, [a-z]+\b)",
)
ORDER_ASKED = cue(  # `Put that on the leaflet, Wing?`
    r"^\W*(?:(?:and|so|then|okay)\W+)*(?:book|order|ring|write|print|send|bring|ask|tell|put|keep|check|add|mail|take) [^?]+, [a-z]+\?\W*$"
)
DO_IT_THEN = cue(
    r"^\W*(?:(?:and|then|so|okay|well|yes),? )*(?:do|ring|ask|try|order|book|buy|bring|send|write|get|draw|print|fetch|make) (?:one|two|three|it|them|that|him|her|some)(?: then)?\W*$"
)
I_COULD = cue(  # what somebody could do, or would
    r"^\W*(?:(?:and|then|well|so|or),? )*i(?:'d| would| could| can| might) (?!rather\b|like\b|love\b|say\b|not\b|never\b|be\b|have\b|think\b|want\b|need\b)\w+ \w"
)
EASILY = cue(  # `Mm, easy.`, `I'd rather do that myself.`
    r"^\W*(?:(?:mm+|yes|yeah|oh),? )?(?:easy|easily)\W*$|\bi(?:'d| would) (?:rather|sooner) do (?:it|that|this) myself\b"
)
WHO_DOES = cue(  # `Who goes round with the tin?`
    r"(?:^|[.,;!?]\s+|\b(?:and|so|but|well)\s)who (?:goes|sits|stands|stays|talks|speaks|drives|looks|picks|meets|watches) \w",
    r"\b(?:can|could|will|would|should) one of us\b|\b(?:which (?:one )?of you(?:'s| is)|is any(?:body|one)) \w+ing\b",
)
BE_THERE = cue(
    r"^\W*(?:okay,? |right,? |fine,? |yes,? )?i(?:'ll| will) be there\W*$"
)  # `When?` `Thursday at four.` `I'll be there.`
PUT_ME_DOWN = re.compile(r"^\W*(?:you can )?put me down for (?P<thing>(?:the|that|those)(?: \w+){1,4})\W*$", re.I)
ME_THEN = cue(r"^\W*(?:(?:oh|all right|okay|fine|go on)\W+)+(?:me|i will)(?:,? then)?\W*$")
DOES_NOT_MIND = cue(r"^\W*i don't mind\b(?! (?:if|what|which|who|how|when))")  # `Who'd ring them?` `I don't mind.`
BOTH_PART = re.compile(r",? (?:and )?you (?:both|all|two) .*", re.I)  # `I'll fill in the form, you both sign it`
STANDS_IN = cue(r"^\W*(?:then )?i(?: can| could|'ll| will) do (?:it|that)\b")  # for somebody who cannot
ASKS_TO_HAVE = cue(r"\b(?:could|can|may) (?:i|we) have (?!a (?:look|word|go|minute|moment|vote)\b)\w")
YOU_GO = cue(  # `You go to Ferreira's before service and get a pair.`
    r"^\W*(?:(?:so|right|okay|good)\W+)*you (?:go|take|ring|call|get|bring|send|write|ask|tell|start|leave|put|give) (?!on\b|up\b|a lot\b|used\b|to know\b|that\b)\w"
)
AND_NAME_TO = re.compile(r",? (?:and )?(?P<name>[A-Z]\w+) to (?=\w)")  # `Ben to chase them, Cleo to book the hall`
AND_YOU = cue(  # `I'll have it unblocked and then, Ollie, you order four.`
    r",? and (?:then,? )?(?:(?:[a-z]+, )?you|[a-z]+,) (?=(?:count|order|send|ring|call|book|write|bring|fetch|buy|print|ask|tell|put|get|make|check|do|take|give|pay|draw|sign|fill|"
    r"push|move|set|find|look|clean|clear|collect|fix|hold|keep|open|lock|run|cut|paint|wash|talk|speak|mail|pick|drive|sand|sort|sweep|read) )"
)
THEN_YOU = cue(  # `Then you pack on the eighteenth.`
    r"^\W*(?:(?:so|okay|right|well|good|fine)\W+)*then you (?=(?:[a-z]+)\b)(?!(?:are|were|had|have|did|do|don't|can|can't|could|would|will|should|must|want|need|know|see|get|got|think|lose|find|said|say|were|may|might|just|only|both|all)\b)"
)
THEN_ID = cue(  # `Then I'd take the tutorial.`
    r"^\W*(?:(?:so|okay|right|well)\W+)*then i(?:'d| would) (?!be\b|have\b|like\b|say\b|rather\b|want\b|need\b|love\b|prefer\b|suggest\b|propose\b|think\b|never\b|not\b)(?=\w+ \w)"
)
# `Somebody has to be here at seven.` `I'm here at quarter to anyway.`
IS_THERE = cue(r"^\W*i(?:'m| am) (?:(?:down|up|over|out|round) )?(?:here|there|in|around)\b(?!.*\?)")
# by asking whom something is found out
FINDS_OUT = cue(r"^(?:look (?:it|that|this|them) up|find (?:it|that|this|them)? ?out|check|see whether|find out)\b")
ASKS_FOR_IT = cue(r"^(?:ask|ring|call|mail|write to|look|see)\b")
SHALL_I = cue(r", shall i(?=\W*$)")  # `I'll book it, shall I?`
TO_EACH = cue(
    r"\byou(?:'ve| have|'re)?(?: got)? (?:each|all)\b|\b(?:each|all|both) of you\b"
)  # said before what all do
HAVE_DONE = cue(
    r"^\W*(?:(?:and|but|so|well)\W+)*i(?:'ve| have) (?:ordered|bought|booked|sent|asked|told|paid|rung|written|reported)\b"
)
APPOINTS = cue(
    r"^\W*(?:(?:well|oh|that's)\W+)*you (?:do|can|will)\b(?!.*\?)"
)  # `Who briefs them?` `You do, Patrick, at five.`
TELLS = cue(  # what a parser may miss: `Order one.`
    r"^\W*(?:(?:and|then|so|right|okay)\W+)*(?:read|learn|order|book|buy|bring|fill|sign|send|hand|write|take|get|check|mail|print) (?:in |out )?(?:one|two|three|it|them|that|the|an?|some|me|us|him|her|chapter)\b"
)
SENDS_IT = cue(  # `Send it round on Monday`, of what somebody has just taken on
    r"^\W*(?:(?:then|and|good|great|okay),? )*(?:send|give|bring|show|mail|pass|hand|let me have) (?:(?:me|us) )?(?:it|them|that)\b"
)
ELSEWHERE = cue(r"^\W*(?:sorry,? )?i(?:'m| am) (?:at|in|off|away|out|on)\b")  # on the day that was named
SO_ILL = cue(
    r"^\W*(?:(?:okay|right|good|great|and|well),? )?(?:so|then) i'll (?!just ask|ask you|see you|have to)"
)  # `So I'll send it round, and we talk on Monday?`
THEN_I_WILL = cue(
    r"\bif (?:i|you|we|they|he|she) [^,.]{3,50}?(?=,? (?:i'll|i will|i can|we'll) )"
)  # `if I get it on the second I'll …`
I_WANT = re.compile(  # `I'd like to have your comments by Monday`
    r"\bI(?:'d| would|'ll| will)? (?P<lead>(?:really |also )?(?:like|want|need)(?: to have)?(?: from (?:you|both of you|all of you))? )(?=(?:your|all your|those|the|that|an?|two|three|every(?:one|body)'s) \w|it (?:in writing|on paper)\b)(?! (?:it|that) to\b)",
    re.I,
)
FROM_EVERYBODY = cue(r"\bevery(?:one|body)'s\b")
GIVE_ME_FOR = re.compile(  # `Give me until Monday for the report.`
    r"^\W*(?:[\w ]{0,20}, )?(?:just )?give me (?:until|till) [\w' ]{3,25}? (?:for|to (?:do|finish)) (?P<thing>(?:the|that|those)(?: \w+){1,4})\W*$",
    re.I,
)
WE_NEED = re.compile(  # `We'll need three quotes.` `Give me a fortnight.`
    r"^\W*(?:(?:and|so|then|okay),? )*(?P<who>we|I)(?:'ll| will)? (?:still )?need (?P<thing>(?:an?|the|some|two|three|four|new|another) [\w' ]{3,50}?)(?: from you)?(?:, [A-Z]\w+)?\W*$",
    re.I,
)
OF_BOTH = cue(r"\b(?:both|each|all) of you\b|\byou (?:both|all|two)\b")
BY_WHEN_MINE = re.compile(  # `By when do you need my figures?`
    r"^\W*(?:(?:and|so|okay|right),? )?(?:by when|when|how soon) (?:do|would|will|d') ?you (?:need|want|like)(?: to have)? (?P<thing>(?:my|the|that|those|this|a|an) [\w ]+?)(?: by)?\W*$",
    re.I,
)
CAN_BE_DONE = re.compile(  # `Can the translation be done in a fortnight?`
    r"\b(?:can|could|will|would) (?P<thing>(?:the|that|this|those|these|your|a|an)\b(?: \w+){1,4}?) be (?P<done>done|ready|finished|fixed|sent|printed|written|delivered|emptied|cleared|cleaned|painted|mended|repaired|moved|ordered|booked|checked|up|out|in|in place|here|with (?:us|me|them)|there)\b",
    re.I,
)
WHEN_CAN_WE = re.compile(  # `When can we see a first version?`
    r"^\W*(?:(?:and|so|okay|right),? )?(?:when|how soon) (?:can|could|will|do|shall) (?:I|we) (?P<verb>see|have|get|expect) (?P<thing>[\w' ]+\?)$",
    re.I,
)
MINE_BY = re.compile(  # `So my report by the end of July, to be safe.` `If you could.`
    r"^\W*(?:(?:so|then|right|okay),? )*my (?P<thing>[\w ]{3,30}?) (?:by|before) ", re.I
)
WHEN_COULD_YOU = re.compile(  # `When could you come and look?` `On the Wednesday.`
    r"^\W*(?:(?:and|so|okay|right),? )?(?:when|how soon) (?:could|can|would|will) you (?P<do>(?:come|deliver|send|look|do|finish|let|bring|start)\b[^?]*)\?$",
    re.I,
)
DOES_DAY = re.compile(
    r"\w+\s+(?=does (?:(?:her|his|my|your|the|on) )?(?:\w+day|weekend|\w+th)\b)"
)  # `Trudy does Saturday`
MAY_I_GET = re.compile(  # `Could I get your feedback by Thursday?`
    r"\b(?:would it be possible to have|(?:could|can|may) I (?:get|have)) (?P<thing>(?:your|the|those|that|an?)(?: \w+){1,4}?) (?=(?:by|before|on)\b)",
    re.I,
)
COMING_ON = re.compile(  # `How's the report coming?` `I'd say Tuesday.`
    r"^\W*(?:(?:and|so),? )?how(?:'s| is| are) (?P<thing>(?:the|that|those|your)(?: \w+){1,4}?) (?:coming(?: along| on)?|getting on)\?$",
    re.I,
)
ID_SAY = cue(r"\bi(?:'d| would) say (?:by |on )?(?:\w+ )?\w+\W*$")
GETTING_ON = re.compile(  # `How are you getting on with the accounts?` `Give me another week.`
    r"^\W*(?:(?:and|so),? )?how (?:are you|far are you)(?: getting on)? with (?P<thing>(?:the|that|those|your)(?: \w+){1,4})\?$",
    re.I,
)
HAVE_YOU_GOT = re.compile(  # `Have you got the figures for me?` `End of the afternoon.`
    r"^\W*(?:(?:and|so),? )?(?:have you got|where are|where's|where is) (?P<thing>(?:my|the|those|that) [\w' ]+?)(?: for (?:me|us))?\?$",
    re.I,
)
I_AM = cue(
    r"^\W*(?:(?:well|oh|that's|i (?:guess|suppose)),? )?(?:i (?:am|do|will|can|shall|could)|me(?: again| then| this time|,? then)?|that(?:'s|'ll be| will be) me|mine)\b(?:,? i (?:suppose|guess|think))?\W*$"
)  # `Who's telling them?` `I am.`
HOW_ABOUT_I = cue(  # `How about I show you on Monday?`
    r"^\W*(?:(?:and|so|or|well),? )?(?:how about|what if|suppose) i (?=(?!was\b|were\b|had\b|did\b|am\b)\w+ )"
)
SUITS = cue(  # takes up what was offered: `Monday's great.`, `Great, thank you.`
    r"^\W*\w+(?:'s| is) (?:great|perfect|good|fine|lovely|all right|brilliant)\b",
    r"^\W*(?:(?:oh|great|lovely|good),? )?(?:thank you|thanks)\b",
    r"^\W*(?:enormously|please|perfect|brilliant|great|lovely)\b",
)
POLITELY = cue(  # `If you could do me a list, that'd be lovely.`, `Could I ask you to have a word?`
    r"^\W*(?:and |so )?if you could [^,]{6,70}, (?:that'd|that would|it'd|it would|i'd) be (?:\w+ )?"
    r"(?:lovely|great|good|wonderful|helpful|kind|nice|grateful|perfect|brilliant|a help)\b",
    r"\bi(?:'d| would) be (?:very |so )?grateful if you(?:'d| would| could)\b",
    r"\bi(?:'d| would)? (?:suggest|recommend)(?: that)? (?=you (?!can|could|might|may|are|have\b)\w)",
    r"^\W*(?:is there )?any (?:chance|way) (?:that )?(?=you(?:'d| could| can| would)\b)",
    r"\b(?:could|can|may) i (?:just )?(?:ask|trouble|leave|get) you to\b",
    r"\b(?:could|can|may) i leave it (?:to|with) you to\b",
)
YOU_NEED_TO = cue(  # `You'll have to chase them, Ben.` `I know.`
    r"^\W*(?:(?:so|and|but|then|well|right|\w+),? )?you(?:'ve got to| need to| have to|'d (?:better|best)| must|'ll need to|'ll have to) "
    r"(?!(?:be|have|know|see|understand|remember|think|say|admit|laugh|ask yourself|wait)\b)(?=\w+ \w)"
)
READY_TO = cue(
    r"^\W*(?:(?:i )?can do|i(?:'d| would) (?:be happy|love|like|be glad) to|happy to|gladly|with pleasure|i wouldn't mind|(?:i'm )?on it|why not|i(?:'ve| have) got (?:it|that))\W*$|^\W*(?:give|leave) (?:it|that) (?:to|with) me\b|^\W*(?:happy|glad) to (?:do|take|own|see to|pick|help|look)\b"
)  # `We need somebody at the gate.` `Can do.`
AS_YOU_LIKE = cue(  # takes on what was asked
    r"^\W*if you (?:want|like|insist|say so|wish)\W*$",
    r"^\W*you can\W*$",
    r"^\W*(?:i'm )?(?:already |just )?doing (?:it|that)\b",
    r"^\W*(?:mm+|mhm|mm-hm+|it could|just this once|one last time|not at all|of course not|no worries|sure thing|(?:(?:that|it) )?should be (?:fine|doable|possible|all right)|(?:it|they|everything|that)(?:'ll| will) be (?:done|ready|there|in|\w+ed)|with (?:a|an|my|one) \w+(?: \w+)?)\W*$",
    r"^\W*it's (?:already )?on my list\b",
    r"^\W*if (?:i must|i have to|somebody|someone|one of you|you (?:help|give|send|get|lend))\b",
)
SEALED = cue(r"^\W*(?:it's a |that's a )?(?:done|deal|sold|you're on)\W*$")  # `I can do the raffle tickets.` `Done.`
IF_YOU_WOULD = cue(r", if you (?:would|could|don't mind|can)\W*$")  # behind an instruction
ID_BETTER = cue(  # `I'd better ring them.`, `I must remember to cancel it.`
    r"(?<!thinking )(?<!thought )(?<!said )\bi'd better (?!(?:be|not|go\W*$|get going|get on|get back|get off|stop|shut|start|leave|say|let you)\b)(?=\w+ \w)",
    r"\bi (?:must|have to|need to|'ve got to|should|mustn't|must not) (?:remember to|not forget to|forget to) (?=\w)",
)
LEAVE_TO_ME = re.compile(  # `Leave the curtains to me.`, `Leave it with me.`
    r"\bleave (?P<thing>(?:the|that|those|my|your|our)(?: \w+){1,3}|it|that|this|them) (?:with|to) me\b",
    re.I,
)
YOU_AND = re.compile(r"\b(?:can|could|will|would) you and (?P<name>[A-Z]\w+)(?= \w)")  # `Can you and Joan sort it out?`
HAPPY_TO = cue(
    r"^\W*i(?:'m| am|'d be| would be) (?:\w+ )?(?:happy|glad) to\b"
)  # `I'm happy to host again.` `Great, thank you.`
NO_PROMISE = cue(  # what only begins like one
    r"\bi(?:'ll| will) give (?:you|them|him|her) (?:till?|until)\b",
    r"\bi(?:'ll| will) let you go\b|\bi'll get my coat\b|\bi(?:'ll| will) (?:manage|cope)\W*$|\bi(?:'ll| will) hold (?:you|him|her|them) to (?:that|it)\b",
    r"\bi(?:'ll| will) be back in (?:an?|one|two|three|five|ten) (?:minutes?|moment|second|sec|hour)\b",
    r"\bi(?:'ll| will) do (?:it|that) if you (?:don't|won't|can't)\b",
    r"\bi(?:'ll| will) tell you (?:who|why|something|one thing|what[,.])",
)
BESIDE_ME = re.compile(r"\b(?P<name>[A-Z]\w+) and I(?:'ll|'m| will| can| could)? (?=\w)")  # who takes a part
ONLY_COULD = cue(
    r"\bi (?:could|can|would|will),(?! (?:um+|uh+|er+m?|you know|i mean)\b)"
)  # `I could, I see him tomorrow.`
GET_BACK = cue(r"\s*(?:come|get) back to (?:you|them|him|her)\b")  # with an answer
LET_KNOW = cue(r"\bwe(?:'ll| will) let (?:you|them|him|her|everyone|everybody) know\b")
SHALL_IT_BE_ME = cue(r"\b(?:shall|should) i\b[^?]*\?|\bwant me to\b[^?]*\?")
WISHES = cue(r"\bi(?:'d| would) (?:like|love) to (?:see|have|hear|know|understand)\b")
FROM_ME = re.compile(
    r"\b(?P<whom>you|they|he|she|(?:the|everybody|everyone|all)(?: \w+){0,4}) (?:'ll |will )?gets? (?P<thing>(?:an?|the|my|some) [\w ]+?) from me\b",
    re.I,
)  # `The other ten get a letter from me this week.`
SPEAKS_TO = cue(
    r"^(?:ask|ring|call|tell|mail|talk to|speak to|thank|phone|text) (?:him|her|them)\b"
)  # a task of its own behind `Get four`
TAGGED = cue(r", (?:all right|okay|ok|right|yeah)\?\W*$")  # behind what is no question: `I'll do it today, all right?`
KNOWS = cue(r"^\W*(?:yes,? )?i know\b\W*$")  # behind `You'll have to chase them, Ben.`
MAY_WE_HAVE = re.compile(  # `Can I have your hours?`
    r"^\W*(?:(?:and|so),? )?(?:can|could|may) (?:I|we) have (?P<thing>(?:your|the|those|that|all) [\w ]+?)\?\W*$", re.I
)
I_CAN = cue(  # `I can take them.` `Perfect.`
    r"^\W*(?:(?:oh|well|yes),? )?i can (?!(?:do|lend|give you|let you|offer|see|hear|approve|sign (?:it|that) off|imagine|live|"
    r"understand|believe|remember|tell you|say|come|be|make|only|think|feel|manage)\b)(?=\w+ )"
)
OWN_TURN = cue(  # `The next thing for me is to write it up.`
    r"\bnext (?:thing|step|job) for me is to (?=\w)",
    r"\b(?:that's|that one's) for me to (?=\w+ \w)",
    r"\bit's my (?:turn|job) to (?=\w)",
    r"\bmy (?:next )?(?:job|task|part) (?:now )?is to (?=\w)",
    r"\baction (?:is |point )?(?:on|for) me(?:,? then,?)? to (?=\w)",
)
LET_ME_HAVE = re.compile(  # `Let me have your expenses, both of you.`
    r"^\W*(?:(?:and|so|then),? )?let me have (?P<thing>(?:your|the|those|that|an?|all) [\w ]+?)(?=,|\.|$| by\b| before\b| on\b)",
    re.I,
)
YOU_AND_I = re.compile(  # `You and I should sit down with the numbers.`
    r"^\W*(?:(?:so|and|then|right),? )?(?:you and I|the two of us) (?:should|could|need to|must|ought to|will|'ll|have to) (?=\w+ \w)",
    re.I,
)
ASKS_FIRST = cue(
    r"^(?:ask|check|find out|look|ring|call|try|talk to|speak to|see whether)\b"
)  # whose answer may be promised
ANSWERS = cue(
    r"^(?:send|give|get|let|mail|text|bring) (?:you|them|him|her|\[\w+\]) (?:have )?(?:an? (?:answer|reply|yes or (?:a )?no)|know)\b"
)

"""English cues of the kinds of line that only some templates ask for: needs, steps, surprise."""

from nuntius.core.language.en.cues import cue

NEED = cue(
    r"\b(?:we|i)(?:'d| would) (?:really |just |also |rather )?(?:need|want|like|prefer|love)\b",
    r"\bwe (?:really |just |also |do |only |still )?(?:need|want|must have|have to have|can't do without)\b",
    r"\bwhat (?:we|i) (?:really |actually )?(?:need|want)\b",
    r"\bi (?:really |just |also |do |only )?(?:need|want) (?:it|them|the|a|an|to be|something)\b",
    r"\b(?:it|that|they|everything) (?:must|has to|have to|needs? to|should) (?:be|have|go|come|fit|work|last|hold|stand|reach)\b",
    r"\b(?:is it possible|would it be possible|is there (?:a|any) way|can (?:it|they|you) also|could (?:it|they|you) also)\b",
    r"\bit(?:'s| is) important (?:to|for|that)\b",
    r"\b(?:he|she|they|\w+er|\w+'s \w+|the \w+)(?:'d| would) (?:really |just |also )?(?:like|rather|prefer|love|want)\b|\b(?:he|she|they|\w+er|the \w+) (?:really )?(?:insists?|needs? (?!to know)|expects?)\b",
    r"\b(?:they|it|that|this|everything|everybody|everyone) (?:have|has|need|needs|must) (?:got )?(?:to )?be\b",
    r"\b(?:could|can|would|will) (?:we|you|it|that|they|the \w+) (?!just\b|not\b|say\b|hear\b|see\b|ask\b|believe\b|repeat\b|explain\b|tell\b).*\?",
    r"\bi(?:'d| would) (?:want|expect)\b|\bi want (?!to (?:say|ask|know|hear)\b)\w+",
    r"\bwhat matters (?:to|for) (?:me|us)\b|\bthe most important thing\b|\bfirst (?:of all|thing)\b.*\b(?:need|want)",
)
OBJECTION = cue(
    r"\btoo (?:expensive|dear|much|late|long|slow|small|big|heavy|short|dark|loud|high|low|risky|tight)\b",
    r"\b(?:that|it|this|which) (?:won't|doesn't|isn't going to|is not going to|can't|will not) (?:do|work|fit|help|be enough|last|hold)\b",
    r"\bi(?:'m| am) (?:a bit |rather |quite |still )?(?:worried|concerned|not happy|unhappy|not sure|uneasy|nervous)\b",
    r"\bwe(?:'re| are) (?:a bit |rather |quite |still )?(?:worried|concerned|not happy|unhappy|uneasy)\b",
    r"\b(?:my|our|the) (?:only |main |biggest |one )?(?:worry|concern|problem|trouble|fear) (?:is|was|with)\b",
    r"\bcan(?:'t|not) (?:afford|accept|live with|wait|have that)\b",
    r"\bwhat i (?:don't|do not) (?:want|like)\b",
    r"\b(?:last time|before) .{0,40}\b(?:broke|failed|late|wrong|leak\w*|fell|cold|dirty|missing)\b",
    r"\b(?:one|another|my) (?:more )?(?:worry|worries|concern|complaint|fear)\b|\bwhat (?:worries|frightens|annoys|bothers) (?:me|us)\b",
    r"\bi (?:don't|won't|can't) (?:sign|pay|have|accept)\b|\bwe can't (?:see|pay|sign|have)\b|\b(?:my|our) \w+ (?:are|is) too\b",
    r"\bi don't (?:like|think (?:they|he|she|we|people|it)(?:'ll| will|'d| would) (?:be happy|like|work))\b|\bi(?:'d| would) hate\b",
    r"\b(?:that's|it's|they're|it is|that is) (?:still )?(?:more|dearer|longer) than\b|\bi still can't\b|\bi can't (?:use|open|have|do with)\b",
)
MET = cue(
    r"\b(?:i|we)(?:'ll| will| can| could|'re going to|'ve already|'d(?! have to| know| hate| rather| like| love| say))\b(?! (?:tell them|see|have a think)\b)",
    r"\b(?:no problem|that's fine|of course|certainly|included|included in|already (?:in|done|there)|that's (?:in|covered)|comes with|guarantee\w*|can be done|you'll have|you'll get)\b",
    r"^\W*(?:yes|yeah|sure|absolutely|definitely)\b|\bit(?:'ll| will) (?:be|go|come)\b",
    r"\byou (?:can|could) (?:have|add|do|put|get|take)\b|^\W*(?:you (?:can|could)|then it's|they've got an?)\b|\bthere's nothing\b",
)
OFFERS = cue(  # what the side says that has something to sell
    r"\byou(?:'ll| will| can| could|'d) (?:have|get|take|add)\b|\bour (?:crews?|contracts?|engineers?|price|offer)\b",
    r"\b(?:i|we)(?:'d| would|'ll| will| can| could) (?:do|put|get|have (?:it|them)|offer|send you|hold|take \w+ off|be at)\b",
)
WH = cue(r"^\W*(?:(?:so|and|but|well|okay|right|now),?\s+)*(?:what|when|where|why|how|who|which)\b")
TO_LEARN = cue(
    r"\blet me (?:say|tell you|ask)\b",
    r"\b(?:like|want|need|love) to (?:hear|know|ask|see (?:what|how|whether|if)|understand|talk|begin|start|do it)\b",
)
UNMET = cue(
    r"^\W*(?:no|sorry|unfortunately|i'm afraid)\b",
    r"\b(?:can't|cannot|won't|not possible|impossible|unfortunately|i'm afraid|not before|not until|out of the question)\b",
)
SEQUENCE = cue(
    r"^\W*(?:(?:so|okay|right|now|and)[,.]?\s+)*(?:first(?: of all)?|firstly|second(?:ly)?|third(?:ly)?|next|then|after that|finally|lastly|step \w+|once|when (?:it|that|the|you))\b",
    r"\byou (?:have to|need to|must|should|want to|then|just|always|can)\b",
    r"\bthe (?:first|second|third|next|last|final) (?:thing|step)\b",
)
WARNING = cue(
    r"\b(?:never (?!forg|ever|had|was|did|\w+ed\b)|make sure|be careful|careful|watch out|watch (?:that|for)|beware|mind (?:that|the|your)|do not|don't (?!you|we|worry|mind|know|think)|must not|mustn't|dangerous|whatever you do|important not to)\b",
)
NO_STEP = cue(  # what is so then, and nothing that one does: `Then it's half eight.`
    r"^\W*(?:(?:so|okay|right|now|and|then|after that|before that)[,.]?\s+)*(?:it|there|they|that|he|she)(?:'s|'re|'ve|'ll| is| are| has| have)\b"
)
EXCEPTION = cue(
    r"\b(?:unless|except|only if|the exception|if it (?:doesn't|won't|isn't|sticks|fails)|if that (?:doesn't|fails))\b"
)
SURPRISE = cue(
    r"\b(?:really|seriously|that (?:much|many|little|late|long|few)|how (?:much|many)|as much as that|as many as that)\s*\?",
    r"\b(?:wow|blimey|good (?:grief|heavens|lord)|goodness|gosh|oh dear|ouch|you're (?:joking|kidding)|i (?:didn't|hadn't) (?:know|expect\w*|realise\w*)|more than (?:i|we) (?:thought|expected)|less than (?:i|we) (?:thought|expected)|i thought it (?:was|would be))\b",
)
AGAINST = cue(
    r"^\W*(?:no|hang on|wait|hold on|but)\b.{12,}",
    r"\bi (?:don't|do not) (?:agree|think (?:we|that|it|so)|like)\b|\bi(?:'m| am) against\b|\bi disagree\b|\bi object\b|\bi(?:'d| would) be against\b",
)

"""English nouns and adjectives that name no subject, and nouns that name people."""

import re

DULL = frozenset(
    "agreed anybody anything april august back bit breath brilliant cent course day days december end euro "
    "evening everyone excuse face fact favour february fifty fine first forty friday god good guy half head "
    "hello hour huh hundred idea january july june kind lad list lord lot march may mine minute moment "
    "monday month morning name night nothing noted november number october okay one ones opinion part people "
    "person place plus point pound question rest saturday second seconder september somebody something sort speaker "
    "sunday sure thing things thousand thursday time times today tomorrow tonight tuesday understood voice way "
    "wednesday week weeks yeah year yep yesterday ".split()
)
NO_TITLE = frozenset(  # measures and the like, which may be what talk turns to but make no title
    "abstention acre bottom couple degree dollar dozen everybody front gram hectare kilo kilogram litre man metre mile "
    "mistake nobody other page past pence penny percent quid ton tonne top woman".split()
)
VAGUE = frozenset(  # adjectives that a title goes without
    "good great big little new old other same next last first whole many more few such own right sure real bad enough wrong".split()
)

MAN = re.compile(r"(?:\w*man|boy|lad|chap|guy|husband|father|dad|uncle|brother|son|nephew|groom)")
WOMAN = re.compile(r"(?:\w*woman|girl|lady|wife|mother|mum|aunt|sister|daughter|niece|bride|widow)")
TITLE_OF_MAN = re.compile(r"(?:mr|sir|lord|father|brother|king|prince)\.?", re.I)
TITLE_OF_WOMAN = re.compile(r"(?:ms|mrs|miss|lady|sister|mother|madam|queen|princess)\.?", re.I)
PERSON = re.compile(
    rf"{MAN.pattern}|{WOMAN.pattern}|\w{{3,}}(?:ist|ian)|cousin|neighbour|friend|guest|doctor|nurse|vet|chef|cook|boss|"
    r"manager|head|secretary|treasurer|clerk|caretaker|plumber|roofer|builder|solicitor|lawyer|accountant|auditor|"
    r"surveyor|architect|engineer|inspector|assessor|officer|captain|skipper|driver|teacher|trustee|tenant|landlord|"
    r"customer|client|supplier|director|chair|councillor|member|volunteer|apprentice|trainee|expert|agent|priest|vicar|"
    r"owner|kid|child|parent|aider"
)

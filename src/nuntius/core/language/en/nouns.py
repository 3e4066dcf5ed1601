"""English nouns and adjectives that name no subject, and nouns that name people."""

import re

DULL = frozenset(
    "abstention acre agreed anybody anything april august back bit bottom breath brilliant cent couple course day "
    "days december degree dollar dozen end euro evening everybody everyone excuse face fact favour february fifty "
    "fine first forty friday front god good gram guy half head hectare hello hour huh hundred idea january july "
    "june kilo kilogram kind lad list litre lord lot man march may metre mile mine minute mistake moment monday "
    "month morning name night nobody noted nothing november number october okay one ones opinion page part pence "
    "penny people percent person place plus point pound question quid rest saturday second seconder september "
    "somebody something sort speaker sunday sure thing things thousand thursday time times today tomorrow ton "
    "tonight tonne top tuesday understood voice way wednesday week weeks woman yeah year yep yesterday".split()
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

"""English nouns and adjectives that name no subject."""

DULL = frozenset(
    "anybody anything april august back bit breath brilliant cent course day days december end euro "
    "evening everyone excuse face fact february fifty fine first forty friday god good guy half head "
    "hello hour huh hundred idea january july june kind lad list lord lot march may mine minute moment "
    "monday month morning name night nothing november number october okay one ones opinion part people "
    "person plus point pound question rest saturday second september somebody something sort speaker "
    "sunday sure thing things thousand thursday time times today tomorrow tonight tuesday voice way "
    "wednesday week weeks yeah year yep yesterday ".split()
)
VAGUE = frozenset(  # adjectives that a title goes without
    "good great big little new old other same next last first whole many more few such own right sure real bad".split()
)

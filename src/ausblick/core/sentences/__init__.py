"""What is told to people: a sentence by its id with its parameters, and one table of what is said."""

from .lengths import Units, feet, length, size
from .rounding import digits
from .say import say, shutter
from .sentence import Sentence, few, tell
from .table import SENTENCES

__all__ = ["SENTENCES", "Sentence", "Units", "digits", "feet", "few", "length", "say", "shutter", "size", "tell"]

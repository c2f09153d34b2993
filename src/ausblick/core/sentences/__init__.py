"""What is told to people: a sentence by its id with its parameters, and one table of what is said."""

from .say import digits, say, shutter
from .sentence import Sentence, tell

__all__ = ["Sentence", "digits", "say", "shutter", "tell"]

"""The stand-in: a set as somebody built it, with a camera and a meter that show it."""

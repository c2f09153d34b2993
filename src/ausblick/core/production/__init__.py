"""A day of shooting: its shots, people and outfits, what it costs to go from one shot to the next, in which order."""

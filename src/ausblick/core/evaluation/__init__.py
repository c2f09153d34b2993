"""A plan evaluated: the one place where the parts meet, its results, and why each number is what it is."""

"""Takes: what is logged of them, what has changed since the reference take, the clean plate, what is missing."""

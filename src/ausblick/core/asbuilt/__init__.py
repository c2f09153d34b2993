"""The set as it was really built: a stand-in for it, and what a frame tells of it."""

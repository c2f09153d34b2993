"""What is remembered between one question and the next, and how much of it."""

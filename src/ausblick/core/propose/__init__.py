"""From what there is to what could be: which framings a room allows, and whole set-ups."""

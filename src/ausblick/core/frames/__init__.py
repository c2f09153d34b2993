"""Reading real frames and clips: find the screen, levels, spots, noise, edges, drift."""

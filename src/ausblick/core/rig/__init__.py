"""Hanging and lighting as work: materials, clamps, ballast, circuits, wardrobe, and the cautions with them."""

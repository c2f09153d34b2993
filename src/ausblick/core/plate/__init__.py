"""Reading a plate: its levels and colour, the camera it was taken with, where its light comes from."""

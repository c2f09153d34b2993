"""Light on the set: lamps, shadows, what comes back from every surface, spill, mirrors, the cloth."""

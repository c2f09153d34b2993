"""The matte: the keyer, the simulated test key, its quality, and what one change would gain."""

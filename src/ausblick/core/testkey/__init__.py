"""The simulated test key: the frame that the plan would record, keyed, and held against its true matte."""

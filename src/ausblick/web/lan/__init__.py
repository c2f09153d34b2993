"""The second way in: for devices on the set's network."""

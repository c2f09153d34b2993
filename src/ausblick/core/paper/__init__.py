"""The set on paper: what is drawn to scale, and the tables that somebody builds it from."""

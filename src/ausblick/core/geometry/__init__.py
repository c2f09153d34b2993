"""Vectors, arrays and flat polygons: what every other room counts with."""

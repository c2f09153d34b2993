"""Colour and signal apart from any set: Rec.709, white points, curves and tables."""

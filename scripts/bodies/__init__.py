"""The figure's body as distance fields, turned into meshes once and kept as data."""

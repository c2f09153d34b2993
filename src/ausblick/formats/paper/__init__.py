"""The set sheet as PDF, the drawing as SVG."""

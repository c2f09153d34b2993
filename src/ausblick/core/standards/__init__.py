"""Limits and schools: every number that decides, with its unit, whose it is, and why."""

"""What is wrong, why, and what to do: rules and their limits, remedies that were tried, searches."""

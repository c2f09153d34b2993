"""What the person who keys receives: outline, samples, a clean plate, and the numbers, as plain data."""

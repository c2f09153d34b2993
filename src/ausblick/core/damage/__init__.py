"""What a plan's faults do to the matte: predicted without drawing a picture, on the scale of drawn keys."""

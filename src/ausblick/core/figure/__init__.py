"""The person as a shape: an outline for the drawings, limbs and details for the simulated picture."""

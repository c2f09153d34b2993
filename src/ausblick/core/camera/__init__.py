"""The camera as optics and as a meter: view, coverage, focus, smear, exposure, noise, schools of level."""

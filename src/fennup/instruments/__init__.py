"""A simulated angle gauge and caliper, an outside program that nothing needs: with noise, a zero to be set, a battery, drop-outs."""

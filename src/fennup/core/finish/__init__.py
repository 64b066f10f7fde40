"""From the cut pieces to the day it is needed: what is worked, what only waits, and when."""

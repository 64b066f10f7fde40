"""What was made, when, for how long, at what cost, and what was learned: read from the records, which nobody rewrites."""

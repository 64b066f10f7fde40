"""Which part comes out of which board: planned, drawn, and proved apart from the planner."""

"""What happened: one entry a thing, only ever added. What follows from all of them is the same in whatever order they came."""

"""A made-up timber yard: a small program of its own that sells what the demo's boathouse needs. Nothing in Fennup needs it."""

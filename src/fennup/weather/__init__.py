"""A made-up weather service: a small program of its own that foretells a fortnight at the boathouse. Nothing in Fennup needs it."""

"""How the pieces are held together: what a fastener really goes through, how long it may be, where it goes, and what it would meet."""

"""Fennup: angles, lengths and proof of closing for things whose pieces meet at angles."""

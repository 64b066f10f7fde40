"""Fennup: saw angles, lengths and proof of closing for woodwork whose pieces meet at angles."""

__version__ = "0.2.0"

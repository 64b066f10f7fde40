"""Whether what somebody's plan says can all be true at once."""

"""A project: one assembly or several that belong together, with pieces between their faces."""

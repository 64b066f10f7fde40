"""Where it stands and what it holds: volumes and weights from the solids."""

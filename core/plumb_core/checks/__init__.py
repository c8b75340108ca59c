"""Claims and evaluations make checks: what agrees, what differs, where it starts and what only follows from it."""

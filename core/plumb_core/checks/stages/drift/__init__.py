"""Drift: the drifts that are compared with their limit, and what they are made of."""

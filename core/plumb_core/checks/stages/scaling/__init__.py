"""Scaling: the modal base shear, what it is made of, and the factor on it."""

"""Twist: the rotation of the floors in each case, and the torsional irregularity that follows."""

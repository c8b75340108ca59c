"""Submission to submission: what became of each deviation and of each open finding."""

"""Tables of a submission become claims: bytes in, claims and problems out."""

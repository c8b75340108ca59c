"""What is answered to a request: by a code edition alone, or by the reference model."""

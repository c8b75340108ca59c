"""Which mistakes give exactly the submitted numbers: slips that are applied on our side, and the search among them."""

"""The documents that the core reads and gives; every JSON Schema is made from them."""

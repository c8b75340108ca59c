"""The catalogue of what goes wrong in submissions: a test for each code, S01 to S93, one module for each chapter."""

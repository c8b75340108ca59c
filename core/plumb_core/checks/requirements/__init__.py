"""What each edition requires a submission to show, and what of it is shown."""

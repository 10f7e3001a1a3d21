"""What is written down on the day."""

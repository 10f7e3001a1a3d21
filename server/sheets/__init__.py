"""What is carried away on paper: the set-up sheet as page, PDF and table."""

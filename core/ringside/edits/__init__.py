"""What can be done to a layout: each edit makes a new one or is refused in words."""

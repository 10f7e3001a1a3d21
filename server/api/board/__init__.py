"""What a layout on the screen does, computed."""

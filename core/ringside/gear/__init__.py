"""What the studio owns, and whether it holds a layout: locker, stands, outfit."""

"""Settings, addresses and the way in."""

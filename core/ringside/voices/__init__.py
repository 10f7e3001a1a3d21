"""Simulated stand-ins for what cannot be shipped: drums that sound, and what mics hear of them."""

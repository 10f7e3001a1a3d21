"""Commands of the takes app."""

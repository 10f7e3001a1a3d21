"""The log: what was tried and heard."""

"""Answers that take long: worked out in processes of their own, which can be stopped."""

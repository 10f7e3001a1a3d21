"""Fitting a whole layout: moving what is free until the rules hold, in their order."""

"""The simulated recorder: what a layout would record, set up right or wrong on purpose."""

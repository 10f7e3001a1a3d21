"""The HTTP interface: parse, check, call one action, shape the reply."""

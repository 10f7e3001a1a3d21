"""From the brief to starting layouts: the table of rules, and how a plan is put together."""

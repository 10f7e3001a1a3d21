"""At the kit: what is written down there, and what it says of where everything stands."""

"""Where a mic can stand and where it is better: loci, clearance, drum terms, nulls, starts."""

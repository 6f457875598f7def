"""Scene in, answer out: nothing is stored."""

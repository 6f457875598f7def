"""What floats, what sinks, and what holds it."""

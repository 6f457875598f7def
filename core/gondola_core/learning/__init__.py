"""From what was measured to a row of the library."""

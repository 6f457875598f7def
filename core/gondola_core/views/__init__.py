"""Pictures and models of answers."""

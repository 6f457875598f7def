"""The bench: what goes into the cups, and what hands have to do."""

"""The finished block as an eye sees it on its shelf: one chain of reflections for every ray, no random numbers."""

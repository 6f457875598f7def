"""The finished block as an eye sees it: drawn at once, kept as stills, and each piece on the first page."""

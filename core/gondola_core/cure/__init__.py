"""Heat and cure: laws, the box of cells, the march, and what it means for each pour."""

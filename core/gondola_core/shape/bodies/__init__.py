"""Bodies: figures and meshes, how they are mended, what lines meet in them, how views show them."""

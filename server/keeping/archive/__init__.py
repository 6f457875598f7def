"""One archive of all that is a person's, in open formats; and the way back, here or in another studio."""

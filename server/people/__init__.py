"""Who works here, and the one way to a scene: own ones, shared ones, and what a link shows."""

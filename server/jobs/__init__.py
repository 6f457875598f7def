"""Long computations: one job, one task, kinds of study; worked off by the queue."""

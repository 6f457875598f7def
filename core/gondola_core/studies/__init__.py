"""Many evaluations for one question: staging, causes, schools, tilts."""

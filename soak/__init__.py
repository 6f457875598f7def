"""What takes long to show: fuzzing, load and kills, with a seed; `make soak` runs all of it and writes the report."""

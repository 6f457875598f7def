"""Scale and thermometer at the bench: a line protocol over TCP on loopback, simulated ones, and who listens to them."""

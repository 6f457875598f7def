"""Why a piece went wrong: faults that were found, and the causes that what happened speaks for."""

"""Will it close, what should be read, and what to do when it does not: from the solution and the records, whatever kind it is."""

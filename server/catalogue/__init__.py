"""The site's couplings: series and sizes with their values and where each comes from."""

"""What a site keeps beside its jobs, chained: a line for every look, change, postponement and record."""

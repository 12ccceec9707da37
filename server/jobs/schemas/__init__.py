"""What goes in and out of the jobs API, by subject."""

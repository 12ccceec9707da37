"""What is due, on the page and in a calendar; kept as rows the database sorts by."""

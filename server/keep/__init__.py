"""What is due, what rounds read, what a line has been through: kept as a summary the database can sort by."""

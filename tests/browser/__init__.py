"""The built client in a real browser, against a real server and database."""

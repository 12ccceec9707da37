"""The written description of the API, from which the client's types come."""

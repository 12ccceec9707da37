"""How a hub is held: what each way of holding it adds to the route."""

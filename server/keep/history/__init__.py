"""What a line has been through: on the page, as CSV, on its label; and what stopped it most."""

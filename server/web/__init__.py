"""What all apps share: errors, headers, the benches, the built client."""

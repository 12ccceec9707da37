"""The forward model: true machines and parts with their hidden errors, and the instruments that read them."""

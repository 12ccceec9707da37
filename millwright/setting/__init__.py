"""Where the machines stand: gap, offset, angle, moves."""

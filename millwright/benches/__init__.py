"""The benches: each takes readings and says what they come to. A folder, or a file, a bench."""

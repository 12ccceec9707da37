"""Sites, people, and what each may do where."""

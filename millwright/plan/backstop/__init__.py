"""A backstop put into a gear unit, or one that stays there: a job of its own, and a branch of every route that has one."""

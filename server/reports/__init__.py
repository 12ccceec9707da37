"""The record of a job: a page on paper (PDF), and the whole job as JSON, out and in."""

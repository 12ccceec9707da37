"""The rules of the job and its computation: no web, no database, no clock; `now` comes in as an argument."""

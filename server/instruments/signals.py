"""What this app asks of those above it."""

from django.dispatch import Signal

# sent with `member` and `one`, an instrument; answered with readings of open jobs that it took, as `UsedOut` has them
where_used = Signal()

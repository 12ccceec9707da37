"""What other apps may listen to."""

from django.dispatch import Signal

record_closed = Signal()  # sent with `job`, inside the transaction of the signature that closes its record

"""One file a family: what is known of it, and the order it is put together and taken apart in."""

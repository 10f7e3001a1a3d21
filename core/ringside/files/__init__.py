"""Files in and out: layout, locker, pairs."""

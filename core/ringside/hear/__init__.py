"""What reaches each capsule from each drum, over the air and from near surfaces."""

"""What two mics and more make of one drum: sums, verdicts, flips, order, the stereo picture."""

"""A studio carried away as one open archive, and read in again somewhere else."""

"""Who is signed in, and how."""
